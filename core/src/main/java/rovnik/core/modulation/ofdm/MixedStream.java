package rovnik.core.modulation.ofdm;

/** What HT and VHT packets of one stream in 20 MHz have alike. */
interface MixedStream extends OneStream {
  PacketFormat format();

  /** Of a symbol with data, samples at 20 MS/s. */
  int guard();

  @Override
  default int training() {
    return MixedPlan.TRAINING;
  }

  @Override
  default boolean learned() {
    return false;
  }

  @Override
  default FramePlan plan(int symbols) {
    return MixedPlan.of(format(), coding(), guard(), symbols);
  }

  @Override
  default int[] tones() {
    return MixedTones.data();
  }

  @Override
  default Interleaver interleaver() {
    return Interleaver.LATER;
  }
}
