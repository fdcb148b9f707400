package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Random;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What the fast receiver hears in the field, and hops of a recording longer than one stretch. */
public class FieldApiTest extends BuoyBench {
  private static final double RATE = 1e6;

  private static double value(JsonNode outcome, String id) {
    return GeneratorBench.reading(outcome, id).get("value").asDouble();
  }

  /** 5 million samples: more than are taken at once. Eight channels in turn, 20 ms each. */
  private long hopping() {
    int n = 5_000_000;
    ByteBuffer b = ByteBuffer.allocate(4 * n).order(ByteOrder.LITTLE_ENDIAN);
    Random random = new Random(3);
    double phase = 0;
    for (int i = 0; i < n; i++) {
      double t = i / RATE;
      int hop = (int) Math.floor(t / 0.021);
      double hz = -350e3 + 100e3 * (3 * hop % 8);
      phase += 2 * Math.PI * hz / RATE;
      double a = t - hop * 0.021 < 0.02 ? 3000 : 0;
      b.putShort((short) Math.rint(a * Math.cos(phase) + 20 * random.nextGaussian()));
      b.putShort((short) Math.rint(a * Math.sin(phase) + 20 * random.nextGaussian()));
    }
    String meta =
        "{\"global\":{\"core:datatype\":\"ci16_le\",\"core:sample_rate\":1e6,"
            + "\"core:version\":\"1.0.0\"},\"captures\":[{\"core:sample_start\":0,"
            + "\"core:frequency\":2.441e9}],\"annotations\":[]}";
    return server.json(server.upload(meta, b.array()), 201).get("id").asLong();
  }

  @Test
  public void hopsOfALongRecording() {
    long id = hopping();
    String settings = "{\"channelHz\":1e5,\"leastSeconds\":2e-3}";
    JsonNode o = hops(id, settings, 200).get("outcome");
    assertEquals(value(o, "hoppers"), 1.0);
    within(o, "dwellA", 0.02);
    within(o, "intervalA", 0.021);
    assertEquals(value(o, "channelsA"), 8.0);
    assertEquals(value(o, "hops"), Math.ceil(5 / 0.021), 1.0);
    assertTrue(o.get("summary").asString().contains("repeats after 8"), o.toString());
    // A part of it that lies beyond the first stretch.
    JsonNode later =
        hops(id, settings.replace("{", "{\"startSeconds\":4.5,\"seconds\":0.4,"), 200)
            .get("outcome");
    assertEquals(value(later, "hops"), 20, 1.0, later.toString());
    JsonNode all = measure(id, "spectrogram", "{\"rbwHz\":1e4,\"rows\":200}", 200).get("outcome");
    JsonNode time = all.get("series").get(0).get("rows");
    assertTrue(time.get("points").asInt() > 100 && time.get("points").asInt() <= 200);
    assertEquals(time.get("points").asInt() * time.get("step").asDouble(), 5, 0.06);
    double level = 20 * Math.log10(3000 / 32768.0);
    assertEquals(value(all, "highestLevel"), level, 0.5);
    assertEquals(value(all, "spanPower"), level + 10 * Math.log10(20.0 / 21), 0.1);
    // Zoomed into: few rows come from what is known of its parts, many from the samples.
    String part = "{\"rbwHz\":1e4,\"startSeconds\":1.0604,\"seconds\":3.5,\"rows\":%d}";
    JsonNode few = measure(id, "spectrogram", part.formatted(200), 200).get("outcome");
    JsonNode many = measure(id, "spectrogram", part.formatted(400), 200).get("outcome");
    for (String reading : new String[] {"highestLevel", "spanPower"}) {
      assertEquals(value(few, reading), value(many, reading), 0.05, reading);
    }
    assertEquals(
        few.get("series").get(0).get("rows").get("start").asDouble(), 1.06, 0.03, "begins there");
    assertEquals(measure(id, "spectrogram", part.formatted(200), 200).get("outcome"), few);
    JsonNode tooFine = measure(id, "spectrogram", "{\"rbwHz\":20,\"rows\":2000}", 400);
    assertEquals(tooFine.get("field").asString(), "rbwHz", tooFine.toString());
    JsonNode bad = hops(id, "{\"channelHz\":1e5,\"leastSeconds\":1e-6}", 400);
    assertEquals(bad.get("field").asString(), "leastSeconds", bad.toString());
    assertEquals(hops(id, "{\"channelHz\":-1}", 400).get("field").asString(), "channelHz");
  }

  private JsonNode hops(long id, String settings, int status) {
    return measure(id, "hops", settings, status);
  }

  private JsonNode measure(long id, String kind, String settings, int status) {
    String body = "{\"measurement\":\"" + kind + "\",\"settings\":" + settings + "}";
    return server.json(server.send("POST", "/api/recordings/" + id + "/measure", body), status);
  }

  /** Who is on the air beside the pilot boat: the port two channels above, the tug one below. */
  @Test
  public void stationsBesideThePilotBoat() {
    long fast = add("Fast", "IQ_RECEIVER", server.bench().fastReceiverPort(), "scpi-iq-fast");
    long input = add("Input", "PART_HOLDER", server.bench().fastInputPort(), "scpi-parts");
    awaitTrue(() -> state(fast).equals("CONNECTED") && state(input).equals("CONNECTED"));
    plug(input, "aerial on the quay");
    start(
        fast,
        "channels",
        "{\"centreHz\":164.2e6,\"spanHz\":300e3,\"channelHz\":25e3,\"bandHz\":16e3,"
            + "\"seconds\":0.25,\"referenceLevelDbm\":-50,\"mostNeighbourDb\":-70}");
    awaitTrue(
        () -> {
          var reply = server.get("/api/live/i" + fast + "/channels/outcome");
          return reply.statusCode() == 200
              && reply.body().contains("2 of 10 others are used: -1, 2.")
              && value(server.json(reply, 200).get("outcome"), "ownShare") < 80;
        });
    JsonNode o = outcome(fast, "channels");
    within(o, "ownLevel", -62);
    within(o, "upper2", -88 + 62);
    assertEquals(value(o, "strongestChannel"), 2.0);
    JsonNode tug = o.get("tables").get(0).get("rows").get(4).get("cells");
    assertEquals(tug.get(0).get("value").asDouble(), -1.0);
    assertEquals(tug.get(2).get("value").asDouble(), -97, 1.2, "with noise 8 dB below");
    // The limit is 70 dB, and the noise of this receiver is some 43 dB below the boat.
    assertTrue(verdict(o, "upper1").equals("FAIL"), o.toString());
    plug(input, "RF output");
  }

  private static String verdict(JsonNode o, String id) {
    return reading(o, id).get("verdict").asString();
  }

  /** The crane remote and its neighbour, live, over several looks; then the logger board. */
  @Test
  public void craneRemoteAndLoggerBoard() {
    long fast = add("Fast", "IQ_RECEIVER", server.bench().fastReceiverPort(), "scpi-iq-fast");
    long input = add("Input", "PART_HOLDER", server.bench().fastInputPort(), "scpi-parts");
    awaitTrue(() -> state(fast).equals("CONNECTED") && state(input).equals("CONNECTED"));
    plug(input, "aerial on the quay");
    start(
        fast,
        "hops",
        "{\"centreHz\":2.441e9,\"spanHz\":80e6,\"channelHz\":2e6,\"firstHz\":2.402e9,"
            + "\"channels\":40,\"seconds\":0.05,\"referenceLevelDbm\":-30}");
    awaitTrue(
        () -> {
          var reply = server.get("/api/live/i" + fast + "/hops/outcome");
          String words = reply.statusCode() == 200 ? reply.body() : "";
          return words.contains("stays 4.75 ms")
              && words.contains("stays 7.6 ms")
              && value(server.json(reply, 200).get("outcome"), "hops") > 60;
        });
    JsonNode o = outcome(fast, "hops");
    // The one with more hops is A; after few looks that may be either.
    boolean first = value(o, "dwellA") < 6e-3;
    String quick = first ? "A" : "B";
    String crane = first ? "B" : "A";
    within(o, "dwell" + quick, 4.75e-3);
    within(o, "interval" + quick, 5e-3);
    within(o, "dwell" + crane, 7.6e-3);
    within(o, "interval" + crane, 8e-3);
    assertEquals(value(o, "level" + crane), -38, 0.6);
    JsonNode channels = o.get("tables").get(0);
    for (int c = 11; c <= 14; c++) {
      JsonNode row = channels.get("rows").get(c - 1).get("cells");
      assertEquals(row.get(2).get("value").asDouble(), 0.0, "hops on channel " + c);
    }
    plug(input, "probe over the logger board");
    start(
        fast,
        "bursts",
        "{\"centreHz\":212e6,\"bandHz\":2e6,\"seconds\":0.05,\"referenceLevelDbm\":-40}");
    awaitTrue(() -> server.get("/api/live/i" + fast + "/bursts/outcome").statusCode() == 200);
    JsonNode bursts = outcome(fast, "bursts");
    within(bursts, "period", 3.1e-3);
    assertEquals(value(bursts, "length"), 14e-6, 0.1e-6, bursts.toString());
    assertEquals(value(bursts, "burstLevel"), -47, 0.8);
    assertEquals(value(bursts, "carrierFrequency"), 212e6, 500);
    aBurstByItself(fast);
  }

  /** What is cut out of a look is that burst alone: whatever measures it is gated by it. */
  private void aBurstByItself(long fast) {
    String path = "/api/live/i" + fast + "/bursts";
    server.json(server.send("POST", path + "/hold", "{}"), 200);
    JsonNode row = outcome(fast, "bursts").get("tables").get(0).get("rows").get(3).get("cells");
    double start = row.get(0).get("value").asDouble();
    double length = row.get(1).get("value").asDouble();
    JsonNode cut =
        server.json(
            server.send(
                "POST",
                path + "/recording",
                "{\"name\":\"burst 4\",\"fromSeconds\":" + start + ",\"seconds\":" + length + "}"),
            201);
    long id = cut.get("id").asLong();
    assertEquals(cut.get("seconds").asDouble(), 14e-6, 0.5e-6);
    JsonNode level = measure(id, "amplitude", "{\"bandHz\":0}", 200).get("outcome");
    assertEquals(value(level, "meanLevel"), -47, 0.8);
    // A recording can be cut as well, and keeps what is known of it.
    JsonNode half =
        server.json(
            server.send(
                "POST",
                "/api/live/r" + id + "/amplitude/recording",
                "{\"name\":\"its second half\",\"fromSeconds\":7e-6,\"seconds\":1}"),
            201);
    assertEquals(half.get("seconds").asDouble(), cut.get("seconds").asDouble() - 7e-6, 0.3e-6);
    assertEquals(half.get("levelUnit").asString(), "dBm");
    assertEquals(
        value(
            measure(half.get("id").asLong(), "amplitude", "{\"bandHz\":0}", 200).get("outcome"),
            "meanLevel"),
        -47,
        0.8);
    for (String source : new String[] {path, "/api/live/r" + id + "/amplitude"}) {
      JsonNode outside =
          server.json(
              server.send(
                  "POST",
                  source + "/recording",
                  "{\"name\":\"x\",\"fromSeconds\":1000,\"seconds\":1}"),
              400);
      assertEquals(outside.get("field").asString(), "fromSeconds", outside.toString());
    }
  }

  private JsonNode outcome(long receiver, String kind) {
    return server
        .json(server.get("/api/live/i" + receiver + "/" + kind + "/outcome"), 200)
        .get("outcome");
  }
}
