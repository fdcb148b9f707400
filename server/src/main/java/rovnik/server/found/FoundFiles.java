package rovnik.server.found;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.server.config.DataFolder;
import rovnik.server.config.ServerSettings;
import rovnik.server.networks.NetworkService;
import rovnik.server.recordings.RecordingService;

/**
 * What was moved aside because the database does not know it, as after the database was lost. It
 * stays until it is read in again or removed by the user.
 */
@Service
class FoundFiles {
  private static final String DATA = ".sigmf-data";
  private static final String META = ".sigmf-meta";

  private final Path folder;
  private final RecordingService recordings;
  private final NetworkService networks;

  FoundFiles(RecordingService recordings, NetworkService networks, ServerSettings settings) {
    this.folder = settings.data().resolve(DataFolder.ASIDE);
    this.recordings = recordings;
    this.networks = networks;
  }

  /**
   * A file that was found.
   *
   * @param what recording or network
   * @param bytes its size
   * @param readable false for samples whose metadata are missing: open them with a metadata file of
   *     your own
   */
  record Found(String name, String what, long bytes, boolean readable) {}

  List<Found> all() {
    if (!Files.isDirectory(folder)) {
      return List.of();
    }
    try (Stream<Path> files = Files.list(folder)) {
      return files
          .filter(f -> !f.getFileName().toString().endsWith(META))
          .sorted()
          .map(this::found)
          .toList();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private Found found(Path f) {
    try {
      boolean samples = f.toString().endsWith(DATA);
      return new Found(
          f.getFileName().toString(),
          samples ? "recording" : "network",
          Files.size(f),
          !samples || Files.exists(meta(f)));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static Path meta(Path data) {
    return data.resolveSibling(data.getFileName().toString().replace(DATA, META));
  }

  /** Reads a file in; it is among the recordings or networks then and no longer here. */
  void read(String name) {
    Found f = find(name);
    if (!f.readable()) {
      throw new Refusal(
          "name",
          "The metadata of these samples are lost. Open "
              + folder.resolve(name)
              + " as a recording with a metadata file of your own.");
    }
    Path file = folder.resolve(name);
    String shown = "Found " + name.substring(0, Math.min(8, name.length()));
    try (InputStream in = Files.newInputStream(file)) {
      if (f.what().equals("recording")) {
        recordings.open(shown, Files.readAllBytes(meta(file)), in);
      } else {
        networks.open(shown + name.replaceFirst("^[^.]*", ""), in);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    remove(name);
  }

  /** Removes a file for good. */
  void remove(String name) {
    Path file = folder.resolve(find(name).name());
    try {
      Files.delete(file);
      if (name.endsWith(DATA)) {
        Files.deleteIfExists(meta(file));
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private Found find(String name) {
    return all().stream()
        .filter(f -> f.name().equals(name))
        .findFirst()
        .orElseThrow(() -> new Refusal("name", "There is no found file \"" + name + "\"."));
  }
}
