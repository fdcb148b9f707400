package rovnik.server.setups;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rovnik.core.Refusal;
import rovnik.server.config.Json;
import rovnik.server.desk.Tiles;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

/**
 * Settings as a readable JSON file: what it is, its version, the kind of measurement, the settings,
 * and the arrangement of tiles. A file of another kind or version, or with a word that is not
 * known, is refused with the field named.
 */
@Component
public class SettingsFile {
  public static final String FORMAT = "rovnik-settings";
  public static final int VERSION = 2;

  /** What files of spectra were called before there were other kinds. */
  private static final String FIRST_FORMAT = "rovnik-spectrum-settings";

  /** A kind of measurement that checks its own settings. */
  public interface Checked {
    String kind();

    /** The settings as they are used, or a refusal. */
    Object checked(JsonNode settings);
  }

  /**
   * The file.
   *
   * @param measurement kind, such as "spectrum"
   * @param tiles arrangement of the desk, null if it is not in the file
   */
  @Schema(name = "SettingsFile")
  public record Content(
      String format, int version, String measurement, JsonNode settings, @Nullable Tiles tiles) {}

  private final List<Checked> kinds;
  private final Json json;

  SettingsFile(List<Checked> kinds, Json json) {
    this.kinds = kinds;
    this.json = json;
  }

  /** Checks settings of a kind. */
  public JsonNode checked(String kind, @Nullable JsonNode settings) {
    if (settings == null || settings.isNull()) {
      throw new Refusal("settings", "There are no settings.");
    }
    return json.tree(
        kinds.stream()
            .filter(k -> k.kind().equals(kind))
            .findFirst()
            .orElseThrow(
                () ->
                    new Refusal(
                        "measurement",
                        "There is no measurement \""
                            + kind
                            + "\"; use one of "
                            + kinds.stream().map(Checked::kind).sorted().toList()
                            + "."))
            .checked(settings));
  }

  public String write(String kind, @Nullable JsonNode settings, @Nullable Tiles tiles) {
    Tiles shown = tiles == null ? null : Tiles.checked(tiles);
    return json.mapper()
        .writerWithDefaultPrettyPrinter()
        .writeValueAsString(new Content(FORMAT, VERSION, kind, checked(kind, settings), shown));
  }

  /** Reads and checks a file. */
  public Content read(String text) {
    JsonNode tree;
    try {
      tree = json.mapper().readTree(text);
    } catch (JacksonException e) {
      throw new Refusal(
          "file",
          "This is not a settings file: it is no JSON"
              + (e.getLocation() == null ? "." : " (line " + e.getLocation().getLineNr() + ")."));
    }
    String format = tree == null ? "" : tree.path("format").asString("");
    boolean first = format.equals(FIRST_FORMAT);
    if (!first && !format.equals(FORMAT)) {
      throw new Refusal(
          "format", "This is not a settings file: its \"format\" is not \"" + FORMAT + "\".");
    }
    if (tree.path("version").asInt(-1) != (first ? 1 : VERSION)) {
      throw new Refusal(
          "version",
          "The file has version "
              + tree.path("version")
              + "; this Rovnik reads version "
              + VERSION
              + ". Save the settings again with this one.");
    }
    String kind = first ? "spectrum" : tree.path("measurement").asString("");
    JsonNode tiles = tree.get("tiles");
    return new Content(
        FORMAT,
        VERSION,
        kind,
        checked(kind, tree.get("settings")),
        tiles == null || tiles.isNull() ? null : Tiles.checked(json.read(tiles, Tiles.class)));
  }
}
