package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.Socket;
import java.net.http.WebSocket;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.CopyOnWriteArrayList;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import rovnik.standins.world.Truth;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

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

  /** Settings of a time when there were no masks and no intervals. */
  @Test
  public void settingsOfBeforeAreRead() {
    String setup =
        "{\"measurement\":\"trigger\",\"name\":\"old\",\"tiles\":null,\"settings\":"
            + SETTINGS
            + "}";
    server.json(server.send("POST", "/api/jobs/" + job + "/setups", setup), 201);
    JsonNode all = server.json(server.get("/api/jobs/" + job + "/setups?measurement=trigger"), 200);
    JsonNode read = all.get(all.size() - 1).get("settings");
    assertEquals(read.get("levelDb").asDouble(), -80.0);
    assertEquals(read.get("intervals").size(), 0);
    assertEquals(read.get("rbwHz").asDouble(), 0.0);
  }

  /** The flash's strobe at the trigger input: the period of the board, whatever the air does. */
  @Test
  public void anEdgeAtTheTriggerInputIsWaitedFor() {
    long cable = add("Cable", "PART_HOLDER", server.bench().triggerInputPort(), "scpi-parts");
    awaitTrue(() -> state(cable).equals("CONNECTED"));
    control(input, "part", "probe over the logger board");
    begin(
        "{\"triggerBy\":\"external\",\"centreHz\":212e6,\"bandHz\":2e6,\"seconds\":1,"
            + "\"beforeSeconds\":5e-5,\"afterSeconds\":1e-4,\"referenceLevelDbm\":-30}");
    awaitTrue(() -> outcome() != null && value("watched") > 0.5, 60);
    String none = outcome().get("summary").asString();
    assertTrue(none.contains("the trigger input never rose"), none);
    control(cable, "part", "flash write strobe");
    awaitTrue(() -> value("triggers") > 20, 60);
    JsonNode o = outcome();
    JsonNode rows = table(o, "triggers");
    for (int i = 0; i + 1 < rows.size(); i++) {
      assertEquals(cell(rows, i, 2), Truth.LOGGER_EVERY_SECONDS, 1e-8);
    }
    // The same edges by way of the oscilloscope, whose trigger output gives them away.
    long probe = add("Probe", "PART_HOLDER", server.bench().firstProbePort(), "scpi-parts");
    long scope =
        add("Scope", "OSCILLOSCOPE", server.bench().oscilloscopePort(), "scpi-oscilloscope");
    awaitTrue(() -> state(probe).equals("CONNECTED") && state(scope).equals("CONNECTED"));
    control(probe, "part", "flash write strobe");
    control(scope, "triggerOut", "channel 1");
    control(cable, "part", "trigger output of the oscilloscope");
    patch("{\"seconds\":0.9}", 200);
    awaitTrue(() -> outcome() != null && value("triggers") > 20, 60);
    o = outcome();
    rows = table(o, "triggers");
    for (int i = 0; i + 1 < rows.size(); i++) {
      assertEquals(cell(rows, i, 2), Truth.LOGGER_EVERY_SECONDS, 1e-8);
    }
    // Around it the burst: nothing before the edge, all of it after.
    double[] level = ys(o, "trigger");
    assertTrue(level[level.length / 6] < -70, "before it: " + level[level.length / 6]);
    assertEquals(java.util.Arrays.stream(level).max().orElseThrow(), Truth.LOGGER_DBM, 1.0);

    // Two periods in one interval: what is waited for comes every second time.
    patch("{\"intervals\":[3.0e-3],\"intervalsWithinSeconds\":2e-5}", 200);
    awaitTrue(() -> outcome() != null && outcome().get("summary").asString().contains("but never"));
    assertTrue(outcome().get("summary").asString().contains("The nearest to it was 3.1 ms."));
    patch("{\"intervals\":[3.1e-3],\"intervalsBroken\":true}", 200);
    awaitTrue(() -> outcome() != null && value("otherInterval") > 20, 60);
    // The watchdog is kicked whenever the program comes to it.
    control(cable, "part", "watchdog");
    awaitTrue(
        () -> outcome() != null && outcome().get("tables").toString().contains("none came"), 60);
    assertTrue(value("triggers") > 0);
  }

  /** The pilot boat talks, and its spectrum rises over a mask that its neighbour stays below. */
  @Test
  public void aMaskIsWaitedFor() {
    begin(
        "{\"triggerBy\":\"mask\",\"bandHz\":50e3,\"rbwHz\":1000,\"mask\":["
            + "{\"hz\":164.18e6,\"levelDb\":-80},{\"hz\":164.22e6,\"levelDb\":-80}]}");
    awaitTrue(() -> outcome() != null && value("triggers") >= 2, 60);
    JsonNode rows = table(outcome(), "triggers");
    assertEquals(cell(rows, 0, 2), 2.2, 5e-3);
    assertEquals(cell(rows, 1, 3), 1.4, 5e-3);
    assertEquals(cell(rows, 0, 5), 164.2e6, 6e3);
    assertTrue(value("highest") > 10, value("highest") + " dB over the mask");
    assertTrue(ys(outcome(), "spectrum").length > 20);
    // A second mask that it stays below: 10 dB more than the highest that was seen.
    patch("{\"mask\":[{\"hz\":164.18e6,\"levelDb\":-50},{\"hz\":164.22e6,\"levelDb\":-50}]}", 200);
    awaitTrue(
        () ->
            outcome() != null
                && value("watched") > 3
                && outcome().get("summary").asString().contains("below the mask"),
        60);
    for (String[] bad :
        new String[][] {
          {"{\"mask\":[{\"hz\":164.2e6,\"levelDb\":-50}]}", "mask"},
          {"{\"mask\":[null]}", "mask"},
          {"{\"mask\":[{\"hz\":164e6,\"levelDb\":-50},{\"hz\":164.22e6,\"levelDb\":-50}]}", "mask"},
          {"{\"rbwHz\":-1}", "rbwHz"},
          {"{\"intervals\":[null]}", "intervals"},
          {"{\"intervals\":[1e-3],\"intervalsWithinSeconds\":0}", "intervalsWithinSeconds"},
          {"{\"triggerBy\":\"magic\"}", "triggerBy"}
        }) {
      assertEquals(patch(bad[0], 400).get("field").asString(), bad[1], bad[0]);
    }
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

  /** Binary messages of one window. */
  private static final class Ears implements WebSocket.Listener {
    final List<byte[]> frames = new CopyOnWriteArrayList<>();
    final List<byte[]> pieces = new CopyOnWriteArrayList<>();
    final CompletableFuture<String> closed = new CompletableFuture<>();
    private final ByteArrayOutputStream parts = new ByteArrayOutputStream();

    @Override
    public CompletionStage<?> onBinary(WebSocket socket, ByteBuffer data, boolean last) {
      byte[] part = new byte[data.remaining()];
      data.get(part);
      parts.writeBytes(part);
      if (last) {
        byte[] all = parts.toByteArray();
        parts.reset();
        (head(all).has("lane") ? pieces : frames).add(all);
      }
      socket.request(1);
      return null;
    }

    @Override
    public CompletionStage<?> onClose(WebSocket socket, int status, String reason) {
      closed.complete(reason);
      return null;
    }

    static JsonNode head(byte[] message) {
      int length = ByteBuffer.wrap(message).order(ByteOrder.LITTLE_ENDIAN).getInt();
      return JsonMapper.shared().readTree(message, 4, length);
    }

    static float[] samples(byte[] message) {
      ByteBuffer b = ByteBuffer.wrap(message).order(ByteOrder.LITTLE_ENDIAN);
      JsonNode array = head(message).get("arrays").get(0);
      assertEquals(array.get("name").asString(), "sound");
      assertEquals(array.get("type").asString(), "f32");
      int begins = 4 + b.getInt() + array.get("offset").asInt();
      float[] out = new float[array.get("length").asInt()];
      b.position(begins).slice().order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().get(out);
      return out;
    }
  }

  private static final String LISTEN =
      "{\"centreHz\":164.2e6,\"bandHz\":25e3,\"seconds\":2.5,\"squelchBy\":\"tone\",\"squelch\":123,"
          + "\"referenceLevelDbm\":-50}";

  private String audio(String what) {
    return "/api/live/i" + fast + "/audio" + what;
  }

  /** The sound comes to the window that asked for it, all of it, and to no other. */
  @Test
  public void whatIsReceivedIsHeard() {
    server.json(server.send("PATCH", audio("/settings"), LISTEN), 200);
    Ears ears = new Ears();
    Ears deaf = new Ears();
    WebSocket listens = server.window("i" + fast, "audio", "one", ears);
    WebSocket looks = server.window("i" + fast, "audio", "two", deaf);
    listens.sendText("listen", true).join();
    server.json(server.send("POST", audio("/start"), "{}"), 200);
    awaitTrue(() -> ears.pieces.size() > 400);
    server.json(server.send("POST", audio("/hold"), "{}"), 200);
    assertEquals(deaf.pieces.size(), 0);
    assertTrue(deaf.frames.size() > 0 && ears.frames.size() > 0);
    long next = -1;
    int up = 0;
    int on = 0;
    int silent = 0;
    float before = 0;
    for (byte[] piece : ears.pieces) {
      JsonNode head = Ears.head(piece);
      assertEquals(head.get("rateHz").asDouble(), 48_000.0);
      long first = head.get("first").asLong();
      assertTrue(next < 0 || first == next, first + " instead of " + next);
      float[] y = Ears.samples(piece);
      next = first + y.length;
      for (float v : y) {
        up += before < 0 && v >= 0 ? 1 : 0;
        on += v != 0 ? 1 : 0;
        silent += v == 0 ? 1 : 0;
        before = v;
        assertTrue(Math.abs(v) <= 1, "too loud");
      }
    }
    // Where it begins and ends softly, what rings of that crosses zero as well.
    assertEquals(48_000.0 * up / on, 1000, 10);
    assertTrue(silent > 24_000, "the pilot is never silent");
    listens.sendText("silence", true).join();
    listens.sendText("shout", true).join();
    assertEquals(ears.closed.join(), "listen or silence");
    looks.abort();
  }

  /** One look at what goes on is as long as is wanted; it is kept, and read again while held. */
  @Test
  public void aLookAtWhatIsHeardIsWhole() {
    server.json(server.send("PATCH", audio("/settings"), LISTEN), 200);
    server.json(server.send("POST", audio("/start"), "{\"once\":true}"), 200);
    JsonNode o =
        server.json(server.get(audio("/outcome?settled=true&seconds=60")), 200).get("outcome");
    assertEquals(reading(o, "seen").get("value").asDouble(), 100.0, 0.001);
    within(o, "toneAmount", Truth.PILOT_DEVIATION_HZ);
    within(o, "toneSquelch", Truth.PILOT_SQUELCH_HZ);
    assertTrue(o.get("summary").asString().contains("of 2.5 s"), o.get("summary").asString());
    awaitTrue(() -> server.get(audio("")).body().contains("\"HELD\""));
    assertEquals(server.bytes(audio("/sound")).length, 2 * 2.5 * 48_000, 2000);
    server.json(
        server.send("PATCH", audio("/settings"), "{\"squelchBy\":\"level\",\"squelch\":-10}"), 200);
    awaitTrue(() -> server.get(audio("/outcome")).body().contains("Silent: the squelch"));
    JsonNode kept =
        server.json(
            server.send("POST", audio("/keep"), "{\"name\":\"pilot\",\"jobId\":" + job + "}"), 201);
    assertEquals(
        server.bytes("/api/runs/" + kept.get("id").asLong() + "/sound", "{}").length,
        2 * 2.5 * 48_000,
        2000);
  }
}
