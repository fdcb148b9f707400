package rovnik.core.time;

import java.util.List;

/**
 * Channels at even distances.
 *
 * @param firstHz middle of channel 1, from the centre of the record
 * @param stepHz from one to the next
 * @param count of them
 */
record ChannelPlan(double firstHz, double stepHz, int count) {
  /**
   * The plan that fits: as it is told, and what is not told by what is seen.
   *
   * @param firstHz of channel 1, NaN for the lowest seen
   * @param count 0 for up to the highest seen
   */
  static ChannelPlan of(List<Hop> hops, double firstHz, double stepHz, int count) {
    double first = firstHz;
    if (Double.isNaN(first)) {
      double re = 0;
      double im = 0;
      double low = Double.POSITIVE_INFINITY;
      for (Hop h : hops) {
        re += Math.cos(2 * Math.PI * h.hz() / stepHz);
        im += Math.sin(2 * Math.PI * h.hz() / stepHz);
        low = Math.min(low, h.hz());
      }
      double grid = Math.atan2(im, re) / (2 * Math.PI) * stepHz;
      first = hops.isEmpty() ? 0 : grid + Math.rint((low - grid) / stepHz) * stepHz;
    }
    int channels = count;
    if (count == 0) {
      for (Hop h : hops) {
        channels = Math.max(channels, (int) Math.rint((h.hz() - first) / stepHz) + 1);
      }
    }
    return new ChannelPlan(first, stepHz, Math.min(HopSettings.MOST_CHANNELS, channels));
  }

  /** Number of the channel, 1 and up; 0 if it is none of them. */
  int of(Hop h) {
    int n = (int) Math.rint((h.hz() - firstHz) / stepHz) + 1;
    return n >= 1 && n <= count ? n : 0;
  }

  double hz(int channel) {
    return firstHz + (channel - 1) * stepHz;
  }
}
