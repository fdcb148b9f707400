package rovnik.core.units;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** How a moment is written: with its date, in UTC. */
public final class Moment {
  /** Unit of numbers that are seconds since 1970-01-01 00:00 UTC. */
  public static final String UNIT = "UTC";

  private static final DateTimeFormatter CLOCK =
      DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss", Locale.ROOT).withZone(ZoneOffset.UTC);

  private Moment() {}

  /** "2026-09-21 14:05:10". */
  public static String words(double seconds) {
    return ofMillis(Math.round(1000 * seconds));
  }

  /** The same of milliseconds since 1970. */
  public static String ofMillis(long millis) {
    return CLOCK.format(Instant.ofEpochMilli(millis));
  }
}
