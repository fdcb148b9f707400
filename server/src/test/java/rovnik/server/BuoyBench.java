package rovnik.server;

import static org.testng.Assert.assertTrue;

import java.net.http.HttpResponse;
import java.util.function.BooleanSupplier;
import org.testng.annotations.BeforeMethod;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** A running server with the buoy's bench and job, for tests over HTTP. */
abstract class BuoyBench {
  protected RunningServer server;
  protected long receiver;
  protected long source;
  protected long job;

  @BeforeMethod
  public void setUp() {
    server = RunningServer.fresh();
    receiver = add("Receiver", "IQ_RECEIVER", server.bench().receiverPort(), "scpi-iq");
    source = add("Buoy TX", "SIGNAL_SOURCE", server.bench().transmitterPort(), "scpi-source");
    job =
        server
            .json(server.send("POST", "/api/jobs", "{\"name\":\"Check\",\"dut\":\"Buoy\"}"), 201)
            .get("id")
            .asLong();
    server.json(
        server.send(
            "PUT",
            "/api/jobs/" + job + "/limits",
            "{\"nominalHz\":458.525e6,\"frequencyTolerancePpm\":2.5,\"nominalLevelDbm\":27,"
                + "\"levelMinusDb\":3,\"levelPlusDb\":0.5}"),
        200);
    savePath(-30);
    awaitTrue(() -> state(receiver).equals("CONNECTED") && state(source).equals("CONNECTED"));
  }

  protected long add(String name, String kind, int port, String dialect) {
    return server
        .json(
            server.send(
                "POST",
                "/api/instruments",
                "{\"name\":\"%s\",\"kind\":\"%s\",\"host\":\"127.0.0.1\",\"port\":%d,\"dialect\":\"%s\",\"connect\":true}"
                    .formatted(name, kind, port, dialect)),
            201)
        .get("id")
        .asLong();
  }

  protected String state(long instrument) {
    for (JsonNode i : server.json(server.get("/api/instruments"), 200)) {
      if (i.get("id").asLong() == instrument) {
        return i.get("state").asString();
      }
    }
    return "";
  }

  protected static void awaitTrue(BooleanSupplier condition) {
    awaitTrue(condition, 20);
  }

  protected static void awaitTrue(BooleanSupplier condition, int seconds) {
    long end = System.nanoTime() + seconds * 1_000_000_000L;
    while (!condition.getAsBoolean()) {
      assertTrue(System.nanoTime() < end, "waited in vain");
      java.util.concurrent.locks.LockSupport.parkNanos(30_000_000);
    }
  }

  protected static String element(String name, String kind, double gain, String more) {
    return "{\"name\":\"%s\",\"kind\":\"%s\",\"gainKind\":\"number\",\"gainDb\":%s,\"gainTable\":\"\",\"toleranceDb\":0.2,\"dcAllowed\":true%s}"
        .formatted(name, kind, gain, more);
  }

  protected JsonNode savePath(double padDb) {
    String elements =
        String.join(
            ",",
            element("Buoy TX", "SOURCE", 0, ",\"outputLevelDbm\":27,\"instrumentId\":" + source),
            element("Pad", "PAD", padDb, ""),
            element("Feeder", "CABLE", -1.2, ""),
            element(
                "Receiver IN",
                "PORT",
                0,
                ",\"highestLevelDbm\":10,\"damageLevelDbm\":20,\"instrumentId\":" + receiver));
    return server.json(
        server.send(
            "PUT",
            "/api/jobs/" + job + "/path",
            "{\"elements\":[" + elements + "],\"readingPlane\":0,\"revision\":0}"),
        200);
  }

  protected String live(String what) {
    return "/api/live/i" + receiver + "/spectrum" + what;
  }

  protected JsonNode settings(String centre, String span, int averages, double reference) {
    return server.json(
        server.send(
            "PUT",
            live("/settings"),
            "{\"centreHz\":%s,\"spanHz\":%s,\"rbwHz\":0,\"window\":\"HANN\",\"detector\":\"RMS\",\"averages\":%d,\"referenceLevelDbm\":%s,\"channelWidthHz\":50000}"
                .formatted(centre, span, averages, reference)),
        200);
  }

  /** Switches controls: a name and a value, and so on. */
  protected JsonNode control(long instrument, String... namesAndValues) {
    return server.json(controlled(instrument, null, namesAndValues), 200);
  }

  protected HttpResponse<String> controlled(
      long instrument, Long forJob, String... namesAndValues) {
    ObjectNode body = RunningServer.JSON.createObjectNode();
    ObjectNode values = body.putObject("values");
    for (int i = 0; i < namesAndValues.length; i += 2) {
      values.put(namesAndValues[i], namesAndValues[i + 1]);
    }
    if (forJob != null) {
      body.put("jobId", forJob);
    }
    return server.send("PUT", "/api/instruments/" + instrument + "/controls", body.toString());
  }

  protected JsonNode run(long id) {
    return Flat.run(server.json(server.get("/api/runs/" + id), 200));
  }

  /** Plugs something into a place on the bench. */
  protected void plug(long holder, String what) {
    control(holder, "part", what);
  }

  /** Starts a measurement of another receiver. */
  protected void start(long receiver, String kind, String settings) {
    String path = "/api/live/i" + receiver + "/" + kind;
    server.json(server.send("PATCH", path + "/settings", settings), 200);
    server.json(server.send("POST", path + "/start", "{}"), 200);
  }

  protected void start() {
    server.json(server.send("POST", live("/start"), "{\"jobId\":" + job + "}"), 200);
  }

  protected JsonNode settledFrame(int averages) {
    JsonNode[] frame = new JsonNode[1];
    awaitTrue(
        () -> {
          var reply = server.get(live("/outcome"));
          if (reply.statusCode() != 200) {
            return false;
          }
          frame[0] = Flat.look(server.json(reply, 200));
          return frame[0].get("segments").asInt() >= averages
              && (averages <= 1 || frame[0].get("settings").get("averages").asInt() == averages);
        });
    return frame[0];
  }

  /**
   * The truth lies within twice what a reading claims. One trial proves no coverage, which seeded
   * trials of the core do; of the hundreds of these, one in 15,000 fails by chance.
   */
  protected static void within(JsonNode outcome, String id, double truth) {
    JsonNode r = reading(outcome, id);
    org.testng.Assert.assertEquals(
        r.get("value").asDouble(), truth, 2 * r.get("uncertainty").asDouble(), r.toString());
  }

  /** The rows of a table. */
  protected static JsonNode table(JsonNode outcome, String id) {
    for (JsonNode t : outcome.get("tables")) {
      if (t.get("id").asString().equals(id)) {
        return t.get("rows");
      }
    }
    throw new AssertionError("no table " + id + " in " + outcome.get("summary"));
  }

  protected static double cell(JsonNode rows, int row, int column) {
    return rows.get(row).get("cells").get(column).get("value").asDouble();
  }

  /** The values of a curve, -300 where there is none. */
  protected static double[] ys(JsonNode outcome, String series) {
    for (JsonNode s : outcome.get("series")) {
      if (s.get("id").asString().equals(series)) {
        JsonNode values = s.get("y");
        double[] out = new double[values.size()];
        for (int i = 0; i < out.length; i++) {
          out[i] = values.get(i).isNull() ? -300 : values.get(i).asDouble();
        }
        return out;
      }
    }
    throw new AssertionError("no series " + series);
  }

  protected static JsonNode reading(JsonNode of, String id) {
    for (JsonNode r : of.get("readings")) {
      if (r.get("id").asString().equals(id)) {
        return r;
      }
    }
    throw new AssertionError("no reading " + id);
  }
}
