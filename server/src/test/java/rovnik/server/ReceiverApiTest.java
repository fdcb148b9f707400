package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * The buoy's receiver and the voice radio are found to be as weak as they are: what the stand-ins
 * are built from is the truth here.
 */
public class ReceiverApiTest extends BuoyBench {
  /** Noise figure 4.2 dB and 0.8 dB of implementation; 16-QAM needs 10.53 dB for 1e-3 (theory). */
  private static final double BUOY_DBM = -173.975 + 60 + 4.2 + 0.8 + 10.53;

  private long generator;
  private long other;
  private long own;

  @BeforeMethod
  public void hookUp() {
    generator =
        add("Generator", "SIGNAL_GENERATOR", server.bench().generatorPort(), "scpi-generator");
    other =
        add("Other", "SIGNAL_GENERATOR", server.bench().secondGeneratorPort(), "scpi-generator");
  }

  private void path(String what, int port, String dialect) {
    receiver = add(what, "TESTED_RECEIVER", port, dialect);
    own =
        server
            .json(server.send("POST", "/api/jobs", "{\"name\":\"R\",\"dut\":\"R\"}"), 201)
            .get("id")
            .asLong();
    String elements =
        String.join(
            ",",
            element("G", "SOURCE", 0, ",\"outputLevelDbm\":-110,\"instrumentId\":" + generator),
            element("Pad", "PAD", -30, ""),
            element(
                "Combiner", "COMBINER", -6.1, ",\"sideGainDb\":-26.2,\"instrumentId\":" + other),
            element("Cable", "CABLE", -0.3, ""),
            element(
                "IN",
                "PORT",
                0,
                ",\"highestLevelDbm\":0,\"damageLevelDbm\":10,\"instrumentId\":" + receiver));
    server.json(
        server.send(
            "PUT",
            "/api/jobs/" + own + "/path",
            "{\"elements\":[" + elements + "],\"readingPlane\":3,\"revision\":0}"),
        200);
    awaitTrue(
        () ->
            state(generator).equals("CONNECTED")
                && state(other).equals("CONNECTED")
                && state(receiver).equals("CONNECTED"));
  }

  private void play(long where, String waveform, String hertz, String on) {
    long id = server.json(server.send("POST", "/api/waveforms", waveform), 201).get("id").asLong();
    control(where, "frequency", hertz, "level", "-60");
    server.json(
        server.send(
            "POST",
            "/api/instruments/" + where + "/play",
            "{\"waveformId\":" + id + ",\"jobId\":" + own + "}"),
        200);
    control(where, "adjust", "", "output", on);
  }

  private void buoy() {
    path("Buoy", server.bench().dataReceiverPort(), "scpi-data-receiver");
    play(
        generator,
        "{\"carrier\":{\"format\":\"qam16\",\"symbolRateHz\":250000,\"filter\":"
            + "\"root-raised-cosine\",\"filterParameter\":0.25,\"prbs\":15},\"symbols\":30000}",
        "458.525e6",
        "on");
    control(receiver, "sequence", "PN15");
    settings("\"noiseFigureDb\":4.2");
  }

  private void voice() {
    path("Voice", server.bench().voiceReceiverPort(), "scpi-voice-receiver");
    play(generator, fm(1000), "164.2e6", "on");
  }

  private static String fm(int rate) {
    return "{\"sampleRateHz\":128000,\"seconds\":1,\"parts\":[{\"kind\":\"fm\",\"deviationHz\":1500,"
        + "\"rateHz\":"
        + rate
        + "}]}";
  }

  @Override
  protected String live(String what) {
    return "/api/live/i" + receiver + "/receiver" + what;
  }

  private void settings(String part) {
    server.json(server.send("PATCH", live("/settings"), "{" + part + "}"), 200);
  }

  private JsonNode guided(String work) {
    server.json(
        server.send("POST", live("/guided"), "{\"jobId\":" + own + ",\"work\":" + work + "}"), 202);
    awaitTrue(() -> server.json(server.get(live("")), 200).get("guided").isNull(), 120);
    return server.json(server.get(live("/finding")), 200).get("outcome");
  }

  private JsonNode outcome() {
    return server.json(server.get(live("/outcome")), 200).get("outcome");
  }

  private static double value(JsonNode outcome, String id) {
    return reading(outcome, id).get("value").asDouble();
  }

  @Test
  public void theBuoyReceiverIsAsSensitiveAsItIs() {
    buoy();
    JsonNode found = guided("{\"kind\":\"sensitivity\",\"wantedDb\":0.1,\"highestDbm\":-97}");
    assertEquals(value(found, "sensitivity"), BUOY_DBM, 0.5);
    assertEquals(value(found, "loss"), 0.8, 0.5);
    assertEquals(reading(found, "sensitivity").get("verdict").asString(), "PASS");
    assertTrue(found.get("summary").asString().contains("1e-3"), found.toString());
    // Packets of 1024 bits: one in ten wrong at a bit error ratio of 1e-4, 12.0 dB by theory.
    JsonNode packets = guided("{\"kind\":\"sensitivity\",\"quality\":\"per\",\"wantedDb\":0.4}");
    assertEquals(value(packets, "sensitivity"), BUOY_DBM - 10.53 + 12.21, 0.5);
    // The generator is where it was before.
    settings("\"seconds\":0.2");
    server.json(server.send("POST", live("/start"), "{\"jobId\":" + own + "}"), 200);
    awaitTrue(() -> Math.abs(value(outcome(), "level") + 96.4) < 0.01);
    JsonNode run =
        server.json(server.send("POST", live("/finding/keep"), "{\"jobId\":" + own + "}"), 201);
    assertEquals(run.get("kind").asString(), "sensitivity", run.toString());
  }

  @Test
  public void levelAgainstQualityFallsAsTheorySays() {
    buoy();
    JsonNode found =
        guided(
            "{\"kind\":\"level-run\",\"fromDbm\":-98,\"toDbm\":-104,\"stepDb\":3,\"seconds\":0.6}");
    JsonNode rows = found.get("tables").get(0).get("rows");
    assertEquals(rows.size(), 3);
    // Eb/N0 5.97 + 4.2 - 4.2 - 0.8: 16-QAM theory at 5.2, 8.2 and 11.2 dB, a third to either side.
    double[] expected = {0.0400, 0.0081, 0.00048};
    for (int i = 0; i < 3; i++) {
      double ratio = rows.get(i).get("cells").get(1).get("value").asDouble();
      assertTrue(ratio > expected[i] / 1.6 && ratio < expected[i] * 1.6, i + ": " + rows.get(i));
    }
  }

  @Test
  public void theVoiceRadioIsAsSensitiveAsItIs() {
    voice();
    JsonNode found = guided("{\"kind\":\"sensitivity\",\"fromDbm\":-100,\"wantedDb\":0.3}");
    assertEquals(value(found, "sensitivity"), -119, 0.5);
    // The wanted signal 3 dB above that; a neighbour 25 kHz aside may be 68 dB stronger.
    play(other, fm(400), "164.225e6", "off");
    JsonNode beside = guided("{\"kind\":\"rejection\",\"offsetsHz\":[0,25000],\"wantedDb\":0.6}");
    assertEquals(value(beside, "rejection+25000"), 68, 1.5);
    double same = value(beside, "coChannel");
    assertTrue(same > -14 && same < -4, "co-channel " + same); // capture; common practice
    for (JsonNode i : server.json(server.get("/api/instruments"), 200)) {
      if (i.get("id").asLong() == other) {
        assertEquals(i.get("controls").get(0).get("value").asString(), "off");
      }
    }
  }

  @Test
  public void theSquelchOpensAndClosesWhereItDoes() {
    voice();
    JsonNode found =
        guided(
            "{\"kind\":\"squelch\",\"closedDbm\":-128,\"openDbm\":-118,\"stepDb\":1,"
                + "\"passages\":3}");
    assertEquals(value(found, "squelchOpens"), -122, 0.7);
    assertEquals(value(found, "squelchCloses"), -124, 0.7);
  }

  @Test
  public void whatIsHeardIsSaid() {
    voice();
    control(generator, "level", "-40");
    server.json(server.send("POST", live("/start"), "{\"jobId\":" + own + "}"), 200);
    awaitTrue(() -> server.get(live("/outcome")).statusCode() == 200);
    awaitTrue(() -> value(outcome(), "sinad") > 33); // its filters have settled
    JsonNode strong = outcome();
    assertEquals(value(strong, "distortion"), 2.1, 0.1);
    assertEquals(value(strong, "sinad"), 33.5, 0.5);
    assertEquals(value(strong, "rate"), 1000, 0.01);
    // Nothing is sent: the noise squelch mutes what is left, and that is said.
    control(generator, "output", "off");
    control(receiver, "squelch", "noise");
    awaitTrue(() -> outcome().get("summary").asString().contains("The squelch mutes it"));
  }

  @Test
  public void whatCannotBeDoneIsSaid() {
    buoy();
    server.json(
        server.send(
            "POST",
            live("/guided"),
            "{\"jobId\":" + own + ",\"work\":{\"kind\":\"sensitivity\",\"quality\":\"sinad\"}}"),
        202);
    awaitTrue(
        () ->
            server
                .json(server.get(live("")), 200)
                .get("message")
                .asString()
                .contains("counts bits and gives no audio"));
    JsonNode wrong =
        server.json(
            server.send(
                "POST",
                live("/guided"),
                "{\"jobId\":"
                    + own
                    + ",\"work\":{\"kind\":\"sensitivity\",\"quality\":\"ber\",\"target\":0.9}}"),
            400);
    assertTrue(wrong.get("detail").asString().contains("below 0.2"), wrong.toString());
    // On another frequency nothing is in step, and the search says what to look at.
    control(generator, "frequency", "459.5e6");
    server.json(
        server.send(
            "POST",
            live("/guided"),
            "{\"jobId\":" + own + ",\"work\":{\"kind\":\"sensitivity\",\"fromDbm\":-30}}"),
        202);
    awaitTrue(
        () ->
            server
                .json(server.get(live("")), 200)
                .get("message")
                .asString()
                .contains("on its frequency"));
    JsonNode seconds =
        server.json(server.send("PATCH", live("/settings"), "{\"seconds\":99}"), 400);
    assertEquals(seconds.get("field").asString(), "seconds");
    // Through the combiner too much would reach the receiver: its peaks are asked about.
    control(other, "frequency", "458.525e6", "level", "-60", "output", "on");
    JsonNode path = server.json(server.get("/api/jobs/" + own), 200).get("path");
    assertEquals(path.get("elements").get(2).get("sideGainDb").asDouble(), -26.2, 1e-9);
  }

  /** A second generator that would overload the receiver is not switched on. */
  @Test
  public void theOtherGeneratorPassesTheGateToo() {
    buoy();
    String elements =
        String.join(
            ",",
            element("G", "SOURCE", 0, ",\"outputLevelDbm\":-110,\"instrumentId\":" + generator),
            element("Combiner", "COMBINER", -6.1, ",\"sideGainDb\":-6.2,\"instrumentId\":" + other),
            element(
                "IN",
                "PORT",
                0,
                ",\"highestLevelDbm\":-10,\"damageLevelDbm\":10,\"instrumentId\":" + receiver));
    server.json(
        server.send(
            "PUT",
            "/api/jobs/" + own + "/path",
            "{\"elements\":[" + elements + "],\"readingPlane\":1,\"revision\":1}"),
        200);
    JsonNode no =
        server.json(
            server.send(
                "PUT",
                "/api/instruments/" + other + "/controls",
                "{\"values\":{\"level\":\"5\",\"output\":\"on\"},\"jobId\":" + own + "}"),
            409);
    assertEquals(no.get("field").asString(), "levelPlan", no.toString());
    assertTrue(no.get("detail").asString().contains("IN would be overloaded"), no.toString());
  }
}
