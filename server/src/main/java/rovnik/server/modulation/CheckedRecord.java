package rovnik.server.modulation;

import rovnik.server.config.Json;
import rovnik.server.setups.SettingsFile;
import tools.jackson.databind.JsonNode;

/** Settings of such measurements in setups and files. */
public record CheckedRecord<S extends RecordSettings<S>>(String kind, Class<S> type, Json json)
    implements SettingsFile.Checked {
  @Override
  public Object checked(JsonNode settings) {
    S s = json.read(settings, type);
    s.measurement(); // refuses what cannot be
    return s;
  }
}
