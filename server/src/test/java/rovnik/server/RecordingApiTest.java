package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The fixed edges for recordings, over HTTP. */
public class RecordingApiTest {
  private static final double FS = 1e6;
  private static final double CENTRE = 458.525e6;
  private RunningServer server;

  @BeforeClass
  public void setUp() {
    server = RunningServer.fresh();
  }

  private static String meta(String datatype, String rate, String more) {
    return "{\"global\":{\"core:datatype\":\"%s\",\"core:sample_rate\":%s,\"core:version\":\"1.0.0\"%s},"
            .formatted(datatype, rate, more)
        + "\"captures\":[{\"core:sample_start\":0,\"core:frequency\":458525000}],\"annotations\":[]}";
  }

  /** A tone of amplitude 0.5 at +100 kHz in the wanted type. */
  private static byte[] tone(String datatype, int samples) {
    ByteBuffer b =
        ByteBuffer.allocate(samples * 16)
            .order(datatype.endsWith("be") ? ByteOrder.BIG_ENDIAN : ByteOrder.LITTLE_ENDIAN);
    boolean real = datatype.startsWith("r");
    for (int i = 0; i < samples; i++) {
      double phase = 2 * Math.PI * 0.1 * i;
      put(b, datatype, 0.5 * Math.cos(phase));
      if (!real) {
        put(b, datatype, 0.5 * Math.sin(phase));
      }
    }
    byte[] bytes = new byte[b.position()];
    b.flip().get(bytes);
    return bytes;
  }

  private static void put(ByteBuffer b, String type, double v) {
    if (type.contains("f32")) {
      b.putFloat((float) v);
    } else if (type.contains("i16")) {
      b.putShort((short) Math.round(v * 32768));
    } else if (type.contains("i8")) {
      b.put((byte) Math.round(v * 128));
    } else {
      b.put((byte) Math.round(v * 127.5 + 127.5));
    }
  }

  @DataProvider
  public Object[][] types() {
    return new Object[][] {
      {"cf32_le"},
      {"cf32_be"},
      {"ci16_le"},
      {"ci16_be"},
      {"ci8"},
      {"cu8"},
      {"ri16_le"},
      {"ri16_be"},
      {"rf32_le"},
      {"rf32_be"},
    };
  }

  /** -6.02 dBFS at +100 kHz; a real tone splits in two of half the amplitude. */
  @Test(dataProvider = "types")
  public void aToneReadsItsFrequencyAndLevel(String type) {
    JsonNode recording =
        server.json(server.upload(meta(type, "1000000", ""), tone(type, 20_000)), 201);
    assertEquals(recording.get("levelUnit").asString(), "dBFS");
    JsonNode spectrum =
        server.json(
            server.send(
                "POST", "/api/recordings/" + recording.get("id") + "/spectrum", "{\"rbwHz\":1000}"),
            200);
    JsonNode peak = spectrum.get("peaks").get(0);
    assertEquals(Math.abs(peak.get("frequencyHz").asDouble() - CENTRE), 100e3, 1);
    assertEquals(peak.get("level").asDouble(), type.startsWith("r") ? -12.04 : -6.02, 0.05);
    assertEquals(spectrum.get("rbwHz").asDouble(), 1000, 2);
    assertEquals(spectrum.get("unit").asString(), "dBFS");
    int n = spectrum.get("frequencyHz").size();
    assertEquals(spectrum.get("levelDbm").size(), n);
    assertEquals(spectrum.get("frequencyHz").get(0).asDouble(), CENTRE - FS / 2, 1000);
  }

  @Test
  public void calibrationGivesDbmAndSurvivesTheWayOut() {
    String calibrated = meta("cf32_le", "1000000", ",\"rovnik:full_scale_dbm\":-10.0");
    JsonNode r = server.json(server.upload(calibrated, tone("cf32_le", 20_000)), 201);
    String url = "/api/recordings/" + r.get("id");
    JsonNode s = server.json(server.send("POST", url + "/spectrum", "{}"), 200);
    assertEquals(s.get("unit").asString(), "dBm");
    assertEquals(s.get("peaks").get(0).get("level").asDouble(), -16.02, 0.02);
    JsonNode meta = server.json(server.get(url + "/sigmf-meta"), 200);
    assertEquals(meta.get("global").get("rovnik:full_scale_dbm").asDouble(), -10.0);
    assertEquals(server.get(url + "/sigmf-data").statusCode(), 200);
    server.json(server.send("PUT", url + "/calibration", "{\"fullScaleDbm\":null}"), 200);
    assertEquals(
        server.json(server.send("POST", url + "/spectrum", "{}"), 200).get("unit").asString(),
        "dBFS");
  }

  @Test
  public void windowsDetectorsAndFramingAreTaken() {
    JsonNode r =
        server.json(server.upload(meta("cf32_le", "1e6", ""), tone("cf32_le", 50_000)), 201);
    String url = "/api/recordings/" + r.get("id") + "/spectrum";
    JsonNode s =
        server.json(
            server.send(
                "POST",
                url,
                "{\"centreHz\":458.625e6,\"spanHz\":50e3,\"rbwHz\":500,\"window\":\"flat-top\","
                    + "\"detector\":\"peak\",\"averages\":4}"),
            200);
    assertEquals(s.get("peaks").get(0).get("frequencyHz").asDouble(), 458.625e6, 1);
    assertEquals(s.get("segments").asInt(), 4);
    assertTrue(s.get("frequencyHz").get(0).asDouble() >= 458.6e6 - 1);
  }

  @DataProvider
  public Object[][] broken() {
    byte[] good = tone("cf32_le", 1000);
    byte[] cut = java.util.Arrays.copyOf(good, good.length - 3);
    byte[] nan = good.clone();
    ByteBuffer.wrap(nan).order(ByteOrder.LITTLE_ENDIAN).putFloat(8 * 77, Float.NaN);
    return new Object[][] {
      {meta("cf32_le", "1000000", ""), cut, "data", "cut off"},
      {meta("cf32_le", "1000000", ""), new byte[0], "data", "empty"},
      {meta("cf32_le", "1000000", ""), nan, "data", "Sample 77"},
      {meta("cf99_le", "1000000", ""), good, "core:datatype", "cf32"},
      {meta("cf32_le", "-5", ""), good, "core:sample_rate", "above 0"},
      {meta("cf32_le", "\"x\"", ""), good, "core:sample_rate", "number"},
      {"{not json", good, "meta", "not JSON"},
      {"[]", good, "meta", "not JSON"},
      {"{}", good, "global", "not SigMF"},
      {meta("cf32_le", "1e6", ",\"core:sha512\":\"00\""), good, "core:sha512", "checksum"},
    };
  }

  @Test(dataProvider = "broken")
  public void aBadFileChangesNothingAndSaysWhatIsWrong(
      String meta, byte[] data, String field, String words) {
    int before = server.json(server.get("/api/recordings"), 200).size();
    var reply = server.upload(meta, data);
    JsonNode problem = server.json(reply, 400);
    assertEquals(reply.headers().firstValue("content-type").get(), "application/problem+json");
    assertEquals(problem.get("field").asString(), field);
    assertTrue(problem.get("detail").asString().contains(words), problem.toString());
    assertEquals(server.json(server.get("/api/recordings"), 200).size(), before);
  }

  /** A WAV file becomes a recording, and the sound that modulates a waveform. */
  @Test
  public void aWavFileIsARecordingAndAMessage() {
    int samples = 16_000;
    ByteBuffer b = ByteBuffer.allocate(44 + 2 * samples).order(ByteOrder.LITTLE_ENDIAN);
    b.put("RIFF".getBytes()).putInt(36 + 2 * samples).put("WAVEfmt ".getBytes()).putInt(16);
    b.putShort((short) 1).putShort((short) 1).putInt(16_000).putInt(32_000);
    b.putShort((short) 2).putShort((short) 16).put("data".getBytes()).putInt(2 * samples);
    for (int n = 0; n < samples; n++) {
      b.putShort((short) Math.round(20_000 * Math.cos(2 * Math.PI * 1000 * n / 16_000.0)));
    }
    JsonNode recording =
        server.json(
            server.upload(
                "/api/recordings", new RunningServer.Part("data", "voice.wav", b.array())),
            201);
    assertEquals(recording.get("sampleRateHz").asDouble(), 16_000, 0);
    assertEquals(recording.get("samples").asLong(), samples);
    JsonNode waveform =
        server.json(
            server.send(
                "POST",
                "/api/waveforms",
                "{\"parts\":[{\"kind\":\"fm\",\"deviationHz\":2500,\"recordingId\":%d}]}"
                    .formatted(recording.get("id").asLong())),
            201);
    assertTrue(waveform.get("seamless").asBoolean());
    JsonNode measured =
        server.json(
            server.send(
                "POST",
                "/api/recordings/" + waveform.get("id").asLong() + "/measure",
                "{\"measurement\":\"analog\",\"settings\":{\"modulation\":\"fm\",\"seconds\":0.5}}"),
            200);
    double deviation = 0;
    for (JsonNode r : measured.get("outcome").get("readings")) {
      deviation = r.get("id").asString().equals("amount") ? r.get("value").asDouble() : deviation;
    }
    assertEquals(deviation, 2500, 12);
    JsonNode problem =
        server.json(
            server.upload(
                "/api/recordings",
                new RunningServer.Part(
                    "data", "voice.wav", java.util.Arrays.copyOf(b.array(), 9000))),
            400);
    assertTrue(problem.get("detail").asString().contains("ends early"), problem.toString());
  }

  @DataProvider
  public Object[][] badRequests() {
    return new Object[][] {
      {"{\"spanHz\":0}", "spanHz"},
      {"{\"spanHz\":5e6}", "spanHz"},
      {"{\"rbwHz\":2e6}", "rbwHz"},
      {"{\"rbwHz\":0.001}", "rbwHz"},
      {"{\"window\":\"kaiser\"}", "window"},
      {"{\"detector\":\"best\"}", "detector"},
      {"{\"averages\":0}", "averages"},
      {"{\"centreHz\":1e9}", "spanHz"},
      {"{\"centreHz\":\"abc\"}", "centreHz"},
      {"{\"referencePlane\":1}", "referencePlane"},
    };
  }

  @Test(dataProvider = "badRequests")
  public void badSettingsNameTheirField(String body, String field) {
    JsonNode r = server.json(server.upload(meta("cf32_le", "1e6", ""), tone("cf32_le", 5000)), 201);
    JsonNode problem =
        server.json(server.send("POST", "/api/recordings/" + r.get("id") + "/spectrum", body), 400);
    assertEquals(problem.get("field").asString(), field, problem.toString());
    assertTrue(!problem.get("detail").asString().isBlank());
  }

  @Test
  public void unknownRecordingIsNotFound() {
    server.json(server.send("POST", "/api/recordings/99999/spectrum", "{}"), 404);
  }
}
