package rovnik.server.setups;

import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import rovnik.server.config.Refusals;
import rovnik.server.desk.Tiles;
import tools.jackson.databind.JsonNode;

/** Keeps setups of a job. */
@Service
public class Setups {
  private final SetupMapper mapper;
  private final SettingsFile file;

  Setups(SetupMapper mapper, SettingsFile file) {
    this.mapper = mapper;
    this.file = file;
  }

  /** Keeps settings under a name; the same name again replaces them. */
  public void keep(
      long jobId,
      String kind,
      @Nullable String name,
      @Nullable JsonNode settings,
      @Nullable Tiles tiles) {
    String checked = Refusals.named(name, "name", "setup");
    mapper.save(jobId, kind, checked, file.write(kind, settings, tiles));
  }
}
