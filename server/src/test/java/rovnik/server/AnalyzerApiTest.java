package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.net.http.HttpRequest;
import java.util.List;
import org.testng.annotations.Test;
import rovnik.standins.world.Truth;
import tools.jackson.databind.JsonNode;

/** The network analyzer: levels, calibration, verification, limits, runs. */
public class AnalyzerApiTest extends AnalyzerBench {
  /** A step sends power as a sweep does: a part that may still be plugged in is asked about. */
  @Test
  public void noStandardIsMeasuredWhileTheAmplifierMayBeOn() {
    path(false);
    sweep(440e6, 480e6, 51, -10);
    put(url("/job"), "{\"jobId\":" + job + "}");
    begin("ONE_PORT");
    String question = state().get("calibrating").get("partQuestion").asString();
    assertTrue(question.contains("Preamplifier"), question);
    String step = url("/calibration/steps/OPEN_1");
    JsonNode refused = server.json(server.send("POST", step, ""), 409);
    assertEquals(refused.get("field").asString(), "partOff");
    long before = state().get("sweeps").asLong();
    assertEquals(state().get("calibrating").get("measuring").isNull(), true);
    plug(part, "Open");
    server.json(server.send("POST", step, "{\"partOff\":true}"), 202);
    awaitTrue(() -> state().get("sweeps").asLong() > before);
    awaitTrue(
        () ->
            state().get("calibrating").get("steps").get(0).get("measured").asBoolean()
                && state().get("calibrating").get("partQuestion").asString().isEmpty());
    begin("ONE_PORT");
    assertFalse(
        state().get("calibrating").get("partQuestion").asString().isEmpty(),
        "it is asked again for the next calibration");
  }

  /** What reads -7 dB through the pads is said as the preamplifier's own gain. */
  @Test
  public void theGainOfThePreamplifierIsReadBetweenItsPads() {
    path(true);
    sweep(440e6, 480e6, 41, -10);
    view(",\"bands\":[{\"name\":\"b\",\"fromHz\":457.5e6,\"toHz\":458.5e6}]");
    assertEquals(calibrate("TWO_PORT", "Through").get("method").asString(), "TWO_PORT");
    plug(part, "Shore preamplifier");
    plug(pad1, "Pad 10 dB");
    plug(pad2, "Pad 20 dB with dc block");
    JsonNode refused =
        server.json(server.send("POST", url("/start"), "{\"jobId\":" + job + "}"), 409);
    assertEquals(refused.get("field").asString(), "dcCheck");
    JsonNode n = once(",\"answers\":[\"dcCheck\"]");
    JsonNode gain = reading(n, 0, "gainLowest");
    double u = gain.get("uncertainty").asDouble();
    assertTrue(u > 0.02 && u < 0.6, "U " + u);
    assertEquals(gain.get("value").asDouble(), Truth.PREAMP_GAIN_DB, 0.2 + u);
    JsonNode levels = state().get("levels");
    assertEquals(levels.get("plan").get("planes").get(1).get("levelDbm").asDouble(), -20.0, 1e-9);
    assertTrue(levels.get("backward").get(0).asString().contains("-30.0 dBm into the output"));
    // At the calibrated ports it reads the pads as well.
    putView(
        false,
        "{\"panes\":[],\"bands\":[{\"name\":\"b\",\"fromHz\":457.5e6,\"toHz\":458.5e6}]}",
        200);
    JsonNode raw = server.json(server.get(url("/shown")), 200);
    assertEquals(
        reading(raw, 0, "gainLowest").get("value").asDouble(), Truth.PREAMP_GAIN_DB - 30.1, 0.3);
  }

  /** What would overdrive the part is refused while the sweep runs, and the sweep goes on. */
  @Test
  public void powerIsNotTurnedUpIntoAnOverload() {
    path(true);
    sweep(440e6, 480e6, 21, -10);
    String start = "{\"jobId\":" + job + ",\"answers\":[\"dcCheck\"]}";
    server.json(server.send("POST", url("/start"), start), 200);
    String hot =
        "{\"startHz\":440e6,\"stopHz\":480e6,\"points\":21,\"type\":\"LINEAR\","
            + "\"bandwidthHz\":1000,\"averages\":4,\"powerDbm\":8,\"bothPorts\":true}";
    JsonNode refused =
        server.json(server.send("PATCH", url("/settings"), "{\"sweep\":" + hot + "}"), 409);
    assertEquals(refused.get("field").asString(), "levelPlan");
    assertEquals(state().get("sweep").get("powerDbm").asDouble(), -10.0);
    assertEquals(state().get("phase").asString(), "RUNNING");
  }

  @Test
  public void overdrivingIsRefusedUntilAReasonIsGiven() {
    path(false);
    sweep(440e6, 480e6, 21, 0);
    JsonNode refused =
        server.json(
            server.send("POST", url("/start"), "{\"jobId\":" + job + ",\"answers\":[\"dcCheck\"]}"),
            409);
    assertEquals(refused.get("field").asString(), "levelPlan");
    assertEquals(state().get("phase").asString(), "REFUSED");
    plug(part, "Shore preamplifier");
    plug(pad2, "Pad 20 dB with dc block");
    JsonNode n = once(",\"answers\":[\"dcCheck\"],\"overrideReason\":\"compression is wanted\"");
    assertEquals(n.get("curves").get(0).get("y").size(), 21);
    assertEquals(state().get("overrideReason").asString(), "compression is wanted");
  }

  /** A reason for one job is none for another whose path was changed as often. */
  @Test
  public void aReasonHoldsForItsOwnJobAlone() {
    path(false);
    long first = job;
    job =
        server
            .json(server.send("POST", "/api/jobs", "{\"name\":\"Other\",\"dut\":\"x\"}"), 201)
            .get("id")
            .asLong();
    path(false);
    path(false);
    plug(part, "Shore preamplifier");
    sweep(440e6, 480e6, 21, 0);
    String rest = ",\"answers\":[\"dcCheck\"],\"once\":true";
    String reason = ",\"overrideReason\":\"compression\"}";
    String start = "{\"jobId\":" + first + rest;
    server.json(server.send("POST", url("/start"), start + reason), 200);
    awaitTrue(() -> state().get("phase").asString().equals("HELD"));
    server.json(server.send("POST", url("/start"), start + "}"), 200);
    awaitTrue(() -> state().get("phase").asString().equals("HELD"));
    assertEquals(state().get("overrideReason").asString(), "compression");
    // It was given for 0 dBm: less is covered, more is not.
    sweep(440e6, 480e6, 21, -1);
    server.json(server.send("POST", url("/start"), start + "}"), 200);
    awaitTrue(() -> state().get("phase").asString().equals("HELD"));
    sweep(440e6, 480e6, 21, 1);
    server.json(server.send("POST", url("/start"), start + "}"), 409);
    sweep(440e6, 480e6, 21, 0);
    JsonNode asked =
        server.json(server.send("POST", url("/start"), "{\"jobId\":" + job + rest + "}"), 409);
    assertEquals(asked.get("field").asString(), "levelPlan");
  }

  @Test
  public void wrongStandardsAreNotTakenAndAnyOrderWill() {
    sweep(100e6, 1e9, 46, -10);
    begin("ONE_PORT");
    JsonNode open = step("SHORT_1", "Short");
    assertTrue(open.get("measured").asBoolean());
    JsonNode wrong = step("OPEN_1", "Short");
    assertFalse(wrong.get("measured").asBoolean());
    assertTrue(wrong.get("doubt").asString().contains("just like the short"), wrong.toString());
    JsonNode load = step("LOAD_1", "Open");
    assertTrue(load.get("doubt").asString().contains("no load"), load.toString());
    JsonNode early = server.json(server.send("POST", url("/calibration/finish"), "{}"), 400);
    assertTrue(early.get("detail").asString().contains("Still to be measured"));
    assertTrue(step("LOAD_1", "Load").get("measured").asBoolean());
    assertTrue(step("OPEN_1", "Open").get("measured").asBoolean());
    assertTrue(step("SHORT_1", "Short").get("measured").asBoolean(), "again");
    server.json(server.send("POST", url("/calibration/finish"), "{\"name\":\"desk\"}"), 201);
    assertEquals(state().get("trust").asString(), "VALID");
    plug(part, "Open");
    JsonNode n = once("");
    assertEquals(n.get("ports").asInt(), 1);
    JsonNode verdict =
        server.json(server.send("POST", url("/verify"), "{\"what\":\"OPEN\",\"port\":1}"), 200);
    assertTrue(verdict.get("good").asBoolean(), verdict.toString());
    plug(part, "Line 0.5 m with open end");
    once("");
    JsonNode ripple =
        server.json(server.send("POST", url("/verify"), "{\"what\":\"RIPPLE\",\"port\":1}"), 200);
    assertTrue(ripple.get("good").asBoolean(), ripple.toString());
    // Other points, then a wider sweep: the trust falls.
    sweep(200e6, 800e6, 31, -10);
    assertEquals(state().get("trust").asString(), "INTERPOLATED");
    sweep(200e6, 2e9, 31, -10);
    assertEquals(state().get("trust").asString(), "EXTRAPOLATED");
    long id = state().get("calibrationId").asLong();
    put(url("/calibration/use"), "{\"calibrationId\":null}");
    assertEquals(state().get("trust").asString(), "NONE");
    put(url("/calibration/use"), "{\"calibrationId\":" + id + "}");
    assertEquals(state().get("trust").asString(), "EXTRAPOLATED");
    assertEquals(server.json(server.get("/api/calibrations"), 200).size(), 1);
  }

  @Test
  public void limitsAndBandsOfTheJobAreKeptWithTheRun() {
    sweep(448e6, 469e6, 211, -10);
    calibrate("UNKNOWN_THROUGH", "Adapter");
    put(
        "/api/jobs/" + job + "/network",
        "{\"limits\":[{\"name\":\"pass band\",\"row\":2,\"column\":1,\"format\":\"LOG_MAGNITUDE\","
            + "\"upper\":false,\"fromHz\":457e6,\"toHz\":460e6,\"fromValue\":-1.8,\"toValue\":-1.8}],"
            + "\"bands\":[{\"name\":\"middle\",\"fromHz\":457e6,\"toHz\":460e6}]}");
    plug(part, "Cavity filter");
    once("");
    JsonNode run = server.json(server.send("POST", url("/keep"), "{\"name\":\"filter 1\"}"), 201);
    assertEquals(run.get("verdict").asString(), "PASS");
    JsonNode kept = run(run.get("id").asLong());
    assertEquals(
        kept.get("curves").valueStream().map(c -> c.get("id").asString()).toList(),
        List.of("S21", "S11", "S12", "S22", "S11.reflection", "S22.reflection"));
    assertEquals(kept.get("conditions").get("trust").asString(), "calibrated");
    long file = kept.get("networkId").asLong();
    JsonNode f = server.json(server.get("/api/networks/" + file), 200);
    assertEquals(f.get("frequencyHz").size(), 211);
    String csv = server.get("/api/networks/" + file + "/csv").body();
    assertTrue(csv.startsWith("frequency_Hz,S11_re,S11_im,S12_re"), csv.substring(0, 60));
    assertEquals(csv.lines().count(), 212L);
    // A view that cannot be shown changes nothing; one that fits no more is a note.
    JsonNode gate =
        putView(
            true,
            "{\"panes\":[],\"time\":{\"row\":1,\"column\":1,\"mode\":\"BAND_PASS\","
                + "\"shape\":\"BALANCED\",\"velocityFactor\":0.7,\"gate\":{\"fromMetres\":9,"
                + "\"toMetres\":2}}}",
            400);
    assertTrue(gate.get("detail").asString().contains("gate must end after"), gate.toString());
    view(",\"change\":{\"firstPart\":" + file + "}");
    sweep(300e6, 500e6, 21, -10);
    JsonNode other = once("");
    assertTrue(other.get("notes").get(0).asString().contains("known from"), "a note");
    sweep(448e6, 469e6, 211, -10);
    once("");
    // The file is plugged as a part, and measured again.
    server.json(
        server.send("POST", "/api/instruments/" + part + "/load", "{\"networkId\":" + file + "}"),
        200);
    plug(part, "filter 1");
    view(",\"memory\":" + file + ",\"math\":\"OVER\"");
    JsonNode ratio = once("");
    for (JsonNode y : ratio.get("curves").get(0).get("y")) {
      assertTrue(Math.abs(y.asDouble()) < 1.5, y.toString());
    }
  }

  @Test
  public void theFixtureIsJudgedBeforeItsParts() {
    sweep(1.6e6, 30e6, 101, 0);
    calibrate("TWO_PORT", "Through");
    plug(part, "Fixture shorted");
    once("");
    JsonNode wrong = server.json(server.send("POST", url("/fixture"), "{\"empty\":true}"), 400);
    assertTrue(wrong.get("detail").asString().contains("still passes"));
    server.json(server.send("POST", url("/fixture"), "{\"empty\":false}"), 200);
    plug(part, "Fixture empty");
    once("");
    JsonNode both = server.json(server.send("POST", url("/fixture"), "{\"empty\":true}"), 200);
    String fixture =
        ",\"fixture\":{\"empty\":"
            + both.get("fixtureEmpty").asLong()
            + ",\"shorted\":"
            + both.get("fixtureShorted").asLong()
            + "}";
    view(fixture);
    JsonNode empty = server.json(server.get(url("/shown")), 200);
    assertTrue(
        empty.get("notes").get(0).asString().contains("too near"), empty.get("notes").toString());
    plug(part, "Choke B");
    JsonNode choke = once("");
    assertEquals(choke.get("notes").size(), 0);
    assertEquals(choke.get("window").get("lowestDb").size(), 101);
  }

  @Test
  public void kitsAreReadableFiles() {
    assertEquals(server.json(server.get("/api/kits"), 200).size(), 2);
    HttpRequest.Builder bad = server.request("/api/kits/mine").header("Content-Type", "text/plain");
    JsonNode refused =
        server.json(
            server.send(
                bad.POST(HttpRequest.BodyPublishers.ofString("label: x\nopen: {farad: [a]}"))),
            400);
    assertTrue(refused.get("detail").asString().contains("line 2: \"farad\" must be a number"));
    String yaml = "label: mine\nopen: {farad: [5.0e-14]}\nshort: {}\nload: {ohm: 49.9}\n";
    HttpRequest.Builder good =
        server.request("/api/kits/mine").header("Content-Type", "text/plain");
    server.json(server.send(good.POST(HttpRequest.BodyPublishers.ofString(yaml))), 201);
    assertEquals(server.json(server.get("/api/kits"), 200).size(), 3);
    JsonNode unknown =
        server.json(
            server.send(
                "POST", url("/calibration"), "{\"method\":\"TWO_PORT\",\"kit\":\"nothing\"}"),
            400);
    assertTrue(unknown.get("detail").asString().contains("bench-box"));
  }
}
