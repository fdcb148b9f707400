package rovnik.core.modulation.analog;

import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.RecordStretch;
import rovnik.core.modulation.StretchMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** From a record to what a carrier's amplitude, frequency and phase do. */
public final class AnalogMeasurement extends StretchMeasurement {
  public static final String KIND = "analog";
  public static final String TITLE = "AM, FM, PM";

  /** The record is a little longer than the result: filters ring at its ends. */
  private static final double LONGER = 1.1;

  /** And wider than the channel: a carrier may be off its place. */
  private static final double WIDER = 1.5;

  /** Times of the channel's inverse width that tell anything of it. */
  private static final double LEAST_TIMES = 32;

  private final AnalogSettings settings;

  public AnalogMeasurement(AnalogSettings settings) {
    super(
        KIND,
        TITLE,
        WIDER * settings.bandHz(),
        LONGER * settings.seconds() + 2 * settings.audio().settlesSeconds(),
        settings.words());
    this.settings = settings;
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    double fs = record.sampleRateHz();
    RecordStretch stretch =
        RecordStretch.of(
            record,
            "channel",
            settings.bandHz(),
            settings.startSeconds(),
            LEAST_TIMES,
            samplesWanted(fs));
    double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
    Demodulated d =
        Demodulated.of(record.iq(), stretch.from(), stretch.samples(), fs, near, settings.bandHz());
    return new AnalogOutcome(settings, record, context, d).outcome();
  }
}
