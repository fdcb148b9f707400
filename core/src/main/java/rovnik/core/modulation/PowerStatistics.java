package rovnik.core.modulation;

import java.util.Arrays;
import rovnik.core.result.Axis;
import rovnik.core.result.Series;

/** How the power of a signal is spread around its mean. */
public final class PowerStatistics {
  private static final int POINTS = 121;

  /** Of signals that come and go. */
  private static final int MORE_POINTS = 201;

  private static final double STEP_DB = 0.1;

  private final double[] power;
  private final double mean;

  /**
   * @param power of its samples; not copied
   */
  public PowerStatistics(double[] power) {
    this.power = power;
    this.mean = Arrays.stream(power).sum() / power.length;
  }

  public double mean() {
    return mean;
  }

  /** What a share of all samples is above, over the mean, dB. */
  public double exceededDb(double share) {
    double[] sorted = power.clone();
    Arrays.sort(sorted);
    int at = (int) Math.max(0, Math.ceil(sorted.length * (1 - share)) - 1);
    return 10 * Math.log10(sorted[at] / mean);
  }

  /** Complementary distribution: how often it is so far above its mean. */
  public Series ccdf() {
    double highest = Arrays.stream(power).max().orElse(0);
    boolean more = highest > mean * Math.pow(10, POINTS * STEP_DB / 10);
    int points = more ? MORE_POINTS : POINTS;
    double[] steps = new double[points];
    for (int i = 0; i < points; i++) {
      steps[i] = mean * Math.pow(10, i * STEP_DB / 10);
    }
    // How many steps a sample reaches, most of them none.
    int[] reach = new int[points + 1];
    for (double v : power) {
      if (v >= mean) {
        int at = Arrays.binarySearch(steps, v);
        reach[at < 0 ? -at - 1 : at + 1]++;
      }
    }
    double[] share = new double[points];
    int above = 0;
    for (int i = points - 1; i >= 0; i--) {
      above += reach[i + 1];
      share[i] = 100.0 * above / power.length;
    }
    return curve("ccdf", "How often above the mean", share);
  }

  /** The same of noise: the power of complex Gaussian noise is exponential. */
  public static Series ofNoise() {
    double[] share = new double[POINTS];
    for (int i = 0; i < POINTS; i++) {
      share[i] = 100 * Math.exp(-Math.pow(10, i * STEP_DB / 10));
    }
    return curve("ccdfNoise", "Of noise", share).as(Series.Role.BESIDE);
  }

  private static Series curve(String id, String label, double[] share) {
    return Series.curve(
            id, label, Axis.even("Above the mean", "dB", 0, STEP_DB, share.length), share, "%")
        .of("Share of time");
  }
}
