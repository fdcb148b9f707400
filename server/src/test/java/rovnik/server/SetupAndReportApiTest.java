package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.net.http.HttpRequest;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Settings as files and named setups, and the report of a run. */
public class SetupAndReportApiTest extends BuoyBench {
  private JsonNode settingsNow() {
    return server.json(server.get(live("")), 200).get("settings");
  }

  private java.net.http.HttpResponse<String> readFile(String text) {
    return server.send(
        server
            .request("/api/settings-file/read")
            .header("Content-Type", "text/plain")
            .POST(HttpRequest.BodyPublishers.ofString(text)));
  }

  @Test
  public void settingsGoToAFileAndBack() {
    settings("458.525e6", "300e3", 32, 30);
    ObjectNode wanted = (ObjectNode) settingsNow().deepCopy();
    ((ObjectNode) wanted.get("view"))
        .putObject("occupied")
        .put("share", 0.99)
        .put("widestHz", 65e3);
    String file =
        server.send("POST", "/api/settings-file/write", "{\"settings\":" + wanted + "}").body();
    assertTrue(file.contains("\"format\" : \"rovnik-settings\""), file);
    assertTrue(file.lines().count() > 20, "it is not readable");
    JsonNode again = server.json(readFile(file), 200).get("settings");
    assertEquals(again.get("view").get("occupied").get("widestHz").asDouble(), 65e3);
    assertEquals(again.get("averages").asInt(), 32);
    server.json(server.send("PUT", live("/settings"), again.toString()), 200);
    assertEquals(settingsNow().get("view").get("occupied").get("share").asDouble(), 0.99);
  }

  @DataProvider
  public Object[][] badFiles() {
    String whole =
        "{\"format\":\"rovnik-spectrum-settings\",\"version\":1,\"settings\":{\"centreHz\":1e9,\"spanHz\":1e6,\"rbwHz\":0,\"window\":\"HANN\",\"detector\":\"RMS\",\"averages\":8,\"referenceLevelDbm\":0,\"channelWidthHz\":5e4}}";
    return new Object[][] {
      {"hello", "file"},
      {"[1,2]", "format"},
      {"{\"format\":\"something else\"}", "format"},
      {whole.replace("\"version\":1", "\"version\":2"), "version"},
      {whole.replace("\"averages\":8", "\"averages\":-8"), "averages"},
      {whole.replace("\"averages\":8", "\"averages\":\"many\""), "averages"},
      {whole.replace("\"HANN\"", "\"CURTAIN\""), "window"},
      {whole.replace("\"rbwHz\":0", "\"rbwHz\":0,\"surprise\":1"), "surprise"},
      {whole.replace("\"rbwHz\":0", "\"rbwHz\":0,\"fftLength\":1000"), "fftLength"},
      {
        whole.replace(
            "\"rbwHz\":0",
            "\"rbwHz\":0,\"view\":{\"mask\":[{\"fromHz\":5,\"toHz\":1,\"rbwHz\":0,\"fromDbc\":1,\"toDbc\":1}]}"),
        "mask"
      },
      {whole.replace("\"settings\"", "\"setting\""), "settings"},
    };
  }

  @Test(dataProvider = "badFiles")
  public void aFileThatCannotBeNamesItsField(String text, String field) {
    JsonNode problem = server.json(readFile(text), 400);
    assertEquals(problem.get("field").asString(), field, problem.toString());
  }

  @Test
  public void setupsAreKeptByNameForEachJob() {
    settings("458.525e6", "300e3", 32, 30);
    String body = "{\"name\":\"Mask check\",\"settings\":" + settingsNow() + "}";
    String url = "/api/jobs/" + job + "/setups";
    server.json(server.send("POST", url, body), 201);
    JsonNode twice =
        server.json(
            server.send("POST", url, body.replace("\"averages\":32", "\"averages\":64")), 201);
    assertEquals(twice.size(), 1);
    assertEquals(twice.get(0).get("settings").get("averages").asInt(), 64);
    server.json(
        server.send("POST", url, "{\"name\":\"\",\"settings\":" + settingsNow() + "}"), 400);
    server.json(server.send("POST", url, "{\"name\":\"x\"}"), 400);
    server.json(server.send("DELETE", url + "/" + twice.get(0).get("id").asLong(), ""), 204);
    server.json(server.send("DELETE", url + "/" + twice.get(0).get("id").asLong(), ""), 404);
    assertEquals(server.json(server.get(url), 200).size(), 0);
  }

  /** One file, nothing from elsewhere, and what a reader needs to judge. */
  @Test
  public void theReportStandsByItself() {
    settings("458.525e6", "200e3", 16, 30);
    start();
    settledFrame(16);
    long run =
        server
            .json(server.send("POST", live("/keep"), "{\"name\":\"5 < 6 & \\\"7\\\"\"}"), 201)
            .get("id")
            .asLong();
    server.json(
        server.send("PATCH", "/api/runs/" + run, "{\"note\":\"<script>alert(1)</script>\"}"), 200);
    var reply = server.get("/api/runs/" + run + "/report.html");
    String page = reply.body();
    assertTrue(reply.headers().firstValue("content-type").orElse("").startsWith("text/html"));
    assertTrue(page.contains("<h1>5 &lt; 6 &amp; &quot;7&quot;</h1>"), page.substring(0, 1500));
    assertFalse(page.contains("<script"), "a note became a script");
    assertFalse(page.matches("(?s).*(src|href)=.*"), "it needs something from elsewhere");
    for (String part :
        new String[] {
          "<svg",
          "<polyline",
          "Carrier power at Buoy TX OUT",
          "U (k = 2)",
          "PASS",
          "Pad",
          "-30.00 dB",
          "458.525 MHz",
          "reference level",
          "IQ receiver stand-in"
        }) {
      assertTrue(page.contains(part), part + " is missing");
    }
    server.json(server.get("/api/runs/999/report.html"), 404);
  }

  @DataProvider
  public Object[][] extremeLevels() {
    return new Object[][] {{0f, 0.0}, {1e-30f, -280.0}, {1e20f, 290.0}, {3e38f, 0.0}};
  }

  /** A picture of levels without any extent, or beyond all bounds, is drawn all the same. */
  @Test(dataProvider = "extremeLevels", timeOut = 60_000)
  public void extremeLevelsMakeAReport(float amplitude, double fullScaleDbm) {
    java.nio.ByteBuffer samples =
        java.nio.ByteBuffer.allocate(8 * 4096).order(java.nio.ByteOrder.LITTLE_ENDIAN);
    for (int i = 0; i < 4096; i++) {
      samples.putFloat(amplitude).putFloat(0);
    }
    JsonNode opened =
        server.json(
            server.upload(
                "{\"global\":{\"core:datatype\":\"cf32_le\",\"core:version\":\"1.2.0\","
                    + "\"core:sample_rate\":1e6,\"rovnik:full_scale_dbm\":"
                    + fullScaleDbm
                    + "},\"captures\":[{\"core:sample_start\":0,\"core:frequency\":1e9}],"
                    + "\"annotations\":[]}",
                samples.array()),
            201);
    String look = "/api/live/r" + opened.get("id").asLong() + "/spectrum";
    server.json(server.send("POST", look + "/start", "{\"jobId\":" + job + "}"), 200);
    server.json(server.get(look + "/outcome?settled=true&seconds=20"), 200);
    long run =
        server
            .json(server.send("POST", look + "/keep", "{\"name\":\"x\"}"), 201)
            .get("id")
            .asLong();
    var report = server.get("/api/runs/" + run + "/report.html");
    assertEquals(report.statusCode(), 200);
    assertTrue(report.body().length() < 1_000_000, "" + report.body().length());
  }
}
