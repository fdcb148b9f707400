package rovnik.core.time;

import rovnik.core.modulation.StretchMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Waits for the power in a band to cross a level, in samples that go on. */
public final class TriggerMeasurement extends StretchMeasurement {
  public static final String KIND = "trigger";
  public static final String TITLE = "Trigger";

  /** Where the band is all that a live record holds. */
  private static final double USUAL_BAND = 1e6;

  /** Samples of a recording that are taken at once. */
  private static final long BLOCK = 1 << 20;

  private final TriggerSettings settings;

  public TriggerMeasurement(TriggerSettings settings) {
    super(
        KIND,
        TITLE,
        settings.bandHz() == 0 ? USUAL_BAND : TriggerWatch.WIDER * settings.bandHz(),
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
  public boolean ongoing() {
    return true;
  }

  @Override
  public Gathering gathering() {
    return new TriggerWatch(settings);
  }
}
