package rovnik.core.network;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import rovnik.core.network.TimeDomain.Shape;

/**
 * A window laid over so many frequencies, and how wide it leaves one reflection. Sweeps come again
 * with the same number of points, so the last few windows are kept.
 */
final class TimeWindow {
  /** Times finer than the resolution by this. */
  private static final int FINER = 3;

  private static final int KEPT = 12;

  private record Key(int points, Shape shape, boolean fromZero) {}

  private static final Map<Key, TimeWindow> LAST =
      new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Key, TimeWindow> eldest) {
          return size() > KEPT;
        }
      };

  /** One weight a frequency; not to be changed. */
  final double[] weights;

  /** Of all weights, those of the mirrored half too. */
  final double sum;

  /** Of the transform: the times between 0 and the range. */
  final int length;

  /** Times from half the height of a lone reflection to half its height again. */
  final double widthSteps;

  /** Times from 10 to 90 % of a lone step; 0 for a window that does not begin at zero. */
  final double riseSteps;

  private final boolean fromZero;

  private TimeWindow(Key key) {
    fromZero = key.fromZero;
    int points = key.points;
    int whole = fromZero ? 2 * points - 1 : points;
    double[] all = key.shape.samples(whole);
    weights = fromZero ? Arrays.copyOfRange(all, points - 1, whole) : all;
    sum = Arrays.stream(all).sum();
    length = Integer.highestOneBit(whole * FINER - 1) << 1;
    widthSteps = widthAtHalf();
    riseSteps = fromZero ? rise() : 0;
  }

  /**
   * The window over {@code points} frequencies.
   *
   * @param fromZero true if they begin at zero and are mirrored below it
   */
  static TimeWindow of(int points, Shape shape, boolean fromZero) {
    Key key = new Key(points, shape, fromZero);
    synchronized (LAST) {
      return LAST.computeIfAbsent(key, TimeWindow::new);
    }
  }

  /** Height of a lone reflection of 1 that stands at 0, so many times beside its middle. */
  private double lone(int times) {
    double first = fromZero ? 0 : -(weights.length - 1) / 2.0;
    // cos((k + 1) a) = 2 cos(a) cos(k a) - cos((k - 1) a)
    double angle = 2 * Math.PI * times / length;
    double twice = 2 * Math.cos(angle);
    double before = Math.cos((first - 1) * angle);
    double here = Math.cos(first * angle);
    double v = 0;
    for (double weight : weights) {
      v += weight * here;
      double next = twice * here - before;
      before = here;
      here = next;
    }
    return (fromZero ? 2 * v - weights[0] : v) / sum;
  }

  private double widthAtHalf() {
    double before = 1;
    for (int i = 1; ; i++) {
      double here = lone(i);
      if (here <= 0.5) {
        return 2 * (i - 1 + (before - 0.5) / (before - here));
      }
      before = here;
    }
  }

  private double rise() {
    // The pulse is even: 10 and 90 % lie as far before as behind its middle.
    double share = sum / length;
    double inside = share / 2;
    int i = 0;
    while (inside < 0.4) {
      inside += share * lone(++i);
    }
    return 2.0 * i;
  }
}
