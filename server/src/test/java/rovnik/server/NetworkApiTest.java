package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.util.stream.Stream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.server.RunningServer.Part;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The fixed edges for Touchstone files, over HTTP. */
public class NetworkApiTest {
  /** A feeder: 1.2 dB at 458 MHz, straight in dB over frequency, 20 dB return loss. */
  private static final String FEEDER =
      """
      ! feeder 6 m
      # MHz S DB R 50
      400 -20 0 -1.0 10 -1.0 10 -20 0
      500 -20 0 -1.344827586 20 -1.344827586 20 -18 0
      """;

  private RunningServer server;

  @BeforeClass
  public void setUp() {
    server = RunningServer.fresh();
  }

  private JsonNode open(String name, String text) {
    return server.json(server.upload("/api/networks", Part.of("file", name, text)), 201);
  }

  @Test
  public void opensAndShowsATouchstoneFile() {
    JsonNode made = open("feeder 6 m.s2p", FEEDER);
    assertEquals(made.get("name").asString(), "feeder 6 m.s2p");
    assertEquals(made.get("comments").asString(), "feeder 6 m");
    JsonNode n = server.json(server.get("/api/networks/" + made.get("id").asLong()), 200);
    assertEquals(n.get("ports").asInt(), 2);
    assertEquals(n.get("z0").get(1).asDouble(), 50.0);
    assertEquals(n.get("frequencyHz").get(1).asDouble(), 500e6);
    JsonNode s21 = n.get("s").get("S21").get(0);
    assertEquals(Math.hypot(s21.get(0).asDouble(), s21.get(1).asDouble()), 0.891251, 1e-6);
    assertEquals(n.get("readings").size(), 0);
  }

  @Test
  public void readingsAreTheWorstOfTheBand() {
    long id = open("f.s2p", FEEDER).get("id").asLong();
    JsonNode all = server.json(server.get("/api/networks/" + id + "?readings=true"), 200);
    assertReading(all, "returnLoss2", 18, 500e6);
    assertReading(all, "gainLowest", -1.3448, 500e6);
    assertReading(all, "reciprocity", 0, 400e6);
    JsonNode low =
        server.json(server.get("/api/networks/" + id + "?readings=true&toHz=450e6"), 200);
    assertReading(low, "returnLoss2", 20, 400e6);
    assertReading(low, "accepted1", 99, 400e6);
    JsonNode none =
        server.json(server.get("/api/networks/" + id + "?readings=true&fromHz=1e9"), 400);
    assertTrue(none.get("detail").asString().contains("400 MHz to 500 MHz"), none.toString());
  }

  private static void assertReading(JsonNode network, String id, double value, double hz) {
    for (JsonNode r : network.get("readings")) {
      if (r.get("id").asString().equals(id)) {
        assertEquals(r.get("value").asDouble(), value, 0.001);
        assertEquals(r.get("atHz").asDouble(), hz);
        return;
      }
    }
    throw new AssertionError("no reading " + id);
  }

  @DataProvider
  public Object[][] bad() {
    return new Object[][] {
      {"x.s2p", "#\n1 2 3\n", "line 2"},
      {"x.s2p", "", "Choose a Touchstone file"},
      {"x.s2p", "hello\n", "line 1"},
      {"x.s1p", "# GHz S MA R 50\n1 .5 0\n2 .5\n", "line 3"},
    };
  }

  @Test(dataProvider = "bad")
  public void aBadFileChangesNothing(String name, String text, String part) throws IOException {
    int before = server.json(server.get("/api/networks"), 200).size();
    JsonNode problem =
        server.json(server.upload("/api/networks", Part.of("file", name, text)), 400);
    assertTrue(problem.get("detail").asString().contains(part), problem.toString());
    assertEquals(problem.get("field").asString(), "file");
    assertEquals(server.json(server.get("/api/networks"), 200).size(), before);
    try (Stream<?> files = Files.list(server.data.resolve("networks"))) {
      assertEquals(files.count(), before);
    }
  }

  @Test
  public void writesBothVersions() {
    long id = open("f.s2p", FEEDER).get("id").asLong();
    String one = server.get("/api/networks/" + id + "/touchstone").body();
    String two = server.get("/api/networks/" + id + "/touchstone?version=2").body();
    assertTrue(one.startsWith("! feeder 6 m\n# Hz S RI R 50\n400000000 0.1"), one);
    assertTrue(two.contains("[Two-Port Data Order] 21_12"), two);
    JsonNode first = server.json(server.get("/api/networks/" + id), 200);
    for (String text : new String[] {one, two}) {
      JsonNode again =
          server.json(server.get("/api/networks/" + open("again", text).get("id").asLong()), 200);
      assertEquals(again.get("s"), first.get("s"));
    }
    server.json(server.get("/api/networks/" + id + "/touchstone?version=3"), 400);
    server.json(server.get("/api/networks/999999"), 404);
  }

  /** An element of a path takes its gain from the file, and keeps it when the file is gone. */
  @Test
  public void aPathElementTakesItsGainFromAFile() {
    long id = open("f.s2p", FEEDER).get("id").asLong();
    JsonNode job =
        server.json(server.send("POST", "/api/jobs", "{\"name\":\"files\",\"dut\":\"TX\"}"), 201);
    long jobId = job.get("id").asLong();
    server.json(server.send("PUT", "/api/jobs/" + jobId + "/limits", "{\"nominalHz\":458e6}"), 200);
    ObjectNode path = (ObjectNode) job.get("path");
    ObjectNode cable = (ObjectNode) path.get("elements").get(0).deepCopy();
    cable.put("name", "Feeder").put("kind", "CABLE").put("gainKind", "file");
    cable.putNull("outputLevelDbm");
    ((ArrayNode) path.get("elements")).insert(1, cable);
    JsonNode unchosen =
        server.json(server.send("PUT", "/api/jobs/" + jobId + "/path", path.toString()), 400);
    assertEquals(unchosen.get("field").asString(), "networkId");
    cable.put("networkId", id);
    JsonNode stored =
        server.json(server.send("PUT", "/api/jobs/" + jobId + "/path", path.toString()), 200);
    assertTrue(
        stored.get("path").get("elements").get(1).get("gainTable").asString().contains("4.0E8,"));
    JsonNode plan = server.json(server.get("/api/jobs/" + jobId + "/level-plan"), 200);
    double in = plan.get("planes").get(0).get("levelDbm").asDouble();
    double out = plan.get("planes").get(1).get("levelDbm").asDouble();
    assertEquals(out - in, -1.2, 0.001);
    JsonNode used = server.json(server.send("DELETE", "/api/networks/" + id, ""), 409);
    assertTrue(used.get("detail").asString().contains("path takes its gain"), used.toString());
    ((ArrayNode) path.get("elements")).remove(1);
    server.json(server.send("PUT", "/api/jobs/" + jobId + "/path", path.toString()), 200);
    server.json(server.send("DELETE", "/api/networks/" + id, ""), 204);
  }

  /** Noise parameters are told and written again, in the units that each version has. */
  @Test
  public void noiseParametersAreNotLost() {
    String file =
        "# GHz S MA R 50\n1 0.3 10 3 90 0.05 20 0.4 -30\n2 0.3 20 2.5 70 0.05 30 0.4 -40\n"
            + "0.5 0.9 0.4 30 0.2\n1 0.6 0.3 60 0.15\n";
    JsonNode made =
        server.json(server.upload("/api/networks", Part.of("file", "lna.s2p", file)), 201);
    String url = "/api/networks/" + made.get("id").asLong();
    String two = server.get(url + "/touchstone?version=2").body();
    assertTrue(two.contains("[Number of Noise Frequencies] 2"), two);
    JsonNode again =
        server.json(server.upload("/api/networks", Part.of("file", "again.s2p", two)), 201);
    String one =
        server.get("/api/networks/" + again.get("id").asLong() + "/touchstone?version=1").body();
    String last = one.lines().reduce((a, b) -> b).orElseThrow();
    double[] numbers =
        java.util.Arrays.stream(last.split(" ")).mapToDouble(Double::parseDouble).toArray();
    double[] wanted = {1e9, 0.6, 0.3, 60, 0.15};
    for (int i = 0; i < wanted.length; i++) {
      assertEquals(numbers[i], wanted[i], 1e-9 * wanted[i], last);
    }
    JsonNode view =
        server.json(
            server.send(
                "POST", "/api/networks/view", "{\"networks\":[" + made.get("id").asLong() + "]}"),
            200);
    assertTrue(view.toString().contains("lowest noise figure 0.6"), view.toString());
  }

  @Test
  public void mixedModeParametersAreNotTakenForOthers() {
    String file =
        "[Version] 2.0\n# MHz S RI R 50\n[Number of Ports] 2\n[Two-Port Data Order] 21_12\n"
            + "[Number of Frequencies] 1\n[Mixed-Mode Order] D1,2 C1,2\n[Network Data]\n1 0 0 1 0 1 0 0"
            + " 0\n[End]\n";
    JsonNode said =
        server.json(server.upload("/api/networks", Part.of("file", "m.s2p", file)), 400);
    assertTrue(said.get("detail").asString().contains("Mixed-Mode Order"), said.toString());
  }
}
