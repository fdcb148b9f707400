package rovnik.core.time;

import java.util.Arrays;
import java.util.List;

/**
 * When bursts come: the interval that all starts are multiples of, by least squares over their
 * numbers, so that a missed one does not matter.
 */
final class BurstTimes {
  /** Starts that miss their places by more than this share of the interval have none. */
  private static final double STEADY = 0.1;

  private static final int FEWEST = 3;

  private final double[] starts;
  private final double[] intervals;
  private final double period;
  private final double scatter;
  private final double standard;
  private final int missed;
  private double[] off = {};

  BurstTimes(List<Burst> bursts) {
    int n = bursts.size();
    starts = bursts.stream().mapToDouble(Burst::startSeconds).toArray();
    intervals = new double[Math.max(0, n - 1)];
    for (int k = 0; k < intervals.length; k++) {
      intervals[k] = starts[k + 1] - starts[k];
    }
    if (n < FEWEST) {
      period = n == 2 ? intervals[0] : Double.NaN;
      scatter = Double.NaN;
      standard = n == 2 ? Math.hypot(bursts.get(0).edgeSeconds(), bursts.get(1).edgeSeconds()) : 0;
      missed = 0;
      return;
    }
    double typical = median(intervals);
    double[] number = new double[n];
    for (int k = 1; k < n; k++) {
      number[k] = number[k - 1] + Math.max(1, Math.rint(intervals[k - 1] / typical));
    }
    double meanNumber = Arrays.stream(number).sum() / n;
    double meanStart = Arrays.stream(starts).sum() / n;
    double moment = 0;
    double square = 0;
    for (int k = 0; k < n; k++) {
      moment += (number[k] - meanNumber) * (starts[k] - meanStart);
      square += (number[k] - meanNumber) * (number[k] - meanNumber);
    }
    period = moment / square;
    double rest = 0;
    double edges = 0;
    off = new double[n];
    for (int k = 0; k < n; k++) {
      off[k] = starts[k] - meanStart - period * (number[k] - meanNumber);
      rest += off[k] * off[k];
      edges += bursts.get(k).edgeSeconds() * bursts.get(k).edgeSeconds() / n;
    }
    scatter = Math.sqrt(rest / (n - 2));
    // Of few starts the scatter is not known well (JCGM 101:2008, 6.4.9.4); noise is there anyway.
    double few = n > 5 ? Math.sqrt((n - 2.0) / (n - 4.0)) : 3;
    standard = Math.max(few * scatter, Math.sqrt(edges)) / Math.sqrt(square);
    missed = (int) number[n - 1] - (n - 1);
  }

  private static double median(double[] x) {
    double[] sorted = x.clone();
    Arrays.sort(sorted);
    return sorted[sorted.length / 2];
  }

  double[] intervals() {
    return intervals;
  }

  /** Whether there is one interval. */
  boolean steady() {
    return starts.length >= FEWEST && scatter < STEADY * period;
  }

  /** How late each start is, seconds; none of fewer than three. */
  double[] late() {
    return off;
  }

  double[] starts() {
    return starts;
  }

  /** Seconds from burst to burst. */
  double period() {
    return period;
  }

  /** How far starts are off their places, rms. */
  double scatter() {
    return scatter;
  }

  /** Standard uncertainty of the interval. */
  double standard() {
    return standard;
  }

  /** Bursts that did not come, or were not seen. */
  int missed() {
    return missed;
  }
}
