package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A waveform is made, looked at, sent, played, measured, and the generator trimmed. */
public class GeneratorApiTest extends GeneratorBench {
  /** The peaks of noise-like signals are what the level plan looks at before power flows. */
  @Test
  public void peaksAreJudgedBeforePowerFlows() {
    JsonNode w = make("{\"parts\":[{\"kind\":\"noise\",\"bandHz\":200e3}]}");
    assertTrue(w.get("crestDb").asDouble() > 8, w.toString());
    control(generator, "frequency", "458.525e6", "level", "5", "output", "on");
    JsonNode no = play(w.get("id").asLong(), "", 409);
    assertEquals(no.get("field").asString(), "levelPlan", no.toString());
    assertTrue(no.get("detail").asString().contains("in the peaks"), no.toString());
    // Nothing changed: still the plain carrier, still on.
    assertEquals(value("signal"), "plain carrier");
    assertEquals(value("output"), "on");
    play(w.get("id").asLong(), ",\"overrideReason\":\"a pad is there\"", 200);
    assertTrue(value("signal").contains("noise 200 kHz wide"), value("signal"));
    String preview =
        "{\"waveform\":{\"parts\":[{\"kind\":\"noise\",\"bandHz\":200e3}]},\"jobId\":%d,\"levelDbm\":5}"
            .formatted(own);
    JsonNode look = server.json(server.send("POST", "/api/waveforms/preview", preview), 200);
    assertTrue(look.get("plan").get("blocked").asBoolean(), look.get("plan").toString());
    assertEquals(look.get("plan").get("crestDb").asDouble(), w.get("crestDb").asDouble(), 1e-6);
  }

  @Test
  public void anotherRateIsSaidAndOffered() {
    long id =
        make("{\"parts\":[{\"kind\":\"comb\",\"count\":4,\"spacingHz\":1e4}]}").get("id").asLong();
    play(id, ",\"playbackRateHz\":300000", 200);
    JsonNode hint = generator().get("hints").get(0);
    assertTrue(hint.get("sentence").asString().startsWith("Made for"), hint.toString());
    control(generator, "playback-rate", hint.get("values").get("playback-rate").asString());
    assertTrue(
        generator().get("hints").findValuesAsString("sentence").stream()
            .noneMatch(s -> s.startsWith("Made for")));
    JsonNode bad = play(id, ",\"playbackRateHz\":1", 400);
    assertEquals(bad.get("field").asString(), "playbackRateHz", bad.toString());
  }

  /** Trimmed, leakage and image are gone; before and after are runs that can be compared. */
  @Test
  public void trimmingFindsWhatTheGeneratorDoesWrong() {
    playing();
    JsonNode found = guided("{\"kind\":\"trim\"}");
    assertTrue(found.get("summary").asString().contains("trimmed"), found.toString());
    assertTrue(reading(found, "evm").get("value").asDouble() < 0.2, found.toString());
    assertEquals(Double.parseDouble(value("gain")), -0.3, 0.01);
    assertEquals(Double.parseDouble(value("quadrature")), -0.8, 0.03);
    JsonNode runs = server.json(server.get("/api/jobs/" + own + "/runs"), 200);
    assertEquals(runs.findValuesAsString("name"), java.util.List.of("trimmed", "before trimming"));
    long newer = runs.get(0).get("id").asLong();
    double before = -38;
    JsonNode old = server.json(server.get("/api/runs/" + runs.get(1).get("id").asLong()), 200);
    assertEquals(reading(old.get("outcome"), "iqOffset").get("value").asDouble(), before, 0.2);
    assertTrue(server.json(server.get("/api/runs/" + newer), 200).toString().contains("trimmed"));
  }

  /** Seen through Spectrum too: beside one tone the carrier leaks and an image stands. */
  @Test
  public void trimmingByLinesFindsTheSame() {
    long id =
        make("{\"parts\":[{\"kind\":\"carrier\",\"offsetHz\":150e3}],\"sampleRateHz\":1e6}")
            .get("id")
            .asLong();
    play(id, "", 200);
    control(generator, "frequency", "458.525e6", "level", "0", "output", "on");
    server.json(
        server.send(
            "PATCH",
            live("spectrum", "/settings"),
            "{\"centreHz\":458.525e6,\"spanHz\":1e6,\"referenceLevelDbm\":8}"),
        200);
    JsonNode found =
        guided("spectrum", "{\"kind\":\"line-trim\",\"adjustFirst\":false,\"rounds\":2}");
    // 0.3 dB and 0.8 degree make an image of -34.5 dBc: |g e^(j phi) - 1| / 2 (identity).
    assertTrue(
        found
            .get("summary")
            .asString()
            .matches("Carrier leakage -38\\.\\d to .*image -34\\.\\d to .*"),
        found.get("summary").asString());
    assertTrue(reading(found, "leakage").get("value").asDouble() < -75, found.toString());
    assertTrue(reading(found, "image").get("value").asDouble() < -70, found.toString());
    assertEquals(Double.parseDouble(value("gain")), -0.3, 0.01);
    assertEquals(Double.parseDouble(value("quadrature")), -0.8, 0.03);

    // Neither data nor a tone on the carrier itself has lines beside it.
    playing();
    refusedByLines("is no single tone|no line in view|stands on the generator");
    long plain = make("{\"parts\":[{\"kind\":\"carrier\"}]}").get("id").asLong();
    play(plain, "", 200);
    refusedByLines("Send one tone beside it");
  }

  private void refusedByLines(String why) {
    String work = "{\"jobId\":" + own + ",\"work\":{\"kind\":\"line-trim\",\"rounds\":2}}";
    server.json(server.send("POST", live("spectrum", "/guided"), work), 202);
    awaitTrue(
        () ->
            server
                .json(server.get(live("spectrum", "")), 200)
                .get("message")
                .asString()
                .matches(".*(" + why + ").*"),
        30);
  }

  @Test
  public void theFrontEndIsSetToItsBest() {
    playing();
    // What the generator does wrong would hide what the receiver adds.
    control(generator, "adjust", "", "shift", "2e6");
    JsonNode found = guided("{\"kind\":\"front-end\",\"stepDb\":4}");
    assertTrue(found.get("summary").asString().startsWith("Best at"), found.toString());
    double reference =
        server
            .json(server.get(live("single-carrier", "")), 200)
            .get("settings")
            .get("referenceLevelDbm")
            .asDouble();
    assertTrue(reference > 5 && reference < 25, "reference level " + reference);
    JsonNode rows = found.get("tables").get(0).get("rows");
    assertTrue(rows.size() > 4, rows.toString());
    String no = "{\"jobId\":" + own + ",\"work\":{\"kind\":\"front-end\",\"stepDb\":0}}";
    assertEquals(
        server.send("POST", live("single-carrier", "/guided"), no).statusCode(), 400, "no step");
  }

  @Test
  public void whatCannotBeMadeIsASentence() {
    refused("{\"parts\":[]}", "parts", "1 to");
    refused("{\"parts\":[null]}", "parts", "cannot be read");
    refused("{\"parts\":[{\"kind\":\"chirp\"}]}", "kind", "single-carrier, carrier");
    refused("{\"parts\":[{\"kind\":\"am\"}]}", "depthPercent", "needs");
    refused("{\"parts\":[{\"kind\":\"carrier\"}],\"seconds\":1e6}", "seconds", "at most");
    refused("{\"parts\":[{\"kind\":\"carrier\"}],\"ebN0Db\":3}", "ebN0Db", "bits");
  }

  private void refused(String body, String field, String part) {
    JsonNode p = server.json(server.send("POST", "/api/waveforms", body), 400);
    assertEquals(p.get("field").asString(), field, p.toString());
    assertTrue(p.get("detail").asString().contains(part), p.toString());
  }

  /** AM and FM as the generator plays them, live, by script from a waveform, and as a kept run. */
  @Test
  public void analogModulationIsMeasured() {
    JsonNode am = make("{\"parts\":[{\"kind\":\"am\",\"depthPercent\":30,\"rateHz\":1000}]}");
    String settings = "{\"modulation\":\"am\",\"bandHz\":10000,\"seconds\":0.1}";
    JsonNode exact =
        server
            .json(
                server.send(
                    "POST",
                    "/api/recordings/" + am.get("id").asLong() + "/measure",
                    "{\"measurement\":\"analog\",\"settings\":" + settings + "}"),
                200)
            .get("outcome");
    assertEquals(reading(exact, "amount").get("value").asDouble(), 30, 0.02);
    assertEquals(reading(exact, "depthFromLines").get("value").asDouble(), 30, 0.02);

    play(
        make("{\"parts\":[{\"kind\":\"fm\",\"deviationHz\":2500,\"rateHz\":1000}]}")
            .get("id")
            .asLong(),
        "",
        200);
    control(generator, "frequency", "458.525e6", "level", "0", "adjust", "", "output", "on");
    server.json(
        server.send(
            "PUT",
            live("analog", "/settings"),
            "{\"modulation\":\"fm\",\"centreHz\":458.525e6,\"bandHz\":25e3,\"seconds\":0.1,"
                + "\"startSeconds\":0,\"audioLowHz\":0,\"audioHighHz\":0,\"deEmphasisSeconds\":0,"
                + "\"weighted\":false,\"highestAmount\":2600,\"referenceLevelDbm\":10}"),
        200);
    server.json(server.send("POST", live("analog", "/start"), "{\"jobId\":" + own + "}"), 200);
    awaitTrue(() -> server.get(live("analog", "/outcome")).statusCode() == 200);
    JsonNode o = server.json(server.get(live("analog", "/outcome")), 200).get("outcome");
    assertEquals(reading(o, "amount").get("value").asDouble(), 2500, 5);
    assertEquals(reading(o, "amount").get("verdict").asString(), "PASS");
    assertTrue(reading(o, "distortion").get("value").asDouble() < 0.3, o.toString());
    long run =
        server
            .json(server.send("POST", live("analog", "/keep"), "{\"name\":\"fm\"}"), 201)
            .get("id")
            .asLong();
    JsonNode again =
        server.json(server.send("POST", "/api/runs/" + run + "/measure", "{}"), 200).get("outcome");
    assertEquals(reading(again, "amount").get("value").asDouble(), 2500, 5);
    JsonNode bad =
        server.json(
            server.send(
                "PUT",
                live("analog", "/settings"),
                "{\"modulation\":\"ssb\",\"centreHz\":458.525e6,\"bandHz\":25e3,\"seconds\":0.1,"
                    + "\"startSeconds\":0,\"audioLowHz\":0,\"audioHighHz\":0,"
                    + "\"deEmphasisSeconds\":0,\"weighted\":false,\"referenceLevelDbm\":10}"),
            400);
    assertEquals(bad.get("field").asString(), "modulation", bad.toString());
  }
}
