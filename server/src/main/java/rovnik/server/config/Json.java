package rovnik.server.config;

import java.util.Collection;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import rovnik.core.Refusal;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Reads settings and files of settings from JSON, with refusals that name the field. */
@Component
public class Json {
  private static final Set<Class<?>> WHOLE =
      Set.of(int.class, Integer.class, long.class, Long.class);

  private final JsonMapper mapper;

  Json(JsonMapper mapper) {
    this.mapper = mapper;
  }

  public JsonMapper mapper() {
    return mapper;
  }

  public JsonNode tree(Object value) {
    return mapper.valueToTree(value);
  }

  /** Reads a value; what cannot be read, or is not known, is refused by its name. */
  public <T> T read(JsonNode tree, Class<T> type) {
    try {
      T value = mapper.treeToValue(tree, type);
      if (value == null) {
        throw new Refusal("", "There is nothing where " + type.getSimpleName() + " should be.");
      }
      return value;
    } catch (JacksonException e) {
      throw refusal(e);
    }
  }

  /**
   * A value with some of its parts changed, as RFC 7396 (JSON Merge Patch) has it: what is left out
   * stays, null takes a part away, lists are replaced whole.
   */
  public JsonNode merged(Object value, JsonNode patch) {
    if (!(patch instanceof ObjectNode)) {
      throw new Refusal("settings", "Give the settings to change as a JSON object.");
    }
    return merge(tree(value), patch);
  }

  private static JsonNode merge(JsonNode target, JsonNode patch) {
    if (!(patch instanceof ObjectNode changes)) {
      return patch;
    }
    ObjectNode result =
        target instanceof ObjectNode object ? object : changes.deepCopy().removeAll();
    changes.forEachEntry(
        (name, change) ->
            result.set(
                name,
                change.isNull() || !change.isObject() ? change : merge(result.path(name), change)));
    return result;
  }

  /** The sentence for JSON that does not fit. */
  public static Refusal refusal(JacksonException e) {
    for (Throwable cause = e; cause != null; cause = cause.getCause()) {
      if (cause instanceof Refusal r) {
        return r;
      }
    }
    String field = field(e);
    if (e instanceof UnrecognizedPropertyException unknown) {
      Collection<Object> known = unknown.getKnownPropertyIds();
      return new Refusal(
          field,
          "There is no field \""
              + unknown.getPropertyName()
              + "\" here; known are "
              + (known == null
                  ? "none"
                  : known.stream().map(String::valueOf).collect(Collectors.joining(", ")))
              + ".");
    }
    if (e instanceof MismatchedInputException m && WHOLE.contains(m.getTargetType())) {
      return new Refusal(
          field, "\"" + field + "\" needs a whole number. Write it without a decimal point.");
    }
    return new Refusal(
        field,
        field.isEmpty()
            ? "This is not valid JSON"
                + (e.getLocation() == null ? "." : " (line " + e.getLocation().getLineNr() + ").")
            : "The value of \"" + field + "\" cannot be read. Correct it.");
  }

  private static String field(JacksonException e) {
    if (!(e instanceof DatabindException) || e.getPath().isEmpty()) {
      return "";
    }
    for (int i = e.getPath().size() - 1; i >= 0; i--) {
      String name = e.getPath().get(i).getPropertyName();
      if (name != null) {
        return name;
      }
    }
    return "";
  }
}
