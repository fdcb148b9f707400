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

  /** The next one of a hopper has its power within this, and begins within this part of a stay. */
  private static final double SAME = 2;

  private static final double SOON = 0.6;

  private static final Comparator<Hop> BY_TIME =
      Comparator.comparingInt(Hop::look).thenComparingDouble(Hop::startSeconds);

  /** More that are there at the same time are more than chance brings about. */
  private static final double AT_ONCE = 0.2;

  /**
   * One of them.
   *
   * @param name "A" for the one with the most hops
   * @param hops by look and start
   * @param next those that the end of a look cut off, but that follow one of these as the next does
   */
  record Hopper(String name, List<Hop> hops, List<Hop> next) {
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
      HopInterval whole = HopInterval.of(hops, edgeSeconds);
      if (!Double.isNaN(whole.seconds())) {
        return whole;
      }
      // Looks of hardly two hops: what the look cut off has a beginning, too.
      List<Hop> more = new ArrayList<>(hops);
      more.addAll(next);
      more.sort(BY_TIME);
      return HopInterval.of(more, edgeSeconds);
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
      own.sort(BY_TIME);
      found.add(
          new Hopper(
              String.valueOf((char) ('A' + found.size())),
              List.copyOf(own),
              next(own, all, middle)));
    }
    return found;
  }

  private static List<Hop> next(List<Hop> own, List<Hop> all, double dwell) {
    double[] powers = own.stream().mapToDouble(Hop::power).toArray();
    double usual = HopTracker.median(powers);
    return all.stream()
        .filter(h -> h.begun() && !h.whole())
        .filter(h -> h.power() < SAME * usual && h.power() > usual / SAME)
        .filter(
            h ->
                own.stream()
                    .anyMatch(
                        o ->
                            o.look() == h.look()
                                && h.startSeconds() > o.endSeconds() - ALIKE * dwell
                                && h.startSeconds() < o.endSeconds() + SOON * dwell))
        .toList();
  }
}
