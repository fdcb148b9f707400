package rovnik.core.signal;

import rovnik.core.Refusal;

/**
 * Frequency of one line from the phase of a record, as a counter would read it: the record is mixed
 * down, filtered and its phase fitted by a straight line with parabolic weights, which is the best
 * there is for a tone in white noise (Kay, IEEE Trans. ASSP 37, 1989).
 */
public final class FrequencyCounter {
  private static final int FEWEST_PIECES = 16;
  private static final int MOST_BLOCKS = 16;
  private static final int SHORTEST_BLOCK = 4;

  /** A walk must stand out from white noise by so many standard deviations. */
  private static final double SIGMAS = 3;

  /**
   * The fitted line makes the steps of a walk smaller, the more the fewer there are (by trials).
   */
  private static final double LINE_TAKES = 1.5;

  private FrequencyCounter() {}

  /**
   * A count.
   *
   * @param offsetHz from the record's centre
   * @param standardHz standard uncertainty from the scatter of the phase, without the reference's
   * @param walk how the phase walks away: growth of its variance, rad^2 a second; 0 if it does not
   * @param seconds length of the record
   */
  public record Count(double offsetHz, double standardHz, double walk, double seconds) {
    /** Standard deviation of the mean frequency over a time, from the walk of the phase alone. */
    public double walkHz(double overSeconds) {
      return Math.sqrt(walk / overSeconds) / (2 * Math.PI);
    }
  }

  /**
   * Counts the line nearest to an expected offset.
   *
   * @param iq interleaved samples of one contiguous record
   * @param samples how many
   * @param expectedHz offset of the line from the record's centre, good to a quarter of the band
   * @param bandHz width of the filter around it; other lines must lie outside
   * @throws Refusal if the record is too short for the band
   */
  public static Count count(
      float[] iq, int samples, double sampleRateHz, double expectedHz, double bandHz) {
    int piece = (int) Math.max(1, Math.floor(sampleRateHz / bandHz));
    int pieces = samples / piece;
    if (pieces < FEWEST_PIECES) {
      throw new Refusal(
          "counter",
          "The record is too short to count in this band: take a finer RBW or a wider band.");
    }
    double[] re = new double[pieces];
    double[] im = new double[pieces];
    double turn = -2 * Math.PI * expectedHz / sampleRateHz;
    double cos = Math.cos(turn);
    double sin = Math.sin(turn);
    for (int p = 0; p < pieces; p++) {
      double angle = turn * ((double) p * piece % (sampleRateHz / Math.abs(expectedHz)));
      double c = Double.isFinite(angle) ? Math.cos(angle) : 1;
      double s = Double.isFinite(angle) ? Math.sin(angle) : 0;
      for (int i = p * piece; i < (p + 1) * piece; i++) {
        re[p] += iq[2 * i] * c - iq[2 * i + 1] * s;
        im[p] += iq[2 * i] * s + iq[2 * i + 1] * c;
        double next = c * cos - s * sin;
        s = c * sin + s * cos;
        c = next;
      }
    }
    return fit(re, im, piece / sampleRateHz, expectedHz);
  }

  private static Count fit(double[] re, double[] im, double seconds, double expectedHz) {
    int n = re.length;
    double[] phase = new double[n];
    double before = Math.atan2(im[0], re[0]);
    phase[0] = before;
    for (int i = 1; i < n; i++) {
      double now = Math.atan2(im[i], re[i]);
      double step = now - before;
      phase[i] = phase[i - 1] + step - 2 * Math.PI * Math.rint(step / (2 * Math.PI));
      before = now;
    }
    // Least squares over the phase is Kay's weighting of its differences.
    double middle = (n - 1) / 2.0;
    double up = 0;
    double below = 0;
    double mean = 0;
    for (int i = 0; i < n; i++) {
      up += (i - middle) * phase[i];
      below += (i - middle) * (i - middle);
      mean += phase[i] / n;
    }
    double slope = up / below;
    for (int i = 0; i < n; i++) {
      phase[i] -= mean + slope * (i - middle);
    }
    double toHz = 1 / (2 * Math.PI * seconds);
    double white = whiteVariance(phase);
    double walk = walk(phase, white);
    double variance = Math.max(0, white - walk / 2) / below + 1.2 * walk / n;
    return new Count(
        expectedHz + slope * toHz, Math.sqrt(variance) * toHz, walk / seconds, n * seconds);
  }

  /** Variance of the phase of one piece, from the steps between neighbours. */
  private static double whiteVariance(double[] phase) {
    double steps = 0;
    for (int i = 1; i < phase.length; i++) {
      steps += (phase[i] - phase[i - 1]) * (phase[i] - phase[i - 1]);
    }
    return steps / (phase.length - 1) / 2;
  }

  /**
   * How far the phase walks from piece to piece, as a variance. Noise beside the line scatters it
   * alone; an oscillator's own noise lets it walk away, which averages over long blocks show: their
   * steps grow with the blocks where those of white noise shrink.
   */
  private static double walk(double[] phase, double white) {
    int blocks = Math.min(MOST_BLOCKS, phase.length / SHORTEST_BLOCK);
    int length = phase.length / blocks;
    double before = 0;
    double steps = 0;
    for (int b = 0; b < blocks; b++) {
      double mean = 0;
      for (int i = b * length; i < (b + 1) * length; i++) {
        mean += phase[i] / length;
      }
      steps += b == 0 ? 0 : (mean - before) * (mean - before);
      before = mean;
    }
    double step = steps / (blocks - 1);
    double ofWhite = 2 * white / length;
    // A short record cannot tell: then it is rather said to walk.
    double sigmas = blocks == MOST_BLOCKS ? SIGMAS : 0;
    boolean walks = step > ofWhite * (1 + sigmas * Math.sqrt(3.0 / (blocks - 1)));
    // The mean over a block steps by 2/3 of what a walk does in one block; the straight line has
    // taken a part of it. Half of the walk of a piece was counted as white.
    double line = 1 + LINE_TAKES / blocks;
    // A variance from few steps may be too small: what a t-distribution asks for more.
    double few = 1 + 1.4 / (blocks - 1);
    return walks ? (step - ofWhite) / (2.0 / 3 * length - 1.0 / length) * line * few * few : 0;
  }
}
