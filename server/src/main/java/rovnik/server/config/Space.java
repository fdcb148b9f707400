package rovnik.server.config;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import org.springframework.stereotype.Component;

/**
 * Room on the disk of the data folder. Nothing is kept into the last of it: a database whose disk
 * is full closes itself.
 */
@Component
public class Space {
  private final Path folder;
  private final long keepFreeBytes;

  Space(ServerSettings settings) {
    folder = settings.data();
    keepFreeBytes = settings.keepFreeBytes();
  }

  /** Refuses to begin, or to go on with, something that stays on the disk. */
  public void require(long bytes) {
    long free = freeBytes();
    if (free - bytes < keepFreeBytes) {
      throw Conflict.noSpace(
          String.format(
              Locale.ROOT,
              "The disk of the data folder has %.0f MB left, and %.0f MB stay free for the database;"
                  + " nothing was kept. Make room, or remove runs and recordings.",
              free / 1e6,
              keepFreeBytes / 1e6));
    }
  }

  boolean low() {
    return freeBytes() < keepFreeBytes;
  }

  private long freeBytes() {
    try {
      return Files.getFileStore(folder).getUsableSpace();
    } catch (IOException e) {
      return 0;
    }
  }
}
