package rovnik.server.access;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.util.Optional;
import java.util.Set;
import org.springframework.core.env.Environment;
import rovnik.server.config.StartRefused;

/**
 * The password that everybody needs, if there is one: from the file that {@code
 * rovnik.password-file} names, or from the environment. It is taken literally and never stands in a
 * command line, which every user of the machine can read.
 */
final class Password {
  static final String VARIABLE = "ROVNIK_PASSWORD";
  private static final int SHORTEST = 10;

  /** More is not looked at by the hash that is kept. */
  private static final int MOST_BYTES = 72;

  private Password() {}

  static Optional<String> of(Environment settings) {
    String file = settings.getProperty("rovnik.password-file", "");
    String given = file.isEmpty() ? System.getenv(VARIABLE) : read(Path.of(file));
    if (given == null || given.isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(checked(given));
  }

  /** The password, if it is long enough and not too long. */
  static String checked(String given) {
    if (given.length() < SHORTEST) {
      throw new StartRefused(
          "The password has " + given.length() + " characters; use at least " + SHORTEST + ".");
    }
    if (given.getBytes(StandardCharsets.UTF_8).length > MOST_BYTES) {
      throw new StartRefused("The password is too long; use at most " + MOST_BYTES + " bytes.");
    }
    return given;
  }

  private static String read(Path file) {
    try {
      if (Files.getFileStore(file).supportsFileAttributeView("posix")) {
        Set<PosixFilePermission> mode = Files.getPosixFilePermissions(file);
        mode.removeAll(
            Set.of(
                PosixFilePermission.OWNER_READ,
                PosixFilePermission.OWNER_WRITE,
                PosixFilePermission.OWNER_EXECUTE));
        if (!mode.isEmpty()) {
          throw new StartRefused(
              "Others may read or write the password file " + file + ". Run: chmod 600 " + file);
        }
      }
      String text = Files.readString(file).replaceFirst("\\r?\\n$", "");
      if (text.isEmpty()) {
        throw new StartRefused("The password file " + file + " is empty.");
      }
      return text;
    } catch (IOException e) {
      throw new StartRefused("The password file " + file + " cannot be read. Correct its name.");
    }
  }
}
