package rovnik.core.modulation.ofdm;

import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.Format;

/**
 * How bits become points of tones.
 *
 * @param name of it among others of its format, "" for none
 * @param codeKept data bits of so many coded ones
 * @param errorLimitDb relative constellation error that the standard allows
 */
record Coding(
    String name, Format format, int bitsPerTone, int codeKept, int codeSent, double errorLimitDb) {

  Constellation constellation() {
    return format.constellation();
  }

  ConvolutionalCode code() {
    return ConvolutionalCode.of(codeKept, codeSent);
  }

  /** "3/4". */
  String codeRate() {
    return codeKept + "/" + codeSent;
  }

  /** "16-QAM 3/4". */
  String label() {
    return format.label() + " " + codeRate();
  }

  /** "MCS 4, 16-QAM 3/4". */
  String words() {
    return name.isEmpty() ? label() : name + ", " + label();
  }

  /** Coded bits of a symbol. */
  int codedBits(int tones) {
    return tones * bitsPerTone;
  }

  /** Data bits of a symbol. */
  int dataBits(int tones) {
    return codedBits(tones) * codeKept / codeSent;
  }
}
