package rovnik.core.modulation.ofdm;

import org.hipparchus.distribution.continuous.NormalDistribution;

/**
 * What the tones of a packet pass, over the mean of the inner ones: IEEE 802.11-2020, 17.3.9.7.2
 * and its like in later clauses, from memory. Inner tones may be 4 dB off, those beyond 4 up or 6
 * down.
 *
 * @param db of each tone
 * @param low limit of each; null where the standard has none
 * @param high limit of each; null as before
 */
record Flatness(int[] tones, double[] db, double[] low, double[] high) {
  private static final double FLAT_DB = 4;
  private static final double OUTER_DOWN_DB = 6;

  /** So many standard deviations from the worst tone, another may be the worst in truth. */
  private static final double NEAR = 3;

  /** Of what the least of even tones is low by. */
  private static final double BETWEEN = 0.6;

  private static final NormalDistribution NORMAL = new NormalDistribution();

  static Flatness of(OfdmPacket p) {
    int[] tones = p.tones();
    // A user that has a part of the channel has no inner tones of its own.
    boolean limited = p.said() != null && p.said().users().isEmpty();
    boolean[] inner = new boolean[tones.length];
    for (int k = 0; k < tones.length; k++) {
      inner[k] = !limited || p.said().format().isInner(tones[k], widthOf(p));
    }
    double[] db = new double[tones.length];
    double mean = 0;
    int count = 0;
    for (int k = 0; k < tones.length; k++) {
      double power = p.channelRe()[k] * p.channelRe()[k] + p.channelIm()[k] * p.channelIm()[k];
      db[k] = 10 * Math.log10(Math.max(1e-30, power));
      if (inner[k]) {
        mean += power;
        count++;
      }
    }
    double[] low = new double[tones.length];
    double[] high = new double[tones.length];
    for (int k = 0; k < tones.length; k++) {
      db[k] -= 10 * Math.log10(mean / count);
      low[k] = inner[k] ? -FLAT_DB : -OUTER_DOWN_DB;
      high[k] = FLAT_DB;
    }
    return new Flatness(tones, db, limited ? low : null, limited ? high : null);
  }

  /** Of its channel, in 20 MHz. */
  private static int widthOf(OfdmPacket p) {
    int usual = p.said().format().fills() ? HePlan.USUAL_TRANSFORM : LegacyTones.TRANSFORM;
    return p.plan().transform() / (usual * ChannelSamples.TIMES);
  }

  /**
   * The tone that is nearest to its limits.
   *
   * @param marginDb how far it is inside, without what noise makes of the worst of many
   * @param scatterDb standard deviation of that
   */
  record Worst(int tone, double marginDb, double scatterDb) {}

  /**
   * Only where there are limits.
   *
   * @param noise that the channel's estimate has on each tone, over the mean power of all
   */
  Worst worst(double[] noise) {
    double mean = 0;
    for (double v : db) {
      mean += Math.pow(10, v / 10) / db.length;
    }
    int worst = 0;
    double[] sigma = new double[db.length];
    for (int k = 0; k < db.length; k++) {
      double power = Math.pow(10, db[k] / 10) / mean;
      sigma[k] = 20 / Math.log(10) * Math.sqrt(noise[k] / 2 / power);
      worst = margin(k) < margin(worst) ? k : worst;
    }
    int near = 0;
    for (int k = 0; k < db.length; k++) {
      near += margin(k) - margin(worst) < NEAR * Math.hypot(sigma[k], sigma[worst]) ? 1 : 0;
    }
    // The least of so many normal numbers is so many standard deviations low (Blom) where all are
    // alike, and hardly where one stands out: what lies between is taken.
    double low = NORMAL.inverseCumulativeProbability((near - 0.375) / (near + 0.25));
    double margin = margin(worst) + BETWEEN * Math.max(0, low) * sigma[worst];
    return new Worst(tones[worst], margin, sigma[worst]);
  }

  private double margin(int k) {
    return Math.min(db[k] - low[k], high[k] - db[k]);
  }
}
