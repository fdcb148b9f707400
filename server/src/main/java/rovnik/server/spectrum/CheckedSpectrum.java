package rovnik.server.spectrum;

import org.springframework.stereotype.Component;
import rovnik.core.emission.SpectrumOutcome;
import rovnik.server.config.Json;
import rovnik.server.setups.SettingsFile;
import tools.jackson.databind.JsonNode;

/** Settings of spectra in setups and files. */
@Component
class CheckedSpectrum implements SettingsFile.Checked {
  private final Json json;

  CheckedSpectrum(Json json) {
    this.json = json;
  }

  @Override
  public String kind() {
    return SpectrumOutcome.KIND;
  }

  @Override
  public Object checked(JsonNode settings) {
    SettingsDto s = json.read(settings, SettingsDto.class);
    return SettingsDto.of(s.toCore(), s.viewToCore());
  }
}
