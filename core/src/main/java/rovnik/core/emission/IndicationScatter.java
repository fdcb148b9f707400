package rovnik.core.emission;

import java.util.Arrays;

/**
 * How far the indications of a {@link CisprDetector} would differ from one watch of the same length
 * to the next, taken from the watch itself: what the envelope does from block to block, a quarter
 * of the meter's time constant each, is noise that the weighting and the meter then smooth. A
 * signal that repeats in every block adds nothing.
 *
 * <p>The capacitor is linear about where it stands: with the rate at which it comes back after a
 * push (its discharge and how fast its charge falls as it rises) it is one pole, the meter two, and
 * such a chain lets (2 a + b) / (4 (a + b)^2) of a density through (integral of its squared
 * response, a of the capacitor, b of the meter).
 */
final class IndicationScatter {
  private static final double BLOCKS_PER_METER = 4;

  /** Of a Gaussian filter, in its 6-dB bandwidths. */
  private static final double NOISE_BANDWIDTH = 0.753;

  /** Times of a chain after which it has forgotten. */
  private static final double SETTLED = 6.6;

  /** Blocks that any number can be taken from. */
  private static final int FEWEST = 4;

  private final CisprWeighting weighting;
  private final double stepSeconds;
  private final double meterSeconds;
  private final double bandwidthHz;
  private final int block;
  private int inBlock;
  private double sum;
  private double largest;
  private double pushed;
  private double returning;
  private double stood;
  private int blocks;
  private double[] means = new double[64];
  private double[] peaks = new double[64];
  private double[] pushes = new double[64];
  private double[] returns = new double[64];
  private double[] stands = new double[64];

  IndicationScatter(CisprBand band, CisprWeighting weighting, double stepSeconds) {
    this.weighting = weighting;
    this.stepSeconds = stepSeconds;
    this.bandwidthHz = band.bandwidthHz();
    this.meterSeconds = band.meterSeconds();
    this.block = (int) Math.ceil(meterSeconds / BLOCKS_PER_METER / stepSeconds);
  }

  /**
   * @param standing where the meter stands: the capacitor's own mean
   */
  void accept(double envelope, double standing) {
    sum += envelope;
    stood += standing;
    largest = Math.max(largest, envelope);
    if (envelope > standing) {
      double v = standing / envelope;
      pushed += weighting.charge() * envelope * CisprWeighting.current(v);
      returning += weighting.charge() * Math.acos(v) / Math.PI;
    }
    pushed -= weighting.discharge() * standing;
    returning += weighting.discharge();
    if (++inBlock == block) {
      close();
    }
  }

  private void close() {
    if (blocks == means.length) {
      means = Arrays.copyOf(means, 2 * blocks);
      peaks = Arrays.copyOf(peaks, 2 * blocks);
      pushes = Arrays.copyOf(pushes, 2 * blocks);
      returns = Arrays.copyOf(returns, 2 * blocks);
      stands = Arrays.copyOf(stands, 2 * blocks);
    }
    double seconds = block * stepSeconds;
    means[blocks] = sum / block;
    peaks[blocks] = largest;
    pushes[blocks] = pushed / seconds;
    returns[blocks] = returning / seconds;
    stands[blocks] = stood / block;
    blocks++;
    inBlock = 0;
    sum = 0;
    largest = 0;
    pushed = 0;
    returning = 0;
    stood = 0;
  }

  /** Standard deviation of the highest envelope. */
  double ofPeak() {
    // The highest of more values scatters less, as the root of their number's logarithm (Gumbel).
    double values = Math.max(2, block * stepSeconds * NOISE_BANDWIDTH * bandwidthHz);
    return deviation(peaks, 1) * Math.sqrt(Math.log(values) / Math.log(values * blocks));
  }

  /** Standard deviation of the highest indication of the average detector. */
  double ofAverage() {
    double density = Math.pow(deviation(means, blocks / 4), 2) * block * stepSeconds;
    return Math.sqrt(density / (4 * meterSeconds)) * ofHighest(independent(meterSeconds));
  }

  /** Standard deviation of the highest indication of the quasi-peak detector. */
  double ofQuasiPeak() {
    int from = blocks / 2;
    double rate = Arrays.stream(returns, from, blocks).average().orElse(Double.NaN);
    // A push is stronger while the meter is still on its way: referred to one standing.
    double[] referred = new double[blocks];
    for (int i = 0; i < blocks; i++) {
      referred[i] = pushes[i] + rate * stands[i];
    }
    double a = 1 / rate;
    double b = meterSeconds;
    double density = Math.pow(deviation(referred, from) * a, 2) * block * stepSeconds;
    return Math.sqrt(density * (2 * a + b) / (4 * (a + b) * (a + b)))
        * ofHighest(independent(a + b));
  }

  private double independent(double seconds) {
    return Math.max(1, blocks * block * stepSeconds / (SETTLED * seconds));
  }

  /** Standard deviation of the highest of n normal values, of one value's (tables, from memory). */
  private static double ofHighest(double n) {
    return 1 / (1 + 0.7 * Math.log10(n));
  }

  /**
   * From consecutive blocks, so that settling does not count (von Neumann's mean square successive
   * difference); wider by what so few tell (Student's t, approximately).
   */
  private double deviation(double[] values, int from) {
    int differences = blocks - from - 1;
    if (differences < FEWEST) {
      return Double.NaN;
    }
    double squares = 0;
    for (int i = from + 1; i < blocks; i++) {
      squares += (values[i] - values[i - 1]) * (values[i] - values[i - 1]);
    }
    double freedom = Math.max(1, 2.0 / 3 * differences);
    return Math.sqrt(squares / 2 / differences) * (1 + 1.4 / freedom);
  }
}
