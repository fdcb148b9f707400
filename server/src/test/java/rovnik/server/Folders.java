package rovnik.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.stream.Stream;

/** Temporary folders that do not stay. */
final class Folders {
  private Folders() {}

  static Path temporary() {
    try {
      return Files.createTempDirectory("rovnik-test");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  static void remove(Path folder) {
    try (Stream<Path> all = Files.walk(folder)) {
      for (Path p : (Iterable<Path>) all.sorted(Comparator.reverseOrder())::iterator) {
        Files.deleteIfExists(p);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
