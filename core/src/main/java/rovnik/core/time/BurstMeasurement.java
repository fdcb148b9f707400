package rovnik.core.time;

import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.RecordStretch;
import rovnik.core.modulation.StretchMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** From a record to the bursts in it. */
public final class BurstMeasurement extends StretchMeasurement {
  public static final String KIND = "bursts";
  public static final String TITLE = "Bursts";

  /** Samples that a band gives, over its width: its filter is 60 dB down at 2.2 widths. */
  private static final double RATE_OVER_BAND = 6;

  /** The filter is made out to here, in widths to each side: 100 dB down. */
  private static final double REACH = 2.9;

  /** Fewer times of the filter than this are no look at anything that comes and goes. */
  private static final double LEAST_TIMES = 32;

  private final BurstSettings settings;

  public BurstMeasurement(BurstSettings settings) {
    super(KIND, TITLE, 2 * settings.bandHz(), settings.seconds(), settings.words());
    this.settings = settings;
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    return look(record, context).outcome();
  }

  /** The bursts themselves, for what goes on from them. */
  public FoundBursts found(IqRecord record, MeasurementContext context) {
    return look(record, context).found();
  }

  private BurstOutcome look(IqRecord record, MeasurementContext context) {
    double fs = record.sampleRateHz();
    RecordStretch stretch =
        RecordStretch.of(
            record,
            "band",
            settings.bandHz(),
            settings.startSeconds(),
            LEAST_TIMES,
            samplesWanted(fs));
    double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
    double half = settings.bandHz() / 2;
    BandTaker.Band band =
        new BandTaker(record.iq(), stretch.from(), stretch.samples(), fs)
            .take(
                near,
                REACH * settings.bandHz(),
                Math.min(RATE_OVER_BAND * settings.bandHz(), fs),
                hz -> Math.exp(-Math.log(2) / 2 * (hz / half) * (hz / half)));
    BurstFinder found = new BurstFinder(settings, band);
    return new BurstOutcome(settings, record, context, band, found, stretch.startSeconds());
  }
}
