package rovnik.core.listening;

import java.util.Optional;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.RecordStretch;
import rovnik.core.modulation.StretchMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Sound;
import rovnik.core.spectrum.MeasurementContext;

/** Hears a channel: its sound, with what a radio's meters would say of it. */
public final class ListenMeasurement extends StretchMeasurement {
  public static final String KIND = "audio";
  public static final String TITLE = "Listening";

  /** Width of what a record must hold, over the channel. */
  private static final double WIDER = 1.3;

  /** One side band lies to one side of its carrier. */
  private static final double ONE_SIDE = 2.4;

  private static final double LEAST_TIMES = 32;

  /** Samples of a recording that are taken at once. */
  private static final long BLOCK = 1 << 22;

  private final ListenSettings settings;

  public ListenMeasurement(ListenSettings settings) {
    super(
        KIND,
        TITLE,
        (settings.mode().oneSideBand() ? ONE_SIDE : WIDER) * settings.bandHz(),
        settings.seconds(),
        settings.words());
    this.settings = settings;
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    return gathering().add(record, context);
  }

  @Override
  public long blockSamples() {
    return BLOCK;
  }

  @Override
  public boolean goesOn() {
    return true;
  }

  @Override
  public Gathering stream() {
    return new ListenStream(this, settings);
  }

  @Override
  public Gathering gathering() {
    return new Gathering() {
      private Demodulator demodulator;
      private double startSeconds;
      private double endSeconds = Double.NaN;
      private double nearHz;
      private ListenOutcome newest;

      @Override
      public Outcome add(IqRecord record, MeasurementContext context) {
        take(record, context);
        // What the filters hold comes out: what follows is heard anew.
        demodulator.end();
        endSeconds = Double.NaN;
        newest = new ListenOutcome(settings, record, context, demodulator, nearHz, startSeconds);
        return newest.outcome();
      }

      @Override
      public void take(IqRecord record, MeasurementContext context) {
        double fs = record.sampleRateHz();
        RecordStretch stretch =
            Math.abs(record.startSeconds() - endSeconds) < 0.5 / fs
                ? new RecordStretch(0, record.sampleCount(), record.startSeconds())
                : begin(record, context);
        demodulator.take(record.iq(), stretch.from(), stretch.samples());
        endSeconds = record.endSeconds();
      }

      private RecordStretch begin(IqRecord record, MeasurementContext context) {
        double fs = record.sampleRateHz();
        RecordStretch stretch =
            RecordStretch.of(
                record,
                "channel",
                settings.bandHz(),
                settings.startSeconds(),
                LEAST_TIMES,
                samplesWanted(fs));
        nearHz = CarrierReadings.expectedHz(record, context, settings.centreHz());
        startSeconds = stretch.startSeconds();
        demodulator = new Demodulator(settings, fs, nearHz);
        return stretch;
      }

      @Override
      public Optional<Sound> sound() {
        return Optional.ofNullable(newest).map(ListenOutcome::sound);
      }
    };
  }
}
