package rovnik.server;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * Requests to what the described interface offers, made from its own schemas: some nearly right,
 * most with something in them that no sane program sends. The same seed makes the same requests.
 */
final class Fuzzer {
  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
  private static final double[] NUMBERS = {
    0, -1, 1, 0.5, 10, 1e3, 458.525e6, 4e5, 1e-300, 1e300, -1e18, Double.MIN_VALUE, 1e9
  };
  private static final long[] COUNTS = {
    0, 1, -1, 2, 10, 401, Integer.MAX_VALUE, Integer.MIN_VALUE, Long.MAX_VALUE
  };
  private static final List<String> WORDS =
      List.of(
          "",
          " ",
          "x",
          "a name",
          "é\u0000\u2028",
          "../../etc/passwd",
          "NaN",
          "9.91E37",
          "<b>",
          "i1",
          "spectrum",
          "n".repeat(201),
          "n".repeat(5000),
          "\ud83d\ude00".repeat(150));
  private static final int DEEPEST = 6;

  /** One way to ask: method, path with names in braces, and the schema of its body or null. */
  record Operation(String method, String path, JsonNode body) {}

  private final Random random;
  private final JsonNode schemas;
  private final List<Operation> operations = new ArrayList<>();
  private final List<JsonNode> settings;

  /**
   * @param settings that are right, to be spoiled where the description says only that there is
   *     JSON
   */
  Fuzzer(JsonNode description, List<JsonNode> settings, long seed) {
    this.random = new Random(seed);
    this.schemas = description.get("components").get("schemas");
    this.settings = settings;
    description
        .get("paths")
        .forEachEntry(
            (path, methods) ->
                methods.forEachEntry(
                    (method, operation) -> {
                      JsonNode body = operation.at("/requestBody/content/application~1json/schema");
                      operations.add(
                          new Operation(
                              method.toUpperCase(java.util.Locale.ROOT),
                              path,
                              body.isMissingNode() ? null : body));
                    }));
  }

  Operation operation() {
    return operations.get(random.nextInt(operations.size()));
  }

  /** One of these. */
  <T> T one(List<T> of) {
    return of.get(random.nextInt(of.size()));
  }

  /** An id that may be there. */
  String id() {
    return random.nextInt(10) == 0
        ? one(List.of("0", "-1", "x", "99999999999999999999", "1e3", "%00"))
        : String.valueOf(1 + random.nextInt(8));
  }

  boolean chance(double share) {
    return random.nextDouble() < share;
  }

  JsonNode body(JsonNode schema) {
    return value(schema, 0);
  }

  private JsonNode value(JsonNode schema, int depth) {
    if (chance(0.05)) {
      return NODES.nullNode();
    }
    if (chance(0.04)) {
      return odd();
    }
    JsonNode s = resolved(schema);
    if (s.has("enum") && chance(0.9)) {
      return s.get("enum").get(random.nextInt(s.get("enum").size()));
    }
    String type = type(s);
    return switch (type) {
      case "number" -> NODES.numberNode(NUMBERS[random.nextInt(NUMBERS.length)]);
      case "integer" -> NODES.numberNode(COUNTS[random.nextInt(COUNTS.length)]);
      case "boolean" -> NODES.booleanNode(random.nextBoolean());
      case "string" -> NODES.stringNode(one(WORDS));
      case "array" -> array(s, depth);
      default -> object(s, depth);
    };
  }

  private JsonNode resolved(JsonNode schema) {
    JsonNode s = schema;
    while (true) {
      if (s.has("$ref")) {
        s = schemas.get(s.get("$ref").asString().replaceFirst(".*/", ""));
      } else if (s.has("oneOf") || s.has("anyOf") || s.has("allOf")) {
        JsonNode any =
            s.has("oneOf") ? s.get("oneOf") : s.has("anyOf") ? s.get("anyOf") : s.get("allOf");
        s = any.get(random.nextInt(any.size()));
      } else {
        return s;
      }
    }
  }

  private static String type(JsonNode s) {
    JsonNode type = s.path("type");
    if (type.isArray()) {
      for (JsonNode t : type) {
        if (!t.asString().equals("null")) {
          return t.asString();
        }
      }
    }
    return type.asString("object");
  }

  private ArrayNode array(JsonNode s, int depth) {
    ArrayNode list = NODES.arrayNode();
    int size = depth > DEEPEST ? 0 : chance(0.02) ? 600 : random.nextInt(4);
    for (int i = 0; i < size; i++) {
      list.add(value(s.path("items"), depth + 1));
    }
    return list;
  }

  private JsonNode object(JsonNode s, int depth) {
    if (!s.has("properties")) {
      return spoiled(one(settings), 0.15);
    }
    ObjectNode made = NODES.objectNode();
    s.get("properties")
        .forEachEntry(
            (name, property) -> {
              if (depth <= DEEPEST && chance(0.85)) {
                made.set(name, value(property, depth + 1));
              }
            });
    if (chance(0.02)) {
      made.put("unknown", 1);
    }
    return made;
  }

  /** What is right, but for some of its parts. */
  private JsonNode spoiled(JsonNode right, double share) {
    if (chance(share / 4)) {
      return odd();
    }
    if (right instanceof ObjectNode object) {
      ObjectNode made = NODES.objectNode();
      object.forEachEntry((name, part) -> made.set(name, spoiled(part, share)));
      return made;
    }
    if (right instanceof ArrayNode list) {
      ArrayNode made = NODES.arrayNode();
      list.forEach(part -> made.add(spoiled(part, share)));
      return made;
    }
    if (!chance(share)) {
      return right;
    }
    if (right.isIntegralNumber()) {
      return NODES.numberNode(COUNTS[random.nextInt(COUNTS.length)]);
    }
    return right.isNumber()
        ? NODES.numberNode(NUMBERS[random.nextInt(NUMBERS.length)])
        : right.isString() ? NODES.stringNode(one(WORDS)) : odd();
  }

  private JsonNode odd() {
    return switch (random.nextInt(7)) {
      case 0 -> NODES.nullNode();
      case 1 -> NODES.arrayNode().add(NODES.nullNode());
      case 2 -> NODES.objectNode();
      case 3 -> NODES.stringNode(one(WORDS));
      case 4 -> NODES.numberNode(NUMBERS[random.nextInt(NUMBERS.length)]);
      case 5 -> NODES.booleanNode(true);
      default -> NODES.arrayNode();
    };
  }
}
