package rovnik.core.spectrum;

import java.util.Arrays;
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
   * @param excessDb power of the skirt over that of the window's leakage there; NaN if there is no
   *     skirt
   * @param nearestCoherentHz frequency nearest to the line with a whole, odd number of periods in
   *     the record: cycles and points share no factor
   */
  public record Finding(Skirt skirt, double excessDb, double nearestCoherentHz) {}

  /** Skirt points are looked at between these distances, in bins of the window. */
  private static final double FROM_BINS = 6;

  private static final double TO_BINS = 60;
  private static final double ABOVE_NOISE_DB = 6;
  private static final double REAL_EXCESS_DB = 6;
  private static final double UNSURE_SIGMAS = 3;

  /** Less leakage than this share of the line's power is not told apart. */
  private static final double LEAST = 1e-20;

  /** What scatters by more than this share of what noise does is noise. */
  private static final double NOISY = 0.6;

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
    // The window's response has nulls, where a record of whole periods lies: how well the line's
    // place is known says how deep they may be taken to be.
    ToneInterpolator tone = ToneInterpolator.of(layout);
    double unsureBins =
        UNSURE_SIGMAS * new LineStatistics(trace, tone).of(line).frequencyHz() / binHz;
    double leaked = 0;
    double mostLeaked = 0;
    double[] overShape = new double[trace.points()];
    double measured = 0;
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
        double own = Math.pow(layout.window().response(bins), 2);
        double most = most(layout.window(), bins, unsureBins);
        measured += Decibels.toPowerRatio(trace.level()[i] - line.level());
        leaked += own;
        mostLeaked += most * most;
        overShape[skirtPoints++] =
            trace.level()[i] - line.level() - Decibels.fromPowerRatio(Math.max(own, LEAST));
      }
    }
    if (looked == 0 || skirtPoints < looked / 5) {
      return new Finding(Skirt.NONE, Double.NaN, coherent);
    }
    double excessDb = Decibels.fromPowerRatio(measured / Math.max(mostLeaked, LEAST));
    if (excessDb > REAL_EXCESS_DB) {
      return new Finding(Skirt.REAL, excessDb, coherent);
    }
    if (layout.windowLength() == layout.fftLength()
        && scatterDb(Arrays.copyOf(overShape, skirtPoints))
            > NOISY * NoiseStatistics.decibels(new NoiseStatistics(trace).point())) {
      // Leakage lies on the window's curve; what scatters about it like noise is the signal's own.
      double real = Decibels.fromPowerRatio(measured / Math.max(leaked, LEAST));
      return new Finding(Skirt.REAL, real, coherent);
    }
    return new Finding(Skirt.LEAKAGE, excessDb, coherent);
  }

  /** Median distance from the median, as a standard deviation. */
  private static double scatterDb(double[] values) {
    Arrays.sort(values);
    double middle = values[values.length / 2];
    double[] away = Arrays.stream(values).map(v -> Math.abs(v - middle)).sorted().toArray();
    return 1.48 * away[away.length / 2];
  }

  /** Highest response near a distance. */
  private static double most(Window window, double bins, double unsureBins) {
    double highest = 0;
    for (double x = -1; x <= 1; x += 0.5) {
      highest = Math.max(highest, Math.abs(window.response(bins + x * unsureBins)));
    }
    return highest;
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
