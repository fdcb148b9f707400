package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import rovnik.server.RunningServer.Part;
import tools.jackson.databind.JsonNode;

/**
 * Whatever is sent to the described interface, the answer is a result or a refusal, and never a
 * failure of the server. {@code -Drovnik.torture.minutes=N} goes on for longer, each time with
 * other requests.
 */
public class FuzzTest {
  private static final int SHORT = Integer.getInteger("rovnik.torture.requests", 1000);
  private static final String META =
      """
      {"global":{"core:datatype":"ci16_le","core:version":"1.2.0","core:sample_rate":1000000,
       "rovnik:full_scale_dbm":-7.5},
       "captures":[{"core:sample_start":0,"core:frequency":458525000}],"annotations":[]}""";

  private RunningServer server;
  private final List<JsonNode> settings = new ArrayList<>();

  @BeforeClass
  public void bench() {
    server = RunningServer.start("--rovnik.instrument-addresses=127.0.0.1");
    restock();
    for (String look : List.of("i1/spectrum", "i3/network")) {
      settings.add(server.json(server.get("/api/live/" + look), 200).get("settings"));
    }
  }

  @AfterClass(alwaysRun = true)
  public void away() {
    server.close();
  }

  /** Something of everything, since what is sent may remove it. */
  private void restock() {
    for (String one :
        List.of(
            "Receiver IQ_RECEIVER %d scpi-iq".formatted(server.bench().receiverPort()),
            "Buoy SIGNAL_SOURCE %d scpi-source".formatted(server.bench().transmitterPort()),
            "Analyzer NETWORK_ANALYZER %d scpi-network".formatted(server.bench().networkPort()),
            "Fast IQ_RECEIVER %d scpi-iq-fast".formatted(server.bench().fastReceiverPort()))) {
      String[] w = one.split(" ");
      server.send(
          "POST",
          "/api/instruments",
          ("{\"name\":\"%s\",\"kind\":\"%s\",\"host\":\"127.0.0.1\",\"port\":%s,\"dialect\":\"%s\","
                  + "\"connect\":true}")
              .formatted((Object[]) w));
    }
    server.send("POST", "/api/jobs", "{\"name\":\"Check\",\"dut\":\"Buoy\"}");
    server.upload(META, new byte[40_000]);
    server.upload(
        "/api/networks",
        Part.of("file", "a.s2p", "# MHz S RI R 50\n1 0 0 1 0 1 0 0 0\n2 0 0 1 0 1 0 0 0\n"));
  }

  /** Each setting of each measurement taken away: it is refused or has none, of every source. */
  @Test
  public void aSettingThatIsNullIsNoFailure() {
    List<String> broken = new ArrayList<>();
    int asked = 0;
    for (JsonNode m : server.json(server.get("/api/measurements"), 200)) {
      String kind = m.get("kind").asString();
      for (String setting : m.get("settings").get("properties").propertyNames()) {
        String nothing = "{\"" + setting + "\":null}";
        String measure = "{\"measurement\":\"" + kind + "\",\"settings\":" + nothing + "}";
        List<HttpResponse<String>> replies =
            List.of(
                server.send("POST", "/api/recordings/1/measure", measure),
                server.send("POST", "/api/networks/1/measure", measure),
                server.send("PATCH", "/api/live/i1/" + kind + "/settings", nothing),
                server.send("PATCH", "/api/live/i3/" + kind + "/settings", nothing),
                server.send("PATCH", "/api/live/i4/" + kind + "/settings", nothing));
        asked += replies.size();
        for (HttpResponse<String> r : replies) {
          if (r.statusCode() >= 500) {
            broken.add(kind + ": " + setting + " at " + r.uri() + " -> " + cut(r.body()));
          }
        }
      }
    }
    assertTrue(asked > 500, asked + " settings");
    assertEquals(broken.size(), 0, String.join("\n", broken));
  }

  @Test(dependsOnMethods = "aSettingThatIsNullIsNoFailure")
  public void nothingThatIsSentBreaksTheServer() {
    int minutes = Integer.getInteger("rovnik.torture.minutes", 0);
    long end = System.nanoTime() + minutes * 60_000_000_000L;
    long seed = minutes == 0 ? Long.getLong("rovnik.torture.seed", 1) : System.nanoTime();
    JsonNode description = RunningServer.JSON.readTree(server.get("/api/openapi.json").body());
    Fuzzer fuzzer = new Fuzzer(description, settings, seed);
    List<String> broken = new ArrayList<>();
    int sent = 0;
    while (minutes == 0 ? sent < SHORT : System.nanoTime() < end) {
      if (sent++ % 150 == 0) {
        restock();
      }
      Fuzzer.Operation o = fuzzer.operation();
      String path = path(fuzzer, o);
      String body = o.body() == null ? "" : fuzzer.body(o.body()).toString();
      HttpResponse<String> reply = server.send(o.method(), path, body);
      if (reply.statusCode() == 201 && path.equals("/api/accounts")) {
        openAgain(RunningServer.JSON.readTree(body), reply);
      }
      assertNotEquals(reply.statusCode(), 401, "locked out: " + path);
      // 502 is an instrument that does not do what it was asked, 503 and 507 a server that says so.
      if (reply.statusCode() == 500) {
        broken.add(o.method() + " " + path + " " + cut(body) + " -> " + cut(reply.body()));
      }
    }
    System.out.println(sent + " requests from seed " + seed);
    assertEquals(
        broken.size(), 0, String.join("\n", broken.subList(0, Math.min(40, broken.size()))));
  }

  /** An account that was made by chance would lock out all that follows. */
  private void openAgain(JsonNode account, HttpResponse<String> made) {
    String who = account.get("name").asString().strip() + ":" + account.get("password").asString();
    String basic = Base64.getEncoder().encodeToString(who.getBytes(StandardCharsets.UTF_8));
    HttpResponse<String> removed =
        server.send(
            server
                .request("/api/accounts/" + server.json(made, 201).get("id").asLong())
                .header("Authorization", "Basic " + basic)
                .DELETE());
    assertEquals(removed.statusCode(), 204, removed.body());
  }

  private static String cut(String text) {
    return text.length() > 700 ? text.substring(0, 700) + "..." : text;
  }

  private static String path(Fuzzer fuzzer, Fuzzer.Operation o) {
    String path =
        o.path()
            .replace(
                "{source}",
                fuzzer.one(List.of("i1", "i3", "r1", "i" + fuzzer.id(), "r2", "x", "i")))
            .replace(
                "{measurement}",
                fuzzer.one(
                    List.of(
                        "spectrum",
                        "network",
                        "spectrum",
                        "network",
                        "phase-noise",
                        "single-carrier",
                        "y")))
            .replace("{step}", fuzzer.one(List.of("0", "1", "-1", "q")))
            .replace("{name}", fuzzer.one(List.of("x", "..", "a.sigmf-data")));
    while (path.contains("{")) {
      path = path.replaceFirst("\\{\\w+}", fuzzer.id());
    }
    if (path.endsWith("/outcome")) {
      return path; // waiting for what never settles is not of interest here
    }
    if (path.endsWith("/compare")) {
      return path + "?first=" + fuzzer.id() + "&second=" + fuzzer.id();
    }
    return fuzzer.chance(0.3)
        ? path
            + "?version="
            + fuzzer.id()
            + "&port="
            + fuzzer.id()
            + "&area=spectrum&readings=true"
            + "&fromHz=1e6&toHz=NaN&measurement=spectrum&belongings=true&series=x&spacingHz=1e3"
            + "&differenceDb=0&rbwHz=0&window=HANN"
        : path;
  }
}
