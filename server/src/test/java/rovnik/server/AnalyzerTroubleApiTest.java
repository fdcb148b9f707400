package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Locale;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A network analyzer that is lost, asked for the impossible, or used in the wrong order. */
public class AnalyzerTroubleApiTest extends AnalyzerBench {
  private PulledCable cable;

  @Override
  protected int analyzerPort() {
    try {
      cable = new PulledCable(server.bench().networkPort());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return cable.port();
  }

  @AfterMethod
  public void takeCableAway() {
    cable.close();
  }

  private JsonNode refusedSweep(String sweep, int status) {
    return refused("PATCH", url("/settings"), "{\"sweep\":" + sweep + "}", status);
  }

  private JsonNode refused(String method, String path, String body, int status) {
    JsonNode problem = server.json(server.send(method, path, body), status);
    assertFalse(problem.get("detail").asString().isBlank(), "a sentence that says what to do");
    return problem;
  }

  private long sweeps() {
    return state().get("sweeps").asLong();
  }

  @Test
  public void aPulledCableIsSaidAndMeasuringGoesOnByItself() {
    sweep(440e6, 480e6, 41, -10);
    server.json(server.send("POST", url("/start"), "{\"jobId\":" + job + "}"), 200);
    awaitTrue(() -> sweeps() > 3);
    cable.pull();
    awaitTrue(() -> state().get("phase").asString().equals("LOST"));
    assertFalse(state().get("message").asString().isBlank());
    // What was measured last can still be read and kept.
    assertEquals(server.json(server.get(url("/shown")), 200).get("frequencyHz").size(), 41);
    server.json(server.send("POST", url("/keep"), "{\"name\":\"before it broke\"}"), 201);
    // Settings are taken while it is away, and hold when it is back.
    sweep(450e6, 470e6, 31, -10);
    long before = sweeps();
    cable.plug();
    awaitTrue(() -> state().get("phase").asString().equals("RUNNING"));
    awaitTrue(() -> sweeps() > before + 2);
    assertEquals(server.json(server.get(url("/shown")), 200).get("frequencyHz").size(), 31);
    assertEquals(state().get("message").asString(), "");
  }

  /**
   * What would overload is refused also while the analyzer is away: it would send when it is back.
   */
  @Test
  public void aLostAnalyzerIsNotSetToOverload() {
    path(true);
    sweep(440e6, 480e6, 21, -10);
    server.json(
        server.send("POST", url("/start"), "{\"jobId\":" + job + ",\"answers\":[\"dcCheck\"]}"),
        200);
    awaitTrue(() -> sweeps() > 1);
    cable.pull();
    awaitTrue(() -> state().get("phase").asString().equals("LOST"));
    JsonNode hot =
        refusedSweep(
            "{\"startHz\":440e6,\"stopHz\":480e6,\"points\":21,\"type\":\"LINEAR\",\"bandwidthHz\":1000,"
                + "\"averages\":1,\"powerDbm\":8,\"bothPorts\":true}",
            409);
    assertEquals(hot.get("field").asString(), "levelPlan");
    path(false); // the pads are taken out meanwhile
    assertEquals(state().get("phase").asString(), "REFUSED");
    long before = sweeps();
    cable.plug();
    awaitTrue(() -> state(analyzer).equals("CONNECTED"));
    assertEquals(state().get("phase").asString(), "REFUSED");
    assertEquals(sweeps(), before);
  }

  /** A sweep that is started while nobody answers says so, and begins when somebody does. */
  @Test
  public void aSweepThatNobodyAnswersSaysSo() {
    sweep(440e6, 480e6, 21, -10);
    once("");
    cable.pull();
    awaitTrue(() -> state(analyzer).equals("LOST"));
    long before = sweeps();
    server.json(server.send("POST", url("/start"), "{\"jobId\":" + job + "}"), 200);
    awaitTrue(() -> state().get("phase").asString().equals("LOST"));
    assertFalse(state().get("message").asString().isBlank());
    cable.plug();
    awaitTrue(() -> sweeps() > before);
    assertEquals(state().get("phase").asString(), "RUNNING");
    // Taken off at the Bench while it sweeps: that is said as well.
    server.json(server.send("POST", "/api/instruments/" + analyzer + "/disconnect", ""), 200);
    awaitTrue(() -> state().get("phase").asString().equals("LOST"));
    assertTrue(state().get("message").asString().contains("not connected"));
  }

  @Test
  public void aCalibrationOutlivesAPulledCable() {
    sweep(100e6, 1e9, 46, -10);
    begin("ONE_PORT");
    assertTrue(step("OPEN_1", "Open").get("measured").asBoolean());
    cable.pull();
    plug(part, "Short");
    server.json(server.send("POST", url("/calibration/steps/SHORT_1"), ""), 202);
    awaitTrue(() -> state().get("phase").asString().equals("LOST"));
    JsonNode work = state().get("calibrating");
    assertEquals(work.get("measuring").asString(), "SHORT_1");
    assertTrue(work.get("steps").get(0).get("measured").asBoolean(), "the open is not lost");
    cable.plug();
    awaitTrue(() -> state().get("calibrating").get("steps").get(1).get("measured").asBoolean());
    assertTrue(step("LOAD_1", "Load").get("measured").asBoolean());
    server.json(server.send("POST", url("/calibration/finish"), "{}"), 201);
    plug(part, "Short");
    once("");
    JsonNode verdict =
        server.json(server.send("POST", url("/verify"), "{\"what\":\"SHORT\",\"port\":1}"), 200);
    assertTrue(verdict.get("good").asBoolean(), verdict.toString());
    // The wrong part is refused, and spoils nothing of what the right one said.
    JsonNode before = state().get("facts");
    refused("POST", url("/verify"), "{\"what\":\"OPEN\",\"port\":1}", 400);
    assertEquals(state().get("facts"), before);
  }

  /** Sweeps that cannot be: what is wrong with each, by its field. */
  @DataProvider
  public Object[][] absurdSweeps() {
    return new Object[][] {
      {470e6, 450e6, 41, 1e3, 1, -10.0, ""},
      {0.0, 450e6, 41, 1e3, 1, -10.0, ""},
      {-5.0, 450e6, 41, 1e3, 1, -10.0, ""},
      {1e6, 90e9, 41, 1e3, 1, -10.0, ""},
      {1e6, 1e9, 1, 1e3, 1, -10.0, "points"},
      {1e6, 1e9, 20_002, 1e3, 1, -10.0, "points"},
      {1e6, 1e9, -7, 1e3, 1, -10.0, "points"},
      {1e6, 1e9, 41, 0.0, 1, -10.0, "bandwidthHz"},
      {1e6, 1e9, 41, -1e3, 1, -10.0, "bandwidthHz"},
      {1e6, 1e9, 41, 1e3, 0, -10.0, "averages"},
      {1e6, 1e9, 41, 1e3, 2_000_000, -10.0, "averages"},
      {1e6, 1e9, 41, 1e3, 1, 99.0, "powerDbm"},
      {1e6, 1e9, 41, 1e3, 1, -300.0, "powerDbm"},
    };
  }

  @Test(dataProvider = "absurdSweeps")
  public void absurdSweepsChangeNothing(
      double start, double stop, int points, double bw, int averages, double power, String field) {
    JsonNode before = state().get("sweep");
    JsonNode problem =
        refusedSweep(
            String.format(
                Locale.ROOT,
                "{\"startHz\":%f,\"stopHz\":%f,\"points\":%d,\"type\":\"LINEAR\",\"bandwidthHz\":%f,"
                    + "\"averages\":%d,\"powerDbm\":%f,\"bothPorts\":true}",
                start,
                stop,
                points,
                bw,
                averages,
                power),
            400);
    if (!field.isEmpty()) {
      assertEquals(problem.get("field").asString(), field);
    }
    assertEquals(state().get("sweep"), before);
  }

  @Test
  public void whatIsNoSweepAtAllIsRefused() {
    JsonNode before = state().get("sweep");
    String common = ",\"bandwidthHz\":1e3,\"averages\":1,\"powerDbm\":-10,\"bothPorts\":true";
    refusedSweep("{\"startHz\":\"low\"}", 400);
    refusedSweep("{nonsense", 400);
    String segments = "{\"type\":\"SEGMENTS\",\"startHz\":1e6,\"stopHz\":2e6,\"points\":5" + common;
    refusedSweep(segments + ",\"segments\":[]}", 400);
    refusedSweep(
        segments
            + ",\"segments\":[{\"startHz\":5e6,\"stopHz\":9e6,\"points\":5},"
            + "{\"startHz\":7e6,\"stopHz\":11e6,\"points\":5}]}",
        400);
    assertEquals(state().get("sweep"), before);
  }

  /** Views that cannot be shown, and the word that names what is wrong. */
  @DataProvider
  public Object[][] absurdViews() {
    String time = "\"time\":{\"row\":1,\"column\":1,\"shape\":\"BALANCED\"";
    return new Object[][] {
      {"\"smoothing\":3"},
      {"\"smoothing\":-1"},
      {"\"apertureHz\":-5"},
      {time + ",\"mode\":\"BAND_PASS\",\"velocityFactor\":0}"},
      {time + ",\"mode\":\"BAND_PASS\",\"velocityFactor\":1.7}"},
      {time + ",\"mode\":\"STEP\",\"velocityFactor\":0.7}"},
      {time + ",\"velocityFactor\":0.7}"},
      {"\"change\":{\"referenceOhm\":-50}"},
      {"\"change\":{\"balanced\":[1,3,2,4]}"},
      {"\"change\":{\"firstPart\":987654}"},
      {"\"change\":{\"extensions\":[{\"delaySeconds\":1e-9,\"lossDb\":1,\"atHz\":0}]}"},
      {"\"memory\":987654,\"math\":\"OVER\""},
      {"\"change\":{\"elements\":[{\"kind\":\"SERIES_L\",\"value\":-1}]}"},
    };
  }

  @Test(dataProvider = "absurdViews")
  public void absurdViewsAreRefusedAndTheLastOneStays(String ask) {
    sweep(440e6, 480e6, 41, -10);
    view("");
    once("");
    tools.jackson.databind.node.ObjectNode body = RunningServer.JSON.createObjectNode();
    body.set("sweep", state().get("sweep"));
    String phase = "{\"panes\":[{\"row\":2,\"column\":1,\"format\":\"PHASE\"}]," + ask + "}";
    body.set("view", RunningServer.JSON.readTree(phase));
    var reply = server.send("PUT", url("/settings"), body.toString());
    assertTrue(
        reply.statusCode() == 400 || reply.statusCode() == 404,
        reply.statusCode() + " " + reply.body());
    assertFalse(server.json(reply, reply.statusCode()).get("detail").asString().isBlank());
    JsonNode still = once("");
    assertEquals(still.get("curves").get(0).get("format").asString(), "LOG_MAGNITUDE");
    assertEquals(still.get("notes").size(), 0);
  }

  @Test
  public void stepsOutOfOrderSayWhatComesFirst() {
    refused("GET", url("/shown"), "", 409);
    refused("POST", url("/verify"), "{\"what\":\"OPEN\",\"port\":1}", 409);
    refused("POST", url("/calibration/steps/OPEN_1"), "", 409);
    refused("POST", url("/calibration/finish"), "{}", 409);
    refused("POST", url("/calibration"), "{}", 400);
    refused("PUT", url("/calibration/use"), "{\"calibrationId\":4711}", 404);
    refused("DELETE", "/api/calibrations/4711", "", 404);
    refused("GET", "/api/live/i4711/network", "", 404);
    refused("POST", url("/start"), "{\"jobId\":4711}", 404);
    sweep(440e6, 480e6, 41, -10);
    begin("ONE_PORT");
    refused("POST", url("/calibration/steps/THROUGH"), "", 400);
    refused("POST", url("/calibration/steps/NOTHING"), "", 400);
    refused("POST", url("/calibration/finish"), "{}", 400);
    JsonNode busy =
        refusedSweep(
            "{\"startHz\":1e6,\"stopHz\":2e6,\"points\":5,\"type\":\"LINEAR\",\"bandwidthHz\":1e3,"
                + "\"averages\":1,\"powerDbm\":-10,\"bothPorts\":true}",
            409);
    assertTrue(busy.get("detail").asString().contains("calibration is under way"));
    server.json(server.send("DELETE", url("/calibration"), ""), 204);
    assertTrue(state().get("calibrating").isNull());
  }

  /** One window holds the analyzer; another may watch, and take it over. */
  @Test
  public void onlyTheHolderMaySet() {
    sweep(440e6, 480e6, 41, -10); // by a script without a name
    var other =
        server
            .request(url("/hold"))
            .header("X-Rovnik-Client", "w7%7Cthe%20other%20window")
            .POST(java.net.http.HttpRequest.BodyPublishers.noBody());
    JsonNode held = server.json(server.send(other), 409);
    assertEquals(held.get("field").asString(), "holder");
    var take =
        server
            .request(url("/take-over"))
            .header("X-Rovnik-Client", "w7%7Cthe%20other%20window")
            .POST(java.net.http.HttpRequest.BodyPublishers.noBody());
    server.json(server.send(take), 200);
    assertEquals(state().get("holderName").asString(), "the other window");
    JsonNode now = refused("POST", url("/hold"), "", 409);
    assertTrue(now.get("detail").asString().contains("the other window"));
    assertEquals(state().get("sweep").get("points").asInt(), 41);
  }
}
