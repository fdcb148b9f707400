package rovnik.core.modulation.ofdm;

import java.util.List;

/** How the data of a packet of one stream are read. */
interface OneStream {
  Coding coding();

  /** True if its bits are in a code of low density, which is not decoded. */
  boolean lowDensity();

  /** Fields behind SIGNAL and before the data. */
  List<OfdmPacket.Field> fields();

  /** Width of its channel, in 20 MHz. */
  default int width() {
    return 1;
  }

  /** Where the transform of its own training begins, from the first one, samples read of 20 MHz. */
  int training();

  /** True if the signs of its training are not known and have to be learned. */
  boolean learned();

  /**
   * Symbols with data.
   *
   * @param usual symbols of 4 us behind SIGNAL that this names
   */
  int symbols(int usual);

  /** The packet as a frame that begins with its own training. */
  FramePlan plan(int symbols);

  /** How far its tones reach from the middle, over the width of the channel. */
  default double reach() {
    return (MixedTones.LAST + 0.5) / LegacyTones.TRANSFORM;
  }

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

  /** The same with what only its own training shows; most say all before. */
  default OneStream withMore(SymbolReader begun, FramePlan plan) {
    return this;
  }

  /** All that it says, bit by bit. */
  List<HeaderBits.Part> parts();
}
