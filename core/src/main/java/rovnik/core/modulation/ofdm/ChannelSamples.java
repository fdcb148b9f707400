package rovnik.core.modulation.ofdm;

import rovnik.core.signal.BandTaker;
import rovnik.core.signal.SincSampler;

/**
 * What is in a channel, at exactly twice its width a second: whatever the rate of the record, a
 * symbol then has a whole number of samples. What is beside the channel is left out.
 */
final class ChannelSamples {
  /** Samples a second over the width of the channel. */
  static final int TIMES = 2;

  /** Over the farthest tone, what still passes as it is: some offset. */
  private static final double BEYOND = 1.06;

  /**
   * From there on what is taken falls off slowly, so that what the edges of a symbol become stays
   * within its guard: up to the width of the channel to each side, or as far as the record reaches.
   */
  private static final double REACH = 1;

  private final BandTaker.Band band;
  private final double channelHz;
  private final double reachHz;
  private final double step;
  private final int count;

  /**
   * @param from first sample of the record that counts
   * @param offsetHz of the channel, from the centre of the record
   * @param tones width that they take, over the channel
   */
  ChannelSamples(
      float[] iq,
      int from,
      int samples,
      double rateHz,
      double offsetHz,
      double channelHz,
      double tones) {
    double end = Math.min(REACH * channelHz, rateHz / 2 - Math.abs(offsetHz));
    double flat = Math.min(BEYOND * tones / 2 * channelHz, end);
    this.channelHz = channelHz;
    this.reachHz = end;
    this.band =
        new BandTaker(iq, from, samples, rateHz)
            .take(
                offsetHz,
                end,
                4 * REACH * channelHz,
                hz -> response((hz - flat) / Math.max(1, end - flat)));
    this.step = band.rateHz() / (TIMES * channelHz);
    this.count = (int) Math.max(0, (band.samples() - 2 * SincSampler.REACH - 1) / step);
  }

  /** From 1 to 0 between 0 and 1. */
  private static double response(double share) {
    return share <= 0 ? 1 : share >= 1 ? 0 : 0.5 + 0.5 * Math.cos(Math.PI * share);
  }

  /** Samples that there are. */
  int count() {
    return count;
  }

  double rateHz() {
    return TIMES * channelHz;
  }

  /** How far from its middle it holds what there is. */
  double reachHz() {
    return reachHz;
  }

  /** Where the channel was taken, from the centre of the record. */
  double offsetHz() {
    return band.offsetHz();
  }

  /**
   * Samples of a stretch; beyond the ends the nearest ones.
   *
   * @param first place, in samples of this rate
   * @param clock by how much the sender's samples come too slowly, as a share
   */
  void read(double first, double clock, double[] re, double[] im) {
    double begin = first * step + SincSampler.REACH;
    SincSampler.row(band.re(), band.im(), band.samples(), begin, step * (1 + clock), re, im);
  }

  /** Where a sample is that was taken at such a time, the nearest one. */
  int placeOf(double seconds) {
    return (int) Math.rint((seconds * band.rateHz() - SincSampler.REACH) / step);
  }

  /** When a sample was taken, from the first of the record that counts, seconds. */
  double seconds(double place) {
    return (place * step + SincSampler.REACH) / band.rateHz();
  }
}
