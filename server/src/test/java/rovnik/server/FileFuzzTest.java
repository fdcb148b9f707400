package rovnik.server;

import static org.testng.Assert.assertEquals;

import java.io.IOException;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import rovnik.server.RunningServer.Part;
import tools.jackson.databind.JsonNode;

/** Files that were right once: each is read or refused with a sentence, and nothing breaks. */
public class FileFuzzTest {
  private static final int SHORT = 500;
  private static final String META =
      """
      {"global":{"core:datatype":"ci16_le","core:version":"1.2.0","core:sample_rate":1000000,
       "core:description":"harbour","rovnik:full_scale_dbm":-7.5},
       "captures":[{"core:sample_start":0,"core:frequency":458525000}],"annotations":[]}""";
  private static final String KIT =
      "label: mine\nopen: {farad: [5.0e-14, 1e-24]}\nshort: {henry: [1e-12]}\nload: {ohm: 49.9}\n"
          + "through: {delaySeconds: 1e-10}\n";
  private static final String NEW_FORM =
      """
      [Version] 2.0
      # MHz S RI R 50
      [Number of Ports] 2
      [Two-Port Data Order] 21_12
      [Number of Frequencies] 2
      [Reference] 50 75
      [Network Data]
      100 0.1 0 0.9 0 0.9 0 0.1 0
      200 0.1 0 0.8 0.1 0.8 0.1 0.2 0
      [End]
      """;
  private static final String OLD_FORM =
      "! a feeder\n# MHz S MA R 50\n100 0.1 10 0.9 -20 0.9 -20 0.1 12\n200 0.1 20 0.8 -40 0.8 -40 0.1"
          + " 30\n300 .1 1 .7 2 .7 2 .1 3\n100 2.5 0.3 45 0.2\n";
  private static final List<String> PIECES =
      List.of(
          "\n",
          " ",
          "!",
          "#",
          "-",
          "1e999",
          "NaN",
          "[",
          "]",
          "{",
          "}",
          "\"",
          ",",
          "0",
          "\u0000",
          "[Matrix Format] Lower",
          "[Mixed-Mode Order] D1,2 C1,2",
          "GHz",
          "Y",
          "R 0",
          "\ufeff",
          "é");

  private RunningServer server;

  @BeforeClass
  public void start() {
    server = RunningServer.start();
  }

  @AfterClass(alwaysRun = true)
  public void away() {
    server.close();
  }

  @Test
  public void spoiledFilesAreReadOrRefused() throws IOException {
    int minutes = Integer.getInteger("rovnik.torture.minutes", 0);
    long end = System.nanoTime() + minutes * 60_000_000_000L;
    Random random = new Random(minutes == 0 ? 7 : System.nanoTime());
    String feeder;
    try (var in = FileFuzzTest.class.getResourceAsStream("/demo/feeder.s2p")) {
      feeder =
          new String(in.readAllBytes(), StandardCharsets.UTF_8)
              .lines()
              .limit(40)
              .reduce("", (a, b) -> a + b + "\n");
    }
    List<String> broken = new ArrayList<>();
    List<String> files = List.of(OLD_FORM, NEW_FORM, feeder, META, KIT);
    int sent = 0;
    while (minutes == 0 ? sent < SHORT : System.nanoTime() < end) {
      int which = sent++ % files.size();
      String file = spoiled(files.get(which), random);
      HttpResponse<String> reply =
          switch (which) {
            case 3 -> server.upload(file, new byte[random.nextInt(400)]);
            case 4 ->
                server.send(
                    server
                        .request("/api/kits/k" + sent % 3)
                        .header("Content-Type", "text/plain")
                        .POST(HttpRequest.BodyPublishers.ofString(file)));
            default -> server.upload("/api/networks", Part.of("file", "a.s2p", file));
          };
      if (reply.statusCode() >= 500) {
        broken.add(reply.body() + " for\n" + file);
      } else if (reply.statusCode() >= 400) {
        String said = RunningServer.JSON.readTree(reply.body()).get("detail").asString();
        if (said.length() > 700) {
          broken.add("a refusal of " + said.length() + " characters for\n" + file);
        }
      } else if (which < 3) {
        look(RunningServer.JSON.readTree(reply.body()), file, broken);
      }
    }
    System.out.println(sent + " files");
    assertEquals(broken, List.of());
  }

  /** What was read can be looked at, and removed. */
  private void look(JsonNode network, String file, List<String> broken) {
    String url = "/api/networks/" + network.get("id").asLong();
    for (String way : List.of("?readings=true", "/csv", "/touchstone?version=2")) {
      HttpResponse<String> reply = server.get(url + way);
      if (reply.statusCode() >= 500) {
        broken.add(way + ": " + reply.body() + " for\n" + file);
      }
    }
    server.json(server.send("DELETE", url, ""), 204);
  }

  private static String spoiled(String file, Random random) {
    StringBuilder text = new StringBuilder(file);
    for (int i = 1 + random.nextInt(4); i > 0; i--) {
      int at = random.nextInt(text.length() + 1);
      int length = Math.min(random.nextInt(20), text.length() - at);
      switch (random.nextInt(4)) {
        case 0 -> text.delete(at, at + length);
        case 1 -> text.insert(at, PIECES.get(random.nextInt(PIECES.size())));
        case 2 -> text.insert(random.nextInt(text.length() + 1), text.substring(at, at + length));
        default -> {
          if (at < text.length()) {
            text.setCharAt(at, (char) (32 + random.nextInt(95)));
          }
        }
      }
    }
    return text.toString();
  }
}
