package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.net.http.HttpRequest.BodyPublishers;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The samples that one measurement took, looked at by others. */
public class BesideApiTest extends GeneratorBench {
  private static final String PULSES =
      "{\"parts\":[{\"kind\":\"pulses\",\"widthSeconds\":3e-4,\"intervalSeconds\":3.1e-3,"
          + "\"edgeSeconds\":5e-6}],\"sampleRateHz\":8e6}";

  private static final String WHOLE = "{\"centreHz\":0,\"bandHz\":0}";

  /** Over its mean, in which the pauses are, a pulse is so high. */
  private static final double OVER_MEAN_DB = 10 * Math.log10(3.1e-3 / (3e-4 - 5e-6 / 4));

  private JsonNode beside(String of, String kind, String settings, int status) {
    return server.json(server.send("POST", live(of, "/beside/" + kind), settings), status);
  }

  private void refused(String of, String kind, String settings, String field, String words) {
    JsonNode r = beside(of, kind, settings, 400);
    assertEquals(r.get("field").asString(), field);
    assertTrue(r.get("detail").asString().contains(words), r.toString());
  }

  private void pulses(String kind, String settings) {
    play(make(PULSES).get("id").asLong(), "", 200);
    control(generator, "frequency", "458.525e6", "level", "-10", "output", "on", "adjust", "");
    server.json(server.send("PATCH", live(kind, "/settings"), settings), 200);
    server.json(server.send("POST", live(kind, "/start"), "{\"jobId\":" + own + "}"), 200);
    awaitTrue(() -> server.get(live(kind, "/outcome")).statusCode() == 200);
  }

  /** Pulses of a generator: the spectrum's own samples tell when they come, and how high. */
  @Test
  public void theSamplesOfASpectrum() {
    assertEquals(beside("spectrum", "bursts", "{}", 409).get("field").asString(), "state");
    pulses(
        "spectrum",
        "{\"centreHz\":458.525e6,\"spanHz\":1e6,\"rbwHz\":100,\"averages\":1,"
            + "\"referenceLevelDbm\":5}");
    String band = "{\"centreHz\":458.525e6,\"bandHz\":5e5}";
    JsonNode bursts = beside("spectrum", "bursts", band, 200);
    assertEquals(bursts.get("measurement").asString(), "bursts");
    within(bursts.get("outcome"), "period", 3.1e-3);
    within(bursts.get("outcome"), "length", 3e-4);
    within(bursts.get("outcome"), "burstLevel", -10 + OVER_MEAN_DB);
    JsonNode density =
        beside("spectrum", "density", "{\"centreHz\":458.525e6,\"spanHz\":5e5,\"rbwHz\":2e4}", 200);
    within(density.get("outcome"), "highestLevel", -10 + OVER_MEAN_DB);
    // All of the samples, where nothing is said: their rate is the width.
    JsonNode all = beside("spectrum", "spectrogram", "{}", 200).get("outcome").get("series").get(0);
    double width = all.get("axis").get("step").asDouble() * all.get("axis").get("points").asInt();
    double rate =
        server
            .json(server.get(live("spectrum", "/outcome")), 200)
            .get("view")
            .get("sampleRateHz")
            .asDouble();
    assertEquals(width, rate, 0.02 * rate);
    server.json(server.send("POST", live("spectrum", "/hold"), "{}"), 200);
    JsonNode held = beside("spectrum", "amplitude", band, 200);
    assertEquals(beside("spectrum", "amplitude", band, 200), held);
    refused("spectrum", "amplitude", "{\"bandHz\":-1}", "bandHz", "10 Hz to 10 GHz");
    refused("spectrum", "amplitude", "{\"bend\":1}", "bend", "no field");
    refused("spectrum", "amplitude", "[]", "settings", "JSON object");
    refused("spectrum", "trigger", "{}", "beside", "not read from the samples");
    refused("spectrum", "spectrum", "{}", "beside", "not read from the samples");
    refused("spectrum", "waves", "{}", "beside", "There is no measurement");
  }

  /** As a screen asks for it: a header, and numbers behind it. */
  @Test
  public void aFrameOfModulationsSamples() {
    pulses("analog", "{\"centreHz\":458.525e6,\"referenceLevelDbm\":5}");
    byte[] reply =
        server.bytes(
            server
                .request(live("analog", "/beside/amplitude"))
                .header("Content-Type", "application/json")
                .header("Accept", "application/octet-stream")
                .POST(BodyPublishers.ofString("{}"))
                .build());
    ByteBuffer frame = ByteBuffer.wrap(reply).order(ByteOrder.LITTLE_ENDIAN);
    int length = frame.getInt();
    String header = new String(reply, 4, length, StandardCharsets.UTF_8);
    assertTrue(header.contains("\"measurement\":\"amplitude\""), header);
    assertTrue(header.contains("\"amplitude.y\""), header);
    assertTrue(reply.length > 4 + length + 1000, reply.length + " bytes");
  }

  /** What cannot be demodulated is seen all the same, and is not of an earlier record. */
  @Test
  public void theSamplesOfWhatIsRefused() {
    pulses("single-carrier", "{\"centreHz\":458.525e6,\"symbols\":200,\"referenceLevelDbm\":5}");
    JsonNode look = server.json(server.get(live("single-carrier", "/outcome")), 200);
    assertTrue(!look.get("view").get("refused").asString().isEmpty(), look.get("view").toString());
    JsonNode o = beside("single-carrier", "amplitude", WHOLE, 200).get("outcome");
    assertTrue(o.get("marks").isEmpty(), o.get("marks").toString());
    assertTrue(reading(o, "meanLevel").get("marks").isEmpty(), o.toString());
  }

  /** A recording has its samples, too: the same as measured by itself. */
  @Test
  public void aRecordingsSamples() {
    long id = make(PULSES).get("id").asLong();
    String itself = "{\"measurement\":\"amplitude\",\"settings\":{}}";
    JsonNode wanted =
        server
            .json(server.send("POST", "/api/recordings/" + id + "/measure", itself), 200)
            .get("outcome");
    for (String kind : new String[] {"spectrum", "analog"}) {
      String at = "/api/live/r" + id + "/" + kind;
      server.json(server.send("POST", at + "/start", "{}"), 200);
      JsonNode o =
          server.json(server.send("POST", at + "/beside/amplitude", WHOLE), 200).get("outcome");
      for (String what : new String[] {"highestLevel", "highestAt"}) {
        assertEquals(
            reading(o, what).get("value").asDouble(),
            reading(wanted, what).get("value").asDouble(),
            1e-6);
      }
    }
  }
}
