package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import org.testng.annotations.Test;
import rovnik.core.modulation.ofdm.LegacyPacket;
import rovnik.core.modulation.ofdm.LegacyRate;
import tools.jackson.databind.JsonNode;

/** OFDM packets: played by the generator and received, and in files. */
public class OfdmApiTest extends GeneratorBench {
  private static final String PACKETS =
      "{\"parts\":[{\"kind\":\"packets\",\"megabits\":%d,\"bytes\":%d,\"intervalSeconds\":%s,"
          + "\"bandHz\":%s}],\"sampleRateHz\":40e6}";

  /** Packets have peaks. */
  @Override
  double levelDbm() {
    return -20;
  }

  private static String packets(int megabits, int bytes, String interval, String channel) {
    return PACKETS.formatted(megabits, bytes, interval, channel);
  }

  @Test
  public void packetsOfTheGeneratorAreFoundAndMeasured() {
    play(make(packets(54, 1000, "300e-6", "20e6")).get("id").asLong(), "", 200);
    control(generator, "frequency", "458.525e6", "level", "-20", "output", "on");
    server.json(
        server.send(
            "PATCH",
            live("ofdm", "/settings"),
            "{\"centreHz\":458.525e6,\"seconds\":1e-3,\"referenceLevelDbm\":0}"),
        200);
    server.json(server.send("POST", live("ofdm", "/start"), "{\"jobId\":" + own + "}"), 200);
    awaitTrue(() -> server.get(live("ofdm", "/outcome")).statusCode() == 200);
    JsonNode o = server.json(server.get(live("ofdm", "/outcome")), 200).get("outcome");
    assertTrue(o.get("summary").asString().contains("64-QAM 3/4, 1000 bytes in 38 symbols"));
    assertTrue(reading(o, "whole").get("value").asDouble() >= 2, o.get("summary").asString());
    JsonNode error = reading(o, "evmDb");
    assertEquals(error.get("verdict").asString(), "PASS");
    assertTrue(error.get("value").asDouble() < -27, error.toString());
    assertTrue(Math.abs(reading(o, "frequencyError").get("value").asDouble()) < 5e3);

    JsonNode run =
        server.json(server.send("POST", live("ofdm", "/keep"), "{\"name\":\"packets\"}"), 201);
    assertEquals(run.get("kind").asString(), "ofdm");

    // Another packet of the same samples, and one that is not there.
    server.json(server.send("POST", live("ofdm", "/hold"), ""), 200);
    server.json(server.send("PATCH", live("ofdm", "/settings"), "{\"packet\":2}"), 200);
    awaitTrue(
        () ->
            server
                .json(server.get(live("ofdm", "/outcome")), 200)
                .get("outcome")
                .get("summary")
                .asString()
                .startsWith("Packet 2 of"));
  }

  @Test
  public void packetsOfAFileAreMeasuredByOneRequest() {
    byte[] bytes = new byte[200];
    float[] iq = LegacyPacket.samples(LegacyRate.R12, bytes, 93, 2);
    ByteBuffer b = ByteBuffer.allocate(4 * iq.length + 8000).order(ByteOrder.LITTLE_ENDIAN);
    b.position(4000);
    b.asFloatBuffer().put(iq);
    String meta =
        "{\"global\":{\"core:datatype\":\"cf32_le\",\"core:sample_rate\":40e6,"
            + "\"core:version\":\"1.0.0\"},\"captures\":[{\"core:sample_start\":0,"
            + "\"core:frequency\":5.5e9}],\"annotations\":[]}";
    long id = server.json(server.upload(meta, b.array()), 201).get("id").asLong();
    String url = "/api/recordings/" + id + "/measure";
    JsonNode all =
        server.json(server.send("POST", url, "{\"measurement\":\"ofdm\",\"settings\":{}}"), 200);
    JsonNode o = all.has("outcome") ? all.get("outcome") : all;
    assertTrue(o.get("summary").asString().contains("QPSK 1/2, 200 bytes"), o.toString());
    // All zeros have no check sum that fits: said, and not judged.
    assertTrue(o.get("summary").asString().contains("the frame check sequence does not fit"));
    assertEquals(reading(o, "evmDb").get("verdict").asString(), "INVALID");
    assertTrue(reading(o, "evmDb").get("value").asDouble() < -70);

    refused(url, "{\"channelHz\":7e6}", "channelHz", "5, 10 or 20 MHz");
    refused(url, "{\"packet\":0}", "packet", "count from 1");
    refused(url, "{\"packet\":5}", "packet", "There is one packet");
    refused(url, "{\"estimate\":\"magic\"}", "estimate", "training");
    refused(url, "{\"seconds\":5}", "seconds", "50 us to 100 ms");
    refused(url, "{\"channelHz\":10e6}", "signal", "no long training follows");
  }

  private void refused(String url, String settings, String field, String words) {
    JsonNode r =
        server.json(
            server.send("POST", url, "{\"measurement\":\"ofdm\",\"settings\":" + settings + "}"),
            400);
    assertEquals(r.get("field").asString(), field, r.toString());
    assertTrue(r.get("detail").asString().contains(words), r.toString());
  }

  @Test
  public void packetsThatCannotBeAreRefused() {
    for (String[] wrong :
        new String[][] {
          {packets(55, 1000, "1e-3", "20e6"), "6, 9, 12, 18"},
          {packets(54, 5000, "1e-3", "20e6"), "5 to 4,095 bytes"},
          {packets(54, 1000, "1e-4", "20e6"), "lasts 172 "},
          {packets(54, 1000, "1e-3", "7e6"), "5, 10 or 20 MHz"},
          {packets(54, 1000, "1e-3", "20e6").replace("40e6", "50e6"), "multiple of their channel"},
        }) {
      JsonNode r = server.json(server.send("POST", "/api/waveforms", wrong[0]), 400);
      assertTrue(r.get("detail").asString().contains(wrong[1]), r.toString());
    }
  }
}
