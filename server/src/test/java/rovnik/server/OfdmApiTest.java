package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
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

    refused(url, "{\"channelHz\":7e6}", "channelHz", "5, 10, 20, 40, 80, 160 or 320 MHz");
    refused(url, "{\"packet\":0}", "packet", "count from 1");
    refused(url, "{\"packet\":5}", "packet", "There is one packet");
    refused(url, "{\"estimate\":\"magic\"}", "estimate", "training");
    refused(url, "{\"seconds\":5}", "seconds", "5 us to 100 ms");
    refused(url, "{\"channelHz\":10e6}", "signal", "no long training follows");
  }

  /** What newer packets say behind SIGNAL is read, and they are made. */
  @Test
  public void newerPacketsArePlayedAndMeasured() {
    String part =
        "{\"parts\":[{\"kind\":\"packets\",\"format\":\"%s\",\"mcs\":%d,\"shortGuard\":%s,"
            + "\"bytes\":1000,\"intervalSeconds\":300e-6,\"bandHz\":%s}],\"sampleRateHz\":40e6}";
    control(generator, "frequency", "458.525e6", "level", "-20", "output", "on");
    play(make(part.formatted("HT", 7, "true", "20e6")).get("id").asLong(), "", 200);
    server.json(
        server.send(
            "PATCH",
            live("ofdm", "/settings"),
            "{\"centreHz\":458.525e6,\"seconds\":1e-3,\"referenceLevelDbm\":0}"),
        200);
    server.json(server.send("POST", live("ofdm", "/start"), "{\"jobId\":" + own + "}"), 200);
    JsonNode ht = found("HT MCS 7, 64-QAM 5/6");
    assertTrue(
        ht.get("summary").asString().contains("1000 bytes in 31 symbols, its check sum fits"));
    assertEquals(reading(ht, "evmDb").get("verdict").asString(), "PASS");
    assertEquals(reading(ht, "evmDb").get("upper").asDouble(), -27, 1e-9);
    play(make(part.formatted("VHT", 8, "false", "20e6")).get("id").asLong(), "", 200);
    JsonNode vht = found("VHT MCS 8, 256-QAM 3/4");
    assertTrue(vht.get("summary").asString().contains("1 of 1 MPDU has a check that fits"));
    assertEquals(table(vht, "signal").size(), 5 + 17 + 3);
    for (String[] bad :
        new String[][] {
          {"HT", "8", "20e6", "mcs", "MCS 0 to 7"},
          {"VHT", "9", "20e6", "mcs", "MCS 0 to 8"},
          {"HE", "3", "20e6", "training", "needs"},
          {"HT", "3", "10e6", "bandHz", "20 or 40 MHz"},
          {"HT", "3", "80e6", "bandHz", "20 or 40 MHz"},
          {"VHT", "8", "160e6", "mcs", "MCS 0 to 7"}
        }) {
      JsonNode no =
          server.json(
              server.send(
                  "POST",
                  "/api/waveforms",
                  part.formatted(bad[0], Integer.parseInt(bad[1]), "false", bad[2])),
              400);
      assertEquals(no.get("field").asString(), bad[3], no.toString());
      assertTrue(no.get("detail").asString().contains(bad[4]), no.toString());
    }
  }

  /** What is made over a wide channel is a recording, and measured as one. */
  @Test
  public void packetsOfWideChannelsAreMadeAndMeasured() {
    String part =
        "{\"parts\":[{\"kind\":\"packets\",\"format\":\"%s\",\"mcs\":%d,\"training\":%d,"
            + "\"bytes\":4000,\"intervalSeconds\":400e-6,\"bandHz\":%s}],\"sampleRateHz\":%s}";
    for (String[] good :
        new String[][] {
          {"EHT", "13", "2", "80e6", "320e6", "EHT MCS 13, 4096-QAM 5/6"},
          {"VHT", "9", "null", "80e6", "320e6", "1 of 1 MPDU has a check that fits"},
          {"HT", "5", "null", "40e6", "160e6", "4000 bytes in 75 symbols, its check sum fits"}
        }) {
      String body =
          part.replace("%d", "%s")
              .replace("4000", good[0].equals("EHT") ? "20000" : "4000")
              .formatted(good[0], good[1], good[2], good[3], good[4]);
      JsonNode o = measured(make(body).get("id").asLong(), good[3]);
      assertTrue(o.get("summary").asString().contains(good[5]), o.toString());
      assertTrue(o.get("summary").asString().contains(good[0] + " MCS "), o.toString());
      assertEquals(reading(o, "evmDb").get("verdict").asString(), "PASS");
      // Short packets scatter more.
      String within = reading(o, "maskMargin").get("verdict").asString();
      assertTrue(within.startsWith("PASS"), o.toString());
      assertEquals(table(o, "mask").size(), 8);
    }
    for (String[] bad :
        new String[][] {
          {"HE", "12", "3", "20e6", "mcs", "MCS 0 to 11"},
          {"HE", "3", "3", "320e6", "bandHz", "160 MHz wide for HE"},
          {"EHT", "3", "4", "20e6", "training", "0 to 3"},
          {"EHT", "0", "0", "20e6", "bytes", "longer than SIGNAL can say"}
        }) {
      String body =
          part.replace("4000", "20000")
              .formatted(
                  bad[0], Integer.parseInt(bad[1]), Integer.parseInt(bad[2]), bad[3], "640e6");
      JsonNode no = server.json(server.send("POST", "/api/waveforms", body), 400);
      assertEquals(no.get("field").asString(), bad[4], no.toString());
      assertTrue(no.get("detail").asString().contains(bad[5]), no.toString());
    }
  }

  private JsonNode measured(long recording, String channel) {
    String settings = "{\"channelHz\":" + channel + ",\"seconds\":1e-3}";
    return server
        .json(
            server.send(
                "POST",
                "/api/recordings/" + recording + "/measure",
                "{\"measurement\":\"ofdm\",\"settings\":" + settings + "}"),
            200)
        .get("outcome");
  }

  /** Users on units of 40 MHz are made, told apart and judged each by its own limit. */
  @Test
  public void packetsForSeveralUsersAreMadeAndMeasured() {
    String part =
        "{\"parts\":[{\"kind\":\"packets\",\"format\":\"%s\",\"training\":1,\"bytes\":200,"
            + "\"intervalSeconds\":600e-6,\"bandHz\":40e6,\"users\":[%s]}],\"sampleRateHz\":80e6}";
    String near = "{\"tones\":242,\"place\":1,\"station\":12,\"mcs\":8}";
    String far = "{\"tones\":106,\"place\":4,\"station\":900,\"mcs\":2,\"levelDb\":4}";
    long id = make(part.formatted("HE", near + "," + far)).get("id").asLong();
    JsonNode o =
        server
            .json(
                server.send(
                    "POST",
                    "/api/recordings/" + id + "/measure",
                    "{\"measurement\":\"ofdm\",\"settings\":{\"channelHz\":40e6,\"seconds\":1e-3}}"),
                200)
            .get("outcome");
    assertTrue(o.get("summary").asString().contains("HE, 2 users"), o.toString());
    assertEquals(reading(o, "evmUser1").get("upper").asDouble(), -30);
    assertEquals(reading(o, "evmUser2").get("upper").asDouble(), -13);
    assertEquals(reading(o, "evmUser2").get("verdict").asString(), "PASS");
    assertEquals(cell(table(o, "users"), 1, 6) - cell(table(o, "users"), 0, 6), 4, 0.01);
    for (String[] bad :
        new String[][] {
          {"EHT", near, "users", "HE packets"},
          {"HE", near + "," + near, "users", "Two users have tone"},
          {"HE", near.replace("242", "30"), "users", "26, 52, 106"},
          {"HE", "null", "users", "cannot be read"},
          {"HE", "", "users", "at least one user"}
        }) {
      JsonNode no =
          server.json(server.send("POST", "/api/waveforms", part.formatted(bad[0], bad[1])), 400);
      assertEquals(no.get("field").asString(), bad[2], no.toString());
      assertTrue(no.get("detail").asString().contains(bad[3]), no.toString());
    }
  }

  /**
   * An answer to a trigger is read as that asked, and its unused tones are held to their limits.
   */
  @Test
  public void answersToATriggerAreMadeAndMeasured() {
    String part =
        "{\"parts\":[{\"kind\":\"packets\",\"format\":\"HE\",\"training\":2,\"bytes\":200,\"answer\":true,"
            + "\"intervalSeconds\":900e-6,\"bandHz\":20e6,\"users\":[%s]}],\"sampleRateHz\":80e6}";
    String user = "{\"tones\":26,\"place\":3,\"station\":1,\"mcs\":6}";
    long id = make(part.formatted(user)).get("id").asLong();
    String url = "/api/recordings/" + id + "/measure";
    String settings = "{\"measurement\":\"ofdm\",\"settings\":{\"seconds\":1e-3,\"trigger\":%s}}";
    String told = "{\"training\":2,\"users\":[" + user + "]}";
    JsonNode o =
        server.json(server.send("POST", url, settings.formatted(told)), 200).get("outcome");
    assertTrue(o.get("summary").asString().contains("1 checked, it fits"), o.toString());
    assertEquals(table(o, "unused").size(), 8);
    // MCS 6 may have -25 dB; 2 below that right beside a unit of 26, 12 below that is under -35.
    assertEquals(cell(table(o, "unused"), 1, 3), -27, 1e-9);
    assertEquals(cell(table(o, "unused"), 0, 3), -35, 1e-9);
    assertEquals(reading(o, "unusedMargin").get("verdict").asString(), "PASS");
    JsonNode none =
        server.json(server.send("POST", url, settings.formatted("null")), 200).get("outcome");
    assertTrue(none.get("summary").asString().contains("say what that asked for"));
    for (String[] bad :
        new String[][] {
          {"{\"training\":2}", "names 1 to 74 users"},
          {told.replace("\"place\":3", "\"place\":10"), "place is 1 to 9"},
          {told.replace("g\":2", "g\":3"), "three trainings"}
        }) {
      JsonNode no = server.json(server.send("POST", url, settings.formatted(bad[0])), 400);
      assertEquals(no.get("field").asString(), "trigger", no.toString());
      assertTrue(no.get("detail").asString().contains(bad[1]), no.toString());
    }
  }

  private JsonNode found(String kind) {
    JsonNode[] out = new JsonNode[1];
    awaitTrue(
        () -> {
          var reply = server.get(live("ofdm", "/outcome"));
          out[0] = reply.statusCode() == 200 ? server.json(reply, 200).get("outcome") : null;
          return out[0] != null && out[0].get("summary").asString().contains(kind);
        });
    return out[0];
  }

  private static byte[] fixture(String name) throws IOException {
    try (InputStream in = OfdmApiTest.class.getResourceAsStream("/fixtures/" + name)) {
      return in.readAllBytes();
    }
  }

  /** What a script wrote of frames, and how they measure. */
  private record Frames(
      String description, Map<String, String> truth, String url, JsonNode measured) {
    double told(String name) {
      return Double.parseDouble(truth.get(name));
    }
  }

  private Frames framesOf(String name) throws IOException {
    String description = new String(fixture(name + ".json"), StandardCharsets.UTF_8);
    Map<String, String> truth = new HashMap<>();
    new String(fixture(name + ".txt"), StandardCharsets.UTF_8)
        .lines()
        .map(l -> l.split(" ", 2))
        .forEach(l -> truth.put(l[0], l[1]));
    String meta =
        "{\"global\":{\"core:datatype\":\"cf32_le\",\"core:sample_rate\":"
            + truth.get("rate")
            + ",\"core:version\":\"1.0.0\"},\"captures\":[{\"core:sample_start\":0,"
            + "\"core:frequency\":5.5e9}],\"annotations\":[]}";
    long id = server.json(server.upload(meta, fixture(name + ".f32")), 201).get("id").asLong();
    String url = "/api/recordings/" + id + "/measure";
    String asked = "{\"measurement\":\"ofdm\",\"settings\":{\"description\":" + description + "}}";
    JsonNode all = server.json(server.send("POST", url, asked), 200);
    return new Frames(description, truth, url, all.has("outcome") ? all.get("outcome") : all);
  }

  /**
   * A transform that is no power of two, symbols that pass into each other, training whose signs
   * nobody told, pilots by a Gold sequence, points of their own (edged_frames.py).
   */
  @Test
  public void framesWithEdgesAndTrainingThatIsNotToldAreMeasured() throws IOException {
    Frames frames = framesOf("edged_frames");
    JsonNode o = frames.measured();
    String summary = o.get("summary").asString();
    assertEquals(reading(o, "packets").get("value").asInt(), 2, summary);
    assertTrue(summary.contains("training learned from the signal"), summary);
    within(o, "frequencyError", frames.told("carrier"));
    within(o, "clockOffset", -frames.told("ppm"));
    String[] begins = frames.truth().get("begins").split(" ");
    for (int i = 0; i < 2; i++) {
      assertEquals(cell(table(o, "packets"), i, 0), Double.parseDouble(begins[i]), 0.5e-6);
    }
    // Six pilots turn each symbol, which adds a little to data of power 1.
    double turn = 1 / 12.0;
    JsonNode users = table(o, "users");
    double inner = frames.told("noise_inner") + turn;
    double noise = -frames.told("snr");
    assertEquals(cell(users, 0, 2), noise + 10 * Math.log10(inner), 0.5);
    assertEquals(
        cell(users, 1, 2), noise + 10 * Math.log10(frames.told("noise_outer") + turn), 0.5);
    refused(
        frames.url(),
        "{\"description\":" + frames.description().replace("\"window\": 6", "\"window\": 17") + "}",
        "description",
        "window is longer than a guard");
  }

  /** Frames of a description of a user's own, made by a script of its own (own_frames.py). */
  @Test
  public void framesOfAnOwnDescriptionAreMeasured() throws IOException {
    Frames frames = framesOf("own_frames");
    String description = frames.description();
    Map<String, String> truth = frames.truth();
    String url = frames.url();
    JsonNode o = frames.measured();
    assertEquals(reading(o, "packets").get("value").asInt(), 2, o.get("summary").asString());
    within(o, "frequencyError", Double.parseDouble(truth.get("carrier")));
    within(o, "clockOffset", -Double.parseDouble(truth.get("ppm")));
    within(o, "leakage", Double.parseDouble(truth.get("leakage")));
    String[] begins = truth.get("begins").split(" ");
    for (int i = 0; i < 2; i++) {
      assertEquals(cell(table(o, "packets"), i, 0), Double.parseDouble(begins[i]), 0.5e-6);
    }
    // White noise over what a tone passes; the training, 1.2 as large, twice, adds its own to data
    // of any level alike, and so do the pilots that turn a symbol.
    double training = 1 / (2 * 1.2 * 1.2);
    double turn = 0.07;
    double noise = -Double.parseDouble(truth.get("snr"));
    double near = Double.parseDouble(truth.get("noise_near"));
    double far = Double.parseDouble(truth.get("noise_far"));
    JsonNode users = table(o, "users");
    assertEquals(
        cell(users, 0, 2),
        noise + 10 * Math.log10(near * (Math.pow(10, -0.3) + training) + turn),
        0.5);
    assertEquals(cell(users, 1, 2), noise + 10 * Math.log10(far * (1 + training) + turn), 0.5);
    assertEquals(reading(o, "evmDb").get("verdict").asString(), "PASS");
    double[] flat = ys(o, "flatness");
    double[] ends = java.util.Arrays.stream(flat).filter(v -> v > -200).sorted().toArray();
    assertEquals(ends[0], Double.parseDouble(truth.get("deepest")), 0.4);
    assertEquals(ends[ends.length - 1], Double.parseDouble(truth.get("highest")), 0.3);

    refused(
        url,
        "{\"description\":" + description.replace("64-QAM", "65-QAM") + "}",
        "description",
        "65-QAM");
    refused(
        url,
        "{\"description\":" + description.replace("\"-27..27", "\"-40..27") + "}",
        "description",
        "is outside");
    refused(
        url,
        "{\"description\":" + description.replace("\"what\": \"pilots\"", "\"what\": \"x\"") + "}",
        "description",
        "known");
    refused(
        url, "{\"description\":{\"spacingHz\":1,\"transform\":64}}", "description", "needs name");
    refused(
        url,
        "{\"description\":" + description.replace("250000.0", "2500000.0") + "}",
        "description",
        "S/s");
  }

  @Test
  public void readyFramesArePlayedAndMeasured() {
    JsonNode ready = server.json(server.get("/api/ofdm-descriptions"), 200);
    JsonNode cellular =
        ready
            .valueStream()
            .filter(d -> d.get("name").asString().equals("TS 36.211, 20 MHz"))
            .findFirst()
            .orElseThrow();
    String frames =
        "{\"parts\":[{\"kind\":\"frames\",\"intervalSeconds\":1.25e-3,\"description\":"
            + cellular
            + "}],\"sampleRateHz\":61.44e6}";
    play(make(frames).get("id").asLong(), "", 200);
    control(generator, "frequency", "458.525e6", "level", "-20", "output", "on");
    server.json(
        server.send(
            "PATCH",
            live("ofdm", "/settings"),
            "{\"centreHz\":458.525e6,\"seconds\":3e-3,\"referenceLevelDbm\":0,\"description\":"
                + cellular
                + "}"),
        200);
    server.json(server.send("POST", live("ofdm", "/start"), "{\"jobId\":" + own + "}"), 200);
    awaitTrue(() -> server.get(live("ofdm", "/outcome")).statusCode() == 200);
    JsonNode o = server.json(server.get(live("ofdm", "/outcome")), 200).get("outcome");
    assertTrue(
        o.get("summary").asString().contains("TS 36.211, 20 MHz"), o.get("summary").asString());
    assertTrue(reading(o, "packets").get("value").asInt() >= 1, o.get("summary").asString());
    assertTrue(reading(o, "evmDb").get("value").asDouble() < -25, o.get("summary").asString());
    server.json(server.send("POST", live("ofdm", "/hold"), ""), 200);
    server.json(server.send("PATCH", live("ofdm", "/settings"), "{\"description\":null}"), 200);
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
