package rovnik.core.modulation.ofdm;

import java.util.List;
import java.util.Optional;

/**
 * The SIGNAL field of a packet (IEEE 802.11-2020, 17.3.4).
 *
 * @param bits in the order in which they are sent
 */
record SignalField(byte[] bits) {
  private static final int RATE_BITS = 4;
  private static final int RESERVED = 4;
  private static final int LENGTH = 5;
  private static final int LENGTH_BITS = 12;
  private static final int PARITY = 17;

  /** What the rate of a newer packet says to those that do not know it and wait for its end. */
  static final String SPOOFED = "6 Mbit/s";

  /** What comes behind the parity. */
  static final int TAIL = 18;

  /** The field of a packet that is to be sent. */
  static SignalField of(LegacyRate rate, int bytes) {
    byte[] bits = new byte[TAIL + ConvolutionalCode.TAIL_BITS];
    for (int i = 0; i < RATE_BITS; i++) {
      bits[i] = (byte) (rate.field() >> RATE_BITS - 1 - i & 1);
    }
    for (int i = 0; i < LENGTH_BITS; i++) {
      bits[LENGTH + i] = (byte) (bytes >> i & 1);
    }
    for (int i = 0; i < PARITY; i++) {
      bits[PARITY] ^= bits[i];
    }
    return new SignalField(bits);
  }

  private int rateField() {
    return bits[0] << 3 | bits[1] << 2 | bits[2] << 1 | bits[3];
  }

  /** The rate, if there is such and nothing is wrong. */
  Optional<LegacyRate> rate() {
    return wrong().isEmpty() ? LegacyRate.of(rateField()) : Optional.empty();
  }

  /** "64-QAM 3/4" of the rate that its bits name, whatever else is wrong; "" for none. */
  String rateWords() {
    return LegacyRate.of(rateField()).map(LegacyRate::label).orElse("");
  }

  int bytes() {
    int out = 0;
    for (int i = 0; i < LENGTH_BITS; i++) {
      out |= bits[LENGTH + i] << i;
    }
    return out;
  }

  boolean reservedIsZero() {
    return bits[RESERVED] == 0;
  }

  boolean parityFits() {
    int parity = 0;
    for (int i = 0; i <= PARITY; i++) {
      parity ^= bits[i];
    }
    return parity == 0;
  }

  /**
   * Bit by bit.
   *
   * @param rateWords what the rate says, if there is such
   */
  List<HeaderBits.Part> parts(String rateWords) {
    HeaderBits b = new HeaderBits("SIGNAL", bits);
    boolean known = LegacyRate.of(rateField()).isPresent();
    return List.of(
        b.part("Rate", 0, RATE_BITS, known ? rateWords : "there is no such rate"),
        b.either("Reserved", RESERVED, "wrong", "right"),
        b.part("Length", LENGTH, LENGTH_BITS, bytes() + " bytes"),
        b.part("Parity", PARITY, 1, parityFits() ? "fits" : "does not fit"),
        b.tail(TAIL));
  }

  /** Why nothing can be read behind it, "" if something can. */
  String wrong() {
    if (!parityFits()) {
      return "the parity of SIGNAL is wrong";
    }
    if (!reservedIsZero()) {
      return "the reserved bit of SIGNAL is not 0";
    }
    if (LegacyRate.of(rateField()).isEmpty()) {
      return "SIGNAL names a rate that there is not";
    }
    return bytes() == 0 ? "SIGNAL says that no bytes follow" : "";
  }
}
