package rovnik.server.config;

import java.nio.file.Path;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * Settings of the server itself.
 *
 * @param data folder of the database, recordings and user dialects
 * @param demo true to fill an empty database with the demo's bench and job
 * @param standinBasePort first port of the demo's stand-ins
 * @param hosts further names that the server is asked for by
 * @param instrumentAddresses addresses, names or networks (192.168.1.0/24) that instruments may be
 *     at; any if it is empty
 * @param keepFreeBytes what is left free on the disk: below it nothing more is kept
 * @param framesPerSecond how often a window is sent the newest look at most, 1 to 60; fewer spare
 *     the processor where browser and server share one
 */
@ConfigurationProperties("rovnik")
public record ServerSettings(
    Path data,
    boolean demo,
    int standinBasePort,
    List<String> hosts,
    List<String> instrumentAddresses,
    long keepFreeBytes,
    int framesPerSecond) {
  public ServerSettings {
    if (framesPerSecond < 1 || framesPerSecond > 60) {
      throw new StartRefused(
          "rovnik.frames-per-second is " + framesPerSecond + "; use 1 to 60, such as 30.");
    }
  }
}
