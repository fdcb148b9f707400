package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.ByteArrayInputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.formats.WavFile;
import tools.jackson.databind.JsonNode;

/** Channels that are heard: of recordings, of a receiver's looks, of what runs have kept. */
public class ListenApiTest extends GeneratorBench {
  private static final double RATE = 2e6;

  /** 3 s of 2 MS/s: more than are taken at once. FM that is there from 0.6 to 2.5 s. */
  private long voice() {
    int n = 6_000_000;
    ByteBuffer b = ByteBuffer.allocate(4 * n).order(ByteOrder.LITTLE_ENDIAN);
    Random random = new Random(5);
    double phase = 0;
    for (int i = 0; i < n; i++) {
      double t = i / RATE;
      double message =
          2500 * Math.sin(2 * Math.PI * 1000 * t) + 350 * Math.sin(2 * Math.PI * 123 * t);
      phase += 2 * Math.PI * (-300e3 + message) / RATE;
      double a = t > 0.6 && t < 2.5 ? 4000 : 0;
      b.putShort((short) Math.rint(a * Math.cos(phase) + 60 * random.nextGaussian()));
      b.putShort((short) Math.rint(a * Math.sin(phase) + 60 * random.nextGaussian()));
    }
    String meta =
        "{\"global\":{\"core:datatype\":\"ci16_le\",\"core:sample_rate\":2e6,"
            + "\"core:version\":\"1.0.0\"},\"captures\":[{\"core:sample_start\":0,"
            + "\"core:frequency\":164.5e6}],\"annotations\":[]}";
    return server.json(server.upload(meta, b.array()), 201).get("id").asLong();
  }

  private static String request(String settings) {
    return "{\"measurement\":\"audio\",\"settings\":" + settings + "}";
  }

  private JsonNode measure(long id, String settings, int status) {
    return server.json(
        server.send("POST", "/api/recordings/" + id + "/measure", request(settings)), status);
  }

  /** Times that a second of it crosses 0 upwards. */
  private static int crossings(WavFile f, double fromSeconds) {
    int count = 0;
    for (int i = (int) (48_000 * fromSeconds) + 1; i <= (int) (48_000 * (fromSeconds + 1)); i++) {
      count += f.iq()[2 * i - 2] < 0 && f.iq()[2 * i] >= 0 ? 1 : 0;
    }
    return count;
  }

  @Test
  public void aChannelOfARecordingIsHeard() {
    long id = voice();
    String settings =
        "{\"centreHz\":164.2e6,\"bandHz\":12500,\"seconds\":10,\"squelchBy\":\"tone\","
            + "\"squelch\":123}";
    JsonNode o = measure(id, settings, 200).get("outcome");
    within(o, "toneAmount", 2500);
    within(o, "toneRate", 1000);
    within(o, "toneSquelch", 123);
    within(o, "channelPower", 20 * Math.log10(4000 / 32768.0));
    assertEquals(reading(o, "passages").get("value").asDouble(), 1.0);
    JsonNode passage = o.get("tables").get(0).get("rows").get(0).get("cells");
    assertEquals(passage.get(0).get("value").asDouble(), 0.6, 0.15);
    assertEquals(passage.get(1).get("value").asDouble(), 1.9, 0.3);
    byte[] wav = server.bytes("/api/recordings/" + id + "/sound", request(settings));
    WavFile f = WavFile.read(new ByteArrayInputStream(wav));
    assertEquals(f.rateHz(), 48_000, 0);
    assertEquals(f.iq().length / 2, 3 * 48_000, 100);
    assertEquals(crossings(f, 1.2), 1000, 2);
    for (int i = 0; i < 0.4 * 48_000; i++) {
      assertEquals(f.iq()[2 * i], 0f, 0f, "silence before it opens");
    }
    JsonNode silent = measure(id, settings.replace(":123", ":131.8"), 200).get("outcome");
    assertTrue(silent.get("summary").asString().contains("There is one of 123.0 Hz"));
    // Where nothing is heard the file is silent and as long.
    WavFile nothing =
        WavFile.read(
            new ByteArrayInputStream(
                server.bytes(
                    "/api/recordings/" + id + "/sound",
                    request(settings.replace(":123", ":131.8")))));
    assertEquals(nothing.iq().length, f.iq().length);
    assertEquals(crossings(nothing, 1.2), 0);
  }

  @Test
  public void whatCannotBeHeardSaysSo() {
    long id = voice();
    refused(id, "{\"squelchBy\":\"tone\",\"squelch\":124}", "squelch", "nearest is 123.0");
    refused(id, "{\"mode\":\"am\",\"squelchBy\":\"tone\",\"squelch\":123}", "squelchBy", "of FM");
    refused(id, "{\"audioHighHz\":9000}", "audioHighHz", "at most");
    refused(id, "{\"mode\":\"cw\"}", "mode", "use one of");
    refused(id, "{\"centreHz\":200e6}", "centreHz", "outside");
    refused(id, "{\"startSeconds\":5}", "startSeconds", "too little");
    JsonNode other =
        server.json(
            server.send("POST", "/api/recordings/" + id + "/sound", "{\"measurement\":\"bursts\"}"),
            400);
    assertTrue(other.get("detail").asString().contains("has no sound"), other.toString());
  }

  private void refused(long id, String settings, String field, String words) {
    JsonNode problem = measure(id, settings, 400);
    assertEquals(problem.get("field").asString(), field, problem.toString());
    assertTrue(problem.get("detail").asString().contains(words), problem.toString());
  }

  /** Generator, cable and receiver; what a run has kept sounds the same later. */
  @Test
  public void aLookIsHeardAndKept() {
    long id =
        make("{\"parts\":[{\"kind\":\"fm\",\"deviationHz\":3000,\"rateHz\":800}],"
                + "\"sampleRateHz\":1e6}")
            .get("id")
            .asLong();
    play(id, "", 200);
    control(generator, "frequency", "458.525e6", "level", "-10", "output", "on", "adjust", "");
    assertTrue(
        server
            .json(server.get(live("audio", "/sound")), 409)
            .get("detail")
            .asString()
            .contains("Nothing was measured"));
    server.json(
        server.send(
            "PATCH",
            live("audio", "/settings"),
            "{\"centreHz\":458.525e6,\"bandHz\":25e3,\"seconds\":0.4,\"referenceLevelDbm\":5,"
                + "\"squelchBy\":\"level\",\"squelch\":-30}"),
        200);
    server.json(server.send("POST", live("audio", "/start"), "{\"jobId\":" + own + "}"), 200);
    awaitTrue(() -> server.get(live("audio", "/outcome")).statusCode() == 200);
    JsonNode kept =
        server.json(server.send("POST", live("audio", "/keep"), "{\"name\":\"heard\"}"), 201);
    JsonNode o = server.json(server.get(live("audio", "/outcome")), 200).get("outcome");
    within(o, "toneAmount", 3000);
    within(o, "toneRate", 800);
    within(o, "channelPower", -10);
    WavFile now = WavFile.read(new ByteArrayInputStream(server.bytes(live("audio", "/sound"))));
    assertEquals(now.iq().length / 2, 0.4 * 48_000, 400);
    assertEquals(kept.get("kind").asString(), "audio");
    WavFile later =
        WavFile.read(
            new ByteArrayInputStream(
                server.bytes("/api/runs/" + kept.get("id").asLong() + "/sound", "{}")));
    assertEquals(later.iq().length, now.iq().length, 100);
    assertEquals(
        server.bytes("/api/runs/" + kept.get("id").asLong() + "/sound").length,
        2 * (later.iq().length / 2) + 44);
    int up = 0;
    for (int i = 4801; i < 4801 + 9600; i++) {
      up += later.iq()[2 * i - 2] < 0 && later.iq()[2 * i] >= 0 ? 1 : 0;
    }
    assertEquals(up, 160, 1);
  }
}
