package rovnik.server.live;

import java.time.Duration;

/**
 * A window that stalled was closed and comes back by itself: what it watched goes on until it has
 * had the time to.
 */
final class Absence {
  static final Duration COMES_BACK = Duration.ofSeconds(10);

  private boolean awaited;
  private long sinceNanos;

  /** A window was closed because it stalled. */
  synchronized void begins(long nowNanos) {
    awaited = true;
    sinceNanos = nowNanos;
  }

  /** True once, when nobody came back in time. */
  synchronized boolean isOver(long nowNanos) {
    boolean over = awaited && nowNanos - sinceNanos > COMES_BACK.toNanos();
    awaited &= !over;
    return over;
  }
}
