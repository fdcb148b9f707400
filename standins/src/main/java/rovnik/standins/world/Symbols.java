package rovnik.standins.world;

/**
 * The buoy's QPSK stream with root-raised-cosine pulses, evaluated at any time; mean power 1. A
 * known word begins each frame, the rest is a test sequence; each symbol is a little off.
 */
final class Symbols {
  private static final int SPAN = 16;

  /** Symbols that are remembered, a power of two. */
  private static final int REMEMBERED = 1024;

  private static final boolean[] SEQUENCE = sequence();
  private static final int STEPS = 128;
  private final float[] pulse = new float[2 * SPAN * STEPS + 2];
  private final long seed;
  private final long[] known = new long[REMEMBERED];
  private final double[] valueI = new double[REMEMBERED];
  private final double[] valueQ = new double[REMEMBERED];

  Symbols(double rollOff, long seed) {
    this.seed = seed;
    java.util.Arrays.fill(known, Long.MIN_VALUE);
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
  static double rootRaisedCosine(double t, double a) {
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
      int place = symbol(k0 + j);
      re += g * valueI[place];
      im += g * valueQ[place];
    }
    out[0] = re * Math.sqrt(0.5);
    out[1] = im * Math.sqrt(0.5);
  }

  /** Where a symbol's value lies among those that are remembered. */
  private int symbol(long k) {
    int place = (int) (k & (REMEMBERED - 1));
    if (known[place] != k) {
      long chance = mix(k);
      double size = Truth.DATA_NOISE * Math.sqrt(-2 * Math.log(unit(chance >>> 40)));
      double angle = 2 * Math.PI * unit(chance & 0xFFFFFF);
      known[place] = k;
      valueI[place] = (bit(k, 0) ? 1 : -1) + size * Math.cos(angle);
      valueQ[place] = (bit(k, 1) ? 1 : -1) + size * Math.sin(angle);
    }
    return place;
  }

  /** 24 random bits as a number above 0, at most 1. */
  private static double unit(long bits) {
    return (bits + 1) / (double) (1 << 24);
  }

  /** The first or second bit of a symbol: of the word, or of the test sequence between words. */
  private static boolean bit(long symbol, int which) {
    long frame = Math.floorDiv(symbol, Truth.FRAME_SYMBOLS);
    int place = Math.floorMod(symbol, Truth.FRAME_SYMBOLS);
    int word = Truth.FRAME_WORD.length() / 2;
    if (place < word) {
      return Truth.FRAME_WORD.charAt(2 * place + which) == '1';
    }
    long payload = frame * (Truth.FRAME_SYMBOLS - word) + place - word;
    return SEQUENCE[(int) Math.floorMod(2 * payload + which, (long) SEQUENCE.length)];
  }

  /** Nine stages of which the fifth and the ninth are fed back, full of ones to begin with. */
  private static boolean[] sequence() {
    boolean[] out = new boolean[511];
    for (int i = 0; i < out.length; i++) {
      out[i] = i < 9 || out[i - 9] ^ out[i - 5];
    }
    return out;
  }

  private long mix(long k) {
    long z = (k + seed) * 0x9E3779B97F4A7C15L;
    z = (z ^ (z >>> 30)) * 0xBF58476D1CE4E5B9L;
    z = (z ^ (z >>> 27)) * 0x94D049BB133111EBL;
    return z ^ (z >>> 31);
  }
}
