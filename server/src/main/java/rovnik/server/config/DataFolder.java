package rovnik.server.config;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Collection;
import java.util.HexFormat;
import java.util.Set;
import java.util.stream.Stream;

/**
 * A folder of files that rows of the database point to. A row is written only after its file is
 * whole and synced; a file without a row, as after a crash in the middle of an upload, is removed
 * at the next start.
 */
public final class DataFolder {
  private final Path folder;

  /**
   * Opens the folder and removes what no row knows.
   *
   * @param known names of the files that rows point to
   */
  public DataFolder(Path folder, Collection<String> known) {
    this.folder = folder;
    try {
      Files.createDirectories(folder);
      Set<String> names = Set.copyOf(known);
      try (Stream<Path> files = Files.list(folder)) {
        for (Path f : (Iterable<Path>) files::iterator) {
          if (!names.contains(f.getFileName().toString())) {
            Files.delete(f);
          }
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  public Path file(String name) {
    return folder.resolve(name);
  }

  /** Writes and syncs a file under a temporary name, then gives it its own; returns its SHA-256. */
  public String store(String name, InputStream data) throws IOException {
    MessageDigest digest = digest("SHA-256");
    Path part = folder.resolve(name + ".part");
    try (FileChannel channel =
        FileChannel.open(part, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
      OutputStream out = Channels.newOutputStream(channel);
      new DigestInputStream(data, digest).transferTo(out);
      channel.force(true);
    } catch (IOException e) {
      Files.deleteIfExists(part);
      throw e;
    }
    Files.move(part, folder.resolve(name), StandardCopyOption.ATOMIC_MOVE);
    return HexFormat.of().formatHex(digest.digest());
  }

  /** Removes a file; one that cannot be removed now goes at the next start. */
  public void delete(String name) {
    try {
      Files.deleteIfExists(folder.resolve(name));
    } catch (IOException ignored) {
      // removed at the next start
    }
  }

  /** A digest that every Java has. */
  public static MessageDigest digest(String algorithm) {
    try {
      return MessageDigest.getInstance(algorithm);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
