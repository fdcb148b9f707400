package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Arrangements of tiles: kept by name, replaced by the same name, refused with the reason. */
public class ArrangementApiTest {
  private RunningServer server;

  @BeforeClass
  public void start() {
    server = RunningServer.fresh();
  }

  private static String tiles(int count, String... whats) {
    StringBuilder all = new StringBuilder();
    for (String what : whats) {
      all.append(all.isEmpty() ? "" : ",").append("{\"what\":\"" + what + "\",\"view\":\"curve\"}");
    }
    return "{\"count\":%d,\"tiles\":[%s]}".formatted(count, all);
  }

  private static String named(String area, String name, String tiles) {
    return "{\"area\":\"%s\",\"name\":\"%s\",\"tiles\":%s}".formatted(area, name, tiles);
  }

  @Test
  public void theSameNameReplacesAndAnotherAreaHasItsOwn() {
    String path = "/api/arrangements";
    server.json(
        server.send("POST", path, named("spectrum", "Beside", tiles(2, "spectrum", "past"))), 201);
    JsonNode kept =
        server.json(
            server.send("POST", path, named("spectrum", "Beside", tiles(1, "spectrum"))), 201);
    assertEquals(kept.size(), 1);
    assertEquals(kept.get(0).get("tiles").get("count").asInt(), 1);
    server.json(server.send("POST", path, named("network", "Beside", tiles(1, "S21"))), 201);
    assertEquals(server.json(server.get(path + "?area=spectrum"), 200).size(), 1);
    long id = kept.get(0).get("id").asLong();
    assertEquals(server.send("DELETE", path + "/" + id, "").statusCode(), 204);
    assertEquals(server.send("DELETE", path + "/" + id, "").statusCode(), 404);
    assertEquals(server.json(server.get(path + "?area=spectrum"), 200).size(), 0);
    JsonNode other = server.json(server.get(path + "?area=network"), 200);
    assertEquals(other.size(), 1);
    server.send("DELETE", path + "/" + other.get(0).get("id").asLong(), "");
  }

  @DataProvider
  public Object[][] wrong() {
    return new Object[][] {
      {named("Spectrum!", "A", tiles(1, "spectrum")), "area"},
      {named("spectrum", " ", tiles(1, "spectrum")), "name"},
      {named("spectrum", "A", tiles(3, "a", "b", "c")), "count"},
      {named("spectrum", "A", tiles(2, "spectrum")), "tiles"},
      {named("spectrum", "A", tiles(1, "x".repeat(61))), "tiles"},
      {named("spectrum", "A", "null"), "tiles"},
      {named("spectrum", "A", "{\"count\":1,\"tiles\":[],\"colour\":\"red\"}"), "colour"},
    };
  }

  @Test(dataProvider = "wrong")
  public void whatCannotBeShownIsRefusedByItsField(String body, String field) {
    JsonNode problem = server.json(server.send("POST", "/api/arrangements", body), 400);
    assertTrue(problem.get("field").asString().endsWith(field), problem.toString());
  }
}
