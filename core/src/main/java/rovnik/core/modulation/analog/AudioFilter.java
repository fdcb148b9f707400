package rovnik.core.modulation.analog;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.signal.DoubleTransforms;
import rovnik.core.units.Frequency;

/**
 * What the demodulated signal passes before it is read.
 *
 * @param lowHz lowest frequency that passes, 0 for all
 * @param highHz highest, 0 for all
 * @param deEmphasisSeconds time constant, 0 for none (50 and 75 us: ITU-R BS.450; 750 us falls 6 dB
 *     an octave over the voice band, common practice)
 * @param weighted as an ear on a telephone hears it
 */
public record AudioFilter(double lowHz, double highHz, double deEmphasisSeconds, boolean weighted) {
  public static final AudioFilter NONE = new AudioFilter(0, 0, 0, false);

  /** Order of the low and the high pass: Butterworth's magnitude, without delay. */
  private static final int ORDER = 5;

  /** Psophometric weighting of telephone circuits, Hz and dB (ITU-T O.41, table 1, from memory). */
  private static final double[][] WEIGHTS = {
    {16.66, -85},
    {50, -63},
    {100, -41},
    {200, -21},
    {300, -10.6},
    {400, -6.3},
    {500, -3.6},
    {600, -2.0},
    {700, -0.9},
    {800, 0},
    {900, 0.6},
    {1000, 1.0},
    {1200, 0},
    {1400, -0.9},
    {1600, -1.7},
    {1800, -2.4},
    {2000, -3.0},
    {2500, -4.2},
    {3000, -5.6},
    {3500, -8.5},
    {4000, -15},
    {4500, -25},
    {5000, -36},
    {6000, -43}
  };

  public AudioFilter {
    if (!(lowHz >= 0 && highHz >= 0 && lowHz <= 1e9 && highHz <= 1e9)) {
      throw new Refusal("audioLowHz", "Audio filters are 0 (none) or a frequency, such as 300 Hz.");
    }
    if (highHz > 0 && lowHz >= highHz) {
      throw new Refusal("audioHighHz", "The low pass must lie above the high pass.");
    }
    if (!(deEmphasisSeconds >= 0 && deEmphasisSeconds <= 1e-2)) {
      throw new Refusal("deEmphasisSeconds", "De-emphasis is 0 (none) to 10 ms, such as 50 us.");
    }
  }

  public boolean none() {
    return equals(NONE);
  }

  /** "300 Hz to 3 kHz, de-emphasis 750 us, psophometric". */
  public String words() {
    List<String> all = new ArrayList<>();
    if (lowHz > 0 && highHz > 0) {
      all.add(Frequency.ofHertz(lowHz) + " to " + Frequency.ofHertz(highHz));
    } else if (lowHz > 0) {
      all.add("above " + Frequency.ofHertz(lowHz));
    } else if (highHz > 0) {
      all.add("below " + Frequency.ofHertz(highHz));
    }
    if (deEmphasisSeconds > 0) {
      all.add("de-emphasis " + Math.round(deEmphasisSeconds * 1e6) + " us");
    }
    if (weighted) {
      all.add("psophometric");
    }
    return all.isEmpty() ? "none" : String.join(", ", all);
  }

  /** Amplitude response. */
  public double response(double hertz) {
    double h = 1;
    if (lowHz > 0) {
      h *= hertz <= 0 ? 0 : 1 / Math.sqrt(1 + Math.pow(lowHz / hertz, 2 * ORDER));
    }
    if (highHz > 0) {
      h /= Math.sqrt(1 + Math.pow(hertz / highHz, 2 * ORDER));
    }
    if (deEmphasisSeconds > 0) {
      h /= Math.hypot(1, 2 * Math.PI * hertz * deEmphasisSeconds);
    }
    return weighted ? h * Math.pow(10, weightDb(hertz) / 20) : h;
  }

  /** Straight over the logarithm of the frequency between the places of the table. */
  static double weightDb(double hertz) {
    int last = WEIGHTS.length - 1;
    if (hertz <= WEIGHTS[0][0]) {
      return WEIGHTS[0][1];
    }
    for (int i = 1; i <= last; i++) {
      if (hertz <= WEIGHTS[i][0]) {
        double share =
            Math.log(hertz / WEIGHTS[i - 1][0]) / Math.log(WEIGHTS[i][0] / WEIGHTS[i - 1][0]);
        return WEIGHTS[i - 1][1] + share * (WEIGHTS[i][1] - WEIGHTS[i - 1][1]);
      }
    }
    // Beyond the table it goes on falling as at its end.
    return WEIGHTS[last][1] - 27 * Math.log(hertz / WEIGHTS[last][0]) / Math.log(2);
  }

  /** How long its ends are spoiled by what is not known before and after, seconds. */
  public double settlesSeconds() {
    double low = lowHz > 0 ? 3 / lowHz : weighted ? 0.01 : 0;
    double high = highHz > 0 ? 6 / highHz : 0;
    return Math.max(Math.max(low, high), 5 * deEmphasisSeconds);
  }

  /** The signal behind the filter; its ends are spoiled. */
  public double[] applied(double[] x, double rateHz) {
    int length = Integer.highestOneBit(Math.max(2, 2 * x.length - 1)) * 2;
    double[] work = new double[length];
    double mean = 0;
    for (double v : x) {
      mean += v / x.length;
    }
    for (int i = 0; i < x.length; i++) {
      work[i] = x[i] - mean;
    }
    DoubleTransforms.of(length).realForward(work);
    for (int k = 0; k <= length / 2; k++) {
      double h = response(k * rateHz / length);
      if (k == 0) {
        work[0] *= h;
      } else if (k == length / 2) {
        work[1] *= h;
      } else {
        work[2 * k] *= h;
        work[2 * k + 1] *= h;
      }
    }
    DoubleTransforms.of(length).realInverse(work, true);
    return java.util.Arrays.copyOf(work, x.length);
  }
}
