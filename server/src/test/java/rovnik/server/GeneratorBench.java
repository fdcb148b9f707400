package rovnik.server;

import org.testng.annotations.BeforeMethod;
import tools.jackson.databind.JsonNode;

/** A server with a vector generator, a cable and a receiver in a job of its own. */
abstract class GeneratorBench extends BuoyBench {
  static final String DATA =
      "{\"format\":\"qam16\",\"symbolRateHz\":250000,\"filter\":\"root-raised-cosine\","
          + "\"filterParameter\":0.25,\"prbs\":15}";
  long generator;
  long second;
  long own;

  @BeforeMethod
  public void hookUp() {
    generator =
        add("Generator", "SIGNAL_GENERATOR", server.bench().generatorPort(), "scpi-generator");
    second = add("Second", "IQ_RECEIVER", server.bench().secondReceiverPort(), "scpi-iq");
    own =
        server
            .json(server.send("POST", "/api/jobs", "{\"name\":\"G\",\"dut\":\"G\"}"), 201)
            .get("id")
            .asLong();
    path();
    awaitTrue(() -> state(generator).equals("CONNECTED") && state(second).equals("CONNECTED"));
  }

  /** What the job says that the generator gives. */
  double levelDbm() {
    return 0;
  }

  /** Generator, cable, and the receiver that is the second now. */
  void path() {
    String elements =
        String.join(
            ",",
            element(
                "G",
                "SOURCE",
                0,
                ",\"outputLevelDbm\":" + levelDbm() + ",\"instrumentId\":" + generator),
            element("Cable", "CABLE", -0.6, ""),
            element(
                "IN",
                "PORT",
                0,
                ",\"highestLevelDbm\":10,\"damageLevelDbm\":20,\"instrumentId\":" + second));
    server.json(
        server.send(
            "PUT",
            "/api/jobs/" + own + "/path",
            "{\"elements\":["
                + elements
                + "],\"readingPlane\":0,\"revision\":"
                + server
                    .json(server.get("/api/jobs/" + own), 200)
                    .get("path")
                    .get("revision")
                    .asInt()
                + "}"),
        200);
  }

  JsonNode make(String body) {
    return server.json(server.send("POST", "/api/waveforms", body), 201);
  }

  JsonNode play(long waveform, String more, int status) {
    String body = "{\"waveformId\":" + waveform + ",\"jobId\":" + own + more + "}";
    return server.json(
        server.send("POST", "/api/instruments/" + generator + "/play", body), status);
  }

  JsonNode generator() {
    for (JsonNode i : server.json(server.get("/api/instruments"), 200)) {
      if (i.get("id").asLong() == generator) {
        return i;
      }
    }
    throw new AssertionError("no generator");
  }

  String live(String kind, String what) {
    return "/api/live/i" + second + "/" + kind + what;
  }

  void set() {
    server.json(
        server.send(
            "PUT",
            live("single-carrier", "/settings"),
            ("{\"carrier\":%s,\"centreHz\":458.525e6,\"searchHz\":0,\"symbols\":2000,"
                    + "\"startSeconds\":0,\"errorsOf\":\"mean\",\"knownData\":false,"
                    + "\"referenceLevelDbm\":10}")
                .formatted(DATA)),
        200);
  }

  JsonNode guided(String work) {
    return guided("single-carrier", work);
  }

  JsonNode guided(String kind, String work) {
    server.json(
        server.send("POST", live(kind, "/guided"), "{\"jobId\":" + own + ",\"work\":" + work + "}"),
        202);
    awaitTrue(() -> server.json(server.get(live(kind, "")), 200).get("guided").isNull(), 60);
    return server.json(server.get(live(kind, "/finding")), 200).get("outcome");
  }

  void playing() {
    long id = make("{\"carrier\":" + DATA + ",\"symbols\":4000}").get("id").asLong();
    play(id, "", 200);
    control(generator, "frequency", "458.525e6", "level", "0", "output", "on");
    set();
  }

  String value(String control) {
    for (JsonNode c : generator().get("controls")) {
      if (c.get("id").asString().equals(control)) {
        return c.get("value").asString();
      }
    }
    return "";
  }
}
