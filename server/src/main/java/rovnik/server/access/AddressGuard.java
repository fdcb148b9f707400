package rovnik.server.access;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.context.ApplicationContextInitializer;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.core.Ordered;
import org.springframework.core.env.Environment;
import rovnik.server.config.StartRefused;

/**
 * Before anything is touched: whoever listens on a network has a password or a database that may
 * hold accounts ({@link Accounts} looks whether it does).
 */
public final class AddressGuard
    implements ApplicationContextInitializer<ConfigurableApplicationContext>, Ordered {
  @Override
  public int getOrder() {
    return Ordered.HIGHEST_PRECEDENCE;
  }

  @Override
  public void initialize(ConfigurableApplicationContext context) {
    Environment settings = context.getEnvironment();
    boolean password = Password.of(settings).isPresent();
    boolean fresh = settings.getProperty("rovnik.fresh", Boolean.class, false);
    Path database = Path.of(settings.getProperty("rovnik.data", ""), "rovnik.mv.db");
    if (!loopback(settings) && !password && (fresh || !Files.exists(database))) {
      throw new StartRefused(needsPassword(settings));
    }
  }

  static String address(Environment settings) {
    return settings.getProperty("server.address", "127.0.0.1");
  }

  static boolean loopback(Environment settings) {
    try {
      return InetAddress.getByName(address(settings)).isLoopbackAddress();
    } catch (UnknownHostException e) {
      throw new StartRefused(
          "There is no address "
              + address(settings)
              + " to listen on. Correct --listen, for example"
              + " 127.0.0.1.");
    }
  }

  static String needsPassword(Environment settings) {
    return "Listening on "
        + address(settings)
        + " needs a password or accounts. Give a password with --password-file or in"
        + " ROVNIK_PASSWORD, or listen on 127.0.0.1.";
  }
}
