package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.watch.WatchPoint;
import rovnik.server.watch.WatchStore;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Long watches over what runs: points, limits, what is lost, a server that comes back. */
public class WatchApiTest extends BuoyBench {
  private static final String LEVEL =
      "{\"id\":\"carrierPower\",\"lower\":20,\"upper\":28,\"hysteresis\":1}";

  private long begun(String readings, String more) {
    settings("458.525e6", "200e3", 1, 30);
    start();
    settledFrame(1);
    return begin(readings, more);
  }

  private long begin(String readings, String more) {
    return server
        .json(
            server.send(
                "POST",
                "/api/watches",
                "{\"name\":\"Night\",\"source\":\"i%d\",\"measurement\":\"spectrum\",\"everySeconds\":0,\"readings\":[%s]%s}"
                    .formatted(receiver, readings, more)),
            201)
        .get("id")
        .asLong();
  }

  private JsonNode outcome(long watch) {
    return server.json(server.get("/api/watches/" + watch + "/outcome"), 200);
  }

  private JsonNode watch(long id) {
    return server.json(server.get("/api/watches/" + id), 200);
  }

  private static JsonNode rows(JsonNode outcome, String table) {
    for (JsonNode t : outcome.get("tables")) {
      if (t.get("id").asString().equals(table)) {
        return t.get("rows");
      }
    }
    throw new AssertionError("no table " + table);
  }

  private static String text(JsonNode rows, int row, int column) {
    return rows.get(row).get("cells").get(column).get("text").asString();
  }

  private static int breaks(JsonNode outcome) {
    int out = 0;
    for (JsonNode y : outcome.get("series").get(0).get("y")) {
      out += y.isNull() ? 1 : 0;
    }
    return out;
  }

  private static int points(JsonNode outcome) {
    return outcome.get("series").get(0).get("axis").get("points").asInt();
  }

  private List<String> runNames() {
    List<String> out = new ArrayList<>();
    server
        .json(server.get("/api/jobs/" + job + "/runs"), 200)
        .forEach(r -> out.add(r.get("name").asString()));
    return out;
  }

  @Test
  public void aCarrierThatGoesIsAnEventWithItsLooks() {
    long id = begun(LEVEL + ",{\"id\":\"carrierFrequency\"}", "");
    awaitTrue(() -> points(outcome(id)) >= 5);
    within(outcome(id), "carrierPower.newest", 27);

    control(source, "output", "off");
    awaitTrue(() -> rows(outcome(id), "events").size() == 1);
    JsonNode gone = outcome(id);
    assertEquals(text(rows(gone, "events"), 0, 3), "goes on");
    awaitTrue(() -> text(rows(outcome(id), "events"), 0, 4).startsWith("run \"Night, "));
    assertTrue(runNames().stream().anyMatch(n -> n.endsWith(", before")), runNames().toString());

    control(source, "output", "on");
    awaitTrue(() -> !text(rows(outcome(id), "events"), 0, 3).equals("goes on"));
    JsonNode back = outcome(id);
    assertEquals(text(rows(back, "events"), 0, 2), "not there");
    // What is not there has no level: noise has -60 dBm. A look may begin with the carrier and end
    // without, and so have less than all of it.
    assertTrue(reading(back, "carrierPower.lowest").get("value").asDouble() > -20);
    assertEquals(reading(back, "carrierPower.outside").get("verdict").asString(), "FAIL");
    double outside = reading(back, "carrierPower.outside").get("value").asDouble();
    assertTrue(outside > 0 && outside < 100, outside + " %");
    assertEquals(reading(back, "events").get("value").asDouble(), 1);

    // Both looks are runs of the job; the one with the number outside has its samples.
    for (JsonNode r : server.json(server.get("/api/jobs/" + job + "/runs"), 200)) {
      boolean before = r.get("name").asString().endsWith(", before");
      assertEquals(r.get("attachments").get("recordingId").isNull(), before, r.toString());
      double level =
          reading(
                  server.json(server.get("/api/runs/" + r.get("id").asLong()), 200).get("outcome"),
                  "carrierPower")
              .get("value")
              .asDouble();
      assertEquals(level > 20, before, r.get("name") + " has " + level);
    }

    // What cannot be written waits, and is all there afterwards.
    var tables = server.part(org.springframework.jdbc.core.JdbcTemplate.class);
    tables.execute("alter table watch_event rename to watch_event_away");
    try {
      control(source, "output", "off");
      awaitTrue(() -> watch(id).get("unwritten").asString().contains("waits for that"));
    } finally {
      tables.execute("alter table watch_event_away rename to watch_event");
    }
    awaitTrue(() -> rows(outcome(id), "events").size() == 2);
    assertEquals(watch(id).get("unwritten").asString(), "");
    JsonNode waited = outcome(id);
    assertEquals(text(rows(waited, "events"), 0, 3), "goes on");
    assertTrue(text(rows(waited, "events"), 0, 4).startsWith("run \"Night, "), "its looks too");
    assertEquals(reading(waited, "seen").get("value").asDouble(), 100, 1e-9);
    double looked = reading(waited, "looked").get("value").asDouble();
    assertTrue(looked > 0.01 && looked < 100, looked + " % of the time has samples");

    // A number without a limit is followed as well, to the hertz.
    double f = reading(back, "carrierFrequency.newest").get("value").asDouble();
    assertEquals(f, 458.525e6 * (1 + 1.9e-6), 100);
    int have = server.get("/api/watches/" + id + "/csv").body().split("\n").length;
    assertTrue(have > 10, "rows of the file");

    JsonNode kept =
        server.json(server.send("POST", "/api/watches/" + id + "/keep", "{\"name\":\"All\"}"), 201);
    assertEquals(kept.get("kind").asString(), "watch");
    assertEquals(
        server.get("/api/runs/" + kept.get("id").asLong() + "/report.html").statusCode(), 200);

    JsonNode ended = server.json(server.send("POST", "/api/watches/" + id + "/end", ""), 200);
    assertFalse(ended.get("endedMillis").isNull());
    assertFalse(text(rows(outcome(id), "events"), 0, 3).equals("goes on"), "it is over");
    int then = points(outcome(id));
    settings("458.525e6", "100e3", 1, 30); // nothing holds them any more
    assertEquals(points(outcome(id)), then);
    server.json(server.send("DELETE", "/api/watches/" + id, ""), 204);
    assertEquals(server.get("/api/watches/" + id).statusCode(), 404);
  }

  @Test
  public void whileItGoesOnSettingsStayAndWindowsMayGo() throws Exception {
    long id = begun(LEVEL, "");
    var changed = server.send("PATCH", live("/settings"), "{\"spanHz\":100000}");
    assertEquals(changed.statusCode(), 409, changed.body());
    assertTrue(changed.body().contains("\\\"Night\\\" goes on"), changed.body());
    assertEquals(server.send("POST", live("/start"), "{\"jobId\":null}").statusCode(), 409);

    server.window("i" + receiver, "spectrum", "w1").sendClose(1000, "").join();
    int then = points(outcome(id));
    awaitTrue(() -> points(outcome(id)) > then + 3);

    // Held by hand it sees nothing, and says so.
    server.json(server.send("POST", live("/hold"), ""), 200);
    awaitTrue(() -> watch(id).get("standing").asString().equals("held"));
    server.json(server.send("POST", live("/start"), "{\"jobId\":" + job + "}"), 200);
    awaitTrue(() -> watch(id).get("standing").asString().isEmpty());
    assertEquals(text(rows(outcome(id), "gaps"), 0, 2), "held");
    assertTrue(reading(outcome(id), "seen").get("value").asDouble() < 100);

    // Read at another plane it is another number.
    JsonNode path = server.json(server.get("/api/jobs/" + job), 200).get("path");
    ((ObjectNode) path).put("readingPlane", 1);
    server.json(server.send("PUT", "/api/jobs/" + job + "/path", path.toString()), 200);
    awaitTrue(() -> !watch(id).get("standing").asString().isEmpty());
    String standing = watch(id).get("standing").asString();
    assertTrue(standing.contains("is read at"), standing);
  }

  @Test
  public void anInstrumentThatIsLostIsAGap() throws IOException {
    try (PulledCable cable = new PulledCable(server.bench().receiverPort())) {
      receiver = add("At a cable", "IQ_RECEIVER", cable.port(), "scpi-iq");
      savePath(-30);
      awaitTrue(() -> state(receiver).equals("CONNECTED"));
      long id = begun(LEVEL, "");
      awaitTrue(() -> points(outcome(id)) >= 3);
      cable.pull();
      awaitTrue(() -> !watch(id).get("standing").asString().isEmpty());
      awaitTrue(() -> state(receiver).equals("LOST"));
      cable.plug();
      awaitTrue(() -> watch(id).get("standing").asString().isEmpty(), 40);
      JsonNode after = outcome(id);
      assertNotEquals(rows(after, "gaps").size(), 0);
      assertFalse(text(rows(after, "gaps"), 0, 2).isEmpty());
      awaitTrue(() -> breaks(outcome(id)) >= 1); // no line is drawn across
      assertEquals(rows(after, "events").size(), 0, "what is lost is no event");
    }
  }

  @Test
  public void theServerMayRestartInBetween() {
    Path data = Folders.temporary();
    try {
      RunningServer shared = server;
      server = RunningServer.start(data);
      long id;
      try {
        setUpBeside(shared);
        id = begun(LEVEL, "");
        awaitTrue(() -> points(outcome(id)) >= 5);
        control(source, "output", "off");
        awaitTrue(() -> rows(outcome(id), "events").size() == 1);
      } finally {
        server.stopOnly();
      }
      server = RunningServer.start(data);
      try {
        assertTrue(points(outcome(id)) >= 5, "what it saw is still there");
        awaitTrue(() -> watch(id).get("standing").asString().isEmpty(), 40);
        JsonNode after = outcome(id);
        JsonNode gaps = rows(after, "gaps");
        assertEquals(text(gaps, gaps.size() - 1, 2), "the server did not run");
        // The carrier is still off: it is the same event, and it ends when it is back.
        assertEquals(text(rows(after, "events"), 0, 3), "goes on");
        awaitTrue(() -> state(source).equals("CONNECTED"));
        control(source, "output", "on");
        awaitTrue(() -> !text(rows(outcome(id), "events"), 0, 3).equals("goes on"));
        assertEquals(rows(outcome(id), "events").size(), 1);
      } finally {
        server.close();
        server = shared;
      }
    } finally {
      Folders.remove(data);
    }
  }

  /** At the stand-ins of another server, which go on while this one is away. */
  private void setUpBeside(RunningServer other) {
    receiver = add("Receiver", "IQ_RECEIVER", other.bench().receiverPort(), "scpi-iq");
    source = add("Buoy TX", "SIGNAL_SOURCE", other.bench().transmitterPort(), "scpi-source");
    job =
        server
            .json(server.send("POST", "/api/jobs", "{\"name\":\"Check\",\"dut\":\"Buoy\"}"), 201)
            .get("id")
            .asLong();
    savePath(-30);
    awaitTrue(() -> state(receiver).equals("CONNECTED") && state(source).equals("CONNECTED"));
  }

  @Test
  public void aMillionPointsAreReadWithTheOneThatStandsOut() {
    long id = begun(LEVEL, ",\"mostKept\":0");
    server.json(server.send("POST", "/api/watches/" + id + "/end", ""), 200);
    WatchStore store = server.part(WatchStore.class);
    long now = watch(id).get("beganMillis").asLong();
    int all = 1_000_000;
    long before = now - 1000L * all;
    // It began long ago, as far as the file of the database knows.
    server
        .part(org.springframework.jdbc.core.JdbcTemplate.class)
        .update("update watch set began_millis = ? where id = ?", before, id);
    server
        .part(org.springframework.jdbc.core.JdbcTemplate.class)
        .update("delete from watch_point where watch_id = ?", id);
    Random random = new Random(7);
    int spike = 654_321;
    List<WatchPoint> batch = new ArrayList<>();
    for (int i = 0; i < all; i++) {
      double v = i == spike ? 41.25 : 25 + random.nextGaussian();
      double[] one = {v};
      batch.add(new WatchPoint(before + 1000L * i, one, one, one, new double[] {0.3}));
      if (batch.size() == 25_600) {
        store.write(id, batch);
        batch = new ArrayList<>();
      }
    }
    store.write(id, batch);

    JsonNode whole = outcome(id);
    assertTrue(points(whole) <= 2002, points(whole) + " points");
    assertEquals(reading(whole, "carrierPower.highest").get("value").asDouble(), 41.25);
    JsonNode series = whole.get("series").get(0);
    double at = 0;
    for (int i = 0; i < series.get("y").size(); i++) {
      if (series.get("y").get(i).asDouble() == 41.25) {
        at = series.get("x").get(i).asDouble();
      }
    }
    assertEquals(at, (before + 1000L * spike) / 1000.0, 1e-3);

    // Nearer by, every point is there.
    long from = before + 1000L * (spike - 100);
    JsonNode near =
        server.json(
            server.get(
                "/api/watches/%d/outcome?fromMillis=%d&toMillis=%d"
                    .formatted(id, from, from + 200_000)),
            200);
    assertEquals(points(near), 201);
    assertEquals(reading(near, "carrierPower.highest").get("value").asDouble(), 41.25);
  }

  private static Object[][] nonsense() {
    return new Object[][] {
      {"name", "{\"name\":null}"},
      {"source", "{\"source\":\"r1\"}"},
      {"source", "{\"source\":null}"},
      {"measurement", "{\"measurement\":\"weather\"}"},
      {"readings", "{\"readings\":[]}"},
      {"readings", "{\"readings\":null}"},
      {"readings", "{\"readings\":[{\"id\":\"weather\"}]}"},
      {"readings", "{\"readings\":[{\"id\":null}]}"},
      {"limit", "{\"readings\":[{\"id\":\"carrierPower\",\"lower\":3,\"upper\":2}]}"},
      {"hysteresis", "{\"readings\":[{\"id\":\"carrierPower\",\"hysteresis\":-2}]}"},
      {"perHour", "{\"readings\":[{\"id\":\"carrierPower\",\"perHour\":true}]}"},
      {"everySeconds", "{\"everySeconds\":-1}"},
      {"everySeconds", "{\"everySeconds\":1e9}"},
      {"mostKept", "{\"mostKept\":-1}"},
      {"aroundSeconds", "{\"aroundSeconds\":0}"},
    };
  }

  @Test
  public void nonsenseIsRefusedByItsField() {
    settings("458.525e6", "200e3", 1, 30);
    String good =
        "{\"name\":\"Night\",\"source\":\"i%d\",\"measurement\":\"spectrum\",\"readings\":[{\"id\":\"carrierPower\"}]}"
            .formatted(receiver);
    var early = server.send("POST", "/api/watches", good);
    assertEquals(early.statusCode(), 409, early.body());
    assertTrue(early.body().contains("Start the measurement first"), early.body());
    start();
    settledFrame(1);
    for (Object[] one : nonsense()) {
      var body = (ObjectNode) RunningServer.JSON.readTree(good);
      RunningServer.JSON
          .readTree((String) one[1])
          .properties()
          .forEach(e -> body.set(e.getKey(), e.getValue()));
      var reply = server.send("POST", "/api/watches", body.toString());
      assertEquals(reply.statusCode(), 400, one[1] + ": " + reply.body());
      assertEquals(
          server.json(reply, reply.statusCode()).get("field").asString(),
          one[0],
          one[1] + ": " + reply.body());
    }
    assertEquals(server.json(server.get("/api/jobs/" + job + "/watches"), 200).size(), 0);
    JsonNode could = server.json(server.get("/api/jobs/" + job + "/watchable"), 200);
    assertEquals(could.size(), 1);
    assertEquals(could.get(0).get("source").asString(), "i" + receiver);
    assertTrue(could.get(0).get("readings").size() > 3, could.toString());
    assertEquals(server.get("/api/watches/999").statusCode(), 404);
    assertEquals(server.get("/api/watches/999/csv").statusCode(), 404);
  }
}
