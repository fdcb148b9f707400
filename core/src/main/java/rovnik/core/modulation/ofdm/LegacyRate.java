package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.Optional;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;

/**
 * Rates of OFDM packets: IEEE 802.11-2020 table 17-4 (modulation, coding, bits a symbol), 17-6 (the
 * RATE field) and 17-11 (allowed relative constellation error). Numbers of the names are Mbit/s in
 * a channel of 20 MHz.
 */
public enum LegacyRate {
  R6(0b1101, Format.BPSK, 1, 1, 2, -5),
  R9(0b1111, Format.BPSK, 1, 3, 4, -8),
  R12(0b0101, Format.QPSK, 2, 1, 2, -10),
  R18(0b0111, Format.QPSK, 2, 3, 4, -13),
  R24(0b1001, Format.QAM16, 4, 1, 2, -16),
  R36(0b1011, Format.QAM16, 4, 3, 4, -19),
  R48(0b0001, Format.QAM64, 6, 2, 3, -22),
  R54(0b0011, Format.QAM64, 6, 3, 4, -25);

  private final int field;
  private final Coding coding;

  /**
   * @param field RATE, the bit that is sent first highest
   * @param codeKept data bits of so many coded ones
   */
  LegacyRate(
      int field, Format format, int bitsPerTone, int codeKept, int codeSent, double errorLimitDb) {
    this.field = field;
    this.coding = new Coding("", format, bitsPerTone, codeKept, codeSent, errorLimitDb);
  }

  /** The rate of a RATE field, if there is such. */
  static Optional<LegacyRate> of(int field) {
    return Arrays.stream(values()).filter(r -> r.field == field).findFirst();
  }

  /** The rate of so many megabits a second in a channel of 20 MHz. */
  public static LegacyRate ofMegabits(int megabits) {
    return Arrays.stream(values())
        .filter(r -> r.megabits() == megabits)
        .findFirst()
        .orElseThrow(
            () -> new Refusal("megabits", "The rates are 6, 9, 12, 18, 24, 36, 48 and 54 Mbit/s."));
  }

  /** RATE, the bit that is sent first highest. */
  int field() {
    return field;
  }

  /** Megabits a second in a channel of 20 MHz. */
  public int megabits() {
    return Integer.parseInt(name().substring(1));
  }

  Coding coding() {
    return coding;
  }

  /** Coded bits of one symbol. */
  int codedBits() {
    return coding.codedBits(LegacyTones.DATA);
  }

  /** Data bits of one symbol. */
  int dataBits() {
    return coding.dataBits(LegacyTones.DATA);
  }

  /** Symbols that SERVICE, so many bytes and the tail take. */
  int symbolsOf(int bytes) {
    int bits = LegacyBits.SERVICE_BITS + 8 * bytes + ConvolutionalCode.TAIL_BITS;
    return (bits + dataBits() - 1) / dataBits();
  }

  /** Relative constellation error that is allowed, dB. */
  public double errorLimitDb() {
    return coding.errorLimitDb();
  }

  /** "16-QAM 3/4". */
  public String label() {
    return coding.label();
  }
}
