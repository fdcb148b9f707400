package rovnik.core.time;

import java.util.Arrays;
import java.util.List;

/**
 * The interval that all starts of a hopper keep to: one slope through the starts of all looks over
 * their numbers, by least squares, each look with a beginning of its own.
 *
 * @param seconds from hop to hop; NaN if they keep to none
 * @param standard its standard uncertainty, seconds
 */
record HopInterval(double seconds, double standard) {
  private static final HopInterval NONE = new HopInterval(Double.NaN, Double.NaN);

  /** Starts that miss their places by more than this share of the interval keep to none. */
  private static final double STEADY = 0.1;

  /** From one start to the next passes at least this share of a hop. */
  private static final double WHOLE = 0.95;

  /** A start that misses its place by so many times as much as the usual one is another's edge. */
  private static final double ODD = 6;

  /**
   * Fits it.
   *
   * @param hops by look and start
   * @param edgeSeconds to which an edge is known at best
   */
  static HopInterval of(List<Hop> hops, double edgeSeconds) {
    double typical = typical(hops);
    if (Double.isNaN(typical)) {
      return NONE;
    }
    boolean[] counts = new boolean[hops.size()];
    Arrays.fill(counts, true);
    HopInterval all = fit(hops, counts, typical, edgeSeconds, new double[hops.size()]);
    if (Double.isNaN(all.seconds)) {
      return NONE;
    }
    double[] off = new double[hops.size()];
    fit(hops, counts, all.seconds, edgeSeconds, off);
    double[] size = Arrays.stream(off).map(Math::abs).sorted().toArray();
    double usual = Math.max(size[size.length / 2], edgeSeconds / ODD);
    for (int i = 0; i < off.length; i++) {
      counts[i] = Math.abs(off[i]) <= ODD * usual;
    }
    return fit(hops, counts, all.seconds, edgeSeconds, off);
  }

  /** Half of all neighbours are nearer to each other. */
  private static double typical(List<Hop> hops) {
    double[] apart = new double[hops.size()];
    int n = 0;
    for (int i = 1; i < hops.size(); i++) {
      Hop before = hops.get(i - 1);
      double since = hops.get(i).startSeconds() - before.startSeconds();
      // None begins while it is still there: such a one is another's that happens to be as long.
      if (hops.get(i).look() == before.look() && since > WHOLE * before.seconds()) {
        apart[n++] = since;
      }
    }
    if (n < 2) {
      return Double.NaN;
    }
    Arrays.sort(apart, 0, n);
    // Where every other one is missing, the shortest quarter is still that of neighbours.
    return apart[n / 4];
  }

  /**
   * One fit.
   *
   * @param off how far each start is off its place, written
   */
  private static HopInterval fit(
      List<Hop> hops, boolean[] counts, double guess, double edgeSeconds, double[] off) {
    int n = hops.size();
    double[] number = new double[n];
    double moment = 0;
    double square = 0;
    int free = -1;
    int used = 0;
    for (int from = 0; from < n; ) {
      int to = from;
      double numbers = 0;
      double starts = 0;
      int here = 0;
      while (to < n && hops.get(to).look() == hops.get(from).look()) {
        if (to > from) {
          // From neighbour to neighbour: a guess that is a little off does not add up.
          double since = hops.get(to).startSeconds() - hops.get(to - 1).startSeconds();
          number[to] = number[to - 1] + Math.rint(since / guess);
        }
        numbers += counts[to] ? number[to] : 0;
        starts += counts[to] ? hops.get(to).startSeconds() : 0;
        here += counts[to] ? 1 : 0;
        to++;
      }
      for (int i = from; i < to && here > 0; i++) {
        double x = number[i] - numbers / here;
        double y = hops.get(i).startSeconds() - starts / here;
        moment += counts[i] ? x * y : 0;
        square += counts[i] ? x * x : 0;
        number[i] = x;
        off[i] = y;
      }
      used += here;
      free += here > 0 ? here - 1 : 0;
      from = to;
    }
    if (square == 0 || free < 1) {
      return NONE;
    }
    double interval = moment / square;
    double rest = 0;
    for (int i = 0; i < n; i++) {
      off[i] -= interval * number[i];
      rest += counts[i] ? off[i] * off[i] : 0;
    }
    double scatter = Math.sqrt(rest / free);
    if (scatter > STEADY * interval || used < 3) {
      return NONE;
    }
    // Of few starts the scatter is not known well (JCGM 101:2008, 6.4.9.4).
    double few = free > 2 ? Math.sqrt(free / (free - 2.0)) : 3;
    return new HopInterval(interval, Math.max(few * scatter, edgeSeconds) / Math.sqrt(square));
  }
}
