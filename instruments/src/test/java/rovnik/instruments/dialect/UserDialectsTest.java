package rovnik.instruments.dialect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotNull;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;

/** Dialects that a user has written, well or not. */
public class UserDialectsTest {
  private static final String GOOD = "label: Mine\nkind: signal-source\nfacts:\n  highestHz: 1e9\n";

  @DataProvider
  public Object[][] broken() {
    return new Object[][] {
      {"label: [", "line"},
      {"label: x\nkind: toaster\n", "line 2"},
      {GOOD + "  lowestHz: low\n", "line 5"},
      {GOOD + "queries:\n  level: {ask: \"POW?\"}\n", "line 6"},
      {GOOD + "commands: twelve\n", "line 5"},
      {GOOD + "identity: \"(\"\n", "line 5"},
      {"", "is empty"},
      {"just words", "is empty"},
      {"a: &x\n  b: *x\n", "no YAML"},
      {"a: &x [1]\nb: [*x, *x]\n", "no YAML"},
      {"label: " + "[".repeat(5000), "no YAML"},
      {GOOD + "  lowestHz: " + "9x".repeat(50_000) + "\n", "line 5"},
    };
  }

  @Test(dataProvider = "broken")
  public void whatIsWrongIsSaidShortlyWithItsLine(String yaml, String words) {
    Refusal r = expectThrows(Refusal.class, () -> DialectLibrary.parse("mine", yaml));
    assertTrue(r.getMessage().startsWith("mine.yaml"), r.getMessage());
    assertTrue(r.getMessage().contains(words), r.getMessage());
    assertTrue(r.getMessage().length() < 400, "" + r.getMessage().length());
  }

  @Test
  public void oneBrokenFileDoesNotStopTheOthers() throws IOException {
    Path folder = Files.createTempDirectory("rovnik-dialects");
    try {
      Files.writeString(folder.resolve("good.yaml"), GOOD);
      Files.writeString(folder.resolve("bad.yaml"), "kind: toaster\n");
      Files.write(
          folder.resolve("latin.yaml"), "label: Gerät".getBytes(StandardCharsets.ISO_8859_1));
      DialectLibrary library = new DialectLibrary(folder);
      assertNotNull(library.find("good"));
      assertNotNull(library.find("scpi-iq"));
      Refusal bad = expectThrows(Refusal.class, () -> library.find("bad"));
      assertTrue(bad.getMessage().startsWith("bad.yaml, line 1"), bad.getMessage());
      Refusal none = expectThrows(Refusal.class, () -> library.find("none"));
      assertTrue(none.getMessage().contains("Known ones"), none.getMessage());
      List<String> files = library.broken().stream().map(YamlFile.Broken::file).sorted().toList();
      assertEquals(files, List.of("dialects/bad.yaml", "dialects/latin.yaml"));
    } finally {
      try (var all = Files.list(folder)) {
        for (Path f : (Iterable<Path>) all::iterator) {
          Files.delete(f);
        }
      }
      Files.delete(folder);
    }
  }
}
