package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A recording is treated as a live look is: the same views, in dBFS until it is calibrated. */
public class RecordingViewApiTest extends BuoyBench {
  private static final double FS = 1e6;

  /** Two tones of -20 dBFS, 20 kHz apart, with third-order products 40 dB below. */
  private String open() {
    int n = 100_000;
    ByteBuffer b = ByteBuffer.allocate(8 * n).order(ByteOrder.LITTLE_ENDIAN);
    double[][] tones = {{-10e3, 0.1}, {10e3, 0.1}, {-30e3, 0.001}, {30e3, 0.001}};
    for (int i = 0; i < n; i++) {
      double re = 1e-6 * Math.sin(i * i);
      double im = 1e-6 * Math.cos(i * i * 1.1);
      for (double[] t : tones) {
        re += t[1] * Math.cos(2 * Math.PI * t[0] / FS * i);
        im += t[1] * Math.sin(2 * Math.PI * t[0] / FS * i);
      }
      b.putFloat((float) re).putFloat((float) im);
    }
    JsonNode made =
        server.json(
            server.upload(
                "{\"global\":{\"core:datatype\":\"cf32_le\",\"core:sample_rate\":1000000,\"core:version\":\"1.0.0\"},"
                    + "\"captures\":[{\"core:sample_start\":0,\"core:frequency\":458525000}],\"annotations\":[]}",
                b.array()),
            201);
    return "/api/live/r" + made.get("id").asLong() + "/spectrum";
  }

  private static String settings(String view) {
    return "{\"centreHz\":458.525e6,\"spanHz\":200e3,\"rbwHz\":1000,\"window\":\"BLACKMAN_HARRIS\",\"detector\":\"RMS\",\"averages\":100,\"referenceLevelDbm\":0,\"channelWidthHz\":50000,\"view\":{"
        + view
        + "}}";
  }

  private JsonNode measured(String live, String view) {
    server.json(server.send("PUT", live + "/settings", settings(view)), 200);
    server.json(server.send("POST", live + "/start", "{\"jobId\":" + job + "}"), 200);
    return Flat.look(server.json(server.get(live + "/outcome"), 200));
  }

  @Test
  public void productsChannelsAndBandsOfARecording() {
    String live = open();
    JsonNode frame =
        measured(
            live,
            "\"twoTones\":true,\"density\":{\"highest\":null},\"occupied\":{\"xDb\":60},"
                + "\"reads\":[{\"kind\":\"BAND\",\"hertz\":458.535e6,\"widthHz\":8000},{\"kind\":\"COUNT\",\"hertz\":458.535e6,\"widthHz\":8000}]");
    assertEquals(frame.get("unit").asString(), "dBFS");
    assertEquals(reading(frame, "thirdOrder").get("value").asDouble(), -40, 0.05);
    assertEquals(reading(frame, "intercept").get("value").asDouble(), 0, 0.05);
    assertEquals(reading(frame, "read0").get("value").asDouble(), -20, 0.05);
    assertEquals(reading(frame, "read1").get("value").asDouble(), 458.535e6, 0.5);
    double width = reading(frame, "occupiedBandwidth").get("value").asDouble();
    assertTrue(width > 60e3 && width < 65e3, "width " + width);
    assertEquals(frame.get("tables").get(0).get("rows").size(), 4);
    long run =
        server
            .json(server.send("POST", live + "/keep", "{\"name\":\"tones\"}"), 201)
            .get("id")
            .asLong();
    JsonNode kept = run(run);
    assertEquals(kept.get("tables").get(0).get("id").asString(), "twoTones");
    assertTrue(server.get("/api/runs/" + run + "/report.html").body().contains("2 f1"));
  }

  /** With a calibration the same numbers are in dBm at the plane of the job's path. */
  @Test
  public void calibratedItIsReadAtThePlane() {
    String live = open();
    String id = live.replaceAll("\\D", "");
    server.json(
        server.send("PUT", "/api/recordings/" + id + "/calibration", "{\"fullScaleDbm\":-10}"),
        200);
    JsonNode frame = measured(live, "\"twoTones\":true");
    assertEquals(frame.get("unit").asString(), "dBm");
    assertEquals(frame.get("plane").asString(), "Buoy TX OUT");
    // -10 dBm full scale, 31.2 dB of pad and feeder: the intercept moves by 21.2 dB.
    assertEquals(reading(frame, "intercept").get("value").asDouble(), 21.2, 0.05);
  }

  @Test
  public void pointsAreReducedAsAsked() {
    String live = open();
    JsonNode all = measured(live, "\"mostPoints\":4096");
    JsonNode few = measured(live, "\"mostPoints\":101,\"reducer\":\"peak\"");
    assertTrue(few.get("points").asInt() <= 101);
    assertTrue(all.get("points").asInt() > 300);
    // The lines and readings do not depend on how many points are shown.
    assertEquals(
        few.get("peaks").get(0).get("level").asDouble(),
        all.get("peaks").get(0).get("level").asDouble(),
        1e-9);
    JsonNode bad =
        server.json(server.send("PUT", live + "/settings", settings("\"mostPoints\":5")), 400);
    assertEquals(bad.get("field").asString(), "mostPoints");
  }

  @Test
  public void aRecordingShorterThanTheTransformIsSaid() {
    String live = open();
    server.json(server.send("POST", live + "/start", "{\"jobId\":" + job + "}"), 200);
    JsonNode bad =
        server.json(
            server.send(
                "PUT",
                live + "/settings",
                settings("").replace("\"rbwHz\":1000", "\"rbwHz\":0,\"fftLength\":524288")),
            400);
    assertEquals(bad.get("field").asString(), "fftLength");
    assertTrue(bad.get("detail").asString().contains("100000 samples"));
    JsonNode fits =
        server.json(
            server.send(
                "PUT",
                live + "/settings",
                settings("").replace("\"rbwHz\":1000", "\"rbwHz\":0,\"fftLength\":65536")),
            200);
    assertEquals(fits.get("settings").get("fftLength").asInt(), 65536);
  }

  @Test
  public void guidedWorkIsRefusedForARecording() {
    JsonNode refused =
        server.json(
            server.send(
                "POST",
                open() + "/guided",
                "{\"jobId\":" + job + ",\"work\":{\"kind\":\"harmonics\"}}"),
            409);
    assertTrue(refused.get("detail").asString().contains("needs a receiver"));
    server.json(server.get(live("/finding")), 409);
  }

  /** Resolution advice over REST: the trade's rule and its refusals. */
  @Test
  public void adviceOnResolution() {
    JsonNode a = server.json(server.get("/api/advice/resolution?spacingHz=6000&rbwHz=3000"), 200);
    assertEquals(a.get("words").asString(), "clean");
    assertEquals(a.get("cleanRbwHz").asDouble(), 3000, 0);
    JsonNode far =
        server.json(
            server.get(
                "/api/advice/resolution?spacingHz=6000&rbwHz=3000&differenceDb=60&window=blackman-harris"),
            200);
    assertEquals(far.get("words").asString(), "not separated");
    assertTrue(far.get("cleanRbwHz").asDouble() < 3000);
    JsonNode bad = server.json(server.get("/api/advice/resolution?spacingHz=-1&rbwHz=3000"), 400);
    assertEquals(bad.get("field").asString(), "spacingHz");
  }

  /**
   * Full scale is a complex tone of 1: of a real sine of 1 each of its two lines is half of that.
   */
  @Test
  public void aRealSineOfFullScaleShowsTwoLinesOfHalf() {
    int n = 100_000;
    java.nio.ByteBuffer b =
        java.nio.ByteBuffer.allocate(4 * n).order(java.nio.ByteOrder.LITTLE_ENDIAN);
    for (int i = 0; i < n; i++) {
      b.putFloat((float) Math.cos(2 * Math.PI * 0.05 * i));
    }
    long id =
        server
            .json(
                server.upload(
                    "{\"global\":{\"core:datatype\":\"rf32_le\",\"core:sample_rate\":1000000,\"core:version\":\"1.0.0\"},"
                        + "\"captures\":[{\"core:sample_start\":0}],\"annotations\":[]}",
                    b.array()),
                201)
            .get("id")
            .asLong();
    JsonNode reply =
        server.json(
            server.send("POST", "/api/recordings/" + id + "/spectrum", "{\"rbwHz\": 1000}"), 200);
    JsonNode peaks = reply.get("peaks");
    assertEquals(peaks.get(0).get("level").asDouble(), -6.02, 0.02);
    assertEquals(peaks.get(1).get("level").asDouble(), -6.02, 0.02);
    assertEquals(Math.abs(peaks.get(0).get("frequencyHz").asDouble()), 50e3, 1);
  }
}
