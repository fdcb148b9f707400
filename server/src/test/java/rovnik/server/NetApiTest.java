package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import rovnik.core.nets.Relation;
import rovnik.standins.world.Truth;
import tools.jackson.databind.JsonNode;

/** Nets of the logger board beside its bursts: an oscilloscope on the fast receiver's trigger. */
public class NetApiTest extends BuoyBench {
  private static final String SETTINGS =
      "{\"centreHz\":212e6,\"bandHz\":2e6,\"seconds\":0.062,\"referenceLevelDbm\":-40";

  private long fast;
  private long scope;
  private long first;
  private long second;

  @BeforeMethod
  public void connect() {
    fast = add("Fast", "IQ_RECEIVER", server.bench().fastReceiverPort(), "scpi-iq-fast");
    long input = add("Input", "PART_HOLDER", server.bench().fastInputPort(), "scpi-parts");
    scope = add("Scope", "OSCILLOSCOPE", server.bench().oscilloscopePort(), "scpi-oscilloscope");
    first = add("Probe 1", "PART_HOLDER", server.bench().firstProbePort(), "scpi-parts");
    second = add("Probe 2", "PART_HOLDER", server.bench().secondProbePort(), "scpi-parts");
    for (long id : new long[] {fast, input, scope, first, second}) {
      awaitTrue(() -> state(id).equals("CONNECTED"));
    }
    control(input, "part", "probe over the logger board");
  }

  private String path() {
    return "/api/live/i" + fast + "/nets";
  }

  private JsonNode patch(String more, int status) {
    return server.json(server.send("PATCH", path() + "/settings", SETTINGS + more + "}"), status);
  }

  /** Touches two nets and looks once. */
  private JsonNode probe(String net1, String net2) {
    control(first, "part", net1);
    control(second, "part", net2.isEmpty() ? "nothing" : net2);
    patch(",\"net1\":\"" + net1 + "\",\"net2\":\"" + net2 + "\"", 200);
    return looked();
  }

  private JsonNode looked() {
    server.json(server.send("POST", path() + "/start", "{\"once\":true}"), 200);
    return server.json(server.get(path() + "/outcome?settled=true&seconds=60"), 200).get("outcome");
  }

  private static JsonNode row(JsonNode outcome, String net) {
    for (JsonNode r : outcome.get("tables").get(0).get("rows")) {
      if (r.get("cells").get(0).get("text").asString().equals(net)) {
        return r.get("cells");
      }
    }
    throw new AssertionError(net + " is not in the ranking: " + outcome.get("summary"));
  }

  private static void isA(JsonNode outcome, String net, Relation relation) {
    assertEquals(
        row(outcome, net).get(1).get("text").asString(),
        relation == Relation.IN_STEP ? "in step, but late" : relation.words(),
        outcome.get("summary").asString());
  }

  private static String sentence(JsonNode outcome) {
    return outcome.get("summary").asString();
  }

  @Test
  public void oneOfFourNetsIsTheOne() {
    JsonNode others = probe("core clock enable", "radio sleep");
    isA(others, "core clock enable", Relation.UNRELATED);
    isA(others, "radio sleep", Relation.IN_STEP);
    JsonNode all = probe("flash write strobe", "watchdog");
    isA(all, "core clock enable", Relation.UNRELATED);
    isA(all, "watchdog", Relation.UNRELATED);
    isA(all, "radio sleep", Relation.IN_STEP);
    isA(all, "flash write strobe", Relation.COINCIDENT);
    JsonNode likeliest = all.get("tables").get(0).get("rows").get(0).get("cells");
    assertEquals(likeliest.get(0).get("text").asString(), "flash write strobe");
    assertEquals(likeliest.get(3).get("value").asDouble(), Truth.LOGGER_LAG_SECONDS, 20e-9);
    JsonNode lag = reading(all, "lag1");
    assertTrue(
        Math.abs(lag.get("value").asDouble() - Truth.LOGGER_LAG_SECONDS)
            < lag.get("uncertainty").asDouble(),
        lag.toString());
    // The ranking is kept as a run, and begun anew by another number.
    JsonNode kept =
        server.json(
            server.send("POST", path() + "/keep", "{\"name\":\"which net\",\"jobId\":" + job + "}"),
            201);
    JsonNode run = run(kept.get("id").asLong());
    assertTrue(run.toString().contains("flash write strobe"), run.toString());
    patch(",\"ranking\":2", 200);
    JsonNode anew = looked();
    assertEquals(anew.get("tables").get(0).get("rows").size(), 2, sentence(anew));
  }

  /** Three places of the board, then one of them with another state of it. */
  @Test
  public void placesOfTheBoardAreMapped() {
    long place = add("Place", "PART_HOLDER", server.bench().probePlacePort(), "scpi-parts");
    awaitTrue(() -> state(place).equals("CONNECTED"));
    String path = "/api/live/i" + fast + "/places";
    server.json(server.send("PATCH", path + "/settings", SETTINGS + "}"), 200);
    JsonNode o = null;
    for (String over : new String[] {"flash", "regulator", "display"}) {
      control(place, "part", over);
      String at = "{\"place\":\"" + over + "\",\"acrossMetres\":0.02,\"state\":\"before\"}";
      server.json(server.send("PATCH", path + "/settings", at), 200);
      server.json(server.send("POST", path + "/start", "{\"once\":true}"), 200);
      o = server.json(server.get(path + "/outcome?settled=true&seconds=60"), 200).get("outcome");
      double truth = Truth.LOGGER_DBM - Truth.LOGGER_PLACES_DB.get(over);
      assertEquals(reading(o, "placeLevel").get("value").asDouble(), truth, 0.8, sentence(o));
    }
    assertEquals(
        reading(o, "overStrongest").get("value").asDouble(),
        -Truth.LOGGER_PLACES_DB.get("display"),
        0.5);
    JsonNode rows = o.get("tables").get(0).get("rows");
    assertEquals(rows.size(), 3);
    assertEquals(rows.get(0).get("cells").get(0).get("text").asString(), "regulator");
    server.json(server.send("PATCH", path + "/settings", "{\"state\":\"with shield\"}"), 200);
    server.json(server.send("POST", path + "/start", "{\"once\":true}"), 200);
    o = server.json(server.get(path + "/outcome?settled=true&seconds=60"), 200).get("outcome");
    assertEquals(reading(o, "change").get("value").asDouble(), 0, 0.5, sentence(o));
    JsonNode bad = server.json(server.send("PATCH", path + "/settings", "{\"place\":\" \"}"), 400);
    assertEquals(bad.get("field").asString(), "place", bad.toString());
    JsonNode none = server.json(server.send("PATCH", path + "/settings", "{\"state\":null}"), 400);
    assertEquals(none.get("field").asString(), "state", none.toString());
  }

  @Test
  public void whatCannotBeSaysSo() {
    assertEquals(patch(",\"net1\":\"\",\"net2\":\"\"", 400).get("field").asString(), "net1");
    assertEquals(patch(",\"net1\":null", 400).get("field").asString(), "net1");
    assertEquals(patch(",\"seconds\":20", 400).get("field").asString(), "seconds");
    assertEquals(
        patch(",\"oscilloscopeId\":" + first, 400).get("field").asString(), "oscilloscopeId");
    assertEquals(
        patch(",\"togetherSeconds\":1,\"coincidentSeconds\":1", 400).get("field").asString(),
        "togetherSeconds");
    // A recording has no voltages beside it.
    assertEquals(server.get("/api/live/r1/nets").statusCode(), 400);
  }

  @Test
  public void aProbeInTheAirAndAnOscilloscopeWithoutTriggerAreToldApart() {
    JsonNode open = probe("nothing", "");
    isA(open, "nothing", Relation.NO_EDGES);
    assertTrue(sentence(open).contains("check that the probe touches it"), sentence(open));
    // Of another receiver, whose trigger output is connected to nothing.
    String other = "/api/live/i" + receiver + "/nets";
    server.json(
        server.send("PATCH", other + "/settings", SETTINGS + ",\"net1\":\"a\",\"net2\":\"\"}"),
        200);
    server.json(server.send("POST", other + "/start", "{\"once\":true}"), 200);
    awaitTrue(
        () -> {
          var reply = server.get(other + "/outcome");
          return reply.statusCode() == 200 && reply.body().contains("got no trigger");
        });
    server.json(server.send("POST", other + "/hold", "{}"), 200);
  }

  @Test
  public void anOscilloscopeThatIsGoneIsNotTheReceiversFault() {
    server.json(server.send("POST", "/api/instruments/" + scope + "/disconnect", "{}"), 200);
    patch(",\"net1\":\"watchdog\",\"net2\":\"\"", 200);
    server.json(server.send("POST", path() + "/start", "{}"), 200);
    awaitTrue(() -> server.get(path()).body().contains("Scope: "));
    assertEquals(state(fast), "CONNECTED");
    server.json(server.send("POST", "/api/instruments/" + scope + "/connect", "{}"), 200);
    awaitTrue(() -> state(scope).equals("CONNECTED"));
  }
}
