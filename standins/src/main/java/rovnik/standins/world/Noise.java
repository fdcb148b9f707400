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
}
