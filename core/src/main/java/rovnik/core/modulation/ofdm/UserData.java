package rovnik.core.modulation.ofdm;

/** How the bits of one user of a packet are read. */
interface UserData {
  /** Null if its data are not read. */
  Coding coding();

  /** True if its bits are in a code of low density, which is not decoded. */
  boolean lowDensity();

  /** Tones with data, from the lowest. */
  int[] tones();

  /** Null if its bits are not decoded. */
  Interleaver interleaver();

  /** Bits from the first to the end of the tail. */
  int bits(int symbols);

  /** Bytes between SERVICE and what fills the last symbol. */
  default int bytes(int symbols) {
    return (bits(symbols) - LegacyBits.SERVICE_BITS - ConvolutionalCode.TAIL_BITS) / 8;
  }

  /** What is wrong with what was decoded, "" if nothing. */
  default String wrong(LegacyBits.Payload payload) {
    return payload.serviceIsZero()
        ? FrameCheck.Several.in(payload.bytes()).wrong()
        : "SERVICE is not zero";
  }

  /** True if what was decoded has a check of its own. */
  default boolean checked(LegacyBits.Payload payload) {
    return FrameCheck.Several.in(payload.bytes()).found() > 0;
  }

  /** What can be said of it if nothing is wrong: of several frames, which most have. */
  default String words(LegacyBits.Payload payload) {
    return FrameCheck.Several.in(payload.bytes()).words();
  }
}
