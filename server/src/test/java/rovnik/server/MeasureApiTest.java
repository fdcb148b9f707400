package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Measuring what is on file, and the catalogue that says what can be measured. */
public class MeasureApiTest extends BuoyBench {
  private static final double RATE = 1e6;

  /** Carrier at 50 kHz with AM of 30 % at 5 kHz, in noise; full scale 1. */
  private long recording() {
    int n = 200_000;
    ByteBuffer b = ByteBuffer.allocate(8 * n).order(ByteOrder.LITTLE_ENDIAN);
    Random random = new Random(3);
    for (int i = 0; i < n; i++) {
      double a = 0.5 * (1 + 0.3 * Math.cos(2 * Math.PI * 5e3 * i / RATE));
      double phase = 2 * Math.PI * 50e3 * i / RATE;
      b.putFloat((float) (a * Math.cos(phase) + 1e-4 * random.nextGaussian()));
      b.putFloat((float) (a * Math.sin(phase) + 1e-4 * random.nextGaussian()));
    }
    String meta =
        "{\"global\":{\"core:datatype\":\"cf32_le\",\"core:sample_rate\":1e6,"
            + "\"core:version\":\"1.0.0\"},\"captures\":[{\"core:sample_start\":0,"
            + "\"core:frequency\":100e6}],\"annotations\":[]}";
    return server.json(server.upload(meta, b.array()), 201).get("id").asLong();
  }

  private JsonNode measure(long id, String body) {
    JsonNode reply =
        server.json(server.send("POST", "/api/recordings/" + id + "/measure", body), 200);
    return Flat.outcome(reply.get("outcome"));
  }

  @Test
  public void theCatalogueHasKindsWithSchemasAndDefaults() {
    JsonNode all = server.json(server.get("/api/measurements"), 200);
    boolean spectrum = false;
    for (JsonNode m : all) {
      JsonNode schema = m.get("settings");
      assertTrue(schema.get("$schema").asString().contains("2020-12"), schema.toString());
      assertTrue(schema.get("properties").size() > 0 && schema.has("default"));
      if (m.get("kind").asString().equals("spectrum")) {
        spectrum = true;
        assertEquals(m.get("takes").get(0).asString(), "iq");
        assertEquals(
            schema.get("properties").get("spanHz").get("default").asDouble(), 20e6, "a default");
        assertTrue(schema.get("properties").get("rbwHz").has("x-unit"), "a unit");
      }
    }
    assertTrue(spectrum && all.size() >= 3, all.toString());
  }

  /** AM of 30 %: side lines 16.48 dB below the carrier, 20 log10(m/2). */
  @Test
  public void whatAScreenReadsIsReadOfARecording() {
    long id = recording();
    JsonNode o =
        measure(
            id,
            "{\"measurement\":\"spectrum\",\"settings\":{\"centreHz\":100.05e6,\"spanHz\":40e3,"
                + "\"rbwHz\":500,\"view\":{\"amDepth\":true,\"occupied\":{\"share\":0.99},"
                + "\"twoTones\":true,\"mask\":[{\"fromHz\":8e3,\"toHz\":15e3,\"rbwHz\":0,"
                + "\"fromDbc\":-60,\"toDbc\":-60}]}},\"markers\":[{\"hertz\":100.055e6}]}");
    assertEquals(reading(o, "amDepth").get("value").asDouble(), 30, 0.3);
    assertEquals(reading(o, "carrierFrequency").get("value").asDouble(), 100.05e6, 0.5);
    double carrier = reading(o, "carrierPower").get("value").asDouble();
    assertEquals(o.get("peaks").get(1).get("level").asDouble() - carrier, -16.48, 0.1);
    // A marker reads the trace: up to the scallop of a Hann window below the line itself.
    assertEquals(reading(o, "read0").get("value").asDouble() - carrier, -16.9, 0.6);
    assertTrue(reading(o, "occupiedBandwidth").get("value").asDouble() > 9e3);
    assertTrue(reading(o, "maskMargin").get("verdict").asString().startsWith("PASS"));
    JsonNode main = o.get("series").get(0);
    assertEquals(main.get("x").size(), main.get("y").size());
    assertEquals(main.get("axis").get("unit").asString(), "Hz");
    JsonNode plain = measure(id, "{}");
    assertEquals(plain.get("plane").asString(), "record");
  }

  /** Settings that a script leaves out are those of the file; what is unknown is named. */
  @DataProvider
  public Object[][] refused() {
    return new Object[][] {
      {"{\"measurement\":\"wibble\"}", "measurement", "use one of"},
      {"{\"settings\":{\"spanHz\":-1}}", "spanHz", "more than 0"},
      {"{\"settings\":{\"spam\":1}}", "spam", "no field \"spam\""},
      {"{\"wibble\":1}", "wibble", "no field"},
      {"{\"settings\":{\"averages\":16.9}}", "averages", "needs a whole number"},
      {"{\"settings\":{\"view\":{\"occupide\":{}}}}", "occupide", "known are"},
      {"{\"referencePlane\":0}", "referencePlane", "jobId"},
      {"{\"settings\":5}", "settings", "JSON object"},
    };
  }

  @Test(dataProvider = "refused")
  public void whatIsNotKnownIsNamed(String body, String field, String words) {
    long id = recording();
    JsonNode p = server.json(server.send("POST", "/api/recordings/" + id + "/measure", body), 400);
    assertEquals(p.get("field").asString(), field, p.toString());
    assertTrue(p.get("detail").asString().contains(words), p.toString());
  }

  /**
   * A random walk of phase has L(f) = f0-independent 10 log10(s^2 fs / (2 pi f)^2), derived here.
   */
  @Test
  public void phaseNoiseOfARecording() {
    int n = 1 << 20;
    double step = 2e-3; // radian a sample
    ByteBuffer b = ByteBuffer.allocate(8 * n).order(ByteOrder.LITTLE_ENDIAN);
    Random random = new Random(5);
    double walk = 0;
    for (int i = 0; i < n; i++) {
      walk += step * random.nextGaussian();
      double phase = 2 * Math.PI * 0.01 * i + walk;
      b.putFloat((float) Math.cos(phase));
      b.putFloat((float) Math.sin(phase));
    }
    String meta =
        "{\"global\":{\"core:datatype\":\"cf32_le\",\"core:sample_rate\":1e6,"
            + "\"core:version\":\"1.0.0\"},\"captures\":[{\"core:sample_start\":0,"
            + "\"core:frequency\":10e6}],\"annotations\":[]}";
    long id = server.json(server.upload(meta, b.array()), 201).get("id").asLong();
    JsonNode o = measure(id, "{\"measurement\":\"phase-noise\",\"settings\":{\"toHz\":1e5}}");
    JsonNode curve = o.get("curves").get(0);
    int seen = 0;
    for (int i = 0; i < curve.get("x").size(); i++) {
      double f = curve.get("x").get(i).asDouble();
      if (f > 3e3 && f < 5e4) {
        double truth = 10 * Math.log10(step * step * RATE / Math.pow(2 * Math.PI * f, 2));
        assertEquals(curve.get("y").get(i).asDouble(), truth, 1.2, "at " + f);
        seen++;
      }
    }
    assertTrue(seen > 20, seen + " points");
  }

  /**
   * A kept run is measured again from its samples, with its own settings unless others are given.
   */
  @Test
  public void aRunIsMeasuredAgain() {
    settings("458.525e6", "200e3", 20, 30);
    start();
    settledFrame(20);
    JsonNode kept = server.json(server.send("POST", live("/keep"), "{\"name\":\"a\"}"), 201);
    long id = kept.get("id").asLong();
    JsonNode again = server.json(server.send("POST", "/api/runs/" + id + "/measure", "{}"), 200);
    assertEquals(again.get("settings").get("spanHz").asDouble(), 200e3);
    JsonNode before = run(id);
    JsonNode o = Flat.outcome(again.get("outcome"));
    assertEquals(o.get("plane").asString(), before.get("plane").asString());
    assertEquals(
        reading(o, "carrierFrequency").get("value").asDouble(),
        reading(before, "carrierFrequency").get("value").asDouble(),
        3);
    JsonNode other =
        server.json(
            server.send(
                "POST",
                "/api/runs/" + id + "/measure",
                "{\"referencePlane\":2,\"settings\":{\"view\":{\"occupied\":{\"share\":0.99}}}}"),
            200);
    assertEquals(
        reading(Flat.outcome(other.get("outcome")), "carrierPower").get("value").asDouble(),
        27 - 31.2,
        0.5);
  }

  /** Settings can be changed in part, and a script can wait for what comes of them. */
  @Test
  public void aScriptChangesAPartAndWaitsForASettledOutcome() {
    settings("458.525e6", "200e3", 20, 30);
    start();
    JsonNode state =
        server.json(
            server.send("PATCH", live("/settings"), "{\"averages\":50,\"view\":{\"skirt\":true}}"),
            200);
    assertEquals(state.get("settings").get("centreHz").asDouble(), 458.525e6);
    JsonNode o = server.json(server.get(live("/outcome?settled=true&seconds=30")), 200);
    assertTrue(o.get("settled").asBoolean());
    assertEquals(o.get("settings").get("averages").asInt(), 50);
    assertTrue(Flat.look(o).get("segments").asInt() >= 50);
    JsonNode bad = server.json(server.send("PATCH", live("/settings"), "{\"avarages\":5}"), 400);
    assertEquals(bad.get("field").asString(), "avarages");
    server.json(server.send("POST", live("/hold"), "{}"), 200);
    server.send("PATCH", live("/settings"), "{\"averages\":60}");
    JsonNode never = server.json(server.get(live("/outcome?settled=true&seconds=0.2")), 409);
    assertTrue(never.get("detail").asString().contains("settle"), never.toString());
  }
}
