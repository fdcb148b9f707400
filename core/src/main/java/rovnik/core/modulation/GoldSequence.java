package rovnik.core.modulation;

/**
 * The pseudorandom sequence of length 31 of 3GPP TS 36.211 (7.2) and TS 38.211 (5.2.1), from
 * memory: two registers, x1(n + 31) = x1(n + 3) + x1(n) and x2(n + 31) = x2(n + 3) + x2(n + 2) +
 * x2(n + 1) + x2(n), whose sum is taken from the 1,600th bit on.
 */
public final class GoldSequence {
  private static final int ORDER = 31;
  private static final int SKIPPED = 1600;

  private GoldSequence() {}

  /**
   * Some of its bits.
   *
   * @param init the second register's first bits, the lowest first; the first one's are 1, 0, 0,
   *     ...
   * @param from number of the first bit
   */
  public static boolean[] bits(long init, int from, int count) {
    long x1 = 1;
    long x2 = init;
    boolean[] out = new boolean[count];
    for (int n = 0; n < SKIPPED + from + count; n++) {
      if (n >= SKIPPED + from) {
        out[n - SKIPPED - from] = ((x1 ^ x2) & 1) != 0;
      }
      x1 = x1 >> 1 | ((x1 >> 3 ^ x1) & 1) << ORDER - 1;
      x2 = x2 >> 1 | ((x2 >> 3 ^ x2 >> 2 ^ x2 >> 1 ^ x2) & 1) << ORDER - 1;
    }
    return out;
  }
}
