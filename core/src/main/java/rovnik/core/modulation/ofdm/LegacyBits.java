package rovnik.core.modulation.ofdm;

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
    return Interleaver.LEGACY.spread(ConvolutionalCode.of(1, 2).encode(bits), 1);
  }

  /** Scrambled, coded and interleaved bits of all symbols. */
  static byte[] data(LegacyRate rate, byte[] bytes, int scramblerState) {
    byte[] bits = new byte[rate.symbolsOf(bytes.length) * rate.dataBits()];
    byte[] own = bitsOf(bytes);
    System.arraycopy(own, 0, bits, SERVICE_BITS, own.length);
    return data(rate.coding(), Interleaver.LEGACY, bits, SERVICE_BITS + own.length, scramblerState);
  }

  /**
   * The same of bits that are put together.
   *
   * @param tail where the zeros are that bring the coder back to its beginning
   */
  static byte[] data(Coding coding, Interleaver tones, byte[] bits, int tail, int scramblerState) {
    byte[] sequence = Scrambler.sequence(scramblerState, bits.length);
    byte[] scrambled = new byte[bits.length];
    for (int i = 0; i < bits.length; i++) {
      boolean inTail = i >= tail && i < tail + ConvolutionalCode.TAIL_BITS;
      scrambled[i] = inTail ? 0 : (byte) (bits[i] ^ sequence[i]);
    }
    return tones.spread(coding.code().encode(scrambled), coding.bitsPerTone());
  }

  /** SIGNAL, decoded. */
  static SignalField signal(float[] sure) {
    return new SignalField(header(Interleaver.LEGACY.inOrder(sure, 1), SIGNAL_BITS));
  }

  /** A field of the preamble; that the coder is at zero behind it is not known for its tail. */
  static byte[] header(float[] coded, int count) {
    byte[] bits = ConvolutionalCode.of(1, 2).decode(coded, count, true);
    byte[] free = ConvolutionalCode.of(1, 2).decode(coded, count, false);
    int tail = count - ConvolutionalCode.TAIL_BITS;
    System.arraycopy(free, tail, bits, tail, ConvolutionalCode.TAIL_BITS);
    return bits;
  }

  /**
   * What came in the symbols with data.
   *
   * @param bytes of the data
   * @param scramblerState that it was scrambled with
   * @param service the bits before the bytes; the first seven are 0
   */
  record Payload(byte[] bytes, int scramblerState, byte[] service) {

    boolean serviceIsZero() {
      for (byte b : service) {
        if (b != 0) {
          return false;
        }
      }
      return true;
    }

    /** What is wrong with what should be one frame with its check sequence, "" if nothing. */
    String wrong() {
      if (!serviceIsZero()) {
        return "SERVICE is not zero";
      }
      return FrameCheck.fits(bytes, 0, bytes.length) ? "" : "the frame check sequence does not fit";
    }
  }

  static Payload payload(LegacyRate rate, float[] sure, int bytes) {
    int count = SERVICE_BITS + 8 * bytes + ConvolutionalCode.TAIL_BITS;
    return payload(rate.coding(), Interleaver.LEGACY, sure, count, bytes);
  }

  /**
   * The same of any coding.
   *
   * @param count bits to the end of the tail
   */
  static Payload payload(Coding coding, Interleaver tones, float[] sure, int count, int bytes) {
    float[] coded = tones.inOrder(sure, coding.bitsPerTone());
    byte[] bits = coding.code().decode(coded, count, true);
    int state = Scrambler.stateBefore(bits);
    byte[] sequence = Scrambler.sequence(Math.max(1, state), count);
    byte[] service = new byte[SERVICE_BITS];
    for (int i = Scrambler.STATE_BITS; i < SERVICE_BITS; i++) {
      service[i] = (byte) (bits[i] ^ sequence[i]);
    }
    byte[] out = new byte[bytes];
    for (int i = 0; i < 8 * bytes; i++) {
      int at = SERVICE_BITS + i;
      out[i / 8] |= (byte) ((bits[at] ^ sequence[at]) << i % 8);
    }
    return new Payload(out, state, service);
  }
}
