package rovnik.core.time;

import rovnik.core.Refusal;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.RecordStretch;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.units.Frequency;

/** From a record to how often each frequency had which level, and when. */
public final class DensityMeasurement extends SpanMeasurement {
  public static final String KIND = "density";
  public static final String TITLE = "Density";

  /** Points that a matrix has at most. */
  private static final int MOST_POINTS = 4096;

  private static final long MOST_SPECTRA = 2_000_000;

  /** A result is this many windows long at least. */
  private static final double LEAST_TIMES = 8;

  /** Where the span is all that a live record holds. */
  private static final double USUAL_SPAN = 1e6;

  private final DensitySettings settings;

  /**
   * Of the look before: it takes longer than the spectra, and is the same with the same windows.
   */
  private volatile SureEvents sure = SureEvents.of(1, Window.HANN, 1, 1);

  public DensityMeasurement(DensitySettings settings) {
    super(KIND, TITLE, settings.spanHz(), USUAL_SPAN, settings.seconds(), settings.words());
    this.settings = settings;
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    double fs = record.sampleRateHz();
    double span = settings.spanHz() == 0 ? fs : settings.spanHz();
    double rbw = settings.rbwOf(span, Math.min(settings.seconds(), record.sampleCount() / fs));
    double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
    SpectrumLayout layout = SpectrumLayout.plan(fs, near, span, rbw, settings.window());
    if (layout.points() > MOST_POINTS) {
      throw new Refusal(
          "rbwHz",
          "A density has at most "
              + MOST_POINTS
              + " points. Take an RBW of at least "
              + Frequency.ofHertz(Math.ceil(rbw * layout.points() / MOST_POINTS))
              + ", or a smaller span.");
    }
    RecordStretch stretch =
        RecordStretch.of(
            record,
            "span",
            span,
            settings.startSeconds(),
            LEAST_TIMES * layout.windowLength() / fs * span,
            samplesWanted(fs));
    int hop =
        Math.max(
            1, (int) Math.round(layout.windowLength() * (1 - settings.overlapPercent() / 100)));
    FrameSpectra spectra = new FrameSpectra(record, layout, stretch.from(), stretch.samples(), hop);
    if (spectra.frames() > MOST_SPECTRA) {
      throw new Refusal(
          "overlapPercent",
          "These are more than 2,000,000 spectra. Take less overlap, a finer RBW or a shorter result.");
    }
    sure = sure.or(fs, layout.window(), layout.windowLength(), hop);
    return new DensityOutcome(
            settings, record, context, spectra, sure, near, stretch.startSeconds())
        .outcome();
  }
}
