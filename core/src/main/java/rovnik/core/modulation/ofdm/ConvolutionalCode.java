package rovnik.core.modulation.ofdm;

import java.util.Arrays;

/**
 * The convolutional code of constraint length 7 with generators 133 and 171 (octal), with bits left
 * out for higher rates: IEEE 802.11-2020, 17.3.5.6. Read by Viterbi's algorithm from bits with how
 * sure they are.
 */
final class ConvolutionalCode {
  /** Zeros at the end bring the coder back to its beginning. */
  static final int TAIL_BITS = 6;

  private static final int STATES = 64;
  private static final int A = 0b1011011; // 133, the newest bit highest
  private static final int B = 0b1111001; // 171

  private static final ConvolutionalCode HALF = new ConvolutionalCode(true, true);
  private static final ConvolutionalCode TWO_THIRDS =
      new ConvolutionalCode(true, true, true, false);
  private static final ConvolutionalCode THREE_QUARTERS =
      new ConvolutionalCode(true, true, true, false, false, true);

  /** IEEE 802.11-2020, 19.3.11.6. */
  private static final ConvolutionalCode FIVE_SIXTHS =
      new ConvolutionalCode(true, true, true, false, false, true, true, false, false, true);

  /** Coded bits of each register, A's above B's. */
  private static final byte[] CODED = coded();

  /** Of A and B in turn: which bits are sent. */
  private final boolean[] sent;

  private ConvolutionalCode(boolean... sent) {
    this.sent = sent;
  }

  /** The code of a rate: 1/2, 2/3, 3/4 or 5/6. */
  static ConvolutionalCode of(int data, int coded) {
    return switch (10 * data + coded) {
      case 12 -> HALF;
      case 23 -> TWO_THIRDS;
      case 34 -> THREE_QUARTERS;
      case 56 -> FIVE_SIXTHS;
      default -> throw new IllegalArgumentException("no code of rate " + data + "/" + coded);
    };
  }

  private static byte[] coded() {
    byte[] out = new byte[2 * STATES];
    for (int r = 0; r < out.length; r++) {
      out[r] = (byte) (2 * (Integer.bitCount(r & A) & 1) + (Integer.bitCount(r & B) & 1));
    }
    return out;
  }

  /** Coded bits; it begins at zero. */
  byte[] encode(byte[] bits) {
    byte[] out = new byte[2 * bits.length];
    int count = 0;
    int register = 0;
    for (int i = 0; i < bits.length; i++) {
      register = bits[i] << 6 | register >> 1;
      if (sent[2 * i % sent.length]) {
        out[count++] = (byte) (CODED[register] >> 1);
      }
      if (sent[(2 * i + 1) % sent.length]) {
        out[count++] = (byte) (CODED[register] & 1);
      }
    }
    return Arrays.copyOf(out, count);
  }

  /**
   * The data that fits best.
   *
   * @param sure of each coded bit: above 0 for a one, the farther the surer
   * @param bits of data that there are
   * @param ended true if the tail is within, so that the coder is at zero afterwards
   */
  byte[] decode(float[] sure, int bits, boolean ended) {
    float[] cost = new float[STATES];
    Arrays.fill(cost, Float.POSITIVE_INFINITY);
    cost[0] = 0;
    float[] next = new float[STATES];
    long[] came = new long[bits];
    float[] costs = new float[4];
    int at = 0;
    for (int i = 0; i < bits; i++) {
      float a = sent[2 * i % sent.length] && at < sure.length ? sure[at++] : 0;
      float b = sent[(2 * i + 1) % sent.length] && at < sure.length ? sure[at++] : 0;
      costs[0] = a + b;
      costs[1] = a - b;
      costs[2] = b - a;
      costs[3] = -a - b;
      long ways = 0;
      for (int j = 0; j < STATES / 2; j++) {
        // A state is the six newest bits, the newest highest; the oldest one falls out. Both
        // generators have the newest and the oldest bit: each of them turns both coded bits over.
        float turned = costs[CODED[2 * j]];
        float even = cost[2 * j];
        float odd = cost[2 * j + 1];
        float zero = even + turned;
        float one = odd - turned;
        ways |= one < zero ? 1L << j : 0;
        next[j] = Math.min(zero, one);
        zero = even - turned;
        one = odd + turned;
        ways |= one < zero ? 1L << j + STATES / 2 : 0;
        next[j + STATES / 2] = Math.min(zero, one);
      }
      came[i] = ways;
      float[] swap = cost;
      cost = next;
      next = swap;
    }
    int state = 0;
    for (int s = 1; !ended && s < STATES; s++) {
      state = cost[s] < cost[state] ? s : state;
    }
    byte[] out = new byte[bits];
    for (int i = bits - 1; i >= 0; i--) {
      out[i] = (byte) (state >> 5);
      state = state << 1 & STATES - 1 | (int) (came[i] >> state & 1);
    }
    return out;
  }
}
