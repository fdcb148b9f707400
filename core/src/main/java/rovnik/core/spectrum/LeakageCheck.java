package rovnik.core.spectrum;

import rovnik.core.signal.Window;
import rovnik.core.units.Decibels;

/**
 * Tells whether the skirt beside a line is the window's own leakage or really there. The window's
 * response to a lone tone at the line's place is known in closed form; the skirt is laid beside it.
 */
public final class LeakageCheck {
  private LeakageCheck() {}

  /** What the skirt is. */
  public enum Skirt {
    /** Nothing stands above the noise beside the line. */
    NONE("no skirt above the noise"),
    LEAKAGE("leakage: the record does not hold whole periods of the line"),
    REAL("a real skirt: the signal itself is wider than a line");

    private final String label;

    Skirt(String label) {
      this.label = label;
    }

    public String label() {
      return label;
    }
  }

  /**
   * The finding.
   *
   * @param skirt what it is
   * @param excessDb how far the skirt stands above the window's leakage, in the median; NaN if
   *     there is no skirt
   * @param nearestCoherentHz frequency nearest to the line with a whole, odd number of periods in
   *     the record: cycles and points share no factor
   */
  public record Finding(Skirt skirt, double excessDb, double nearestCoherentHz) {}

  /** Skirt points are looked at between these distances, in bins of the window. */
  private static final double FROM_BINS = 6;

  private static final double TO_BINS = 60;
  private static final double ABOVE_NOISE_DB = 6;
  private static final double REAL_EXCESS_DB = 6;

  /**
   * Looks at the skirt of one line.
   *
   * @param trace averaged, in dB
   * @param layout that the trace was made with
   * @param centreHz of the record, at the trace's plane
   * @param line interpolated
   */
  public static Finding look(Trace trace, SpectrumLayout layout, double centreHz, Peak line) {
    double binHz = layout.sampleRateHz() / layout.windowLength();
    double coherent = nearestCoherent(line.frequencyHz() - centreHz, layout) + centreHz;
    double noise = PeakSearch.median(trace.level());
    double[] excess = new double[trace.points()];
    int skirtPoints = 0;
    int looked = 0;
    for (int i = 0; i < trace.points(); i++) {
      double bins = Math.abs(trace.frequencyHz(i) - line.frequencyHz()) / binHz;
      if (bins < Math.max(FROM_BINS, layout.window().mainLobeHalfWidthBins() + 1)
          || bins > TO_BINS) {
        continue;
      }
      looked++;
      if (trace.level()[i] > noise + ABOVE_NOISE_DB) {
        excess[skirtPoints++] = trace.level()[i] - line.level() - envelopeDb(layout.window(), bins);
      }
    }
    if (looked == 0 || skirtPoints < looked / 5) {
      return new Finding(Skirt.NONE, Double.NaN, coherent);
    }
    java.util.Arrays.sort(excess, 0, skirtPoints);
    double median = excess[skirtPoints / 2];
    return new Finding(median > REAL_EXCESS_DB ? Skirt.REAL : Skirt.LEAKAGE, median, coherent);
  }

  private static double envelopeDb(Window window, double bins) {
    double highest = 0;
    for (double x = bins - 0.5; x <= bins + 0.5; x += 0.125) {
      highest = Math.max(highest, Math.abs(window.response(x)));
    }
    return Decibels.fromAmplitudeRatio(highest);
  }

  /** Offset nearest to another one with an odd number of periods in a record of 2^n points. */
  private static double nearestCoherent(double offsetHz, SpectrumLayout layout) {
    double binHz = layout.sampleRateHz() / layout.windowLength();
    double cycles = offsetHz / binHz;
    long odd = 2 * Math.round((cycles - 1) / 2) + 1;
    // A length with odd factors may share one with the cycles: step to the next odd number.
    while (gcd(Math.abs(odd), layout.windowLength()) > 1) {
      odd += 2;
    }
    return odd * binHz;
  }

  private static long gcd(long a, long b) {
    return b == 0 ? a : gcd(b, a % b);
  }
}
