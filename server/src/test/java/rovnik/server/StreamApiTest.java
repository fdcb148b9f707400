package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A receiver's stream: triggers, the ring, what is kept of it. */
public class StreamApiTest extends BuoyBench {
  private static final String SETTINGS =
      "{\"centreHz\":164.2e6,\"bandHz\":25e3,\"seconds\":4,\"levelDb\":-80,\"leastSeconds\":0.2,"
          + "\"beforeSeconds\":0.1,\"afterSeconds\":0.3,\"referenceLevelDbm\":-50}";
  private long fast;
  private long input;

  @BeforeMethod
  public void plug() {
    fast = add("Fast", "IQ_RECEIVER", server.bench().fastReceiverPort(), "scpi-iq-fast");
    input = add("Input", "PART_HOLDER", server.bench().fastInputPort(), "scpi-parts");
    awaitTrue(() -> state(fast).equals("CONNECTED") && state(input).equals("CONNECTED"));
    control(input, "part", "aerial on the quay");
  }

  private static String trigger(long id, String what) {
    return "/api/live/i" + id + "/trigger" + what;
  }

  private JsonNode patch(String settings, int status) {
    return server.json(server.send("PATCH", trigger(fast, "/settings"), settings), status);
  }

  private void begin(String more) {
    patch(SETTINGS, 200);
    patch(more, 200);
    server.json(server.send("POST", trigger(fast, "/start"), "{}"), 200);
  }

  private JsonNode outcome() {
    var reply = server.get(trigger(fast, "/outcome"));
    return reply.statusCode() == 200 ? server.json(reply, 200).get("outcome") : null;
  }

  private JsonNode settled() {
    return server
        .json(server.get(trigger(fast, "/outcome?settled=true&seconds=60")), 200)
        .get("outcome");
  }

  private static JsonNode table(JsonNode outcome, String id) {
    for (JsonNode t : outcome.get("tables")) {
      if (t.get("id").asString().equals(id)) {
        return t.get("rows");
      }
    }
    throw new AssertionError("no table " + id + " in " + outcome.get("summary"));
  }

  private static double cell(JsonNode rows, int row, int column) {
    return rows.get(row).get("cells").get(column).get("value").asDouble();
  }

  private JsonNode measured(long recording, String kind, String settings) {
    String body = "{\"measurement\":\"" + kind + "\",\"settings\":" + settings + "}";
    return server
        .json(server.send("POST", "/api/recordings/" + recording + "/measure", body), 200)
        .get("outcome");
  }

  private JsonNode recording(String name) {
    JsonNode[] found = new JsonNode[1];
    awaitTrue(
        () -> {
          for (JsonNode r : server.json(server.get("/api/recordings"), 200)) {
            found[0] = r.get("name").asString().startsWith(name) ? r : found[0];
          }
          return found[0] != null;
        });
    return found[0];
  }

  /** The pilot boat's key, every 2.2 s for 1.4 s; each time it becomes a recording. */
  @Test
  public void triggersBecomeRecordings() {
    begin("{\"mostKept\":2}");
    JsonNode o = settled();
    JsonNode rows = table(o, "triggers");
    assertTrue(rows.size() >= 2);
    assertEquals(cell(rows, 0, 1) - cell(rows, 1, 1), 2.2, 5e-4);
    assertEquals(cell(rows, 0, 2), 2.2, 5e-4);
    assertEquals(cell(rows, 1, 3), 1.4, 1e-3);
    assertEquals(reading(o, "seen").get("value").asDouble(), 100.0, 1e-9);
    JsonNode r = recording("trigger 2 of Fast");
    assertEquals(r.get("seconds").asDouble(), 0.4, 1e-3, r.toString());
    assertEquals(r.get("levelUnit").asString(), "dBm");
    long id = r.get("id").asLong();
    JsonNode again =
        measured(
            id,
            "trigger",
            "{\"levelDb\":-80,\"centreHz\":164.2e6,"
                + "\"bandHz\":25e3,\"beforeSeconds\":0.01,\"afterSeconds\":0.01}");
    assertEquals(cell(table(again, "triggers"), 0, 1), 0.1, 1e-4);
    JsonNode heard =
        measured(
            id,
            "audio",
            "{\"centreHz\":164.2e6,\"bandHz\":12500,\"squelchBy\":\"level\",\"squelch\":-80}");
    within(heard, "channelPower", -62);
    within(heard, "toneRate", 1000);
    awaitTrue(() -> table(outcome(), "recordings").size() == 2);
    JsonNode kept = table(outcome(), "recordings");
    assertEquals(cell(kept, 1, 1), cell(rows, rows.size() - 2, 1) - 0.1, 1e-3);
    // More than two are counted, not kept.
    awaitTrue(() -> cell(table(outcome(), "triggers"), 0, 0) >= 4, 60);
    assertEquals(table(outcome(), "recordings").size(), 2);
  }

  @Test
  public void theNewestIsKeptByHandAndAGapIsSaid() throws IOException {
    JsonNode early =
        server.json(
            server.send("POST", trigger(fast, "/recording"), "{\"name\":\"x\",\"seconds\":1}"),
            409);
    assertTrue(early.get("detail").asString().contains("holds nothing yet"), early.toString());
    begin("{\"triggerBy\":\"none\"}");
    awaitTrue(() -> outcome() != null && value("watched") > 3, 60);
    JsonNode r =
        server.json(
            server.send(
                "POST", trigger(fast, "/recording"), "{\"name\":\"by hand\",\"seconds\":2}"),
            201);
    assertEquals(r.get("seconds").asDouble(), 2, 1e-3);
    try (Socket hand = new Socket("127.0.0.1", server.bench().fastReceiverPort())) {
      hand.getOutputStream().write("SIM:LOSE 25000\n".getBytes(StandardCharsets.ISO_8859_1));
      hand.getOutputStream().flush();
      awaitTrue(() -> outcome().get("summary").asString().contains("1 gap: "));
    }
    assertTrue(value("seen") < 100);
    for (String bad : new String[] {"{\"name\":\"\",\"seconds\":1}", "{\"name\":\"x\"}"}) {
      server.json(server.send("POST", trigger(fast, "/recording"), bad), 400);
    }
    // A run of it keeps what was seen; its samples are a recording by themselves.
    server.json(server.send("POST", trigger(fast, "/hold"), "{}"), 200);
    JsonNode run =
        server.json(
            server.send(
                "POST", trigger(fast, "/keep"), "{\"name\":\"seen\",\"jobId\":" + job + "}"),
            201);
    assertEquals(run.get("kind").asString(), "trigger");
    JsonNode after =
        server.json(
            server.send("POST", trigger(fast, "/recording"), "{\"name\":\"held\",\"seconds\":1}"),
            201);
    assertTrue(after.get("samples").asLong() > 0, "the ring is there while it is held");
  }

  private double value(String id) {
    return reading(outcome(), id).get("value").asDouble();
  }

  /** A level that the converter does not take: look and recording say so. */
  @Test
  public void anOverloadIsSaid() {
    long generator =
        add("Gen", "SIGNAL_GENERATOR", server.bench().generatorPort(), "scpi-generator");
    awaitTrue(() -> state(generator).equals("CONNECTED"));
    control(input, "part", "RF output");
    control(generator, "frequency", "164.2e6", "level", "5", "output", "on");
    begin("{\"triggerBy\":\"none\"}");
    awaitTrue(() -> outcome() != null && outcome().get("marks").toString().contains("overload"));
    assertTrue(keptNow("too high").get("overload").asBoolean());
    control(generator, "level", "-30");
    awaitTrue(() -> !outcome().get("marks").toString().contains("overload"));
    // Longer than what the ring still holds of the time before.
    double since = value("watched");
    awaitTrue(() -> value("watched") > since + 8, 60);
    assertFalse(keptNow("low enough").get("overload").asBoolean());
  }

  private JsonNode keptNow(String name) {
    String cut = "{\"name\":\"" + name + "\",\"seconds\":0.5}";
    return server.json(server.send("POST", trigger(fast, "/recording"), cut), 201);
  }

  @Test
  public void whatCannotBeSaysSo() {
    JsonNode single = server.json(server.send("POST", trigger(receiver, "/start"), "{}"), 400);
    assertEquals(single.get("field").asString(), "source", single.toString());
    assertTrue(single.get("detail").asString().contains("single records only"));
    patch(SETTINGS, 200);
    refused("{\"bandHz\":40e6}", "bandHz");
    refused("{\"seconds\":1e9}", "seconds");
    refused("{\"mostKept\":1000}", "mostKept");
    refused("{\"triggerBy\":\"often\"}", "triggerBy");
    refused("{\"levelDb\":-1000}", "levelDb");
    refused("{\"centreHz\":9e9}", "centreHz");
    refused("{\"mostSeconds\":0.01}", "mostSeconds");
  }

  private void refused(String settings, String field) {
    JsonNode problem = patch(settings, 400);
    assertEquals(problem.get("field").asString(), field, problem.toString());
  }
}
