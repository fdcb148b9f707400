package rovnik.server.modulation;

import org.springframework.stereotype.Component;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.server.config.Json;
import rovnik.server.setups.SettingsFile;
import tools.jackson.databind.JsonNode;

/** Settings of carriers in setups and files. */
@Component
class CheckedCarrier implements SettingsFile.Checked {
  private final Json json;

  CheckedCarrier(Json json) {
    this.json = json;
  }

  @Override
  public String kind() {
    return SingleCarrierMeasurement.KIND;
  }

  @Override
  public Object checked(JsonNode settings) {
    CarrierSettingsDto s = json.read(settings, CarrierSettingsDto.class);
    s.toCore(); // refuses what cannot be
    return s;
  }
}
