package rovnik.core.time;

import rovnik.core.Refusal;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.RecordStretch;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.units.Frequency;

/** A station and its neighbours on a scale of channels: who is there, how strong, how often. */
public final class ChannelMeasurement extends SpanMeasurement {
  public static final String KIND = "channels";
  public static final String TITLE = "Channels";

  /** A strong station must not reach into the channels beside it by the window alone. */
  private static final Window WINDOW = Window.BLACKMAN_HARRIS;

  /** The width of a channel is so many RBWs. */
  private static final double FINE = 24;

  private static final double USUAL_SPAN = 1e6;
  private static final int MOST_POINTS = 1 << 17;
  private static final double LEAST_TIMES = 4;

  private final ChannelSettings settings;

  public ChannelMeasurement(ChannelSettings settings) {
    super(KIND, TITLE, settings.spanHz(), USUAL_SPAN, settings.seconds(), settings.words());
    this.settings = settings;
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    return gathering().add(record, context);
  }

  /** Channels of a record. */
  record Scale(SpectrumLayout layout, double firstHz, int count, int own, int ownNumber) {
    /** Middle of the first one, in points. */
    double firstPoint() {
      return (firstHz - layout.offsetHz(0)) / layout.stepHz();
    }
  }

  @Override
  public Gathering gathering() {
    return new Gathering() {
      private ChannelTally tally;
      private Scale scale;

      @Override
      public Outcome add(IqRecord record, MeasurementContext context) {
        double fs = record.sampleRateHz();
        double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
        Scale now = scale(record, context, near);
        if (tally == null || !now.equals(scale)) {
          tally =
              new ChannelTally(now.count(), now.own(), Math.pow(10, settings.overNoiseDb() / 10));
          scale = now;
        }
        SpectrumLayout layout = now.layout();
        RecordStretch stretch =
            RecordStretch.of(
                record,
                "channel",
                settings.width(),
                settings.startSeconds(),
                LEAST_TIMES * layout.windowLength() / fs * settings.width(),
                samplesWanted(fs));
        int hop = Math.max(1, layout.windowLength() / 2);
        FrameSpectra spectra =
            new FrameSpectra(record, layout, stretch.from(), stretch.samples(), hop);
        double points = 1 / layout.stepHz();
        tally.take(
            spectra, now.firstPoint(), settings.channelHz() * points, settings.width() * points);
        tally.seconds += stretch.samples() / fs;
        return new ChannelOutcome(settings, record, context, scale, tally, stretch.startSeconds())
            .outcome();
      }
    };
  }

  /** The channels that lie within the span, around where the own one is expected. */
  private Scale scale(IqRecord record, MeasurementContext context, double near) {
    double fs = record.sampleRateHz();
    double step = settings.channelHz();
    double span = settings.spanHz() == 0 ? 2 * (fs / 2 - Math.abs(near)) : settings.spanHz();
    double ownHz = near;
    int number = 0;
    if (settings.firstHz() > 0) {
      PathCorrection c = context.correction();
      double port = c == null ? settings.firstHz() : c.planeToPortHz(settings.firstHz());
      double first = port - record.centreHz();
      number = (int) Math.rint((near - first) / step) + 1;
      ownHz = first + (number - 1) * step;
    }
    double room = (span - settings.width()) / 2;
    int below = (int) Math.floor((ownHz - near + room) / step + 1e-9);
    int above = (int) Math.floor((near - ownHz + room) / step + 1e-9);
    if (below < 0 || above < 0) {
      throw new Refusal(
          "spanHz",
          "The span has no room for the own channel of "
              + Frequency.ofHertz(settings.width())
              + ". Take a wider one, or another centre.");
    }
    int count = below + above + 1;
    if (count > ChannelSettings.MOST_CHANNELS) {
      throw new Refusal(
          "channelHz",
          "These are more than "
              + ChannelSettings.MOST_CHANNELS
              + " channels. Take a smaller span, or channels farther apart.");
    }
    double rbw = settings.width() / FINE;
    SpectrumLayout layout = SpectrumLayout.plan(fs, near, span, rbw, WINDOW);
    if (layout.points() > MOST_POINTS) {
      throw new Refusal("spanHz", "That many channels are too many at once. Take a smaller span.");
    }
    return new Scale(layout, ownHz - below * step, count, below, number);
  }
}
