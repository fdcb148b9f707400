package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;
import rovnik.standins.world.Truth;
import tools.jackson.databind.JsonNode;

/** From the bench over the path to kept runs, over HTTP, with stand-ins on sockets. */
public class BenchAndRunsApiTest extends BuoyBench {

  private long keep(String name) {
    return server
        .json(server.send("POST", live("/keep"), "{\"name\":\"" + name + "\"}"), 201)
        .get("id")
        .asLong();
  }

  @Test
  public void theYearlyCheckEndsInAKeptVerdict() {
    settings("458.525e6", "200e3", 40, 30);
    start();
    JsonNode frame = settledFrame(40);
    assertEquals(reading(frame, "carrierPower").get("value").asDouble(), 27, 0.3);
    assertEquals(reading(frame, "carrierFrequency").get("value").asDouble(), Truth.BUOY_HZ, 1);
    assertEquals(state(receiver), "BUSY");
    long run = keep("first");
    JsonNode detail = run(run);
    assertTrue(detail.get("verdict").asString().startsWith("PASS"));
    assertEquals(detail.get("conditions").get("Buoy TX").asString(), "on, carrier");
    assertEquals(detail.get("path").get("elements").size(), 4);
    assertFalse(detail.get("recordingId").isNull());
    server.json(
        server.send("PATCH", "/api/runs/" + run, "{\"name\":\"year 1\",\"note\":\"rain\"}"), 200);
    JsonNode listed = server.json(server.get("/api/jobs/" + job + "/runs"), 200).get(0);
    assertEquals(listed.get("name").asString(), "year 1");
    assertEquals(listed.get("note").asString(), "rain");
    assertTrue(server.get("/api/runs/" + run + "/csv").body().contains("Buoy TX OUT"));
    server.json(server.send("PATCH", "/api/runs/" + run, "{\"name\":\"\"}"), 400);
  }

  @Test
  public void theReadingPlaneMovesEveryNumberAndNoVerdict() {
    settings("458.525e6", "200e3", 10, 30);
    start();
    JsonNode atSource = reading(settledFrame(10), "carrierPower");
    server.json(server.send("PUT", "/api/jobs/" + job + "/reading-plane", "{\"plane\":2}"), 200);
    settings("458.525e6", "200e3", 10, -1);
    awaitTrue(() -> settledFrame(10).get("plane").asString().equals("Receiver IN"));
    JsonNode atPort = reading(settledFrame(10), "carrierPower");
    assertEquals(atPort.get("value").asDouble(), atSource.get("value").asDouble() - 31.2, 0.05);
    assertEquals(atPort.get("margin").asDouble(), atSource.get("margin").asDouble(), 0.05);
    server.json(server.send("PUT", "/api/jobs/" + job + "/reading-plane", "{\"plane\":9}"), 400);
  }

  @Test
  public void aPathThatWouldDamageIsRefusedUnlessOverridden() {
    savePath(0);
    JsonNode plan = server.json(server.get("/api/jobs/" + job + "/level-plan"), 200);
    assertTrue(plan.get("blocked").asBoolean());
    JsonNode refused =
        server.json(server.send("POST", live("/start"), "{\"jobId\":" + job + "}"), 409);
    assertEquals(refused.get("field").asString(), "levelPlan");
    assertTrue(
        refused.get("detail").asString().contains("Receiver IN would be damaged"),
        refused.toString());
    assertTrue(refused.get("detail").asString().contains("20 dB pad"), refused.toString());
    server.json(
        server.send(
            "POST",
            live("/start"),
            "{\"jobId\":" + job + ",\"overrideReason\":\"pad is inside the transmitter\"}"),
        200);
    settledFrame(1);
    JsonNode run = run(keep("overridden"));
    assertEquals(run.get("overrideReason").asString(), "pad is inside the transmitter");
  }

  /** A reason was given for one path of one job: another asks anew, though as often changed. */
  @Test
  public void aReasonHoldsForItsOwnJobAlone() {
    savePath(0);
    long first = job;
    job =
        server
            .json(server.send("POST", "/api/jobs", "{\"name\":\"Other\",\"dut\":\"Buoy\"}"), 201)
            .get("id")
            .asLong();
    long second = job;
    // Both paths were changed as many times as the other.
    savePath(0);
    savePath(0);
    String reason = ",\"overrideReason\":\"pad is inside\"}";
    server.json(server.send("POST", live("/start"), "{\"jobId\":" + first + reason), 200);
    server.json(server.send("POST", live("/hold"), ""), 200);
    JsonNode asked =
        server.json(server.send("POST", live("/start"), "{\"jobId\":" + second + "}"), 409);
    assertEquals(asked.get("field").asString(), "levelPlan");
    server.json(server.send("POST", live("/start"), "{\"jobId\":" + first + "}"), 200);
  }

  @Test
  public void removingThePadWhileMeasuringStopsTheMeasurement() {
    start();
    settledFrame(1);
    savePath(0);
    awaitTrue(
        () -> server.json(server.get(live("")), 200).get("phase").asString().equals("REFUSED"));
    savePath(-30);
    awaitTrue(() -> server.json(server.get(live("")), 200).get("phase").asString().equals("HELD"));
  }

  /** What is looked at in the same job and is gone must not keep power flowing. */
  @Test
  public void aRecordingThatIsGoneHoldsUpNoProtection() {
    String meta =
        "{\"global\":{\"core:datatype\":\"cf32_le\",\"core:sample_rate\":1e6,"
            + "\"core:version\":\"1.0.0\"},\"captures\":[{\"core:sample_start\":0,"
            + "\"core:frequency\":458.5e6}],\"annotations\":[]}";
    long file = server.json(server.upload(meta, new byte[8 << 14]), 201).get("id").asLong();
    String look = "/api/live/r" + file + "/spectrum";
    server.json(server.send("POST", look + "/start", "{\"jobId\":" + job + "}"), 200);
    start();
    settledFrame(1);
    assertEquals(server.send("DELETE", "/api/recordings/" + file, "").statusCode(), 204);
    savePath(0); // the pad is out: 25.8 dBm at a port that bears 20
    awaitTrue(
        () -> server.json(server.get(live("")), 200).get("phase").asString().equals("REFUSED"));
    assertEquals(server.get(look).statusCode(), 404);
  }

  @Test
  public void switchingASourceOnChecksTheLevelsFirst() {
    control(source, "output", "off");
    savePath(-15); // 10.8 dBm at the port: above its linear range
    JsonNode refused = server.json(controlled(source, job, "output", "on"), 409);
    assertTrue(refused.get("detail").asString().contains("overloaded"), refused.toString());
    assertFalse(server.bench().world().transmitting());
    server.json(
        server.send(
            "PUT",
            "/api/instruments/" + source + "/controls",
            "{\"values\":{\"output\":\"on\"},\"jobId\":" + job + ",\"overrideReason\":\"short\"}"),
        200);
    assertTrue(server.bench().world().transmitting());
  }

  @Test
  public void twoRunsTellWhoseLineItIs() {
    settings("459e6", "4e6", 60, 30);
    start();
    settledFrame(60);
    long on = keep("on");
    control(source, "output", "off");
    settings("459e6", "4e6", 61, 30);
    settledFrame(61);
    long off = keep("off");
    JsonNode c = server.json(server.get("/api/runs/compare?first=" + on + "&second=" + off), 200);
    assertEquals(words(c, Truth.BUOY_HZ), "comes and goes with Buoy TX");
    assertEquals(words(c, Truth.BUOY_HZ + 1.25e6), "comes and goes with Buoy TX");
    assertEquals(words(c, Truth.PAGING_HZ), "stays: not from Buoy TX");
    assertEquals(c.get("difference").size(), 1);
    assertTrue(c.get("changes").toString().contains("\"what\":\"Buoy TX\""));
    assertTrue(c.get("changes").toString().contains("averages"));
  }

  private static String words(JsonNode comparison, double hz) {
    for (JsonNode l : comparison.get("lines")) {
      if (Math.abs(l.get("frequencyHz").asDouble() - hz) < 3000) {
        return l.get("words").asString();
      }
    }
    return "no line at " + hz + " in " + comparison.get("lines");
  }

  @Test
  public void anOverloadIsMarkedOnTheNumbers() {
    settings("458.525e6", "200e3", 4, 10);
    start();
    JsonNode frame = settledFrame(4);
    assertEquals(reading(frame, "carrierPower").get("marks").get(0).asString(), "overload");
    assertEquals(reading(frame, "carrierPower").get("verdict").asString(), "INVALID");
  }

  @Test
  public void badSettingsAreRefusedAtTheirFieldAndChangeNothing() {
    start();
    settledFrame(1);
    JsonNode before = server.json(server.get(live("")), 200).get("settings");
    String[][] bad = {
      {"\"centreHz\":20e9,\"spanHz\":1e6,\"rbwHz\":0,\"averages\":1", "centreHz"},
      {"\"centreHz\":458e6,\"spanHz\":0,\"rbwHz\":0,\"averages\":1", "spanHz"},
      {"\"centreHz\":458e6,\"spanHz\":1e9,\"rbwHz\":0,\"averages\":1", "spanHz"},
      {"\"centreHz\":458e6,\"spanHz\":1e5,\"rbwHz\":2e5,\"averages\":1", "rbwHz"},
      {"\"centreHz\":458e6,\"spanHz\":1e5,\"rbwHz\":0,\"averages\":0", "averages"},
    };
    for (String[] row : bad) {
      JsonNode problem =
          server.json(
              server.send(
                  "PUT",
                  live("/settings"),
                  "{"
                      + row[0]
                      + ",\"window\":\"HANN\",\"detector\":\"RMS\",\"referenceLevelDbm\":30,\"channelWidthHz\":5e4}"),
              400);
      assertEquals(problem.get("field").asString(), row[1], problem.toString());
    }
    assertEquals(server.json(server.get(live("")), 200).get("settings"), before);
  }

  @Test
  public void onlyTheHolderChangesSettings() {
    start();
    var other =
        server
            .request(live("/hold"))
            .header("X-Rovnik-Client", "w2|the%20window%20%22calm%20heron%22")
            .header("Content-Type", "application/json")
            .POST(java.net.http.HttpRequest.BodyPublishers.ofString("{}"));
    JsonNode refused = server.json(server.send(other), 409);
    assertTrue(refused.get("detail").asString().contains("held by a script"));
  }

  @Test
  public void anInstrumentThatIsNotThereIsNamedAndHoldsUpNobody() {
    long dead = add("Ghost", "IQ_RECEIVER", 1, "scpi-iq");
    awaitTrue(() -> state(dead).equals("ERROR"));
    JsonNode fault =
        server.json(server.send("POST", "/api/instruments/" + dead + "/identify", "{}"), 502);
    assertTrue(fault.get("detail").asString().contains("Nothing answers"), fault.toString());
    JsonNode alive =
        server.json(server.send("POST", "/api/instruments/" + receiver + "/identify", "{}"), 200);
    assertTrue(alive.get("identity").asString().contains("IQ receiver"));
    assertEquals(server.send("DELETE", "/api/instruments/" + dead, "").statusCode(), 204);
    server.json(
        server.send(
            "POST",
            "/api/instruments",
            "{\"name\":\"x\",\"kind\":\"IQ_RECEIVER\",\"host\":\"http://evil/\",\"port\":5025,\"dialect\":\"scpi-iq\",\"connect\":false}"),
        400);
  }

  @Test
  public void aPathWithoutAnInstrumentSaysSo() {
    long bare =
        server
            .json(server.send("POST", "/api/jobs", "{\"name\":\"Bare\",\"dut\":\"x\"}"), 201)
            .get("id")
            .asLong();
    JsonNode problem =
        server.json(server.send("POST", live("/start"), "{\"jobId\":" + bare + "}"), 409);
    assertTrue(problem.get("detail").asString().contains("no instrument"), problem.toString());
  }

  @Test
  public void runsSurviveARestartExactly() {
    settings("458.525e6", "200e3", 4, 30);
    start();
    settledFrame(4);
    long run = keep("before the restart");
    JsonNode before = run(run);
    server.stopOnly();
    server = RunningServer.start(server.data);
    assertEquals(run(run), before);
    server.close();
    Folders.remove(server.data);
  }

  @Test
  public void otherSitesAreKeptOut() {
    var foreign = server.request("/api/jobs").header("Origin", "http://evil.example").GET();
    assertEquals(server.send(foreign).statusCode(), 403);
    String policy =
        server.get("/api/health").headers().firstValue("Content-Security-Policy").orElse("");
    assertTrue(policy.contains("default-src 'self'"));
    assertNotEquals(server.get("/index.html").statusCode(), 403);
  }

  /**
   * Samples carry along how far off they may be: opened again they read with the same uncertainty.
   */
  @Test
  public void savedSamplesKeepTheirUncertainty() {
    settings("458.525e6", "200e3", 16, 30);
    start();
    JsonNode live = settledFrame(16);
    long saved = server.json(server.send("POST", live("/save"), ""), 201).get("id").asLong();
    server.json(server.send("POST", live("/hold"), ""), 200);
    String again = "/api/live/r" + saved + "/spectrum";
    server.json(
        server.send(
            "PUT",
            again + "/settings",
            server.json(server.get(live("")), 200).get("settings").toString()),
        200);
    server.json(server.send("POST", again + "/start", "{\"jobId\":" + job + "}"), 200);
    JsonNode look =
        Flat.look(server.json(server.get(again + "/outcome?settled=true&seconds=20"), 200));
    double then = reading(live, "carrierPower").get("uncertainty").asDouble();
    double now = reading(look, "carrierPower").get("uncertainty").asDouble();
    assertEquals(now / then, 1, 0.05, then + " live, " + now + " from the file");
    String meta = server.get("/api/recordings/" + saved + "/sigmf-meta").body();
    assertTrue(meta.contains("rovnik:level_accuracy_db"), meta);
    assertTrue(meta.contains("rovnik:frequency_accuracy"), meta);
  }

  private String holder() {
    return server.json(server.get(live("")), 200).get("holder").asString();
  }

  private void changeAs(String client) {
    var change =
        server
            .request(live("/settings"))
            .header("X-Rovnik-Client", client + "%7Ca%20window")
            .header("Content-Type", "application/json")
            .method(
                "PATCH", java.net.http.HttpRequest.BodyPublishers.ofString("{\"averages\":12}"));
    server.json(server.send(change), 200);
  }

  /** A last request that arrives after its window has closed leaves nobody holding for ever. */
  @Test
  public void aWindowThatHasGoneHoldsNothing() {
    var window = server.window("i" + receiver, "spectrum", "w9");
    changeAs("w9");
    assertEquals(holder(), "w9");
    window.sendClose(java.net.http.WebSocket.NORMAL_CLOSURE, "").join();
    awaitTrue(() -> holder().isEmpty());
    changeAs("w9");
    assertEquals(holder(), "", "a window that is no more holds it");
    // One that only came back holds from then on what it had asked for.
    var again = server.window("i" + receiver, "spectrum", "w9");
    awaitTrue(() -> holder().equals("w9"));
    again.sendClose(java.net.http.WebSocket.NORMAL_CLOSURE, "").join();
    awaitTrue(() -> holder().isEmpty());
  }
}
