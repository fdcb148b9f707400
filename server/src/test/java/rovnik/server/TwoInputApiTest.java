package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import rovnik.core.units.LevelUnit;
import rovnik.standins.world.Truth;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The receiver with two inputs, the noise source before it, and levels in other units. */
public class TwoInputApiTest extends BuoyBench {
  private long two;
  private long noise;
  private long part;

  @BeforeMethod(dependsOnMethods = "setUp")
  public void plugTogether() {
    two = add("Two inputs", "IQ_RECEIVER", server.bench().twoInputPort(), "scpi-iq-two");
    noise = add("Noise source", "NOISE_SOURCE", server.bench().noiseSourcePort(), "scpi-noise");
    part = add("Part", "PART_HOLDER", server.bench().noisePartPort(), "scpi-parts");
    receiver = two;
    String elements =
        String.join(
            ",",
            element(
                "Noise source", "SOURCE", 0, ",\"outputLevelDbm\":-60,\"instrumentId\":" + noise),
            element("Input 1", "PORT", 0, ",\"instrumentId\":" + two));
    server.json(
        server.send(
            "PUT",
            "/api/jobs/" + job + "/path",
            "{\"elements\":[" + elements + "],\"readingPlane\":0,\"revision\":0}"),
        200);
    awaitTrue(
        () ->
            state(two).equals("CONNECTED")
                && state(noise).equals("CONNECTED")
                && state(part).equals("CONNECTED"));
  }

  private JsonNode look(String view, int averages) {
    ObjectNode s =
        (ObjectNode) settings("458.525e6", "4e6", averages, -10).get("settings").deepCopy();
    s.set("view", RunningServer.JSON.readTree(view));
    server.json(server.send("PUT", live("/settings"), s.toString()), 200);
    start();
    JsonNode[] frame = new JsonNode[1];
    awaitTrue(
        () -> {
          frame[0] = settledFrame(averages);
          return frame[0].get("rows").size() == 1;
        });
    return frame[0];
  }

  /** +12 dBm at the exciter's test point, behind a probe of 10:1; the first input sees noise. */
  @Test
  public void theSecondInputReadsAtTheProbesTip() {
    String second =
        "{\"second\":{\"window\":\"FLAT_TOP\",\"referenceLevelDbm\":15,\"probeRatio\":10}}";
    JsonNode frame = look(second, 16);
    assertEquals(frame.get("rows").size(), 1);
    assertTrue(frame.get("rows").get(0).asString().contains("tip of probe 2, 10:1"));
    assertEquals(
        reading(frame, "secondLevel").get("value").asDouble(), Truth.EXCITER_DBM, 0.5, "10:1");
    // The hand switches the probe; what Rovnik is told stays, so the level is wrong by 20 dB.
    server.bench().world();
    try (java.net.Socket hand = new java.net.Socket("127.0.0.1", server.bench().twoInputPort())) {
      hand.getOutputStream().write("SIM:PROB 1;*OPC?\n".getBytes());
      hand.getInputStream().read();
    } catch (java.io.IOException e) {
      throw new AssertionError(e);
    }
    String coarse =
        "{\"second\":{\"window\":\"FLAT_TOP\",\"referenceLevelDbm\":40,\"probeRatio\":10}}";
    JsonNode wrong = look(coarse, 17);
    assertEquals(
        reading(wrong, "secondLevel").get("value").asDouble(), Truth.EXCITER_DBM + 20, 0.5);
  }

  /** The same level in all units; 0.89 V at the tip is what +12 dBm is in 50 ohm. */
  @Test
  public void allUnitsAgreeThroughTheImpedance() {
    double dbm = Double.NaN;
    for (LevelUnit unit : LevelUnit.values()) {
      String view =
          "{\"unit\":\"%s\",\"impedanceOhm\":75,\"second\":{\"window\":\"HANN\",\"referenceLevelDbm\":15,\"probeRatio\":10}}"
              .formatted(unit);
      JsonNode frame = look(view, 12 + unit.ordinal());
      JsonNode level = reading(frame, "secondLevel");
      assertEquals(level.get("unit").asString(), unit.label());
      assertEquals(frame.get("unit").asString(), unit.label());
      assertEquals(frame.get("linear").asBoolean(), !unit.decibels());
      double inside = unit.toDbm(level.get("value").asDouble(), 75);
      dbm = Double.isNaN(dbm) ? inside : dbm;
      assertEquals(inside, dbm, 0.1, unit.toString());
      assertEquals(inside, Truth.EXCITER_DBM, 0.6, unit.toString());
    }
  }

  @Test
  public void aReceiverWithOneInputSaysSo() {
    receiver = add("Receiver 1", "IQ_RECEIVER", server.bench().receiverPort(), "scpi-iq");
    server.json(
        server.send(
            "PUT",
            "/api/jobs/" + job + "/path",
            "{\"elements\":["
                + element("TX", "SOURCE", 0, ",\"outputLevelDbm\":27")
                + ","
                + element("Pad", "PAD", -30, "")
                + ","
                + element("IN", "PORT", 0, ",\"instrumentId\":" + receiver)
                + "],\"readingPlane\":0,\"revision\":1}"),
        200);
    ObjectNode s = (ObjectNode) settings("458.525e6", "4e6", 4, 30).get("settings").deepCopy();
    start();
    s.set(
        "view",
        RunningServer.JSON.readTree(
            "{\"second\":{\"window\":\"HANN\",\"referenceLevelDbm\":0,\"probeRatio\":1}}"));
    JsonNode problem = server.json(server.send("PUT", live("/settings"), s.toString()), 400);
    assertEquals(problem.get("field").asString(), "second");
    assertTrue(problem.get("detail").asString().contains("one input"), problem.toString());
  }

  private JsonNode noiseFigure(String more) {
    server.json(
        server.send(
            "POST",
            live("/guided"),
            "{\"jobId\":%d,\"work\":{\"kind\":\"noise-figure\"%s}}".formatted(job, more)),
        202);
    awaitTrue(() -> server.json(server.get(live("")), 200).get("guided").isNull(), 90);
    return Flat.finding(server.json(server.get(live("/finding")), 200));
  }

  private void plug(String name) {
    control(part, "part", name);
  }

  /**
   * Twice the expanded uncertainty, four standard deviations: the noise is different each time, and
   * a true answer must pass each time. How often the truth lies inside is for seeded trials.
   */
  private static void near(JsonNode reading, double truth) {
    double expanded = reading.get("uncertainty").asDouble();
    assertEquals(reading.get("value").asDouble(), truth, 2 * expanded, reading.toString());
    assertTrue(expanded < 0.9, "not needlessly wide: " + reading);
  }

  /** Receiver 18 dB, preamplifier 1.3 dB and 19.5 dB: the scenario, within the uncertainty. */
  @Test
  public void theNoiseFigureOfThePreamplifier() {
    settings("458e6", "2e6", 200, -20);
    plug("Shore preamplifier");
    JsonNode first = noiseFigure("");
    assertTrue(first.get("summary").asString().contains("receiver alone"), first.toString());
    plug("Through");
    JsonNode alone = noiseFigure(",\"receiverAlone\":true");
    JsonNode figure = reading(alone, "noiseFigure");
    near(figure, Truth.RECEIVER_NOISE_FIGURE_DB);
    plug("Shore preamplifier");
    JsonNode both = noiseFigure(",\"limitDb\":2.5");
    near(reading(both, "noiseFigure"), Truth.PREAMP_NOISE_FIGURE_DB);
    near(reading(both, "availableGain"), Truth.PREAMP_GAIN_DB);
    assertTrue(reading(both, "noiseFigure").get("verdict").asString().startsWith("PASS"));
    for (JsonNode i : server.json(server.get("/api/instruments"), 200)) {
      if (i.get("id").asLong() == noise) {
        assertEquals(
            i.get("controls").get(0).get("value").asString(), "off", "the source was left hot");
      }
    }
  }

  @Test
  public void aPartThatIsNotThereIsRefusedInTheInstrumentsOwnWords() {
    JsonNode problem = server.json(controlled(part, null, "part", "Toaster"), 502);
    assertTrue(problem.get("detail").asString().contains("Illegal parameter"), problem.toString());
  }

  /**
   * What is asked for while the trace stands still is read from it at once, without new samples.
   */
  @Test
  public void aHeldTraceAnswersNewQuestions() {
    String two = "\"second\":{\"window\":\"HANN\",\"referenceLevelDbm\":15,\"probeRatio\":10}";
    JsonNode before = look("{" + two + "}", 16);
    server.json(server.send("POST", live("/hold"), "{}"), 200);
    awaitTrue(() -> server.json(server.get(live("")), 200).get("phase").asString().equals("HELD"));
    JsonNode last = Flat.look(server.json(server.get(live("/outcome")), 200));
    ObjectNode s = (ObjectNode) last.get("settings").deepCopy();
    s.set(
        "view",
        RunningServer.JSON.readTree(
            "{" + two + ",\"unit\":\"DBUV\",\"density\":{\"highest\":-100}}"));
    server.json(server.send("PUT", live("/settings"), s.toString()), 200);
    JsonNode after = Flat.look(server.json(server.get(live("/outcome")), 200));
    assertEquals(after.get("segments").asInt(), last.get("segments").asInt(), "no new samples");
    assertEquals(after.get("unit").asString(), "dB\u00B5V");
    assertEquals(after.get("rows").size(), 1, "input 2 stays");
    assertEquals(reading(after, "secondLevel").get("unit").asString(), "dB\u00B5V");
    boolean density = false;
    for (JsonNode r : after.get("readings")) {
      density |= r.get("unit").asString().equals("dBm/Hz") && !r.get("upper").isNull();
    }
    assertTrue(density, "the density with its limit: " + after.get("readings"));
    assertEquals(before.get("rows").size(), 1);
    // Without input 2 its trace and its numbers go.
    s.set("view", RunningServer.JSON.readTree("{}"));
    server.json(server.send("PUT", live("/settings"), s.toString()), 200);
    JsonNode alone = Flat.look(server.json(server.get(live("/outcome")), 200));
    assertEquals(alone.get("rows").size(), 0);
    for (JsonNode r : alone.get("readings")) {
      assertTrue(!r.get("id").asString().startsWith("second"), r.toString());
    }
  }

  /** A run says what was plugged and whether the source was hot, and keeps input 2's trace. */
  @Test
  public void aRunKeepsTheBenchAndBothInputs() {
    plug("Through");
    control(noise, "hot", "on");
    look(
        "{\"unit\":\"VOLT\",\"second\":{\"window\":\"HANN\",\"referenceLevelDbm\":15,\"probeRatio\":10}}",
        8);
    long id =
        server
            .json(server.send("POST", live("/keep"), "{\"name\":\"both\"}"), 201)
            .get("id")
            .asLong();
    JsonNode run = run(id);
    assertEquals(run.get("conditions").get("Noise source").asString(), "hot");
    assertEquals(run.get("conditions").get("Part").asString(), "Through");
    // Shown in volts, kept in dBm.
    assertEquals(run.get("unit").asString(), "dBm");
    assertEquals(run.get("settings").get("view").get("unit").asString(), "VOLT");
    assertTrue(run.toString().contains("tip of probe 2, 10:1"), "the second trace is kept");
    control(noise, "hot", "off");
  }

  @Test
  public void whatIsNoNoiseSourceSaysSo() {
    JsonNode problem = server.json(controlled(two, null, "hot", "on"), 400);
    assertTrue(problem.get("detail").asString().contains("nothing called \"hot\""));
    JsonNode empty = server.json(controlled(part, null, "part", " "), 400);
    assertEquals(empty.get("field").asString(), "part");
  }

  /** Without a noise source at the beginning of the path there is no Y factor. */
  @Test
  public void theYFactorNeedsANoiseSource() {
    server.json(
        server.send(
            "PUT",
            "/api/jobs/" + job + "/path",
            "{\"elements\":["
                + element("TX", "SOURCE", 0, ",\"outputLevelDbm\":-60")
                + ","
                + element("Input 1", "PORT", 0, ",\"instrumentId\":" + two)
                + "],\"readingPlane\":0,\"revision\":1}"),
        200);
    settings("458e6", "2e6", 20, -20);
    server.json(
        server.send(
            "POST",
            live("/guided"),
            "{\"jobId\":%d,\"work\":{\"kind\":\"noise-figure\"}}".formatted(job)),
        202);
    awaitTrue(() -> server.json(server.get(live("")), 200).get("guided").isNull(), 30);
    JsonNode state = server.json(server.get(live("")), 200);
    assertTrue(
        state.get("message").asString().contains("does not begin at a noise source"),
        state.toString());
    JsonNode nonsense =
        server.json(
            server.send(
                "POST",
                live("/guided"),
                "{\"jobId\":%d,\"work\":{\"kind\":\"noise-figure\",\"coldKelvin\":-3}}"
                    .formatted(job)),
            400);
    assertEquals(nonsense.get("field").asString(), "coldKelvin");
  }
}
