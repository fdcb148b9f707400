package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.net.http.HttpResponse;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A source that feeds a part passes the gate in volts. */
public class SupplyApiTest extends BuoyBench {
  private long supply;

  @BeforeMethod
  public void hookUp() {
    supply = add("Supply", "FUNCTION_SOURCE", server.bench().functionSourcePort(), "scpi-function");
    long third = add("Third", "IQ_RECEIVER", server.bench().thirdReceiverPort(), "scpi-iq");
    assertEquals(path(third, 4.5, 5.5, 6).statusCode(), 200);
    awaitTrue(() -> state(supply).equals("CONNECTED") && state(third).equals("CONNECTED"));
  }

  private HttpResponse<String> path(long third, double low, double high, double damage) {
    String elements =
        String.join(
            ",",
            element(
                "Oscillator",
                "SOURCE",
                0,
                ",\"outputLevelDbm\":7,\"instrumentId\":%d,\"supplyLowestVolts\":%s,\"supplyHighestVolts\":%s,\"supplyDamageVolts\":%s"
                    .formatted(supply, low, high, damage)),
            element(
                "IN",
                "PORT",
                0,
                ",\"highestLevelDbm\":10,\"damageLevelDbm\":20,\"instrumentId\":" + third));
    return server.send(
        "PUT",
        "/api/jobs/" + job + "/path",
        "{\"elements\":[" + elements + "],\"readingPlane\":0,\"revision\":0}");
  }

  private HttpResponse<String> turn(String values, String more) {
    return server.send(
        "PUT",
        "/api/instruments/" + supply + "/controls",
        "{\"values\":{" + values + "}" + more + "}");
  }

  private JsonNode here() {
    for (JsonNode i : server.json(server.get("/api/instruments"), 200)) {
      if (i.get("id").asLong() == supply) {
        return i;
      }
    }
    throw new AssertionError("gone");
  }

  private String value(String control) {
    for (JsonNode c : here().get("controls")) {
      if (c.get("id").asString().equals(control)) {
        return c.get("value").asString();
      }
    }
    return "";
  }

  /**
   * Whichever job is looked at, and none: what would kill the part is refused and nothing moves.
   */
  @Test
  public void whatWouldKillThePartIsRefused() {
    HttpResponse<String> no = turn("\"offset\":\"5\",\"amplitude\":\"1\",\"output\":\"on\"", "");
    assertEquals(no.statusCode(), 409);
    JsonNode problem = server.json(no, 409);
    assertEquals(problem.get("field").asString(), "levelPlan");
    String words = problem.get("detail").asString();
    assertTrue(words.contains("4 to 6 V") && words.contains("must not see 6 V"), words);
    assertEquals(value("output"), "off");
    assertEquals(Double.parseDouble(value("amplitude")), 0, 1e-9);

    // Off it may be set to anything; on, it may not.
    assertEquals(turn("\"offset\":\"5\",\"amplitude\":\"1\"", "").statusCode(), 200);
    assertEquals(turn("\"output\":\"on\"", "").statusCode(), 409);
    // What is offered uses all of it.
    JsonNode hint = here().get("hints").get(0);
    assertTrue(hint.get("offer").asString().contains("5 V \u00b1 0.435 V"), hint.toString());
    assertEquals(
        turn("\"offset\":\"5.0\",\"amplitude\":\"0.435\",\"output\":\"on\"", "").statusCode(), 200);
    assertEquals(here().get("hints").size(), 0);
    assertEquals(value("output"), "on");

    // A reason that is given holds for that much, not for more.
    assertEquals(turn("\"amplitude\":\"0.5\"", ",\"overrideReason\":\" \"").statusCode(), 409);
    assertEquals(
        turn("\"amplitude\":\"0.5\"", ",\"overrideReason\":\"tried before\"").statusCode(), 200);
    assertEquals(turn("\"amplitude\":\"0.7\"", "").statusCode(), 409);
    assertEquals(Double.parseDouble(value("amplitude")), 0.5, 1e-9);
    // Too little does no harm; it is said.
    assertEquals(turn("\"offset\":\"2\",\"amplitude\":\"0.1\"", "").statusCode(), 200);
    String low = here().get("hints").get(0).get("sentence").asString();
    assertTrue(low.contains("works from 4.5 V to 5.5 V"), low);
  }

  @Test
  public void aSupplyThatCannotBeIsRefused() {
    HttpResponse<String> no = path(receiver, 5, 4, 6);
    assertEquals(no.statusCode(), 400);
    assertTrue(no.body().contains("supplyHighestVolts"), no.body());
  }
}
