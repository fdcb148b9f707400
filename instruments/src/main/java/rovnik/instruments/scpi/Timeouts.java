package rovnik.instruments.scpi;

import java.time.Duration;

/**
 * Time limits of a connection.
 *
 * @param connect for making the connection
 * @param read for any single wait for bytes
 * @param call for one whole exchange, however the bytes dribble
 */
public record Timeouts(Duration connect, Duration read, Duration call) {
  public static final Timeouts DEFAULT =
      new Timeouts(Duration.ofSeconds(2), Duration.ofSeconds(8), Duration.ofSeconds(20));

  /** The same with more time for a slow exchange, such as a long record. */
  public Timeouts withExtra(Duration extra) {
    return new Timeouts(connect, read.plus(extra), call.plus(extra));
  }
}
