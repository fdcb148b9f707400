package rovnik.standins.world;

/** A QPSK stream with root-raised-cosine pulses, evaluated at any time; mean power 1. */
final class Symbols {
  private static final int SPAN = 10;
  private static final int STEPS = 128;
  private final float[] pulse = new float[2 * SPAN * STEPS + 2];
  private final long seed;

  Symbols(double rollOff, long seed) {
    this.seed = seed;
    double energy = 0;
    for (int i = 0; i < pulse.length; i++) {
      double v = rootRaisedCosine((i - SPAN * STEPS) / (double) STEPS, rollOff);
      pulse[i] = (float) v;
      energy += v * v / STEPS;
    }
    for (int i = 0; i < pulse.length; i++) {
      pulse[i] /= (float) Math.sqrt(energy);
    }
  }

  /** Impulse response at t symbols, roll-off a; the closed form of the textbooks. */
  private static double rootRaisedCosine(double t, double a) {
    if (Math.abs(t) < 1e-9) {
      return 1 - a + 4 * a / Math.PI;
    }
    double x = 4 * a * t;
    if (Math.abs(Math.abs(x) - 1) < 1e-9) {
      double q = Math.PI / (4 * a);
      return a / Math.sqrt(2) * ((1 + 2 / Math.PI) * Math.sin(q) + (1 - 2 / Math.PI) * Math.cos(q));
    }
    return (Math.sin(Math.PI * t * (1 - a)) + x * Math.cos(Math.PI * t * (1 + a)))
        / (Math.PI * t * (1 - x * x));
  }

  /** Writes the baseband at {@code symbolTime} (in symbols) to out[0], out[1]. */
  void at(double symbolTime, double[] out) {
    long k0 = (long) Math.floor(symbolTime);
    double fraction = symbolTime - k0;
    double re = 0;
    double im = 0;
    for (int j = -SPAN + 1; j <= SPAN; j++) {
      double x = (fraction - j + SPAN) * STEPS;
      int i = (int) x;
      double g = pulse[i] + (x - i) * (pulse[i + 1] - pulse[i]);
      long bits = mix(k0 + j);
      re += (bits & 1) == 0 ? g : -g;
      im += (bits & 2) == 0 ? g : -g;
    }
    out[0] = re * Math.sqrt(0.5);
    out[1] = im * Math.sqrt(0.5);
  }

  private long mix(long k) {
    long z = (k + seed) * 0x9E3779B97F4A7C15L;
    z = (z ^ (z >>> 30)) * 0xBF58476D1CE4E5B9L;
    z = (z ^ (z >>> 27)) * 0x94D049BB133111EBL;
    return z ^ (z >>> 31);
  }
}
