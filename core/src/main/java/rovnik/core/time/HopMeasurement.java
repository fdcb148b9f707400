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
import rovnik.core.units.Seconds;

/**
 * From one record after the other to who hops where: channels, how long each stays, when the next
 * comes.
 */
public final class HopMeasurement extends SpanMeasurement {
  public static final String KIND = "hops";
  public static final String TITLE = "Hops";

  /** Spectra have so many points in a channel. */
  private static final double POINTS = 4;

  /** The shortest hop is looked at in so many slots. */
  private static final double SLOTS = 4;

  /** Where the span is all that a live record holds. */
  private static final double USUAL_SPAN = 80e6;

  private static final long BLOCK = 1 << 22;
  private static final int MOST_POINTS = 16384;
  private static final double LEAST_TIMES = 64;

  private final HopSettings settings;

  public HopMeasurement(HopSettings settings) {
    super(KIND, TITLE, settings.spanHz(), USUAL_SPAN, settings.seconds(), settings.words());
    this.settings = settings;
  }

  @Override
  public long blockSamples() {
    return BLOCK;
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    return gathering().add(record, context);
  }

  @Override
  public Gathering gathering() {
    HopTracker tracker =
        new HopTracker(
            settings.leastSeconds(),
            settings.channelHz(),
            Math.pow(10, settings.overNoiseDb() / 10));
    return new Gathering() {
      private int looks;
      private double lookBegan;
      private double endSeconds = Double.NaN;
      private double seen;
      private SlotPowers powers;
      private SpectrumLayout layout;
      private RecordStretch stretch;

      @Override
      public Outcome add(IqRecord record, MeasurementContext context) {
        take(record, context);
        return new HopOutcome(
                settings,
                record,
                context,
                tracker.found(),
                new HopOutcome.Seen(looks, seen, powers.slotSeconds, lookBegan),
                new HopOutcome.Picture(powers, layout, stretch.startSeconds()))
            .outcome();
      }

      @Override
      public void take(IqRecord record, MeasurementContext context) {
        double fs = record.sampleRateHz();
        double span = settings.spanHz() == 0 ? fs : settings.spanHz();
        double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
        boolean goesOn = Math.abs(record.startSeconds() - endSeconds) < 0.5 / fs;
        stretch =
            goesOn
                ? new RecordStretch(0, record.sampleCount(), record.startSeconds())
                : RecordStretch.of(
                    record,
                    "channel",
                    settings.channelHz(),
                    settings.startSeconds(),
                    LEAST_TIMES,
                    Long.MAX_VALUE);
        powers = powers(record, stretch, span, near);
        if (!goesOn) {
          looks++;
          lookBegan = stretch.startSeconds();
        }
        layout = layout(fs, near, span);
        double independent = settings.channelHz() / 2 / layout.enbwHz();
        tracker.take(
            powers,
            looks,
            stretch.startSeconds() - lookBegan,
            goesOn,
            layout.offsetHz(0),
            layout.stepHz(),
            independent);
        endSeconds = record.endSeconds();
        seen += stretch.samples() / fs;
      }
    };
  }

  private SpectrumLayout layout(double fs, double near, double span) {
    double rbw = settings.channelHz() / POINTS;
    double coarsest =
        Window.HANN.figures().width3dbBins() * fs / SpectrumLayout.SHORTEST_WINDOW * 0.999;
    SpectrumLayout layout =
        SpectrumLayout.plan(fs, near, span, Math.min(rbw, coarsest), Window.HANN);
    if (layout.points() > MOST_POINTS) {
      throw new Refusal(
          "channelHz",
          "That many channels in the span are too many. Take a smaller span, or channels of at least "
              + Frequency.ofHertz(Math.ceil(settings.channelHz() * layout.points() / MOST_POINTS))
              + ".");
    }
    return layout;
  }

  private SlotPowers powers(IqRecord record, RecordStretch stretch, double span, double near) {
    SpectrumLayout layout = layout(record.sampleRateHz(), near, span);
    int hop = Math.max(1, layout.windowLength() / 2);
    FrameSpectra spectra = new FrameSpectra(record, layout, stretch.from(), stretch.samples(), hop);
    double slot = settings.leastSeconds() / SLOTS;
    int perSlot = (int) Math.floor(slot / spectra.stepSeconds());
    if (perSlot < 1) {
      throw new Refusal(
          "leastSeconds",
          "Channels that are "
              + Frequency.ofHertz(settings.channelHz())
              + " apart are told apart in "
              + Seconds.words(spectra.stepSeconds())
              + ": take a shortest hop of at least "
              + Seconds.words(SLOTS * spectra.stepSeconds())
              + ".");
    }
    int half = Math.max(1, (int) Math.round(settings.channelHz() / 4 / layout.stepHz()));
    return new SlotPowers(spectra, perSlot, half);
  }
}
