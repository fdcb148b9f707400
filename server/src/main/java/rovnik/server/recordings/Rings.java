package rovnik.server.recordings;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.stereotype.Component;
import rovnik.server.config.ServerSettings;
import rovnik.server.config.Space;

/** Makes rings of samples beside the database, and keeps stretches of them as recordings. */
@Component
public class Rings implements DisposableBean {
  /** Beyond what is asked for, so that a stretch can be kept while more comes. */
  private static final double SPARE_SECONDS = 2;

  private final Path folder;
  private final Space space;

  /** One after the other: two at once would be no quicker on one disk. */
  private final ExecutorService keeping =
      Executors.newSingleThreadExecutor(
          r -> {
            Thread t = new Thread(r, "keeps stretches");
            t.setDaemon(true);
            return t;
          });

  Rings(ServerSettings settings, Space space) {
    this.folder = settings.data();
    this.space = space;
  }

  /** Samples of a ring that holds so many seconds. */
  public static long samples(double seconds, double sampleRateHz) {
    return (long) Math.ceil((seconds + SPARE_SECONDS) * sampleRateHz);
  }

  /** Refuses a ring that the disk has no room for. */
  public void require(long samples) {
    space.require(SampleRing.bytes(samples));
  }

  public SampleRing ring(long samples) {
    require(samples);
    try {
      Files.createDirectories(folder);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return new SampleRing(folder.resolve("ring-" + UUID.randomUUID()), samples);
  }

  /** Does it beside what goes on. */
  public void later(Runnable keep) {
    keeping.execute(keep);
  }

  @Override
  public void destroy() {
    keeping.shutdownNow();
  }
}
