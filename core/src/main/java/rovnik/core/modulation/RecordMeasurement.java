package rovnik.core.modulation;

import java.util.List;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** What is measured of one record around one carrier. */
public interface RecordMeasurement {
  /** Stable key of the kind. */
  String kind();

  /** The name as shown. */
  String title();

  /** Band that a record must hold around the expected carrier. */
  double bandHz();

  /** How long a record must be for the length that is set. */
  double secondsWanted();

  /** Samples that a record needs for that. */
  default long samplesWanted(double sampleRateHz) {
    return (long) Math.ceil(secondsWanted() * sampleRateHz);
  }

  /** The settings in words. */
  List<Fact> words();

  /**
   * Measures a record.
   *
   * @throws rovnik.core.Refusal if it is no such signal
   */
  Outcome of(IqRecord record, MeasurementContext context);
}
