package rovnik.core.modulation.ofdm;

import java.util.zip.CRC32;

/**
 * Between the bytes of a packet and the bits on its tones: SERVICE, tail and padding, scrambler,
 * code and interleaver, of IEEE 802.11-2020, 17.3.5. And the SIGNAL field, 17.3.4.
 */
final class LegacyBits {
  /** In front of the bytes; the first seven show how the scrambler began. */
  static final int SERVICE_BITS = 16;

  static final int MOST_BYTES = 4095;
  private static final int SIGNAL_BITS = 24;

  private LegacyBits() {}

  /** Bits of the bytes in the order in which they are sent, each byte's lowest first. */
  static byte[] bitsOf(byte[] bytes) {
    byte[] out = new byte[8 * bytes.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = (byte) (bytes[i / 8] >> i % 8 & 1);
    }
    return out;
  }

  /** Coded and interleaved bits of SIGNAL. */
  static byte[] signal(LegacyRate rate, int bytes) {
    byte[] bits = SignalField.of(rate, bytes).bits();
    return interleaved(ConvolutionalCode.of(1, 2).encode(bits), 1);
  }

  /** Scrambled, coded and interleaved bits of all symbols. */
  static byte[] data(LegacyRate rate, byte[] bytes, int scramblerState) {
    byte[] bits = new byte[rate.symbolsOf(bytes.length) * rate.dataBits()];
    byte[] own = bitsOf(bytes);
    System.arraycopy(own, 0, bits, SERVICE_BITS, own.length);
    byte[] sequence = Scrambler.sequence(scramblerState, bits.length);
    int tail = SERVICE_BITS + own.length;
    for (int i = 0; i < bits.length; i++) {
      boolean inTail = i >= tail && i < tail + ConvolutionalCode.TAIL_BITS;
      bits[i] = inTail ? 0 : (byte) (bits[i] ^ sequence[i]);
    }
    return interleaved(rate.code().encode(bits), rate.bitsPerTone());
  }

  /** Where in a symbol a coded bit goes (equations 17-18 and 17-19). */
  private static int place(int k, int coded, int bitsPerTone) {
    int s = Math.max(1, bitsPerTone / 2);
    int i = coded / 16 * (k % 16) + k / 16;
    return s * (i / s) + (i + coded - 16 * i / coded) % s;
  }

  private static byte[] interleaved(byte[] bits, int bitsPerTone) {
    int coded = LegacyTones.DATA * bitsPerTone;
    byte[] out = new byte[bits.length];
    for (int n = 0; n < bits.length; n++) {
      int first = n / coded * coded;
      out[first + place(n - first, coded, bitsPerTone)] = bits[n];
    }
    return out;
  }

  /** Back to the order of the coder. */
  static float[] inOrder(float[] sure, int bitsPerTone) {
    int coded = LegacyTones.DATA * bitsPerTone;
    float[] out = new float[sure.length];
    for (int n = 0; n < sure.length; n++) {
      int first = n / coded * coded;
      out[n] = sure[first + place(n - first, coded, bitsPerTone)];
    }
    return out;
  }

  /** SIGNAL, decoded; that the coder is at zero behind it is not taken as known for its tail. */
  static SignalField signal(float[] sure) {
    float[] coded = inOrder(sure, 1);
    byte[] bits = ConvolutionalCode.of(1, 2).decode(coded, SIGNAL_BITS, true);
    byte[] free = ConvolutionalCode.of(1, 2).decode(coded, SIGNAL_BITS, false);
    System.arraycopy(free, SignalField.TAIL, bits, SignalField.TAIL, ConvolutionalCode.TAIL_BITS);
    return new SignalField(bits);
  }

  /**
   * What came in the symbols with data.
   *
   * @param bytes as SIGNAL says
   * @param scramblerState that it was scrambled with
   * @param serviceZero the other nine bits of SERVICE are 0, as they must be
   */
  record Payload(byte[] bytes, int scramblerState, boolean serviceZero) {
    private static final int CHECK_BYTES = 4;

    /** What is wrong with it, "" if nothing. */
    String wrong() {
      if (!serviceZero) {
        return "SERVICE is not zero";
      }
      int data = bytes.length - CHECK_BYTES;
      if (data <= 0) {
        return "";
      }
      CRC32 sum = new CRC32();
      sum.update(bytes, 0, data);
      for (int i = 0; i < CHECK_BYTES; i++) {
        if (bytes[data + i] != (byte) (sum.getValue() >> 8 * i)) {
          return "the frame check sequence does not fit";
        }
      }
      return "";
    }
  }

  static Payload payload(LegacyRate rate, float[] sure, int bytes) {
    int count = SERVICE_BITS + 8 * bytes + ConvolutionalCode.TAIL_BITS;
    byte[] bits = rate.code().decode(inOrder(sure, rate.bitsPerTone()), count, true);
    int state = Scrambler.stateBefore(bits);
    byte[] sequence = Scrambler.sequence(Math.max(1, state), count);
    boolean zero = true;
    for (int i = Scrambler.STATE_BITS; i < SERVICE_BITS; i++) {
      zero &= bits[i] == sequence[i];
    }
    byte[] out = new byte[bytes];
    for (int i = 0; i < 8 * bytes; i++) {
      int at = SERVICE_BITS + i;
      out[i / 8] |= (byte) ((bits[at] ^ sequence[at]) << i % 8);
    }
    return new Payload(out, state, zero);
  }
}
