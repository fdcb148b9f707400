package rovnik.core.watch;

import java.util.Arrays;
import java.util.List;

/**
 * What a stretch of a watch came to: for each number that is followed its lowest and its highest
 * value with their times, so that nothing that stood out is lost when many points become one.
 */
public final class WatchStretch {
  private static final int LOW = 0;
  private static final int LOW_AT = 1;
  private static final int HIGH = 2;
  private static final int HIGH_AT = 3;
  private static final int SUM = 4;
  private static final int COUNT = 5;
  private static final int UNCERTAINTY = 6;
  private static final int FACTS = 7;

  private final long fromMillis;
  private final long toMillis;
  private final int points;
  private final double[] facts;

  private WatchStretch(long fromMillis, long toMillis, int points, double[] facts) {
    this.fromMillis = fromMillis;
    this.toMillis = toMillis;
    this.points = points;
    this.facts = facts;
  }

  /** One point. */
  public static WatchStretch of(WatchPoint p) {
    int n = p.low().length;
    double[] facts = new double[FACTS * n];
    for (int i = 0; i < n; i++) {
      boolean there = !Double.isNaN(p.last()[i]);
      facts[FACTS * i + LOW] = p.low()[i];
      facts[FACTS * i + LOW_AT] = p.atMillis();
      facts[FACTS * i + HIGH] = p.high()[i];
      facts[FACTS * i + HIGH_AT] = p.atMillis();
      facts[FACTS * i + SUM] = there ? p.last()[i] : 0;
      facts[FACTS * i + COUNT] = there ? 1 : 0;
      facts[FACTS * i + UNCERTAINTY] = p.uncertainty()[i];
    }
    return new WatchStretch(p.atMillis(), p.atMillis(), 1, facts);
  }

  /** Several points, in the order of time. */
  public static WatchStretch of(List<WatchPoint> points) {
    WatchStretch all = of(points.get(0));
    for (int i = 1; i < points.size(); i++) {
      all = all.and(of(points.get(i)));
    }
    return all;
  }

  /** This and a later one. */
  public WatchStretch and(WatchStretch later) {
    double[] both = facts.clone();
    double[] b = later.facts;
    for (int i = 0; i < both.length; i += FACTS) {
      if (!(both[i + LOW] <= b[i + LOW]) && !Double.isNaN(b[i + LOW])) {
        both[i + LOW] = b[i + LOW];
        both[i + LOW_AT] = b[i + LOW_AT];
      }
      if (!(both[i + HIGH] >= b[i + HIGH]) && !Double.isNaN(b[i + HIGH])) {
        both[i + HIGH] = b[i + HIGH];
        both[i + HIGH_AT] = b[i + HIGH_AT];
      }
      both[i + SUM] += b[i + SUM];
      both[i + COUNT] += b[i + COUNT];
      double u = both[i + UNCERTAINTY];
      both[i + UNCERTAINTY] =
          Double.isNaN(u) ? b[i + UNCERTAINTY] : Math.max(u, larger(b[i + UNCERTAINTY]));
    }
    return new WatchStretch(fromMillis, later.toMillis, points + later.points, both);
  }

  private static double larger(double u) {
    return Double.isNaN(u) ? 0 : u;
  }

  public long fromMillis() {
    return fromMillis;
  }

  public long toMillis() {
    return toMillis;
  }

  public int points() {
    return points;
  }

  /** NaN if no point has it. */
  public double low(int reading) {
    return facts[FACTS * reading + LOW];
  }

  public double high(int reading) {
    return facts[FACTS * reading + HIGH];
  }

  long lowAtMillis(int reading) {
    return (long) facts[FACTS * reading + LOW_AT];
  }

  long highAtMillis(int reading) {
    return (long) facts[FACTS * reading + HIGH_AT];
  }

  /** Mean of the last looks of all points, NaN if there are none. */
  double mean(int reading) {
    double count = facts[FACTS * reading + COUNT];
    return count == 0 ? Double.NaN : facts[FACTS * reading + SUM] / count;
  }

  boolean has(int reading) {
    return facts[FACTS * reading + COUNT] > 0;
  }

  /** Largest expanded uncertainty, NaN if it is not known. */
  double uncertainty(int reading) {
    return facts[FACTS * reading + UNCERTAINTY];
  }

  /** All of it as one row of numbers, its times first. */
  public double[] packed() {
    double[] out = new double[3 + facts.length];
    out[0] = fromMillis;
    out[1] = toMillis;
    out[2] = points;
    System.arraycopy(facts, 0, out, 3, facts.length);
    return out;
  }

  public static WatchStretch unpacked(double[] packed) {
    return new WatchStretch(
        (long) packed[0],
        (long) packed[1],
        (int) packed[2],
        Arrays.copyOfRange(packed, 3, packed.length));
  }
}
