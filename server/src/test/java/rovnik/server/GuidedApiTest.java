package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;
import rovnik.standins.world.Truth;
import tools.jackson.databind.JsonNode;

/** Guided work, views and scans over HTTP, against the world's truth. */
public class GuidedApiTest extends BuoyBench {
  /** Work of so many steps that it is still under way when it is stopped after some of them. */
  private static final String LONG =
      "{\"kind\":\"drive-sweep\",\"fromDbm\":16,\"toDbm\":28,\"steps\":50}";

  private JsonNode guided(String work) {
    server.json(
        server.send("POST", live("/guided"), "{\"jobId\":" + job + ",\"work\":" + work + "}"), 202);
    awaitTrue(() -> server.json(server.get(live("")), 200).get("guided").isNull(), 90);
    JsonNode state = server.json(server.get(live("")), 200);
    assertTrue(state.get("findingId").asLong() > 0, state.get("message").asString());
    return Flat.finding(server.json(server.get(live("/finding")), 200));
  }

  private static String words(JsonNode table, int row, int column) {
    return table.get(row).get("cells").get(column).get("text").asString();
  }

  /** From a wrong framing to the carrier, its level and a span that fits. */
  @Test
  public void autoFrameFindsTheTransmitter() {
    savePath(-30);
    settings("2e9", "1e6", 4, 0);
    JsonNode finding = guided("{\"kind\":\"auto-frame\"}");
    assertTrue(finding.get("summary").asString().contains("Framed"), finding.toString());
    JsonNode s = server.json(server.get(live("")), 200).get("settings");
    assertEquals(s.get("centreHz").asDouble(), Truth.BUOY_HZ, 1000);
    assertEquals(s.get("spanHz").asDouble(), 200e3, 1);
    assertEquals(s.get("referenceLevelDbm").asDouble(), 30, 0);
    JsonNode frame = settledFrame(4);
    assertEquals(reading(frame, "carrierPower").get("value").asDouble(), 27, 0.3);
  }

  /** The scenario's harmonics, driven normal and high, at the transmitter's plane. */
  @Test
  public void harmonicsAreTheScenarios() {
    savePath(-30);
    settings("458.525e6", "200e3", 16, 32);
    JsonNode normal = guided("{\"kind\":\"harmonics\",\"highest\":4,\"limitDbm\":-36}");
    JsonNode t = table(normal, "harmonics");
    // The path's feeder has one number for all frequencies: its true loss grows with the root of
    // it.
    assertEquals(cell(t, 1, 3), -41, 1.0);
    assertEquals(cell(t, 2, 3), -52, 1.4);
    assertEquals(t.get(1).get("verdict").asString(), "FAIL");
    assertTrue(words(t, 3, 5).contains("noise"), t.get(3).toString());
    assertEquals(
        reading(normal, "harmonicDistortion").get("value").asDouble(),
        100 * Math.sqrt(Math.pow(10, -4.1) + Math.pow(10, -5.2)),
        0.12);
    assertEquals(reading(normal, "worstHarmonic").get("verdict").asString(), "FAIL");
    // Over an octave the path does not cancel: the promise holds all the same.
    JsonNode ratio = reading(normal, "worstHarmonicDbc");
    double off = Math.abs(ratio.get("value").asDouble() + 41);
    assertTrue(off <= ratio.get("uncertainty").asDouble(), ratio.toString());
    JsonNode thd = reading(normal, "harmonicDistortion");
    assertTrue(thd.get("uncertainty").asDouble() > 0.03, thd.toString());
    server.bench().world().setDriveDb(Truth.HIGH_DRIVE_DB);
    JsonNode high = guided("{\"kind\":\"harmonics\",\"highest\":3}");
    assertEquals(cell(table(high, "harmonics"), 1, 3), -32, 1.0);
    assertEquals(cell(table(high, "harmonics"), 2, 3), -43, 1.4);
  }

  /** Transmitter, its spur, and the paging carrier of the room, by what they do. */
  @Test
  public void everyLineIsLabelledAsTheScenarioHasIt() {
    savePath(-30);
    settings("459e6", "4e6", 64, 32);
    JsonNode lines = table(guided("{\"kind\":\"whose-line\",\"stepDb\":10}"), "whose-line");
    assertEquals(madeBy(lines, Truth.BUOY_HZ), "device under test");
    assertEquals(madeBy(lines, Truth.BUOY_HZ + Truth.SPUR_OFFSET_HZ), "device under test");
    assertEquals(madeBy(lines, Truth.PAGING_HZ), "room");
    assertTrue(server.bench().world().transmitting(), "the source was not switched on again");
  }

  /** Wide views show what the receiver makes itself: its dc spike and the image of the carrier. */
  @Test
  public void whatTheReceiverMakesIsSaidToBeItsOwn() {
    savePath(-30);
    server.json(
        server.send(
            "PUT",
            live("/settings"),
            "{\"centreHz\":470e6,\"spanHz\":60e6,\"rbwHz\":20e3,\"window\":\"BLACKMAN_HARRIS\",\"detector\":\"RMS\",\"averages\":64,\"referenceLevelDbm\":28,\"channelWidthHz\":50000}"),
        200);
    JsonNode lines = table(guided("{\"kind\":\"whose-line\",\"stepDb\":10}"), "whose-line");
    assertEquals(madeBy(lines, 470e6), "made in the receiver: dc spike");
    assertEquals(madeBy(lines, 2 * 470e6 - Truth.BUOY_HZ), "made in the receiver: image");
    assertEquals(madeBy(lines, Truth.BUOY_HZ), "device under test");
  }

  private static String madeBy(JsonNode table, double hz) {
    for (int i = 0; i < table.size(); i++) {
      if (Math.abs(cell(table, i, 0) - hz) < 60e3 && Math.abs(cell(table, i, 0) - hz) < hz * 5e-5) {
        return words(table, i, 2);
      }
    }
    throw new AssertionError(hz + " is not in " + table);
  }

  /** -88 dBc/Hz at 10 kHz, falling 20 dB a decade, flat below 1 kHz: within 1 dB. */
  @Test
  public void phaseNoiseIsTheWorlds() {
    savePath(-30);
    settings("458.525e6", "200e3", 16, 30);
    JsonNode f = guided("{\"kind\":\"phase-noise\",\"toHz\":1e5}");
    JsonNode curve = f.get("curves").get(0);
    int seen = 0;
    for (int i = 0; i < curve.get("x").size(); i++) {
      double hz = curve.get("x").get(i).asDouble();
      double truth = -88 + 10 * Math.log10((1e8 + 1e6) / (hz * hz + 1e6));
      if (hz > 200 && hz < 5e4) {
        assertEquals(curve.get("y").get(i).asDouble(), truth, 1.0, "at " + hz);
        seen++;
      }
    }
    assertTrue(seen > 30);
    assertEquals(reading(f, "phaseNoise10k").get("value").asDouble(), -88, 1);
    assertTrue(curve.get("axis").get("logarithmic").asBoolean());
    assertTrue(reading(f, "jitter").get("value").asDouble() > 1e-13);
  }

  /** Below the licensed level the 2nd harmonic falls 1 dB a dB, the 3rd 2 dB a dB. */
  @Test
  public void theDriveSweepFollowsTheAmplifier() {
    savePath(-30);
    settings("458.525e6", "200e3", 8, 32);
    JsonNode f = guided("{\"kind\":\"drive-sweep\",\"fromDbm\":23,\"toDbm\":29,\"steps\":3}");
    JsonNode t = table(f, "drive-sweep");
    assertEquals(cell(t, 0, 2), -45, 1.0);
    assertEquals(cell(t, 2, 2), -32, 1.0);
    assertEquals(cell(t, 0, 3) - cell(t, 1, 3), -6, 1.5); // 26 dBm: -54
    assertEquals(server.bench().world().driveDb(), 0, 1e-9);
    assertEquals(f.get("curves").size(), 3);
    refused(
        "{\"kind\":\"drive-sweep\",\"fromDbm\":0,\"toDbm\":29,\"steps\":3}", "from 15.0 to 29.0");
  }

  private void refused(String work, String words) {
    server.send("POST", live("/guided"), "{\"jobId\":" + job + ",\"work\":" + work + "}");
    awaitTrue(
        () -> server.json(server.get(live("")), 200).get("message").asString().contains(words));
  }

  /**
   * The 2nd harmonic is over -36 dBm; the wanted emission is left out; an overload marks itself.
   */
  @Test
  public void theSurveyListsWhatIsOverTheLimit() {
    savePath(-30);
    settings("458.525e6", "200e3", 8, 32);
    JsonNode f =
        guided(
            "{\"kind\":\"survey\",\"excludeFromHz\":458e6,\"excludeToHz\":459e6,\"ranges\":["
                + "{\"startHz\":400e6,\"stopHz\":500e6,\"rbwHz\":30e3,\"limitDbm\":-36},"
                + "{\"startHz\":800e6,\"stopHz\":1500e6,\"rbwHz\":100e3,\"limitDbm\":-36}]}");
    JsonNode t = table(f, "survey");
    assertEquals(cell(t, 0, 0), 2 * Truth.BUOY_HZ, 50e3);
    assertEquals(cell(t, 0, 3), -36 - (27 - 41), 1.0);
    assertEquals(t.get(0).get("verdict").asString(), "FAIL");
    // Images of the carrier are in the scan; none of them is held against the transmitter.
    for (int i = 0; i < t.size(); i++) {
      double hz = cell(t, i, 0);
      boolean real =
          Math.abs(hz - 2 * Truth.BUOY_HZ) < 1e5
              || Math.abs(hz - 3 * Truth.BUOY_HZ) < 1e5
              || Math.abs(hz - Truth.BUOY_HZ) < 2e6;
      assertEquals(words(t, i, 5).isEmpty(), real, t.get(i).toString());
    }
    assertEquals(reading(f, "surveyMargin").get("verdict").asString(), "FAIL");
    JsonNode kept =
        server.json(server.send("POST", live("/finding/keep"), "{\"name\":\"survey\"}"), 201);
    JsonNode run = run(kept.get("id").asLong());
    assertEquals(run.get("tables").get(0).get("id").asString(), "survey");
    assertEquals(run.get("verdict").asString(), "FAIL");
    assertTrue(run.get("kind").asString().equals("survey"));
  }

  @Test
  public void guidedWorkStopsAndKeepsWhatItHas() {
    savePath(-30);
    settings("458.525e6", "200e3", 8, 32);
    server.json(
        server.send("POST", live("/guided"), "{\"jobId\":" + job + ",\"work\":" + LONG + "}"), 202);
    JsonNode held =
        server.json(server.send("PUT", live("/settings"), body("1e9").formatted("")), 409);
    assertTrue(held.get("detail").asString().contains("under way"), held.toString());
    awaitTrue(
        () -> {
          JsonNode g = server.json(server.get(live("")), 200).get("guided");
          return !g.isNull() && g.get("progress").asDouble() >= 0.06;
        });
    server.json(server.send("DELETE", live("/guided"), ""), 204);
    awaitTrue(() -> server.json(server.get(live("")), 200).get("guided").isNull());
    JsonNode f = Flat.finding(server.json(server.get(live("/finding")), 200));
    assertTrue(f.get("summary").asString().startsWith("Stopped"), f.get("summary").asString());
    assertTrue(table(f, "drive-sweep").size() >= 2, f.toString());
    server.json(server.send("POST", live("/guided"), "{\"jobId\":" + job + "}"), 400);
    server.json(
        server.send(
            "POST", live("/guided"), "{\"jobId\":" + job + ",\"work\":{\"kind\":\"dance\"}}"),
        400);
  }

  private static String body(String centre) {
    return "{\"centreHz\":%s,\"spanHz\":200e3,\"rbwHz\":0,\"window\":\"HANN\",\"detector\":\"RMS\",\"averages\":8,\"referenceLevelDbm\":32,\"channelWidthHz\":50000%s}"
        .formatted(centre, "%s");
  }

  /** Traces, mask, bandwidth and channels in one view, with data on; kept and read again. */
  @Test
  public void aViewWithTracesAndReadingsIsKeptWhole() {
    savePath(-30);
    server.bench().world().setData(true);
    String view =
        ",\"fftLength\":0,\"view\":{\"traces\":[{\"mode\":\"HIGHEST\",\"count\":1,\"a\":0,\"b\":0},{\"mode\":\"POWER_AVERAGE\",\"count\":32,\"a\":0,\"b\":0}],"
            + "\"occupied\":{\"share\":0.99,\"widestHz\":65000},"
            + "\"adjacent\":{\"ownWidthHz\":48000,\"ownRollOff\":0.35,\"channels\":[{\"offsetHz\":75000,\"widthHz\":48000,\"rollOff\":0.35,\"highestDbc\":-40}]},"
            + "\"mask\":[{\"fromHz\":40000,\"toHz\":90000,\"rbwHz\":0,\"fromDbc\":-30,\"toDbc\":-50}]}";
    server.json(
        server.send(
            "PUT", live("/settings"), body("458.525e6").replace("200e3", "300e3").formatted(view)),
        200);
    start();
    JsonNode frame = settledFrame(8);
    assertEquals(frame.get("rows").get(1).asString(), "power average 32");
    JsonNode occupied = reading(frame, "occupiedBandwidth");
    assertEquals(occupied.get("value").asDouble(), 1.165 * 48e3, 1500);
    assertEquals(occupied.get("verdict").asString(), "PASS");
    assertTrue(reading(frame, "adjacentWorst").get("value").asDouble() < -45);
    assertTrue(reading(frame, "maskMargin").get("value").asDouble() > 0);
    assertEquals(frame.get("tables").size(), 2);
    long run =
        server
            .json(server.send("POST", live("/keep"), "{\"name\":\"whole\"}"), 201)
            .get("id")
            .asLong();
    JsonNode kept = run(run);
    assertEquals(kept.get("rows").size(), 2);
    assertEquals(kept.get("rows").get(0).asString(), "highest hold");
    assertEquals(kept.get("tables").size(), 2);
    assertEquals(
        kept.get("settings")
            .get("view")
            .get("adjacent")
            .get("channels")
            .get(0)
            .get("highestDbc")
            .asDouble(),
        -40);
    JsonNode bad =
        server.json(
            server.send(
                "PUT", live("/settings"), body("458.525e6").formatted(",\"fftLength\":1000")),
            400);
    assertEquals(bad.get("field").asString(), "fftLength");
  }

  /** A span beyond one record becomes a scan; an overload spoils its own step alone. */
  @Test
  public void aWideSpanIsStitchedAndAnOverloadStaysWhereItIs() {
    savePath(-30);
    server.json(
        server.send(
            "PUT",
            live("/settings"),
            "{\"centreHz\":700e6,\"spanHz\":1000e6,\"rbwHz\":100e3,\"window\":\"HANN\",\"detector\":\"RMS\",\"averages\":8,\"referenceLevelDbm\":18,\"channelWidthHz\":50000}"),
        200);
    start();
    JsonNode[] whole = new JsonNode[1];
    awaitTrue(
        () -> {
          var reply = server.get(live("/outcome"));
          whole[0] = reply.statusCode() == 200 ? Flat.look(server.json(reply, 200)) : null;
          return whole[0] != null && whole[0].get("progress").asDouble() >= 1;
        });
    assertEquals(whole[0].get("points").asInt() > 2000, true);
    assertEquals(whole[0].get("marks").size(), 0);
    assertTrue(whole[0].get("spoiled").size() >= 1, whole[0].get("spoiled").toString());
    double from = whole[0].get("spoiled").get(0).get("fromHz").asDouble();
    assertTrue(from > 380e6 && from < Truth.BUOY_HZ, "spoiled from " + from);
    assertTrue(reading(whole[0], "carrierPower").get("marks").toString().contains("overload"));
  }

  /** A steady carrier reads the same on every weighted detector: its own level. */
  @Test
  public void weightedDetectorsReadASteadyCarrierAlike() {
    savePath(-30);
    settings("458.525e6", "200e3", 8, 32);
    JsonNode f = guided("{\"kind\":\"weighted\",\"seconds\":0.7,\"limitDbm\":20}");
    for (String id : new String[] {"quasiPeak", "weightedPeak", "weightedAverage"}) {
      assertEquals(reading(f, id).get("value").asDouble(), 27, 0.4, id);
    }
    assertEquals(reading(f, "quasiPeak").get("verdict").asString(), "FAIL");
    assertTrue(f.get("summary").asString().contains("in 120 kHz"), f.get("summary").asString());
    server.bench().world().setData(true);
    JsonNode data =
        guided("{\"kind\":\"weighted\",\"seconds\":0.6,\"hertz\":458.525e6,\"band\":\"B\"}");
    assertTrue(
        reading(data, "quasiPeak").get("marks").toString().contains("had not settled"),
        "0.6 s are too short for the meter of band B");
    double quasi = reading(data, "quasiPeak").get("value").asDouble();
    double average = reading(data, "weightedAverage").get("value").asDouble();
    double peak = reading(data, "weightedPeak").get("value").asDouble();
    assertTrue(peak > quasi && quasi > average + 1, peak + " " + quasi + " " + average);
    server.json(
        server.send(
            "POST",
            live("/guided"),
            "{\"jobId\":" + job + ",\"work\":{\"kind\":\"weighted\",\"seconds\":100}}"),
        400);
  }

  /** The receiver goes away in the middle: it is said, and the source is on again. */
  @Test
  public void aLostReceiverEndsGuidedWorkWithASentence() {
    savePath(-30);
    settings("458.525e6", "200e3", 8, 32);
    server.json(
        server.send("POST", live("/guided"), "{\"jobId\":" + job + ",\"work\":" + LONG + "}"), 202);
    awaitTrue(
        () -> {
          JsonNode g = server.json(server.get(live("")), 200).get("guided");
          return !g.isNull() && g.get("progress").asDouble() >= 0.06;
        });
    server.loseStandins();
    awaitTrue(() -> server.json(server.get(live("")), 200).get("guided").isNull());
    JsonNode state = server.json(server.get(live("")), 200);
    assertEquals(state.get("phase").asString(), "HELD");
    assertTrue(!state.get("message").asString().isEmpty(), state.toString());
    JsonNode f = Flat.finding(server.json(server.get(live("/finding")), 200));
    assertTrue(f.get("summary").asString().startsWith("The instrument failed"), f.toString());
    assertTrue(table(f, "drive-sweep").size() >= 2);
  }

  /** Stopped while the source was off for a look: it is switched on again all the same. */
  @Test
  public void stoppingWhoseLineLeavesTheSourceOn() {
    savePath(-30);
    settings("459e6", "4e6", 4000, 32);
    server.json(
        server.send(
            "POST", live("/guided"), "{\"jobId\":" + job + ",\"work\":{\"kind\":\"whose-line\"}}"),
        202);
    awaitTrue(
        () -> {
          JsonNode g = server.json(server.get(live("")), 200).get("guided");
          return g.isNull() || g.get("words").asString().contains("off");
        },
        60);
    server.json(server.send("DELETE", live("/guided"), ""), 204);
    awaitTrue(() -> server.json(server.get(live("")), 200).get("guided").isNull(), 60);
    assertTrue(server.bench().world().transmitting());
  }

  /** States carry a number that only grows, so that an older reply cannot replace a newer push. */
  @Test
  public void statesAreNumbered() {
    long before = server.json(server.get(live("")), 200).get("revision").asLong();
    long after = server.json(server.get(live("")), 200).get("revision").asLong();
    assertTrue(after > before && before > 1_700_000_000_000_000L, before + " " + after);
  }

  /** Without an instrument behind its source nobody can be switched off: it says so. */
  @Test
  public void withoutASwitchedSourceWhoseLineSaysWhatItDidNotAsk() {
    source = -1;
    savePath(-30);
    settings("459e6", "4e6", 64, 32);
    JsonNode f = guided("{\"kind\":\"whose-line\",\"stepDb\":4}");
    assertTrue(f.get("summary").asString().contains("was not asked"), f.get("summary").asString());
    assertEquals(madeBy(table(f, "whose-line"), Truth.PAGING_HZ), "unsure");
  }
}
