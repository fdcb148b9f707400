package rovnik.core.time;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;

/**
 * Counts what comes: only what follows those before as a pattern wants it, and none within the
 * hold-off. Times are samples.
 */
final class TriggerTally {
  /** What is kept of those that counted. */
  private static final int MOST_KEPT = 200;

  private final double[] intervals;
  private final double within;
  private final boolean broken;
  private final double holdOff;
  private final Deque<TriggerEvent> counted = new ArrayDeque<>();

  /** Times between those that came last, the newest last. */
  private final double[] between;

  private double before = Double.NaN;
  private double last = Double.NEGATIVE_INFINITY;
  private long came;
  private long count;
  private long heldBack;
  private long otherInterval;

  /** Interval that was nearest to the wanted ones among those that did not count. */
  private double nearest = Double.NaN;

  TriggerTally(IntervalPattern pattern, double rateHz, double holdOff) {
    this.intervals = pattern.seconds().stream().mapToDouble(s -> s * rateHz).toArray();
    this.within = pattern.withinSeconds() * rateHz;
    this.broken = pattern.broken();
    this.holdOff = holdOff;
    this.between = new double[intervals.length];
    Arrays.fill(between, Double.NaN);
  }

  /** What was before is not known. */
  void gap() {
    before = Double.NaN;
    Arrays.fill(between, Double.NaN);
  }

  /**
   * One came.
   *
   * @param at where it began
   * @return it, if it counts; null if not
   */
  TriggerEvent came(double at, double farthest, float where) {
    came++;
    if (at > due()) {
      missed();
    }
    double interval = at - before;
    before = at;
    if (intervals.length > 0) {
      System.arraycopy(between, 1, between, 0, between.length - 1);
      between[between.length - 1] = interval;
      if (!follows(interval)) {
        otherInterval += Double.isNaN(interval) ? 0 : 1;
        return null;
      }
    }
    return count(at, interval, farthest, where);
  }

  private boolean follows(double interval) {
    if (broken) {
      boolean off = Math.abs(interval - intervals[0]) > within; // false after a gap
      nearest = off ? nearest : nearer(interval);
      return off;
    }
    boolean all = true;
    for (int i = 0; i < intervals.length; i++) {
      all &= Math.abs(between[i] - intervals[i]) <= within;
    }
    if (!all && intervals.length == 1) {
      nearest = nearer(interval);
    }
    return all;
  }

  /** Of what is waited for in a pattern the nearest to it, of what breaks one the farthest. */
  private double nearer(double interval) {
    if (Double.isNaN(nearest)) {
      return interval;
    }
    double now = Math.abs(interval - intervals[0]);
    double then = Math.abs(nearest - intervals[0]);
    return Double.isNaN(now) || (broken ? now <= then : now >= then) ? nearest : interval;
  }

  /** Where one that does not come is missed; infinite if none is. */
  double due() {
    return broken && !Double.isNaN(before)
        ? before + intervals[0] + within
        : Double.POSITIVE_INFINITY;
  }

  /** The next one did not come in time; it may come later. */
  TriggerEvent missed() {
    double at = due();
    before = Double.NaN;
    return count(at, Double.POSITIVE_INFINITY, Double.NaN, 0);
  }

  private TriggerEvent count(double at, double interval, double farthest, float where) {
    if (at - last < holdOff) {
      heldBack++;
      return null;
    }
    double since = Double.isInfinite(last) ? Double.NaN : at - last;
    last = at;
    TriggerEvent e = new TriggerEvent(++count, at, since, interval, Double.NaN, farthest, where);
    counted.addLast(e);
    if (counted.size() > MOST_KEPT) {
      counted.removeFirst();
    }
    return e;
  }

  /** More is known of the newest one. */
  TriggerEvent replaced(TriggerEvent old, TriggerEvent now) {
    if (counted.peekLast() == old) {
      counted.removeLast();
      counted.addLast(now);
    }
    return now;
  }

  /** Those that counted, the newest 200. */
  Deque<TriggerEvent> counted() {
    return counted;
  }

  long count() {
    return count;
  }

  /** All that came, whether it counted or not. */
  long came() {
    return came;
  }

  /** Came too soon after one that counted. */
  long heldBack() {
    return heldBack;
  }

  /** Came after another time than is waited for. */
  long otherInterval() {
    return otherInterval;
  }

  /** Samples of the interval that was nearest to what is waited for; NaN if there was none. */
  double nearestInterval() {
    return nearest;
  }
}
