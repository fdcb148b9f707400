package rovnik.server.config;

import java.nio.file.Path;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * Settings of the server itself.
 *
 * @param data folder of the database, recordings and user dialects
 * @param demo true to fill an empty database with the demo's bench and job
 * @param standinBasePort first port of the demo's stand-ins
 * @param password needed from everybody if it is not empty
 * @param framesPerSecond how often a window is sent the newest look at most, 1 to 60; fewer spare
 *     the processor where browser and server share one
 */
@ConfigurationProperties("rovnik")
public record ServerSettings(
    Path data, boolean demo, int standinBasePort, String password, int framesPerSecond) {
  public ServerSettings {
    if (framesPerSecond < 1 || framesPerSecond > 60) {
      throw new StartRefused(
          "rovnik.frames-per-second is " + framesPerSecond + "; use 1 to 60, such as 30.");
    }
  }
}
