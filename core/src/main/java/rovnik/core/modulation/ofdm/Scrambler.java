package rovnik.core.modulation.ofdm;

/** The scrambler x^7 + x^4 + 1 of IEEE 802.11-2020, 17.3.5.5. */
final class Scrambler {
  static final int PERIOD = 127;

  /** Bits from which its state is known. */
  static final int STATE_BITS = 7;

  private Scrambler() {}

  /**
   * Its sequence.
   *
   * @param state x7 to x1, x7 highest; not 0
   */
  static byte[] sequence(int state, int bits) {
    byte[] out = new byte[bits];
    int s = state;
    for (int i = 0; i < bits; i++) {
      int bit = (s >> 6 ^ s >> 3) & 1;
      s = s << 1 & 0x7f | bit;
      out[i] = (byte) bit;
    }
    return out;
  }

  /** The state from which the first seven bits of a sequence came. */
  static int stateBefore(byte[] sequence) {
    // After seven bits the state is these bits; going back gives what was before.
    int s = 0;
    for (int i = 0; i < STATE_BITS; i++) {
      s = s << 1 | sequence[i];
    }
    for (int i = 0; i < STATE_BITS; i++) {
      int bit = s & 1; // = x7 xor x4 of the state before
      int before = s >> 1;
      // Before, x4 was what is now x5 of the shifted one: bit 3 of it.
      s = before | (bit ^ before >> 3 & 1) << 6;
    }
    return s;
  }
}
