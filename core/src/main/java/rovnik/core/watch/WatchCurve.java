package rovnik.core.watch;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.result.Axis;
import rovnik.core.units.Moment;

/**
 * One number over time, in no more points than can be drawn. Where many become one column, its
 * lowest and its highest stay, each at its own time: a line through them shows all that stands out.
 */
final class WatchCurve {
  private double[] x;
  private double[] y;
  private int size;

  /**
   * @param stretches in the order of time
   * @param gaps in which nothing was seen: no line is drawn across
   * @param columns that lowest and highest stay of, at most
   */
  WatchCurve(int reading, List<WatchStretch> stretches, List<WatchGap> gaps, int columns) {
    x = new double[2 * Math.min(columns, stretches.size()) + 16];
    y = new double[x.length];
    WatchStretch before = null;
    for (WatchStretch s : thinned(stretches, gaps, columns)) {
      if (before != null && (between(before, s, gaps) || !s.has(reading))) {
        add(before.toMillis(), Double.NaN);
      }
      if (s.has(reading)) {
        boolean falls =
            s.highAtMillis(reading) == s.lowAtMillis(reading)
                ? nearerToHigh(s.low(reading), s.high(reading))
                : s.highAtMillis(reading) < s.lowAtMillis(reading);
        long first = falls ? s.highAtMillis(reading) : s.lowAtMillis(reading);
        long second = falls ? s.lowAtMillis(reading) : s.highAtMillis(reading);
        add(first, falls ? s.high(reading) : s.low(reading));
        if (s.high(reading) != s.low(reading)) {
          add(second, falls ? s.low(reading) : s.high(reading));
        }
      }
      before = s;
    }
  }

  /** Of one point with two values the nearer to the last is drawn first: a band, not a saw. */
  private boolean nearerToHigh(double low, double high) {
    return size > 0 && y[size - 1] > (low + high) / 2;
  }

  private void add(long millis, double value) {
    if (size == x.length) {
      x = Arrays.copyOf(x, 2 * size);
      y = Arrays.copyOf(y, 2 * size);
    }
    x[size] = millis / 1000.0;
    y[size] = value;
    size++;
  }

  Axis axis() {
    return Axis.own("Clock", Moment.UNIT, Arrays.copyOf(x, size));
  }

  double[] values() {
    return Arrays.copyOf(y, size);
  }

  /** So many columns of equal time at most; none reaches across a gap. */
  static List<WatchStretch> thinned(
      List<WatchStretch> stretches, List<WatchGap> gaps, int columns) {
    if (stretches.size() <= columns) {
      return stretches;
    }
    long from = stretches.get(0).fromMillis();
    double width = (stretches.get(stretches.size() - 1).fromMillis() - from + 1) / (double) columns;
    List<WatchStretch> out = new ArrayList<>();
    WatchStretch column = null;
    long of = -1;
    for (WatchStretch s : stretches) {
      long place = (long) ((s.fromMillis() - from) / width);
      if (column != null && (place != of || between(column, s, gaps))) {
        out.add(column);
        column = null;
      }
      column = column == null ? s : column.and(s);
      of = place;
    }
    out.add(column);
    return out;
  }

  private static boolean between(WatchStretch a, WatchStretch b, List<WatchGap> gaps) {
    for (WatchGap g : gaps) {
      if (g.fromMillis() >= a.fromMillis()
          && g.fromMillis() < b.toMillis()
          && g.toMillis() > a.toMillis()) {
        return true;
      }
    }
    return false;
  }
}
