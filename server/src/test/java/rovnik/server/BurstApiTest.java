package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Bursts in files and in a receiver's records. */
public class BurstApiTest extends GeneratorBench {
  private static final String PULSES =
      "{\"parts\":[{\"kind\":\"pulses\",\"widthSeconds\":3e-4,\"intervalSeconds\":3.1e-3,"
          + "\"edgeSeconds\":5e-6}],\"sampleRateHz\":8e6}";

  private JsonNode measure(long id, String settings, int status) {
    String body = "{\"measurement\":\"bursts\",\"settings\":" + settings + "}";
    return server.json(server.send("POST", "/api/recordings/" + id + "/measure", body), status);
  }

  /**
   * Generator, cable and receiver: the pulses come as they were described, at the level of the
   * path.
   */
  @Test
  public void pulsesOfAGenerator() {
    long id = make(PULSES).get("id").asLong();
    play(id, "", 200);
    control(generator, "frequency", "458.525e6", "level", "-10", "output", "on", "adjust", "");
    server.json(
        server.send(
            "PATCH",
            live("bursts", "/settings"),
            "{\"centreHz\":458.525e6,\"bandHz\":1e6,\"seconds\":0.05,\"referenceLevelDbm\":5,"
                + "\"mostPeriodSeconds\":3.0e-3}"),
        200);
    server.json(server.send("POST", live("bursts", "/start"), "{\"jobId\":" + own + "}"), 200);
    awaitTrue(() -> server.get(live("bursts", "/outcome")).statusCode() == 200);
    JsonNode kept =
        server.json(server.send("POST", live("bursts", "/keep"), "{\"name\":\"pulses\"}"), 201);
    JsonNode outcome = server.json(server.get(live("bursts", "/outcome")), 200).get("outcome");
    within(outcome, "period", 3.1e-3);
    within(outcome, "length", 3e-4);
    // The peaks are 10.1 dB over the mean (1 / share of time on, less the edges).
    within(outcome, "burstLevel", -10 + 10 * Math.log10(3.1e-3 / (3e-4 - 5e-6 / 4)));
    assertEquals(reading(outcome, "period").get("verdict").asString(), "FAIL");
    assertTrue(
        outcome.get("summary").asString().contains("every 3.1 ms (322.6 Hz)"), outcome.toString());
    assertEquals(kept.get("kind").asString(), "bursts");
  }

  /** A recording: the same by REST, once more in a stretch of it, and what cannot be. */
  @Test
  public void burstsOfARecording() {
    long id = make(PULSES.replace("8e6", "4e6")).get("id").asLong();
    JsonNode one = measure(id, "{\"bandHz\":1e6}", 200).get("outcome");
    // Its one pulse is cut off by the beginning.
    assertEquals(reading(one, "bursts").get("value").asDouble(), 0.0);
    assertTrue(one.get("summary").asString().contains("nothing begins and ends here"));
    refused(id, "{\"bandHz\":1e7}", "bandHz", "wider than this record");
    refused(id, "{\"bandHz\":1e6,\"overNoiseDb\":1}", "overNoiseDb", "3 to 120 dB");
    refused(
        id,
        "{\"bandHz\":1e6,\"leastLengthSeconds\":2,\"mostLengthSeconds\":1}",
        "leastLengthSeconds",
        "more than the most");
    refused(id, "{\"bandHz\":1e6,\"startSeconds\":1}", "startSeconds", "too little");
  }

  /**
   * What is known of the device under test is held against the interval, and what cannot be is
   * refused.
   */
  @Test
  public void anIntervalIsHeldAgainstWhatIsKnown() {
    String rates = "/api/jobs/" + own + "/rates";
    JsonNode wrong = server.json(server.send("PUT", rates, "[{\"name\":\"a\",\"hertz\":0}]"), 400);
    assertEquals(wrong.get("field").asString(), "rates");
    JsonNode job =
        server.json(
            server.send(
                "PUT",
                rates,
                "[{\"name\":\"core clock\",\"hertz\":26e6},{\"name\":\"tick\",\"hertz\":1000},"
                    + "{\"name\":\"radio sleep\",\"hertz\":322.5806}]"),
            200);
    assertEquals(job.get("rates").size(), 3);
    long id = make(PULSES).get("id").asLong();
    play(id, "", 200);
    control(generator, "frequency", "458.525e6", "level", "-10", "output", "on", "adjust", "");
    server.json(
        server.send(
            "PATCH",
            live("bursts", "/settings"),
            "{\"centreHz\":458.525e6,\"bandHz\":1e6,\"seconds\":0.05,\"referenceLevelDbm\":5}"),
        200);
    server.json(server.send("POST", live("bursts", "/start"), "{\"jobId\":" + own + "}"), 200);
    awaitTrue(() -> server.get(live("bursts", "/outcome")).body().contains("That is radio sleep"));
    server.json(server.send("PUT", rates, "[{\"name\":\"tick\",\"hertz\":1000}]"), 200);
    awaitTrue(
        () ->
            server
                .get(live("bursts", "/outcome"))
                .body()
                .contains("Nothing that is known of the job has this rate"));
  }

  /**
   * The same generator through receiver and cable, as a density; and a recording of its waveform.
   */
  @Test
  public void densityOfPulses() {
    long id = make(PULSES).get("id").asLong();
    play(id, "", 200);
    control(generator, "frequency", "458.525e6", "level", "-10", "output", "on", "adjust", "");
    server.json(
        server.send(
            "PATCH",
            live("density", "/settings"),
            "{\"centreHz\":458.525e6,\"spanHz\":1e6,\"rbwHz\":2e4,\"seconds\":0.05,"
                + "\"referenceLevelDbm\":5}"),
        200);
    server.json(server.send("POST", live("density", "/start"), "{\"jobId\":" + own + "}"), 200);
    awaitTrue(() -> server.get(live("density", "/outcome")).statusCode() == 200);
    JsonNode kept =
        server.json(server.send("POST", live("density", "/keep"), "{\"name\":\"seen\"}"), 201);
    JsonNode outcome = server.json(server.get(live("density", "/outcome")), 200).get("outcome");
    within(outcome, "highestLevel", -10 + 10 * Math.log10(3.1e-3 / (3e-4 - 5e-6 / 4)));
    within(outcome, "share", 100 * 3e-4 / 3.1e-3);
    within(outcome, "highestFrequency", 458.525e6);
    assertEquals(kept.get("kind").asString(), "density");
    long still = make(PULSES.replace("8e6", "4e6")).get("id").asLong();
    String wrong = "{\"measurement\":\"density\",\"settings\":{\"overlapPercent\":100}}";
    assertEquals(
        server
            .json(server.send("POST", "/api/recordings/" + still + "/measure", wrong), 400)
            .get("field")
            .asString(),
        "overlapPercent");
    JsonNode file =
        server
            .json(
                server.send(
                    "POST",
                    "/api/recordings/" + still + "/measure",
                    "{\"measurement\":\"density\",\"settings\":{\"rbwHz\":2e4}}"),
                200)
            .get("outcome");
    within(file, "share", 100 * 3e-4 / 3.1e-3);
  }

  /**
   * A recording over time: where nothing is chosen the spectrum is that of the burst, at its level;
   * elsewhere it is of what is there, and the beginning counts.
   */
  @Test
  public void amplitudeOfARecording() {
    long id = make(PULSES.replace("8e6", "4e6").replace("3e-4", "1e-3")).get("id").asLong();
    JsonNode all = amplitude(id, "{}", 200).get("outcome");
    double burst = reading(all, "stretchLevel").get("value").asDouble();
    assertEquals(reading(all, "highestLevel").get("value").asDouble(), burst, 0.1);
    assertEquals(reading(all, "lineLevel").get("value").asDouble(), burst, 0.1, all.toString());
    assertEquals(reading(all, "stretchSpectrum").get("value").asDouble(), burst, 0.1);
    // Of 1 ms in 3.1 ms, less the edges.
    double share = 10 * Math.log10((1e-3 - 5e-6 / 4) / 3.1e-3);
    assertEquals(reading(all, "meanLevel").get("value").asDouble(), burst + share, 0.05);
    JsonNode later =
        amplitude(
                id,
                "{\"seconds\":1e-3,\"startSeconds\":2e-3,\"instantSeconds\":2.5e-3,"
                    + "\"stretchSeconds\":2e-4}",
                200)
            .get("outcome");
    assertTrue(
        reading(later, "highestLevel").get("value").asDouble() < burst - 40, later.toString());
    double first = later.get("series").get(0).get("axis").get("start").asDouble();
    assertEquals(first, 2e-3, 1e-5);
    assertEquals(
        amplitude(id, "{\"instantSeconds\":1}", 400).get("field").asString(), "instantSeconds");
    assertEquals(amplitude(id, "{\"window\":\"round\"}", 400).get("field").asString(), "window");
    assertEquals(
        amplitude(id, "{\"startSeconds\":7}", 400).get("field").asString(), "startSeconds");
  }

  private JsonNode amplitude(long id, String settings, int status) {
    String body = "{\"measurement\":\"amplitude\",\"settings\":" + settings + "}";
    return server.json(server.send("POST", "/api/recordings/" + id + "/measure", body), status);
  }

  private void refused(long id, String settings, String field, String words) {
    JsonNode answer = measure(id, settings, 400);
    assertEquals(answer.get("field").asString(), field, answer.toString());
    assertTrue(answer.get("detail").asString().contains(words), answer.toString());
  }
}
