package rovnik.core.modulation.analysis;

import org.hipparchus.special.Beta;

/**
 * A bit error ratio with its confidence interval.
 *
 * @param errors counted
 * @param bits compared
 * @param low end of the interval
 * @param high end of the interval
 */
public record BitErrorRatio(long errors, long bits, double low, double high) {
  /** Share of cases that the interval holds the truth in: that of k = 2. */
  public static final double CONFIDENCE = 0.9545;

  /**
   * The exact interval of Clopper and Pearson 1934: the ratios at which so many errors or more, or
   * so many or fewer, would be as rare as half of what is left.
   */
  public static BitErrorRatio of(long errors, long bits) {
    double tail = (1 - CONFIDENCE) / 2;
    double low = errors == 0 ? 0 : quantile(tail, errors, bits - errors + 1.0);
    double high = errors == bits ? 1 : quantile(1 - tail, errors + 1.0, bits - errors);
    return new BitErrorRatio(errors, bits, low, high);
  }

  public double ratio() {
    return (double) errors / bits;
  }

  /** Of a beta distribution, by halving on a logarithmic scale. */
  private static double quantile(double p, double a, double b) {
    double low = 1e-18;
    double high = 1;
    for (int i = 0; i < 100; i++) {
      double middle = Math.sqrt(low * high);
      if (Beta.regularizedBeta(middle, a, b) < p) {
        low = middle;
      } else {
        high = middle;
      }
    }
    return Math.sqrt(low * high);
  }
}
