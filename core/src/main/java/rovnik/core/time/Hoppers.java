package rovnik.core.time;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * Who hops: hops that stay alike long belong to one, the most frequent length first. Those that
 * another ran into, or that the look cut off, are of nobody.
 */
final class Hoppers {
  /** Hops whose lengths are within this share of each other are alike. */
  private static final double ALIKE = 0.06;

  /** Fewer are no hopper, of all and as a share of all. */
  private static final int FEWEST = 3;

  private static final double LEAST_SHARE = 0.08;
  private static final int MOST = 6;

  /** More that are there at the same time are more than chance brings about. */
  private static final double AT_ONCE = 0.2;

  /**
   * One of them.
   *
   * @param name "A" for the one with the most hops
   * @param hops by look and start
   */
  record Hopper(String name, List<Hop> hops) {
    double[] lengths() {
      return hops.stream().mapToDouble(Hop::seconds).toArray();
    }

    /** Whether there are two or more that stay alike long. */
    boolean several() {
      int at = 0;
      for (int i = 1; i < hops.size(); i++) {
        Hop a = hops.get(i - 1);
        Hop b = hops.get(i);
        at += a.look() == b.look() && b.startSeconds() < a.endSeconds() ? 1 : 0;
      }
      return at > AT_ONCE * hops.size();
    }

    /** From one hop to the next, of all looks together. */
    HopInterval interval(double edgeSeconds) {
      return HopInterval.of(hops, edgeSeconds);
    }
  }

  private Hoppers() {}

  static List<Hopper> among(List<Hop> all) {
    List<Hop> left = new ArrayList<>(all.stream().filter(Hop::whole).toList());
    int whole = left.size();
    List<Hopper> found = new ArrayList<>();
    while (found.size() < MOST && left.size() >= FEWEST) {
      left.sort(Comparator.comparingDouble(Hop::seconds));
      int from = 0;
      int to = 0;
      for (int i = 0, k = 0; i < left.size(); i++) {
        while (k < left.size()
            && left.get(k).seconds() <= left.get(i).seconds() * (1 + 2 * ALIKE)) {
          k++;
        }
        if (k - i > to - from) {
          from = i;
          to = k;
        }
      }
      if (to - from < Math.max(FEWEST, LEAST_SHARE * whole)) {
        break;
      }
      // Around the middle of the densest.
      double middle = left.get((from + to) / 2).seconds();
      List<Hop> own = new ArrayList<>();
      for (Hop h : left) {
        if (Math.abs(h.seconds() - middle) <= ALIKE * middle) {
          own.add(h);
        }
      }
      left.removeAll(own);
      own.sort(Comparator.comparingInt(Hop::look).thenComparingDouble(Hop::startSeconds));
      found.add(new Hopper(String.valueOf((char) ('A' + found.size())), List.copyOf(own)));
    }
    return found;
  }
}
