package rovnik.standins.world;

import java.util.random.RandomGenerator;

/**
 * Gaussian numbers of variance 1, quick enough for a receiver's full rate: the sum of two places in
 * a long table of true ones, both places drawn anew every few thousand numbers.
 */
final class Noise {
  private static final int MASK = (1 << 18) - 1;
  private static final int RUN = 4096;
  private static final float HALF = (float) Math.sqrt(0.5);
  private final RandomGenerator random;
  private final float[] table = new float[MASK + 1];
  private int a;
  private int b;
  private int left;

  Noise(RandomGenerator random) {
    this.random = random;
    for (int i = 0; i < table.length; i++) {
      table[i] = (float) random.nextGaussian() * HALF;
    }
  }

  double next() {
    if (left-- == 0) {
      a = random.nextInt();
      b = random.nextInt();
      left = RUN - 1;
    }
    return table[a++ & MASK] + table[b++ & MASK];
  }

  /**
   * Adds numbers of a standard deviation to the first so many values, as next() would give them.
   */
  void add(double[] values, int count, double sigma) {
    int at = 0;
    while (at < count) {
      values[at++] += sigma * next();
      int run = Math.min(left, count - at);
      for (int k = 0; k < run; k++) {
        values[at + k] += sigma * (table[(a + k) & MASK] + table[(b + k) & MASK]);
      }
      a += run;
      b += run;
      left -= run;
      at += run;
    }
  }
}
