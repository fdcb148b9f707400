package rovnik.server.config;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Collection;
import java.util.HexFormat;
import java.util.Set;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * A folder of files that rows of the database point to. A file is written and synced under the name
 * of a part; it gets its own when its row is committed. So after a crash a part without a row was
 * never kept and is removed, a part with a row is given its name, and a whole file without a row
 * means that the database was lost: such a file is never removed, but moved aside, from where it
 * can be read in again.
 */
public final class DataFolder {
  private static final Logger LOG = LoggerFactory.getLogger(DataFolder.class);
  private static final String PART = ".part";

  /** So much is written between two looks at the space that is left. */
  private static final long LOOK_BYTES = 16 << 20;

  /** Where files go that no row knows. */
  public static final String ASIDE = "found";

  private final Path folder;
  private final Space space;

  /**
   * Opens the folder and puts in order what a crash or a lost database has left.
   *
   * @param data of which this is a folder
   * @param known names of the files that rows point to
   */
  public DataFolder(Path data, String name, Collection<String> known, Space space) {
    this.folder = data.resolve(name);
    this.space = space;
    Path aside = data.resolve(ASIDE);
    try {
      Files.createDirectories(folder);
      Set<String> names = Set.copyOf(known);
      int moved = 0;
      try (Stream<Path> files = Files.list(folder)) {
        for (Path f : (Iterable<Path>) files::iterator) {
          String present = f.getFileName().toString();
          boolean part = present.endsWith(PART);
          String own = part ? present.substring(0, present.length() - PART.length()) : present;
          if (part && names.contains(own)) {
            Files.move(f, folder.resolve(own), StandardCopyOption.ATOMIC_MOVE);
          } else if (part) {
            Files.delete(f);
          } else if (!names.contains(own)) {
            Files.createDirectories(aside);
            Files.move(f, aside.resolve(own));
            moved++;
          }
        }
      }
      if (moved > 0) {
        LOG.warn("{} files that the database does not know were moved to {}", moved, aside);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  public Path file(String name) {
    Path part = part(name);
    return Files.exists(part) ? part : folder.resolve(name);
  }

  private Path part(String name) {
    return folder.resolve(name + PART);
  }

  /** Writes and syncs a new file; it stays a part until it is claimed. Returns its SHA-256. */
  public String store(String name, InputStream data) throws IOException {
    space.require(0);
    MessageDigest digest = digest("SHA-256");
    try (FileChannel channel =
        FileChannel.open(part(name), StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
      byte[] block = new byte[1 << 16];
      long since = 0;
      int got;
      while ((got = data.read(block)) >= 0) {
        digest.update(block, 0, got);
        ByteBuffer bytes = ByteBuffer.wrap(block, 0, got);
        while (bytes.hasRemaining()) {
          channel.write(bytes);
        }
        since += got;
        if (since >= LOOK_BYTES) {
          space.require(0);
          since = 0;
        }
      }
      channel.force(true);
    } catch (IOException | RuntimeException e) {
      Files.deleteIfExists(part(name));
      throw e;
    }
    return HexFormat.of().formatHex(digest.digest());
  }

  /** Its row is written: the file gets its name once the row is committed, or goes with it. */
  public void claim(String name) {
    atEnd(() -> giveName(name), () -> drop(name));
  }

  private void giveName(String name) {
    try {
      Files.move(part(name), folder.resolve(name), StandardCopyOption.ATOMIC_MOVE);
    } catch (IOException e) {
      LOG.warn("{} gets its name at the next start: {}", name, e.getMessage());
    }
  }

  /** Writes a small file that is there already anew, whole or not at all. */
  public void write(String name, byte[] content) throws IOException {
    replace(folder.resolve(name), content);
  }

  /**
   * Writes a file under another name, syncs it and renames it: a crash leaves the old or the new.
   */
  public static void replace(Path file, byte[] content) throws IOException {
    Path part = file.resolveSibling(file.getFileName() + PART);
    try (FileChannel channel =
        FileChannel.open(
            part,
            StandardOpenOption.CREATE,
            StandardOpenOption.TRUNCATE_EXISTING,
            StandardOpenOption.WRITE)) {
      ByteBuffer bytes = ByteBuffer.wrap(content);
      while (bytes.hasRemaining()) {
        channel.write(bytes);
      }
      channel.force(true);
    } catch (IOException e) {
      Files.deleteIfExists(part);
      throw e;
    }
    Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
  }

  /** Removes a file that was never claimed. */
  public void drop(String name) {
    deleteNow(part(name));
  }

  /** Removes a file once it is certain that its row is gone. */
  public void delete(String name) {
    atEnd(
        () -> {
          drop(name);
          deleteNow(folder.resolve(name));
        },
        () -> {});
  }

  private static void deleteNow(Path file) {
    try {
      Files.deleteIfExists(file);
    } catch (IOException e) {
      LOG.warn("{} cannot be removed: {}", file, e.getMessage());
    }
  }

  private static void atEnd(Runnable committed, Runnable rolledBack) {
    if (!TransactionSynchronizationManager.isSynchronizationActive()) {
      committed.run();
      return;
    }
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCompletion(int status) {
            (status == STATUS_COMMITTED ? committed : rolledBack).run();
          }
        });
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
