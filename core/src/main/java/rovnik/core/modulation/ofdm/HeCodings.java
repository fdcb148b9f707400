package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;

/**
 * Codings of one stream by their number (IEEE 802.11ax-2021, clause 27, and IEEE 802.11be, clause
 * 36; from memory). HT and VHT have the first ones, with the same errors that are allowed: tables
 * 19-22 and 21-24 of IEEE 802.11-2020; that of 64-QAM 5/6 from memory. And how many bits HE and EHT
 * symbols of 20 MHz carry.
 */
final class HeCodings {
  /** Tones with data in 20 MHz. */
  static final int DATA = 234;

  /** Last coding of HE; EHT has two more. */
  static final int LAST_OF_HE = 11;

  static final int LAST_OF_EHT = 13;

  private static final Coding[] CODINGS = {
    coding(0, Format.BPSK, 1, 1, 2, -5),
    coding(1, Format.QPSK, 2, 1, 2, -10),
    coding(2, Format.QPSK, 2, 3, 4, -13),
    coding(3, Format.QAM16, 4, 1, 2, -16),
    coding(4, Format.QAM16, 4, 3, 4, -19),
    coding(5, Format.QAM64, 6, 2, 3, -22),
    coding(6, Format.QAM64, 6, 3, 4, -25),
    coding(7, Format.QAM64, 6, 5, 6, -27),
    coding(8, Format.QAM256, 8, 3, 4, -30),
    coding(9, Format.QAM256, 8, 5, 6, -32),
    coding(10, Format.QAM1024, 10, 3, 4, -35),
    coding(11, Format.QAM1024, 10, 5, 6, -35),
    coding(12, Format.QAM4096, 12, 3, 4, -38),
    coding(13, Format.QAM4096, 12, 5, 6, -38)
  };

  private HeCodings() {}

  private static Coding coding(int mcs, Format format, int bits, int kept, int sent, double db) {
    return new Coding("MCS " + mcs, format, bits, kept, sent, db);
  }

  /**
   * Data bits to the end of the tail.
   *
   * @param part in the last symbol one to three parts of the tones carry coded bits, or all at 0
   */
  static int bits(ResourceUnit unit, Coding coding, int symbols, int part) {
    int all = unit.data().length;
    int last = coding.dataBits(part == 0 ? all : part * unit.dataOfPart());
    return (symbols - 1) * coding.dataBits(all) + last;
  }

  /** Its number, of one of these. */
  static int numberOf(Coding coding) {
    return Arrays.asList(CODINGS).indexOf(coding);
  }

  static Coding coding(int mcs) {
    if (mcs < 0 || mcs >= CODINGS.length) {
      throw new Refusal("mcs", "HE has MCS 0 to 11, EHT to 13.");
    }
    return CODINGS[mcs];
  }
}
