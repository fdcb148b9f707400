package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;
import rovnik.standins.world.Truth;
import tools.jackson.databind.JsonNode;

/** What a receiver adds to an EVM, and how weak a carrier it takes itself. */
public class OwnShareApiTest extends GeneratorBench {
  private static final String SHORT = DATA.replace("\"prbs\":15", "\"prbs\":9");
  private static final double SYMBOL_RATE_HZ = 250e3;

  private void send(String level) {
    long id = make("{\"carrier\":" + SHORT + "}").get("id").asLong();
    play(id, "", 200);
    control(generator, "frequency", "458.525e6", "level", level, "output", "on", "adjust", "");
  }

  private void set(String more) {
    server.json(
        server.send(
            "PATCH",
            live("single-carrier", "/settings"),
            "{\"carrier\":" + SHORT + "," + more + "}"),
        200);
  }

  /**
   * kT, noise figure and symbol rate against the carrier (identity), at an attenuation of 30 dB.
   */
  private static double noisePercent(double carrierDbm, double attenuationDb) {
    double noiseDbm =
        Truth.THERMAL_DBM_PER_HZ
            + Truth.RECEIVER_NOISE_FIGURE_DB
            + attenuationDb
            + 10 * Math.log10(SYMBOL_RATE_HZ);
    return 100 * Math.pow(10, (noiseDbm - carrierDbm) / 20);
  }

  /** Its noise is what its noise figure says; the generator is on again afterwards. */
  @Test
  public void theNoiseIsThatOfTheNoiseFigure() {
    send("0");
    set("\"referenceLevelDbm\":14,\"symbols\":1000");
    JsonNode found = guided("{\"kind\":\"own-share\",\"looks\":4,\"runId\":null}");
    JsonNode own = reading(found, "ownEvm");
    // 14 dBm at the plane is 13.4 dBm at the port: 34 dB of attenuation.
    assertEquals(
        own.get("value").asDouble(), noisePercent(-0.6, 34), 0.06 * own.get("value").asDouble());
    assertEquals(value("output"), "on");
    JsonNode table = found.get("tables").get(0).get("rows");
    double all = 0;
    for (int i = 0; i < table.size(); i++) {
      all += cell(table, i, 1);
    }
    assertEquals(all, 100, 1);
    assertTrue(cell(table, 1, 2) > 0.08 && cell(table, 1, 2) < 0.13, table.toString());
  }

  /**
   * Two receivers see the same source: each is told what is its own, and of the source the same.
   */
  @Test
  public void twoReceiversTellOneSource() {
    long fast = add("Fast", "IQ_RECEIVER", server.bench().fastReceiverPort(), "scpi-iq-fast");
    awaitTrue(() -> state(fast).equals("CONNECTED"));
    send("0");
    set("\"referenceLevelDbm\":20,\"symbols\":1000");
    server.json(
        server.send("POST", live("single-carrier", "/start"), "{\"jobId\":" + own + "}"), 200);
    awaitTrue(() -> server.get(live("single-carrier", "/outcome")).statusCode() == 200);
    long run =
        server
            .json(server.send("POST", live("single-carrier", "/keep"), "{\"name\":\"here\"}"), 201)
            .get("id")
            .asLong();
    JsonNode evm = reading(guided("{\"kind\":\"own-share\",\"looks\":8,\"runId\":null}"), "evm");
    double here = evm.get("value").asDouble();
    second = fast;
    path();
    set("\"referenceLevelDbm\":20,\"symbols\":1000");
    JsonNode found = guided("{\"kind\":\"own-share\",\"looks\":8,\"runId\":" + run + "}");
    assertTrue(found.get("summary").asString().contains("Second (here) sees"), found.toString());
    assertEquals(found.get("tables").get(0).get("rows").size(), 4);
    JsonNode source = reading(found, "sourceEvm");
    // Here the receiver's own noise is on top of it. Both scatter, and the phase noise of either
    // receiver counts as the source's, which moves the one against the other by 3 % (seen over 16
    // looks); four standard deviations leave room for it.
    double own = noisePercent(-0.6, 40);
    double u = Math.hypot(source.get("uncertainty").asDouble(), evm.get("uncertainty").asDouble());
    assertEquals(source.get("value").asDouble(), Math.sqrt(here * here - own * own), 2 * u);
    assertTrue(u < 0.2 * here, source.toString());

    String none = "{\"jobId\":%d,\"work\":{\"kind\":\"own-share\",\"looks\":4,\"runId\":999}}";
    server.json(
        server.send("POST", live("single-carrier", "/guided"), none.formatted(this.own)), 202);
    awaitTrue(
        () ->
            server
                .json(server.get(live("single-carrier", "")), 200)
                .get("message")
                .asString()
                .contains("There is no run 999"));
    String one = none.replace("\"looks\":4", "\"looks\":1").formatted(this.own);
    assertEquals(server.send("POST", live("single-carrier", "/guided"), one).statusCode(), 400);
  }

  /** 16-QAM has 1e-3 wrong at Eb/N0 of 10.5 dB (Proakis, by the exact sum; from memory). */
  @Test
  public void theReceiverItselfHasASensitivity() {
    send("-80");
    set("\"referenceLevelDbm\":-40,\"symbols\":8000,\"knownData\":true");
    JsonNode found =
        guided(
            "{\"kind\":\"sensitivity\",\"quality\":\"ber\",\"target\":1e-3,\"fromDbm\":-78,"
                + "\"wantedDb\":0.3,\"mostSeconds\":60,\"highestDbm\":null}");
    JsonNode level = reading(found, "sensitivity");
    double truth =
        Truth.THERMAL_DBM_PER_HZ
            + Truth.RECEIVER_NOISE_FIGURE_DB
            + 10 * Math.log10(4 * SYMBOL_RATE_HZ)
            + 10.52;
    assertEquals(level.get("value").asDouble(), truth, level.get("uncertainty").asDouble());
    assertTrue(level.get("uncertainty").asDouble() < 1, level.toString());
  }

  /** MSK has 1e-3 wrong at Eb/N0 of 7.34 dB: 2 Q(sqrt(2 Eb/N0)) (Proakis, from memory). */
  @Test
  public void aKeyedCarrierHasASensitivity() {
    String msk =
        "{\"format\":\"msk\",\"symbolRateHz\":250000,\"filter\":\"rectangular\","
            + "\"filterParameter\":0,\"prbs\":9}";
    long id = make("{\"carrier\":" + msk + "}").get("id").asLong();
    play(id, "", 200);
    control(generator, "frequency", "458.525e6", "level", "-80", "output", "on");
    server.json(
        server.send(
            "PATCH",
            live("single-carrier", "/settings"),
            "{\"carrier\":"
                + msk
                + ",\"centreHz\":458.525e6,\"referenceLevelDbm\":-40,\"symbols\":8000,"
                + "\"knownData\":true}"),
        200);
    JsonNode found =
        guided(
            "{\"kind\":\"sensitivity\",\"quality\":\"ber\",\"target\":1e-3,\"fromDbm\":-85,"
                + "\"wantedDb\":0.6,\"mostSeconds\":40,\"highestDbm\":null}");
    JsonNode level = reading(found, "sensitivity");
    double truth =
        Truth.THERMAL_DBM_PER_HZ
            + Truth.RECEIVER_NOISE_FIGURE_DB
            + 10 * Math.log10(SYMBOL_RATE_HZ)
            + 7.34;
    assertEquals(level.get("value").asDouble(), truth, level.get("uncertainty").asDouble());
    assertTrue(level.get("uncertainty").asDouble() < 1.2, level.toString());
  }

  /**
   * Behind a detector of frequency the noise rises with the square of the frequency: S/N = 1.5
   * deviation^2 C / (N0 W^3) above the threshold (Carson; common practice).
   */
  @Test
  public void anFmReceiverHasASensitivity() {
    double deviationHz = 2500;
    double audioHz = 3000;
    long id =
        make("{\"parts\":[{\"kind\":\"fm\",\"deviationHz\":2500,\"rateHz\":1000}],"
                + "\"sampleRateHz\":100e3}")
            .get("id")
            .asLong();
    play(id, "", 200);
    control(generator, "frequency", "458.525e6", "level", "-80", "output", "on");
    server.json(
        server.send(
            "PATCH",
            live("analog", "/settings"),
            "{\"modulation\":\"fm\",\"centreHz\":458.525e6,\"bandHz\":20e3,\"seconds\":0.2,"
                + "\"audioHighHz\":3000,\"referenceLevelDbm\":-40}"),
        200);
    JsonNode found =
        guided(
            "analog",
            "{\"kind\":\"sensitivity\",\"quality\":\"sinad\",\"target\":20,\"fromDbm\":-85,"
                + "\"wantedDb\":0.5,\"mostSeconds\":60,\"highestDbm\":null}");
    JsonNode level = reading(found, "sensitivity");
    double noise = Truth.THERMAL_DBM_PER_HZ + Truth.RECEIVER_NOISE_FIGURE_DB;
    double truth =
        noise + 20 + 10 * Math.log10(Math.pow(audioHz, 3) / 1.5 / deviationHz / deviationHz);
    assertEquals(level.get("value").asDouble(), truth, 1, level.toString());
  }
}
