package rovnik.server;

import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Outcomes made easy to ask: what tests look for stands at the top. */
final class Flat {
  private Flat() {}

  /** A live outcome: its main series, further traces, lines and tables by themselves. */
  static ObjectNode look(JsonNode reply) {
    ObjectNode flat = outcome(reply.get("outcome"));
    flat.set("settings", reply.get("settings"));
    flat.set("settled", reply.get("settled"));
    flat.set("sequence", reply.get("sequence"));
    JsonNode view = reply.get("view");
    if (view instanceof ObjectNode v) {
      flat.setAll(v.deepCopy());
    }
    return flat;
  }

  /** A finding. */
  static ObjectNode finding(JsonNode reply) {
    ObjectNode flat = outcome(reply.get("outcome"));
    flat.set("id", reply.get("id"));
    return flat;
  }

  /** A run: summary, rest and outcome in one. */
  static ObjectNode run(JsonNode detail) {
    ObjectNode flat = ((ObjectNode) detail).deepCopy();
    flat.setAll(outcome(detail.get("outcome")));
    flat.setAll((ObjectNode) detail.get("summary").deepCopy());
    flat.setAll((ObjectNode) detail.get("summary").get("attachments").deepCopy());
    return flat;
  }

  static ObjectNode outcome(JsonNode o) {
    ObjectNode flat = ((ObjectNode) o).deepCopy();
    ArrayNode rows = flat.putArray("rows");
    ArrayNode curves = flat.putArray("curves");
    ArrayNode limits = flat.putArray("limitLines");
    for (JsonNode s : o.get("series")) {
      if (!s.get("role").asString().equals("DATA")) {
        limits.add(s);
      } else if (s.get("id").asString().startsWith("row")) {
        rows.add(s.get("label"));
      } else {
        curves.add(s);
      }
    }
    if (!curves.isEmpty()) {
      JsonNode main = curves.get(0);
      flat.set("unit", main.get("unit"));
      flat.set("plane", main.get("plane"));
      flat.set("points", main.get("axis").get("points"));
      flat.put("segments", (long) fact(main, "averages"));
      flat.put("rbwHz", fact(main, "RBW"));
    }
    ArrayNode tables = flat.putArray("tables");
    ArrayNode peaks = flat.putArray("peaks");
    for (JsonNode t : o.get("tables")) {
      if (!t.get("id").asString().equals("lines")) {
        tables.add(t);
        continue;
      }
      for (JsonNode row : t.get("rows")) {
        ObjectNode p = peaks.addObject();
        p.set("frequencyHz", row.get("cells").get(0).get("value"));
        p.set("level", row.get("cells").get(1).get("value"));
      }
    }
    return flat;
  }

  private static double fact(JsonNode series, String label) {
    for (JsonNode f : series.get("facts")) {
      if (f.get("label").asString().equals(label)) {
        return f.get("value").asDouble();
      }
    }
    return Double.NaN;
  }
}
