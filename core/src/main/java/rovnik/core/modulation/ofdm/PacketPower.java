package rovnik.core.modulation.ofdm;

import rovnik.core.modulation.PowerStatistics;

/**
 * Power of the data of a packet from sample to sample.
 *
 * @param spread of the samples, {@link ChannelSamples#TIMES} times the width of the channel a
 *     second
 * @param crestDb the highest of the curve through them over the mean, dB
 */
record PacketPower(PowerStatistics spread, double crestDb) {
  /** Over the highest sample: from there on it is looked between samples, too. */
  private static final double NEARLY = 0.7;

  /** Places to each side, of which the last is the next sample. */
  private static final int BETWEEN = 8;

  static PacketPower of(OfdmPacket p, ChannelSamples samples) {
    FramePlan plan = p.plan();
    int guard = Math.min(plan.transform(), guard(plan));
    int begin = samples.placeOf(p.startSeconds()) + plan.head();
    int from = Math.max(0, begin + plan.data().get(0).at() - guard);
    int to = Math.min(samples.count(), begin + plan.length());
    double[] re = new double[Math.max(1, to - from)];
    double[] im = new double[re.length];
    samples.read(from, 0, re, im);
    double[] power = new double[re.length];
    for (int n = 0; n < power.length; n++) {
      power[n] = re[n] * re[n] + im[n] * im[n];
    }
    double highest = highest(samples, from, power);
    PowerStatistics spread = new PowerStatistics(power);
    return new PacketPower(spread, 10 * Math.log10(highest / spread.mean()));
  }

  private static int guard(FramePlan plan) {
    int n = plan.data().size();
    return n < 2 ? 0 : plan.data().get(1).at() - plan.data().get(0).at() - plan.transform();
  }

  private static double highest(ChannelSamples samples, int from, double[] power) {
    double highest = 0;
    for (double v : power) {
      highest = Math.max(highest, v);
    }
    double least = NEARLY * highest;
    double[] re = new double[1];
    double[] im = new double[1];
    for (int n = 0; n < power.length; n++) {
      for (int i = 1 - BETWEEN; power[n] >= least && i < BETWEEN; i++) {
        samples.read(from + n + (double) i / BETWEEN, 0, re, im);
        highest = Math.max(highest, re[0] * re[0] + im[0] * im[0]);
      }
    }
    return highest;
  }
}
