package rovnik.server;

import static org.testng.Assert.assertTrue;

import org.testng.annotations.BeforeMethod;
import tools.jackson.databind.JsonNode;

/** The buoy's bench with a network analyzer, a part between its ports, and pads. */
abstract class AnalyzerBench extends BuoyBench {
  protected long analyzer;
  protected long part;
  protected long pad1;
  protected long pad2;

  @BeforeMethod(dependsOnMethods = "setUp")
  public void plugTogether() {
    analyzer = add("Analyzer", "NETWORK_ANALYZER", analyzerPort(), "scpi-network");
    part = add("Part", "PART_HOLDER", server.bench().partPort(), "scpi-parts");
    pad1 = add("Pad 1", "PART_HOLDER", server.bench().pad1Port(), "scpi-parts");
    pad2 = add("Pad 2", "PART_HOLDER", server.bench().pad2Port(), "scpi-parts");
    awaitTrue(
        () ->
            state(analyzer).equals("CONNECTED")
                && state(part).equals("CONNECTED")
                && state(pad1).equals("CONNECTED")
                && state(pad2).equals("CONNECTED"));
  }

  /** Where the analyzer answers; a test may put something between. */
  protected int analyzerPort() {
    return server.bench().networkPort();
  }

  protected String url(String rest) {
    return "/api/live/i" + analyzer + "/network" + rest;
  }

  protected JsonNode put(String path, String body) {
    return server.json(server.send("PUT", path, body), 200);
  }

  protected void sweep(double start, double stop, int points, double power) {
    change(
        String.format(
            java.util.Locale.ROOT,
            "{\"sweep\":{\"startHz\":%f,\"stopHz\":%f,\"points\":%d,\"type\":\"LINEAR\",\"bandwidthHz\":1000,"
                + "\"averages\":4,\"powerDbm\":%f,\"bothPorts\":true}}",
            start,
            stop,
            points,
            power));
  }

  /** Changes a part of the settings. */
  protected JsonNode change(String part) {
    return server.json(server.send("PATCH", url("/settings"), part), 200);
  }

  protected JsonNode once(String more) {
    server.json(
        server.send("POST", url("/start"), "{\"jobId\":" + job + ",\"once\":true" + more + "}"),
        200);
    awaitTrue(() -> state().get("phase").asString().equals("HELD"));
    return server.json(server.get(url("/shown")), 200);
  }

  protected JsonNode state() {
    return flat(server.json(server.get(url("")), 200));
  }

  /** A state with what is the network's own at the top. */
  protected static JsonNode flat(JsonNode state) {
    tools.jackson.databind.node.ObjectNode all =
        ((tools.jackson.databind.node.ObjectNode) state).deepCopy();
    all.setAll((tools.jackson.databind.node.ObjectNode) state.get("facts"));
    all.setAll((tools.jackson.databind.node.ObjectNode) state.get("settings"));
    return all;
  }

  protected JsonNode step(String step, String what) {
    plug(part, what);
    server.json(server.send("POST", url("/calibration/steps/" + step), ""), 202);
    awaitTrue(
        () -> {
          JsonNode c = state().get("calibrating");
          return c.get("measuring").isNull() && state().get("phase").asString().equals("HELD");
        });
    for (JsonNode s : state().get("calibrating").get("steps")) {
      if (s.get("step").asString().equals(step)) {
        return s;
      }
    }
    throw new AssertionError("no step " + step);
  }

  protected void begin(String method) {
    server.json(
        server.send(
            "POST",
            url("/calibration"),
            "{\"method\":\"" + method + "\",\"kit\":\"bench-box\",\"throughSeconds\":185e-12}"),
        200);
  }

  protected JsonNode calibrate(String method, String through) {
    begin(method);
    for (JsonNode s : state().get("calibrating").get("steps")) {
      String name = s.get("step").asString();
      if (!s.get("optional").asBoolean()) {
        String what =
            name.equals("THROUGH")
                ? through
                : name.charAt(0) + name.substring(1, name.length() - 2).toLowerCase();
        JsonNode done = step(name, what);
        assertTrue(done.get("measured").asBoolean(), done.toString());
      }
    }
    return server.json(server.send("POST", url("/calibration/finish"), "{}"), 201);
  }

  protected void path(boolean pads) {
    String source = ",\"outputLevelDbm\":-10,\"instrumentId\":" + analyzer;
    String dut = ",\"highestLevelDbm\":-6,\"damageLevelDbm\":10";
    String port = ",\"highestLevelDbm\":5,\"damageLevelDbm\":20,\"instrumentId\":" + analyzer;
    String all =
        element("Port 1", "SOURCE", 0, source)
            + ","
            + (pads ? element("Pad 10 dB", "PAD", -10, "") + "," : "")
            + element("Preamplifier", "DUT", 19.5, dut)
            + ","
            + (pads ? element("Pad 20 dB", "PAD", -20, "") + "," : "")
            + element("Port 2", "PORT", 0, port);
    put(
        "/api/jobs/" + job + "/path",
        "{\"elements\":[" + all + "],\"readingPlane\":0,\"revision\":0}");
  }

  protected static JsonNode reading(JsonNode network, int band, String id) {
    for (JsonNode r : network.get("bands").get(band).get("readings")) {
      if (r.get("id").asString().equals(id)) {
        return r;
      }
    }
    throw new AssertionError("no reading " + id + " in " + network.get("bands"));
  }

  protected void view(String more) {
    putView(true, viewOf(more), 200);
  }

  /** Takes another view with the sweep as it is. */
  protected JsonNode putView(boolean atPart, String view, int status) {
    tools.jackson.databind.node.ObjectNode body = RunningServer.JSON.createObjectNode();
    body.set("sweep", state().get("sweep"));
    body.put("atPart", atPart);
    body.set("view", RunningServer.JSON.readTree(view));
    return server.json(server.send("PUT", url("/settings"), body.toString()), status);
  }

  protected static String viewOf(String more) {
    return "{\"panes\":[{\"row\":2,\"column\":1,\"format\":\"LOG_MAGNITUDE\"}]" + more + "}";
  }
}
