package rovnik.server.analyzer;

import org.springframework.stereotype.Component;
import rovnik.core.Refusal;
import rovnik.server.config.Json;
import rovnik.server.networks.NetworkOutcome;
import rovnik.server.networks.NetworkView;
import rovnik.server.setups.SettingsFile;
import tools.jackson.databind.JsonNode;

/** Settings of networks in setups and files. */
@Component
class CheckedNetwork implements SettingsFile.Checked {
  private final Json json;

  CheckedNetwork(Json json) {
    this.json = json;
  }

  @Override
  public String kind() {
    return NetworkOutcome.KIND;
  }

  @Override
  public Object checked(JsonNode settings) {
    NetworkSettings s = json.read(settings, NetworkSettings.class);
    if (s.sweep() == null) {
      throw new Refusal("sweep", "The settings do not say how to sweep.");
    }
    NetworkView.check(s.viewed());
    return new NetworkSettings(SweepDto.of(s.sweep().toCore()), s.viewed(), s.readAtPart());
  }
}
