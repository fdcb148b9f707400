package rovnik.core.network;

import java.util.LinkedHashMap;
import java.util.Map;
import rovnik.core.signal.DoubleTransforms;

/**
 * A gate with soft edges between two times, and what makes its loss at the band's edges good.
 * Sweeps come again under the same gate, so the last few are kept.
 */
final class TimeGate {
  private static final int KEPT = 12;

  private record Key(int points, double stepHz, double from, double to) {}

  private static final Map<Key, TimeGate> LAST =
      new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Key, TimeGate> eldest) {
          return size() > KEPT;
        }
      };

  /** One weight a time from 0 to the range; not to be changed. */
  final double[] weights;

  /** What each frequency is multiplied by, interleaved; not to be changed. */
  final double[] restore;

  private TimeGate(Key key) {
    int n = Integer.highestOneBit(2 * key.points - 1) << 1;
    weights = weights(n, key);
    restore = left(weights, key);
    for (int i = 0; i < restore.length; i += 2) {
      double square = restore[i] * restore[i] + restore[i + 1] * restore[i + 1];
      restore[i] = restore[i] / square;
      restore[i + 1] = -restore[i + 1] / square;
    }
  }

  static TimeGate of(int points, double stepHz, double fromSeconds, double toSeconds) {
    Key key = new Key(points, stepHz, fromSeconds, toSeconds);
    synchronized (LAST) {
      return LAST.computeIfAbsent(key, TimeGate::new);
    }
  }

  /**
   * What the gate leaves of a reflection of 1 in its middle, as a complex share at each frequency.
   * A gate over the times is a convolution over the frequencies, and with a reflection alike at all
   * of them that is a sum of the gate's own transform, over the frequencies there are.
   */
  private static double[] left(double[] gate, Key key) {
    int points = key.points;
    double middle = (key.from + key.to) / 2;
    double[] g = gate.clone();
    DoubleTransforms.of(g.length).realForward(g);
    double[] sum = new double[2 * points];
    for (int m = 0; m < points; m++) {
      double angle = 2 * Math.PI * m * key.stepHz * middle;
      double cos = Math.cos(angle) / g.length;
      double sin = Math.sin(angle) / g.length;
      double gRe = g[2 * m];
      double gIm = m == 0 ? 0 : g[2 * m + 1];
      sum[2 * m] = (m == 0 ? 0 : sum[2 * m - 2]) + gRe * cos - gIm * sin;
      sum[2 * m + 1] = (m == 0 ? 0 : sum[2 * m - 1]) + gRe * sin + gIm * cos;
    }
    double[] left = new double[2 * points];
    for (int k = 0; k < points; k++) {
      int other = points - 1 - k;
      left[2 * k] = sum[2 * k] + sum[2 * other] - sum[0];
      left[2 * k + 1] = sum[2 * k + 1] - sum[2 * other + 1];
    }
    return left;
  }

  /** A gate over n times from 0 to the range, which it may run out of. */
  private static double[] weights(int n, Key key) {
    double step = 1 / (n * key.stepHz);
    double edge = Math.min((key.to - key.from) / 4, 1.5 / (key.points * key.stepHz));
    double[] gate = new double[n];
    for (int i = (int) Math.floor((key.from - edge) / step); i <= (key.to + edge) / step; i++) {
      int at = Math.floorMod(i, n);
      gate[at] = Math.max(gate[at], weight(i * step, key.from, key.to, edge));
    }
    return gate;
  }

  private static double weight(double t, double from, double to, double edge) {
    double inside = Math.min(t - from, to - t);
    if (inside <= -edge) {
      return 0;
    }
    return inside >= edge ? 1 : 0.5 * (1 + Math.sin(Math.PI / 2 * inside / edge));
  }
}
