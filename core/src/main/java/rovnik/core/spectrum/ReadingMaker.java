package rovnik.core.spectrum;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.limits.Limit;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Reading;
import rovnik.core.result.SpoiledBand;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Decibels;

/** Makes readings of one trace: each with plane, uncertainty, verdict and marks. */
public final class ReadingMaker extends PlaneReadings {
  private static final double BETWEEN_POINTS = 1.2;

  private final Trace trace;
  private final SpectrumSettings settings;
  private final MeasurementContext context;
  private final NoiseStatistics statistics;

  public ReadingMaker(
      Trace trace,
      SpectrumSettings settings,
      PathCorrection correction,
      MeasurementContext context) {
    super(correction, context, trace.plane(), settings.centreHz());
    this.trace = trace;
    this.settings = settings;
    this.context = context;
    this.statistics = new NoiseStatistics(trace);
  }

  /** How the noise of the trace scatters. */
  NoiseStatistics statistics() {
    return statistics;
  }

  /** Marks of a level in a band: what concerns all of the trace, and what was spoiled there. */
  public List<String> marks(double fromHz, double toHz) {
    List<String> marks = new ArrayList<>(levelMarks());
    for (SpoiledBand s : context.spoiled()) {
      if (s.overlaps(fromHz, toHz) && !marks.contains(s.why())) {
        marks.add(s.why());
      }
    }
    return marks;
  }

  /** Marks of a noise power: only the mean of powers is the power of a noise-like signal. */
  public List<String> noiseMarks(double lowHz, double highHz) {
    List<String> marks = marks(lowHz, highHz);
    if (settings.detector() != Detector.RMS) {
      marks.add("power needs the RMS detector");
    }
    if (highHz - lowHz < trace.rbwHz()) {
      marks.add("narrower than the RBW");
    }
    return marks;
  }

  /** Standard deviation in dB of noise-like power summed over a width. */
  public double noiseDb(double widthHz) {
    return NoiseStatistics.decibels(statistics.band(widthHz));
  }

  /**
   * Standard deviation in dB of the power between two frequencies: plain tones scatter with the
   * noise under them, all else like noise of its own density.
   *
   * @param lines of the trace
   */
  public double bandDb(double lowHz, double highHz, List<Peak> lines) {
    return new LineStatistics(trace, ToneInterpolator.of(trace)).bandDb(lowHz, highHz, lines);
  }

  /**
   * Standard deviation of a bandwidth that holds all but a share of the power beyond each edge: the
   * power beyond an edge scatters, and the edge moves as far as the density there makes up for it.
   */
  public double shareEdgesHz(double lowHz, double highHz, double beyond) {
    double all = power(trace.startHz(), trace.stopHz());
    double variance = 0;
    for (double edge : new double[] {lowHz, highHz}) {
      double outer = edge == lowHz ? beyond : 1 - beyond;
      double scatter =
          ((1 - outer) * (1 - outer) * squares(trace.startHz(), edge)
                  + outer * outer * squares(edge, trace.stopHz()))
              / (all * all)
              * statistics.perSquaredDensity();
      double density = density(edge) / all;
      variance += density > 0 ? scatter / density / density : 0;
    }
    return Math.sqrt(variance);
  }

  /** Density around a frequency, over one RBW to each side. */
  private double density(double hertz) {
    double reach = Math.max(trace.rbwHz(), trace.stepHz());
    int points = last(hertz + reach) - first(hertz - reach) + 1;
    return points <= 0 ? 0 : power(hertz - reach, hertz + reach) / (points * trace.stepHz());
  }

  /**
   * Integral of the squared density between two frequencies; an ENBW of one hertz is understood.
   */
  private double squares(double lowHz, double highHz) {
    double sum = 0;
    for (int i = first(lowHz); i <= last(highHz); i++) {
      double p = Decibels.toPowerRatio(trace.level()[i]);
      sum += p * p;
    }
    return sum * trace.stepHz();
  }

  private double power(double lowHz, double highHz) {
    double sum = 0;
    for (int i = first(lowHz); i <= last(highHz); i++) {
      sum += Decibels.toPowerRatio(trace.level()[i]);
    }
    return sum * trace.stepHz();
  }

  private int first(double hertz) {
    return (int) Math.max(0, Math.ceil((hertz - trace.startHz()) / trace.stepHz() - 0.5));
  }

  private int last(double hertz) {
    return (int)
        Math.min(trace.points() - 1, Math.floor((hertz - trace.startHz()) / trace.stepHz() + 0.5));
  }

  /**
   * Standard deviation in dB of a line's level in the noise of its resolution bandwidth. Between
   * two points the line stands lower and its place is told by noisy points, too; over all places
   * that makes as much as {@link #BETWEEN_POINTS} says (by trials; the carrier's own is reckoned).
   */
  public double lineDb(double level) {
    double floor = PeakSearch.median(trace.level()) + statistics.meanAboveMedianDb();
    double noise = Math.min(1, Decibels.toPowerRatio(floor - level));
    double ofLine = BETWEEN_POINTS * BETWEEN_POINTS * statistics.line() * noise * (1 - noise);
    return NoiseStatistics.decibels(ofLine + statistics.point() * noise * noise);
  }

  /**
   * A frequency difference that the points and the RBW limit.
   *
   * @param statisticalHz standard deviation from the scatter of the levels
   */
  public Reading width(
      String id,
      String label,
      double hertz,
      double statisticalHz,
      Limit limit,
      List<String> marks) {
    UncertaintyBudget budget =
        new UncertaintyBudget()
            .rectangular("distance of points", trace.stepHz())
            .rectangular("RBW", trace.rbwHz() / 2)
            .normal("average", statisticalHz);
    return reading(id, label, hertz, "Hz", budget, limit, marks);
  }
}
