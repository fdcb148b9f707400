package rovnik.server.setups;

import io.swagger.v3.oas.annotations.media.Schema;
import org.springframework.stereotype.Component;
import rovnik.core.Refusal;
import rovnik.server.spectrum.SettingsDto;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Settings as a readable JSON file: what it is, its version, and the settings. A file of another
 * kind or version, or with a word that is not known, is refused with the field named.
 */
@Component
public class SettingsFile {
  public static final String FORMAT = "rovnik-spectrum-settings";
  public static final int VERSION = 1;

  /** The file. */
  @Schema(name = "SettingsFile")
  public record Content(String format, int version, SettingsDto settings) {}

  private final JsonMapper json;

  SettingsFile(JsonMapper json) {
    this.json = json.rebuild().enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES).build();
  }

  public String write(SettingsDto settings) {
    return json.writerWithDefaultPrettyPrinter()
        .writeValueAsString(new Content(FORMAT, VERSION, settings));
  }

  /** Reads and checks a file. */
  public SettingsDto read(String text) {
    JsonNode tree;
    try {
      tree = json.readTree(text);
    } catch (JacksonException e) {
      throw new Refusal(
          "file",
          "This is not a settings file: it is no JSON"
              + (e.getLocation() == null ? "." : " (line " + e.getLocation().getLineNr() + ")."));
    }
    if (tree == null || !tree.isObject() || !FORMAT.equals(tree.path("format").asString(""))) {
      throw new Refusal(
          "format", "This is not a settings file: its \"format\" is not \"" + FORMAT + "\".");
    }
    if (tree.path("version").asInt(-1) != VERSION) {
      throw new Refusal(
          "version",
          "The file has version "
              + tree.path("version")
              + "; this Rovnik reads version "
              + VERSION
              + ". Save the settings again with this one.");
    }
    try {
      SettingsDto settings = json.treeToValue(tree.get("settings"), SettingsDto.class);
      if (settings == null) {
        throw new Refusal("settings", "The file has no \"settings\".");
      }
      settings.toCore();
      settings.viewToCore();
      return settings;
    } catch (JacksonException e) {
      String field =
          e.getPath().isEmpty()
              ? "settings"
              : String.valueOf(e.getPath().get(e.getPath().size() - 1).getPropertyName());
      throw new Refusal(
          field, "\"" + field + "\" in the settings cannot be read. Correct it or take it out.");
    }
  }
}
