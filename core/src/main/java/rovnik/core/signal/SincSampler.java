package rovnik.core.signal;

/**
 * Reads samples at places between them: twelve weights of a sinc under a Kaiser window (Kaiser
 * 1974), from a fine table. What is read must lie within a quarter of the sample rate to each side
 * of 0 Hz; errors are then 85 dB down or more.
 */
public final class SincSampler {
  /** Weights to each side. */
  public static final int REACH = 6;

  private static final int TAPS = 2 * REACH;
  static final int PLACES = 512;

  /** For 90 dB: 0.1102 (90 - 8.7). */
  private static final double BETA = 8.96;

  private static final double[] TABLE = table();

  /** From each weight to that of the next place. */
  private static final double[] STEPS = steps();

  private SincSampler() {}

  private static double[] table() {
    double[] t = new double[(PLACES + 1) * TAPS];
    for (int p = 0; p <= PLACES; p++) {
      double sum = 0;
      for (int k = 0; k < TAPS; k++) {
        double x = k - (REACH - 1) - (double) p / PLACES;
        double r = x / REACH;
        double window = Math.abs(r) >= 1 ? 0 : bessel(BETA * Math.sqrt(1 - r * r)) / bessel(BETA);
        double sinc = Math.abs(x) < 1e-12 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
        t[p * TAPS + k] = window * sinc;
        sum += window * sinc;
      }
      for (int k = 0; k < TAPS; k++) {
        t[p * TAPS + k] /= sum;
      }
    }
    return t;
  }

  private static double[] steps() {
    double[] s = new double[PLACES * TAPS];
    for (int i = 0; i < s.length; i++) {
      s[i] = TABLE[i + TAPS] - TABLE[i];
    }
    return s;
  }

  /** Modified Bessel function of order 0 by its series. */
  private static double bessel(double x) {
    double sum = 1;
    double term = 1;
    for (int k = 1; term > 1e-12 * sum; k++) {
      term *= x / 2 / k * (x / 2 / k);
      sum += term;
    }
    return sum;
  }

  /**
   * The value at a place.
   *
   * @param place in samples, {@link #REACH} or more from both ends
   */
  public static double at(float[] x, double place) {
    int whole = (int) Math.floor(place);
    double fine = (place - whole) * PLACES;
    int row = (int) fine;
    double share = fine - row;
    int t = row * TAPS;
    int first = whole - REACH + 1;
    double low = 0;
    double high = 0;
    for (int k = 0; k < TAPS; k++) {
      low += TABLE[t + k] * x[first + k];
      high += TABLE[t + TAPS + k] * x[first + k];
    }
    return low + share * (high - low);
  }

  /**
   * Two signals at one place: the weights are looked up once.
   *
   * @param out the first at 0, the second at 1
   */
  public static void both(float[] x, float[] y, double place, double[] out) {
    int whole = (int) Math.floor(place);
    double fine = (place - whole) * PLACES;
    int row = (int) fine;
    double share = fine - row;
    int t = row * TAPS;
    int first = whole - REACH + 1;
    // Two sums of each do not wait for each other.
    double a = 0;
    double b = 0;
    double c = 0;
    double d = 0;
    for (int k = 0; k < TAPS; k += 2) {
      double even = TABLE[t + k] + share * STEPS[t + k];
      double odd = TABLE[t + k + 1] + share * STEPS[t + k + 1];
      a += even * x[first + k];
      b += even * y[first + k];
      c += odd * x[first + k + 1];
      d += odd * y[first + k + 1];
    }
    a += c;
    b += d;
    out[0] = a;
    out[1] = b;
  }

  /**
   * Two signals at even places.
   *
   * @param samples that there are; places too near to an end are read where the reach allows
   * @param first place, in samples
   * @param outX of the first signal; as many places as this is long
   * @param outY of the second
   */
  public static void row(
      float[] x, float[] y, int samples, double first, double step, double[] outX, double[] outY) {
    SincRow.fastest().read(x, y, samples, first, step, outX, outY);
  }

  /** The weights in rows of {@link SincRow#WIDTH}, or what they change by to the next place. */
  static float[] wide(boolean steps) {
    float[] out = new float[PLACES * SincRow.WIDTH];
    for (int p = 0; p < PLACES; p++) {
      for (int k = 0; k < TAPS; k++) {
        out[p * SincRow.WIDTH + k] = (float) (steps ? STEPS : TABLE)[p * TAPS + k];
      }
    }
    return out;
  }
}
