package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.standins.world.Truth;
import tools.jackson.databind.JsonNode;

/** Packets that a script made, sent by the quay link and heard by the wide receiver. */
public class LinkApiTest extends BuoyBench {
  private long wide;
  private long packets;
  private long trim;

  @BeforeMethod(dependsOnMethods = "setUp")
  public void plugTogether() {
    wide = add("Wide", "IQ_RECEIVER", server.bench().wideReceiverPort(), "scpi-iq-wide");
    long input = add("Input", "PART_HOLDER", server.bench().wideInputPort(), "scpi-parts");
    long link = add("Link", "SIGNAL_SOURCE", server.bench().quayLinkPort(), "scpi-link");
    packets = add("Packets", "PART_HOLDER", server.bench().quayPacketsPort(), "scpi-parts");
    trim = add("Trim", "PART_HOLDER", server.bench().quayTrimPort(), "scpi-parts");
    for (long id : new long[] {wide, input, link, packets, trim}) {
      awaitTrue(() -> state(id).equals("CONNECTED"));
    }
    plug(input, "quay link");
    control(link, "output", "on");
  }

  private JsonNode measured(String packet, double channelHz, String more, String told) {
    plug(packets, packet);
    String settings =
        "{\"centreHz\":5.5e9,\"channelHz\":"
            + channelHz
            + ",\"seconds\":1e-3,\"referenceLevelDbm\":0,\"trigger\":null"
            + more
            + "}";
    start(wide, "ofdm", settings);
    JsonNode[] last = new JsonNode[1];
    awaitTrue(
        () -> {
          var reply = server.get("/api/live/i" + wide + "/ofdm/outcome");
          last[0] = reply.statusCode() == 200 ? server.json(reply, 200).get("outcome") : null;
          return last[0] != null && last[0].get("summary").asString().contains(told);
        });
    server.json(server.send("POST", "/api/live/i" + wide + "/ofdm/hold", ""), 200);
    return last[0];
  }

  private static double value(JsonNode o, String id) {
    return GeneratorBench.reading(o, id).get("value").asDouble();
  }

  @DataProvider
  Object[][] narrow() {
    return new Object[][] {
      {"HT 20 MHz MCS 7", 20e6, "HT MCS 7, 64-QAM 5/6, 1000 bytes in 31 symbols"},
      {"VHT 20 MHz MCS 8", 20e6, "VHT MCS 8, 256-QAM 3/4"},
      {"HE 20 MHz three users", 20e6, "HE, 3 users, 22 symbols, 3 checked, they fit"},
      {"EHT 80 MHz MCS 11", 80e6, "EHT MCS 11, 1024-QAM 5/6, 16 symbols"},
    };
  }

  /** What its script says of each is found in the signal. */
  @Test(dataProvider = "narrow")
  public void packetsSayWhatTheyAre(String packet, double channelHz, String told) {
    JsonNode o = measured(packet, channelHz, "", told);
    within(o, "frequencyError", Truth.QUAY_HZ * clockOff());
    assertTrue(value(o, "whole") >= 1);
    assertTrue(value(o, "evmDb") < -38, o.get("summary").asString());
  }

  /** Of the link against the receiver, as a share. */
  private static double clockOff() {
    return Truth.QUAY_REFERENCE_ERROR - Truth.RECEIVER_REFERENCE_ERROR;
  }

  /** 4096-QAM in 320 MHz: what is wrong with the link, and by how much. */
  @Test
  public void theWidestPacketOfAnotherMakerIsMeasured() {
    plug(trim, "as delivered");
    JsonNode o = measured("EHT 320 MHz MCS 13", 320e6, "", "EHT MCS 13, 4096-QAM 5/6, 16 symbols");
    within(o, "frequencyError", Truth.QUAY_HZ * clockOff());
    within(o, "leakage", Truth.QUAY_LEAKAGE_DBC);
    // The receiver adds some 0.2 dB; the phase noise of the training differs from packet to packet.
    double own = 10 * Math.log10(Math.pow(value(o, "evmWithout") / 100, 2));
    assertEquals(own, Truth.QUAY_EVM_DB + 0.5, 1.2, o.get("summary").asString());
    assertEquals(value(o, "evmDb"), own + 3.1, 0.2);
    double share = -10 * Math.log10(1 - Math.pow(10, (-52 - value(o, "evmDb")) / 10));
    assertEquals(value(o, "receiverShare"), share, 0.01);
    double port = Truth.QUAY_DBM - Truth.QUAY_PAD_DB - 2.1;
    assertEquals(value(o, "carrierPower"), port, 1);
    plug(trim, "leakage trimmed");
    start(wide, "ofdm", "{}");
    awaitTrue(
        () ->
            value(
                    server
                        .json(server.get("/api/live/i" + wide + "/ofdm/outcome"), 200)
                        .get("outcome"),
                    "leakage")
                < -45);
  }

  /** An answer whose modulator fills other units, too: 34 dB below a tone of its own. */
  @Test
  public void anAnswerLeaksIntoUnusedUnits() {
    JsonNode o =
        measured(
            "HE 20 MHz answer on 106 tones",
            20e6,
            ",\"trigger\":{\"training\":1,\"users\":[{\"tones\":106,\"place\":2,"
                + "\"station\":5,\"mcs\":7}]}",
            "1 checked, it fits");
    JsonNode rows = null;
    for (JsonNode t : o.get("tables")) {
      rows = t.get("id").asString().equals("unused") ? t.get("rows") : rows;
    }
    assertTrue(rows.size() >= 4, o.get("summary").asString());
    assertEquals(
        rows.get(0).get("cells").get(2).get("value").asDouble(), -34, 1.5, rows.toString());
  }
}
