package rovnik.core.modulation.ofdm;

/** What HT and VHT packets of one stream have alike. */
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

  /** Of its tones. */
  default StreamTones stream() {
    return StreamTones.of(width());
  }

  @Override
  default FramePlan plan(int symbols) {
    return MixedPlan.of(format(), stream(), coding(), guard(), symbols);
  }

  @Override
  default double reach() {
    int[] all = stream().all();
    return (all[all.length - 1] + 0.5) / (LegacyTones.TRANSFORM * width());
  }

  @Override
  default int[] tones() {
    return stream().data();
  }

  @Override
  default Interleaver interleaver() {
    return stream().interleaver();
  }
}
