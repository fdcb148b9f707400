package rovnik.core.signal;

import rovnik.core.Refusal;

/**
 * Frequency of one line from the phase of a record, as a counter would read it: the record is mixed
 * down, filtered and its phase fitted by a straight line with parabolic weights, which is the best
 * there is for a tone in white noise (Kay, IEEE Trans. ASSP 37, 1989).
 */
public final class FrequencyCounter {
  private static final int FEWEST_PIECES = 16;

  private FrequencyCounter() {}

  /**
   * A count.
   *
   * @param offsetHz from the record's centre
   * @param standardHz standard uncertainty from the scatter of the phase, without the reference's
   */
  public record Count(double offsetHz, double standardHz) {}

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
    double rest = 0;
    for (int i = 0; i < n; i++) {
      double off = phase[i] - mean - slope * (i - middle);
      rest += off * off;
    }
    double toHz = 1 / (2 * Math.PI * seconds);
    return new Count(expectedHz + slope * toHz, Math.sqrt(rest / (n - 2) / below) * toHz);
  }
}
