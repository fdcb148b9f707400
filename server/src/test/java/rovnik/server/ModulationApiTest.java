package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Random;
import java.util.function.Predicate;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Waveforms from descriptions, and carriers measured in files and in a receiver's records. */
public class ModulationApiTest extends BuoyBench {
  private static final String WORD =
      "1011001110001111010000101101100100110101111000100110101011000111";
  private static final String QPSK =
      "{\"format\":\"qpsk\",\"symbolRateHz\":48000,\"filter\":\"root-raised-cosine\","
          + "\"filterParameter\":0.35,\"prbs\":9}";
  private static final String BUOY =
      QPSK.replace("}", ",\"word\":\"" + WORD + "\",\"wordEverySymbols\":2048}");

  private JsonNode make(String body) {
    return server.json(server.send("POST", "/api/waveforms", body), 201);
  }

  private JsonNode measure(long id, String settings) {
    String body = "{\"measurement\":\"single-carrier\",\"settings\":" + settings + "}";
    return server
        .json(server.send("POST", "/api/recordings/" + id + "/measure", body), 200)
        .get("outcome");
  }

  private static double value(JsonNode outcome, String id) {
    return reading(outcome, id).get("value").asDouble();
  }

  /** A description becomes samples, those become a recording, and that gives the same back. */
  @Test
  public void aDescriptionMakesAWaveformAndItsMeasurement() {
    JsonNode made = make("{\"carrier\":" + QPSK + ",\"symbols\":2000,\"sampleRateHz\":192000}");
    assertTrue(made.get("seamless").asBoolean(), made.toString());
    long id = made.get("id").asLong();
    String meta = server.get("/api/waveforms/" + id + "/sigmf-meta").body();
    assertTrue(meta.contains("cf32_le") && meta.contains("192000"), meta);
    byte[] data = server.bytes("/api/waveforms/" + id + "/sigmf-data");
    assertEquals(data.length, 8 * made.get("samples").asInt());
    long opened = server.json(server.upload(meta, data), 201).get("id").asLong();
    assertEquals(server.get("/api/waveforms/" + opened + "/sigmf-meta").statusCode(), 404);
    JsonNode o = measure(opened, "{\"carrier\":" + QPSK + ",\"knownData\":true}");
    assertTrue(value(o, "mer") > 70, o.get("readings").toString());
    assertEquals(value(o, "ber"), 0.0);
    assertEquals(
        value(o, "carrierPower"), made.get("meanDbfs").asDouble(), 0.05, "power of the carrier");
    assertTrue(o.get("series").size() > 8, "views");
  }

  /** EVM is the inverse of signal over noise (identity): 20 dB a bit is 23 dB a symbol. */
  @Test
  public void noiseIsAddedAsAskedFor() {
    JsonNode made = make("{\"carrier\":" + QPSK + ",\"symbols\":6000,\"ebN0Db\":20}");
    JsonNode o = measure(made.get("id").asLong(), "{\"carrier\":" + QPSK + ",\"knownData\":true}");
    JsonNode evm = reading(o, "evm");
    assertEquals(
        evm.get("value").asDouble(),
        100 * Math.pow(10, -(20 + 10 * Math.log10(2)) / 20),
        1.5 * evm.get("uncertainty").asDouble());
  }

  @Test
  public void whatDoesNotFitIsASentence() {
    long id = make("{\"carrier\":" + QPSK + ",\"symbols\":2000}").get("id").asLong();
    String wrong = QPSK.replace("qpsk", "qam64");
    refused(id, "{\"carrier\":" + wrong + "}", "format", "does not fit");
    refused(id, "{\"carrier\":" + QPSK.replace("48000", "480000") + "}", "symbolRateHz", "wider");
    refused(id, "{\"carrier\":" + QPSK + ",\"startSeconds\":9}", "startSeconds", "ends at");
    refused(id, "{\"carrier\":" + QPSK + ",\"centreHz\":1e9}", "centreHz", "outside");
    refused(id, "{\"carrier\":" + QPSK.replace("qpsk", "fm") + "}", "format", "use one of");
    Random random = new Random(1);
    ByteBuffer noise = ByteBuffer.allocate(8 * 20_000).order(ByteOrder.LITTLE_ENDIAN);
    while (noise.hasRemaining()) {
      noise.putFloat((float) (0.1 * random.nextGaussian()));
    }
    String meta =
        "{\"global\":{\"core:datatype\":\"cf32_le\",\"core:sample_rate\":192000,"
            + "\"core:version\":\"1.0.0\"},\"captures\":[{\"core:sample_start\":0,"
            + "\"core:frequency\":1e8}],\"annotations\":[]}";
    long none = server.json(server.upload(meta, noise.array()), 201).get("id").asLong();
    refused(none, "{\"carrier\":" + QPSK + "}", "format", "only noise");
    String slow = "{\"carrier\":" + QPSK + ",\"sampleRateHz\":1e3}";
    JsonNode bad = server.json(server.send("POST", "/api/waveforms", slow), 400);
    assertTrue(bad.get("detail").asString().contains("sample rate of 64.8 kHz"), bad.toString());
  }

  private void refused(long id, String settings, String field, String part) {
    String body = "{\"measurement\":\"single-carrier\",\"settings\":" + settings + "}";
    JsonNode p = server.json(server.send("POST", "/api/recordings/" + id + "/measure", body), 400);
    assertEquals(p.get("field").asString(), field, p.toString());
    assertTrue(p.get("detail").asString().contains(part), p.toString());
  }

  /** Settings are kept for the job by name; what they cannot be is refused by its field. */
  @Test
  public void setupsAreKept() {
    String settings =
        "{\"carrier\":%s,\"centreHz\":458.525e6,\"searchHz\":0,\"symbols\":500,\"startSeconds\":0,\"errorsOf\":\"mean\",\"knownData\":false,\"referenceLevelDbm\":30}";
    String setup = "{\"measurement\":\"single-carrier\",\"name\":\"data\",\"settings\":%s}";
    String url = "/api/jobs/" + job + "/setups";
    JsonNode all =
        server.json(server.send("POST", url, setup.formatted(settings.formatted(BUOY))), 201);
    assertEquals(all.get(0).get("settings").get("carrier").get("word").asString(), WORD);
    String none = setup.formatted(settings.formatted(QPSK).replace("500", "5"));
    JsonNode bad = server.json(server.send("POST", url, none), 400);
    assertEquals(bad.get("field").asString(), "symbols", bad.toString());
  }

  private String carrier(String what) {
    return "/api/live/i" + receiver + "/single-carrier" + what;
  }

  private void set(String carrier, boolean known) {
    server.json(
        server.send(
            "PUT",
            carrier("/settings"),
            "{\"carrier\":%s,\"centreHz\":458.525e6,\"searchHz\":0,\"symbols\":3000,\"startSeconds\":0,\"errorsOf\":\"mean\",\"knownData\":%s,\"evmLimitPercent\":8,\"referenceLevelDbm\":33}"
                .formatted(carrier, known)),
        200);
  }

  private JsonNode look(Predicate<JsonNode> fits) {
    JsonNode[] found = new JsonNode[1];
    awaitTrue(
        () -> {
          var reply = server.get(carrier("/outcome"));
          if (reply.statusCode() != 200) {
            return false;
          }
          found[0] = server.json(reply, 200);
          return fits.test(found[0].get("view"));
        });
    return found[0];
  }

  private void startWith(String carrier, boolean known) {
    control(source, "signal", "data");
    set(carrier, known);
    server.json(server.send("POST", carrier("/start"), "{\"jobId\":" + job + "}"), 200);
  }

  /** The buoy sends data: what its modulator does wrong is found as the harbour's truth says. */
  @Test
  public void theBuoysDataAreMeasuredLive() {
    startWith(BUOY, true);
    JsonNode o = look(v -> v.get("refused").asString().isEmpty()).get("outcome");
    assertEquals(value(o, "gainImbalance"), 0.25, 0.05, "gain imbalance, dB");
    assertEquals(Math.abs(value(o, "quadratureError")), 1.2, 0.3, "quadrature, degrees");
    assertEquals(value(o, "iqOffset"), -34, 1.5, "leakage, dBc");
    assertEquals(value(o, "ber"), 0.0);
    // The yearly check is judged while data are sent: 1.9 ppm of 2.5, 27 dBm of 24 to 27.5.
    assertEquals(value(o, "frequencyErrorPpm"), 1.9, 0.02);
    assertEquals(reading(o, "frequencyErrorPpm").get("verdict").asString(), "PASS");
    JsonNode power = reading(o, "carrierPower");
    assertEquals(power.get("value").asDouble(), 27, power.get("uncertainty").asDouble());
    assertTrue(power.get("verdict").asString().startsWith("PASS"));
    assertTrue(reading(o, "evm").get("verdict").asString().startsWith("PASS"), o.toString());

    String name = "{\"name\":\"data\"}";
    long kept = server.json(server.send("POST", carrier("/keep"), name), 201).get("id").asLong();
    JsonNode run = server.json(server.get("/api/runs/" + kept), 200);
    assertEquals(run.get("outcome").get("kind").asString(), "single-carrier");
    String same = "{}";
    JsonNode again =
        server
            .json(server.send("POST", "/api/runs/" + kept + "/measure", same), 200)
            .get("outcome");
    assertEquals(
        value(again, "evm"), value(run.get("outcome"), "evm"), 0.01, "the same of kept samples");
  }

  /** A carrier without data has no result; the last one stays, marked, and comes back alive. */
  @Test
  public void withoutDataTheLastResultStaysMarked() {
    startWith(QPSK, false);
    look(v -> v.get("refused").asString().isEmpty());
    control(source, "signal", "carrier");
    JsonNode o = look(v -> !v.get("refused").asString().isEmpty());
    String refused = o.get("view").get("refused").asString();
    assertTrue(refused.contains("plain carrier"), refused);
    JsonNode evm = reading(o.get("outcome"), "evm");
    assertEquals(evm.get("verdict").asString(), "NONE");
    assertTrue(evm.get("marks").toString().contains("earlier"), evm.toString());
    String name = "{\"name\":\"none\"}";
    assertEquals(server.send("POST", carrier("/keep"), name).statusCode(), 409);
    control(source, "signal", "data");
    JsonNode back = look(v -> v.get("refused").asString().isEmpty());
    assertEquals(reading(back.get("outcome"), "evm").get("marks").size(), 0);
  }
}
