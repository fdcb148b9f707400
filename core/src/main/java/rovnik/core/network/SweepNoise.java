package rovnik.core.network;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;

/**
 * The noise of sweeps, as they show it themselves: how far one differs from the one before. The
 * difference of two complex values of noise s (a standard deviation of each part) has a squared
 * size with mean 4 s^2 and median 4 s^2 ln 2 (it is exponential); the median over the points leaves
 * out what else has changed at some. Of the newest differences the middle one counts, so that a
 * part that was touched says little.
 */
public final class SweepNoise {
  private static final int MOST = 9;

  /** Fewer points say too little. */
  private static final int LEAST_POINTS = 11;

  private final Deque<double[]> newest = new ArrayDeque<>();
  private NetworkData before;

  /** Begins anew: another sweep, another calibration. */
  public void forget() {
    newest.clear();
    before = null;
  }

  public void take(NetworkData n) {
    NetworkData b = before;
    before = n;
    if (b == null
        || n.points() < LEAST_POINTS
        || b.ports() != n.ports()
        || !Arrays.equals(b.frequencyHz(), n.frequencyHz())) {
      newest.clear();
      return;
    }
    int parameters = n.ports() * n.ports();
    double[] sigma = new double[parameters];
    double[] squares = new double[n.points()];
    for (int k = 0; k < parameters; k++) {
      for (int p = 0; p < n.points(); p++) {
        int at = 2 * (p * parameters + k);
        double re = n.s()[at] - b.s()[at];
        double im = n.s()[at + 1] - b.s()[at + 1];
        squares[p] = re * re + im * im;
      }
      Arrays.sort(squares);
      sigma[k] = Math.sqrt(squares[n.points() / 2] / (4 * Math.log(2)));
    }
    newest.addLast(sigma);
    if (newest.size() > MOST) {
      newest.removeFirst();
    }
  }

  /** Standard deviation of each part of S11, S12, S21, S22 and so on; empty after one sweep. */
  public List<Double> sigma() {
    List<Double> all = new ArrayList<>();
    if (!newest.isEmpty()) {
      for (int k = 0; k < newest.getFirst().length; k++) {
        int parameter = k;
        double[] sorted = newest.stream().mapToDouble(d -> d[parameter]).sorted().toArray();
        all.add(sorted[(sorted.length - 1) / 2]);
      }
    }
    return all;
  }
}
