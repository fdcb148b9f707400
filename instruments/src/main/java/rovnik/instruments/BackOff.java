package rovnik.instruments;

import java.time.Duration;

/** Waiting times between attempts to reconnect: doubling from 0.25 s to 4 s. */
public final class BackOff {
  private static final Duration FIRST = Duration.ofMillis(250);
  private static final Duration LONGEST = Duration.ofSeconds(4);
  private Duration next = FIRST;

  /** The wait before the next attempt. */
  public Duration next() {
    Duration wait = next;
    next = next.multipliedBy(2).compareTo(LONGEST) > 0 ? LONGEST : next.multipliedBy(2);
    return wait;
  }

  /** After a success. */
  public void reset() {
    next = FIRST;
  }
}
