package rovnik.server.config;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.beans.factory.support.DefaultSingletonBeanRegistry;
import org.springframework.context.ApplicationContextInitializer;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.core.Ordered;
import org.springframework.core.env.ConfigurableEnvironment;

/**
 * Looks before anything is touched whether Rovnik can start at all: the data folder can be written
 * and belongs to no other server, and the port is free. The folder stays locked until the last of
 * the beans is gone.
 */
public final class FolderGuard
    implements ApplicationContextInitializer<ConfigurableApplicationContext>, Ordered {
  private static final Set<PosixFilePermission> OWNER_ONLY =
      PosixFilePermissions.fromString("rwx------");

  /** What is made by Rovnik and forgotten by a fresh start. */
  private static final List<String> FORGOTTEN =
      List.of("rovnik.mv.db", "rovnik.trace.db", "acquisitions", "networks");

  @Override
  public int getOrder() {
    return 0;
  }

  @Override
  public void initialize(ConfigurableApplicationContext context) {
    ConfigurableEnvironment settings = context.getEnvironment();
    String folder = settings.getProperty("rovnik.data", "");
    if (folder.contains(";")) {
      throw new StartRefused(
          "The data folder "
              + folder
              + " has a ; in its name, which the database cannot open."
              + " Choose another with --data.");
    }
    checkPort(
        settings.getProperty("server.address", "127.0.0.1"),
        settings.getProperty("server.port", Integer.class, 0));
    Path data = Path.of(folder).toAbsolutePath().normalize();
    FileChannel lock = locked(data);
    if (context.getBeanFactory() instanceof DefaultSingletonBeanRegistry beans) {
      beans.registerDisposableBean("folderLock", lock::close);
    }
    if (settings.getProperty("rovnik.fresh", Boolean.class, false)) {
      FORGOTTEN.forEach(name -> forget(data.resolve(name)));
    }
  }

  private static void checkPort(String address, int port) {
    try (ServerSocket probe = new ServerSocket()) {
      probe.bind(new InetSocketAddress(address, port));
    } catch (IOException | IllegalArgumentException e) {
      throw new StartRefused(
          "Port "
              + port
              + " of "
              + address
              + " cannot be used: "
              + e.getMessage()
              + ". Stop what uses it, or choose another with --port.");
    }
  }

  private static FileChannel locked(Path data) {
    FileChannel channel = null;
    try {
      Files.createDirectories(data);
      if (Files.getFileStore(data).supportsFileAttributeView("posix")) {
        Files.setPosixFilePermissions(data, OWNER_ONLY);
      }
      channel =
          FileChannel.open(
              data.resolve("in-use.lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
      if (channel.tryLock() != null) {
        return channel;
      }
      channel.close();
    } catch (OverlappingFileLockException sameProcess) {
      close(channel);
    } catch (IOException e) {
      close(channel);
      throw new StartRefused(
          "The data folder "
              + data
              + " cannot be written ("
              + e.getClass().getSimpleName()
              + ": "
              + e.getMessage()
              + "). Make it writable, or choose another with --data.");
    }
    throw new StartRefused(
        "The data folder "
            + data
            + " is in use by another Rovnik. Stop that one, or choose another"
            + " folder with --data.");
  }

  private static void close(FileChannel channel) {
    try {
      if (channel != null) {
        channel.close();
      }
    } catch (IOException ignored) {
      // nothing was written
    }
  }

  private static void forget(Path what) {
    if (!Files.exists(what)) {
      return;
    }
    try (Stream<Path> all = Files.walk(what)) {
      for (Path p : (Iterable<Path>) all.sorted(Comparator.reverseOrder())::iterator) {
        Files.delete(p);
      }
    } catch (IOException e) {
      throw new StartRefused("What is in " + what + " cannot be removed: " + e.getMessage() + ".");
    }
  }
}
