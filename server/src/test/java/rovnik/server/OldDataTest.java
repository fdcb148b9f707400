package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * A data folder from before runs had outcomes, with runs of every kind: eight runs of two jobs,
 * their samples and networks, limits and a setup.
 */
public class OldDataTest {
  private RunningServer server;
  private Path data;
  private final Map<String, JsonNode> runs = new HashMap<>();

  @BeforeClass
  public void open() throws IOException {
    data = Files.createTempDirectory("rovnik-old");
    try (InputStream in = getClass().getResourceAsStream("/data-before-outcomes.zip");
        ZipInputStream zip = new ZipInputStream(in)) {
      ZipEntry e;
      while ((e = zip.getNextEntry()) != null) {
        Path file = data.resolve(e.getName()).normalize();
        Files.createDirectories(file.getParent());
        Files.write(file, zip.readAllBytes());
      }
    }
    server = RunningServer.start(data);
    for (long job : new long[] {1, 4}) {
      for (JsonNode r : server.json(server.get("/api/jobs/" + job + "/runs"), 200)) {
        runs.put(
            r.get("name").asString(),
            Flat.run(server.json(server.get("/api/runs/" + r.get("id").asLong()), 200)));
      }
    }
  }

  @AfterClass(alwaysRun = true)
  public void close() {
    server.close();
    Folders.remove(data);
  }

  @Test
  public void everyRunIsOfTheKindThatItWas() {
    assertEquals(runs.size(), 8);
    assertEquals(kind("plain carrier"), "spectrum");
    assertEquals(kind("data with mask"), "spectrum");
    assertEquals(kind("harmonics found"), "harmonics");
    assertEquals(kind("whose lines"), "whose-line");
    assertEquals(kind("overridden"), "spectrum");
    assertEquals(kind("from a recording"), "spectrum");
    assertEquals(kind("filter as found"), "network");
    assertEquals(kind("feeder, even ratios"), "network");
    for (JsonNode r : runs.values()) {
      assertFalse(r.get("picture").isEmpty(), r.get("name") + " has a picture");
      assertTrue(server.get("/api/runs/" + r.get("id") + "/report.html").body().contains("<svg"));
      assertTrue(server.get("/api/runs/" + r.get("id") + "/csv").body().lines().count() > 3);
    }
  }

  private String kind(String name) {
    return runs.get(name).get("kind").asString();
  }

  /** What was on the screen when these runs were kept. */
  @Test
  public void numbersAreWhatTheyWere() {
    JsonNode plain = runs.get("plain carrier");
    assertEquals(plain.get("unit").asString(), "dBm");
    assertEquals(plain.get("points").asInt(), 2801, 1200);
    double power = reading(plain, "carrierPower").get("value").asDouble();
    assertEquals(power, 27, 0.5);
    assertEquals(plain.get("peaks").get(0).get("level").asDouble(), power, 1e-9);
    JsonNode mask = runs.get("data with mask");
    assertEquals(mask.get("note").asString(), "after the storm");
    assertEquals(mask.get("rows").size(), 3);
    assertEquals(mask.get("rows").get(0).asString(), "highest hold");
    assertTrue(mask.get("limitLines").size() >= 4, "two mask segments and two edges");
    assertEquals(mask.get("tables").get(0).get("id").asString(), "adjacent");
    assertTrue(reading(mask, "occupiedBandwidth").get("value").asDouble() > 50e3);
    JsonNode found = runs.get("harmonics found");
    assertTrue(found.get("outcome").get("summary").asString().contains("harmonic distortion"));
    assertEquals(found.get("curves").get(0).get("id").asString(), "harmonics");
    assertEquals(
        runs.get("overridden").get("overrideReason").asString(), "the pad is inside the cable");
    assertEquals(runs.get("from a recording").get("unit").asString(), "dBFS");
    assertFalse(runs.get("from a recording").get("curves").get(0).get("calibrated").asBoolean());
    JsonNode filter = runs.get("filter as found");
    assertEquals(filter.get("curves").get(0).get("id").asString(), "S21");
    assertEquals(filter.get("curves").size(), 4);
    assertEquals(filter.get("settings").get("sweep").get("points").asInt(), 211);
  }

  private static JsonNode reading(JsonNode run, String id) {
    return BuoyBench.reading(run, id);
  }

  @Test
  public void oldRunsAreComparedMeasuredAgainAndExported() {
    long plain = runs.get("plain carrier").get("id").asLong();
    long mask = runs.get("data with mask").get("id").asLong();
    JsonNode c =
        server.json(server.get("/api/runs/compare?first=" + plain + "&second=" + mask), 200);
    assertEquals(c.get("difference").size(), 1);
    assertTrue(c.get("changes").toString().contains("span"));
    JsonNode again = server.json(server.send("POST", "/api/runs/" + mask + "/measure", "{}"), 200);
    assertEquals(
        reading(Flat.outcome(again.get("outcome")), "occupiedBandwidth").get("value").asDouble(),
        reading(runs.get("data with mask"), "occupiedBandwidth").get("value").asDouble(),
        5e3);
    long filter = runs.get("filter as found").get("id").asLong();
    JsonNode network =
        server.json(server.send("POST", "/api/runs/" + filter + "/measure", "{}"), 200);
    assertEquals(network.get("measurement").asString(), "network");
    assertEquals(server.get("/api/runs/" + filter + "/export").statusCode(), 200);
  }

  @Test
  public void limitsAndSetupsAreThere() {
    JsonNode job = server.json(server.get("/api/jobs/1"), 200);
    assertEquals(job.get("limits").get("nominalHz").asDouble(), 458.525e6);
    JsonNode asked = server.json(server.get("/api/jobs/4/network"), 200);
    assertEquals(asked.get("limits").size(), 3);
    JsonNode setups = server.json(server.get("/api/jobs/1/setups"), 200);
    assertEquals(setups.get(0).get("name").asString(), "mask check");
    assertEquals(setups.get(0).get("settings").get("spanHz").asDouble(), 300e3);
  }
}
