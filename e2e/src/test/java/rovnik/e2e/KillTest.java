package rovnik.e2e;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.testng.annotations.Test;

/**
 * The server is killed at any moment while runs are kept: what it has said to be kept is there
 * afterwards, whole. One kill in the suite; as many as the minutes of {@code
 * rovnik.torture.minutes} hold otherwise.
 */
public class KillTest {
  private static final Pattern KEPT = Pattern.compile("\"id\":(\\d+),.*\"recordingId\":(\\d+)");
  private static final long SECOND_NANOS = 1_000_000_000L;

  private record Kept(String run, String recording) {}

  @Test
  public void whatWasSaidToBeKeptIsThere() {
    long minutes = Long.getLong("rovnik.torture.minutes", 0);
    long end = System.nanoTime() + 60 * minutes * SECOND_NANOS;
    Random random = new Random(Long.getLong("rovnik.torture.seed", 1));
    List<Kept> all = new ArrayList<>();
    int kills = 0;
    try (Processes rovnik = new Processes()) {
      do {
        all.addAll(keptUntilKilled(rovnik, random));
        kills++;
        rovnik.startServer();
        for (Kept kept : all) {
          String run = rovnik.get("/api/runs/" + kept.run());
          assertTrue(run.contains("\"recordingId\":" + kept.recording()), run);
          String samples = rovnik.get("/api/recordings/" + kept.recording());
          assertTrue(samples.contains("\"samples\":"), samples);
        }
        assertEquals(rovnik.get("/api/found"), "[]", "files without a row");
      } while (System.nanoTime() < end);
    }
    assertFalse(all.isEmpty(), "nothing was kept in " + kills + " kills");
    System.out.println(kills + " kills, " + all.size() + " runs kept, none lost");
  }

  /** Keeps run after run until the server is gone, and returns those that it has confirmed. */
  private static List<Kept> keptUntilKilled(Processes rovnik, Random random) {
    rovnik.send("POST", "/api/live/i1/spectrum/start", "{\"jobId\":1}");
    rovnik.get("/api/live/i1/spectrum/outcome?settled=true");
    CompletableFuture<List<Kept>> keeper =
        CompletableFuture.supplyAsync(
            () -> {
              List<Kept> kept = new ArrayList<>();
              try {
                while (true) {
                  Matcher m = KEPT.matcher(rovnik.send("POST", "/api/live/i1/spectrum/keep", "{}"));
                  if (m.find()) {
                    kept.add(new Kept(m.group(1), m.group(2)));
                  }
                }
              } catch (java.io.UncheckedIOException gone) {
                return kept;
              }
            });
    LockSupport.parkNanos((long) ((0.2 + 2.8 * random.nextDouble()) * SECOND_NANOS));
    rovnik.killServer();
    return keeper.join();
  }
}
