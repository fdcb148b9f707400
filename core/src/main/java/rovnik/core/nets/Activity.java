package rovnik.core.nets;

import java.util.Arrays;
import rovnik.core.signal.VoltageRecord;

/**
 * When a net does something. The states are the two most frequent voltages of the lower and the
 * upper half, and an edge is where half way between them is passed (IEEE Std 181: histogram method
 * and 50 % reference level). Edges that follow one another without a rest are one activity.
 */
final class Activity {
  /** Voltages are counted in so many steps. */
  private static final int STEPS = 256;

  /** Steps to each side of the most frequent one that belong to a state. */
  private static final int STATE = 2;

  /** The states stand apart by so many times the noise on the lower one. */
  private static final double OVER_NOISE = 8;

  /** Share of the way between the states that an edge goes at least. */
  private static final double GOES = 0.7;

  /** A net with more edges than this is not looked at to its end. */
  private static final int MOST_EDGES = 2_000_000;

  /** What happens at an instant that an emission may be in step with. */
  enum Event {
    RISING("its rising edge"),
    FALLING("its falling edge"),
    REST("the end of its activity");

    private final String words;

    Event(String words) {
      this.words = words;
    }

    String words() {
      return words;
    }
  }

  private final double low;
  private final double high;
  private final boolean edges;
  private final double fromSeconds;
  private final double toSeconds;
  private final double[][] at = {{}, {}, {}};
  private long edgeCount;

  /**
   * @param restSeconds edges that follow no later belong to the same activity
   */
  Activity(VoltageRecord record, double restSeconds) {
    float[] v = record.volts();
    this.fromSeconds = record.startSeconds();
    this.toSeconds = record.endSeconds();
    float least = Float.POSITIVE_INFINITY;
    float most = Float.NEGATIVE_INFINITY;
    for (float x : v) {
      least = Math.min(least, x);
      most = Math.max(most, x);
    }
    double step = (most - least) / (double) STEPS;
    if (v.length == 0 || !(step > 0)) {
      this.low = v.length == 0 ? 0 : least;
      this.high = low;
      this.edges = false;
      return;
    }
    int[] count = new int[STEPS + 1];
    for (float x : v) {
      count[(int) ((x - least) / step)]++;
    }
    double lower = state(v, least, step, most(count, 0, STEPS / 2));
    double upper = state(v, least, step, most(count, STEPS / 2, STEPS + 1));
    this.edges = upper - lower > OVER_NOISE * noise(v, (lower + upper) / 2, lower);
    this.low = edges ? lower : mean(v);
    this.high = edges ? upper : low;
    if (edges) {
      find(v, record.sampleRateHz(), restSeconds);
    }
  }

  private static int most(int[] count, int from, int to) {
    int best = from;
    for (int i = from; i < to; i++) {
      best = count[i] > count[best] ? i : best;
    }
    return best;
  }

  /** Mean of the voltages around the most frequent one. */
  private static double state(float[] v, float least, double step, int most) {
    double from = least + step * (most - STATE);
    double to = least + step * (most + 1 + STATE);
    double sum = 0;
    long n = 0;
    for (float x : v) {
      if (x >= from && x <= to) {
        sum += x;
        n++;
      }
    }
    return sum / n;
  }

  private static double mean(float[] v) {
    double sum = 0;
    for (float x : v) {
      sum += x;
    }
    return sum / v.length;
  }

  private static double noise(float[] v, double below, double around) {
    double sum = 0;
    long n = 0;
    for (float x : v) {
      if (x < below) {
        sum += (x - around) * (x - around);
        n++;
      }
    }
    return n == 0 ? 0 : Math.sqrt(sum / n);
  }

  private void find(float[] v, double rateHz, double restSeconds) {
    double half = (low + high) / 2;
    float up = (float) (low + GOES * (high - low));
    float down = (float) (high - GOES * (high - low));
    Times[] times = {new Times(), new Times(), new Times()};
    boolean above = v[0] > half;
    double rest = restSeconds * rateHz;
    // What begins before the record is not known to begin.
    double last = Double.NaN;
    int passed = 0; // newest sample on the other side of half way
    for (int n = 1; n < v.length && edgeCount < MOST_EDGES; n++) {
      if (above ? v[n] > half : v[n] < half) {
        passed = n;
      } else if (above ? v[n] < down : v[n] > up) {
        double edge = passed + (half - v[passed]) / (v[passed + 1] - v[passed]);
        boolean rested = Double.isNaN(last) ? edge > rest : edge - last > rest;
        if (rested) {
          times[(above ? Event.FALLING : Event.RISING).ordinal()].add(edge);
          if (!Double.isNaN(last)) {
            times[Event.REST.ordinal()].add(last);
          }
        }
        last = edge;
        above = !above;
        passed = n;
        edgeCount++;
      }
    }
    if (v.length - last > rest) {
      times[Event.REST.ordinal()].add(last);
    }
    for (Event e : Event.values()) {
      at[e.ordinal()] = times[e.ordinal()].seconds(rateHz, fromSeconds);
    }
  }

  /** True if the net moves at all. */
  boolean moves() {
    return edges && edgeCount > 0;
  }

  /** True if it moves without ever resting. */
  boolean restless() {
    return moves() && Arrays.stream(at).allMatch(a -> a.length == 0);
  }

  double lowVolts() {
    return low;
  }

  double highVolts() {
    return high;
  }

  long edgeCount() {
    return edgeCount;
  }

  double fromSeconds() {
    return fromSeconds;
  }

  double toSeconds() {
    return toSeconds;
  }

  /** Instants of an event, in order, as the record's time counts. */
  double[] at(Event event) {
    return at[event.ordinal()];
  }

  /** Instants as they come. */
  private static final class Times {
    private double[] at = new double[64];
    private int count;

    void add(double sample) {
      if (count == at.length) {
        at = Arrays.copyOf(at, 2 * count);
      }
      at[count++] = sample;
    }

    double[] seconds(double rateHz, double startSeconds) {
      double[] out = new double[count];
      for (int i = 0; i < count; i++) {
        out[i] = startSeconds + at[i] / rateHz;
      }
      return out;
    }
  }
}
