package rovnik.core.spectrum;

import java.util.List;
import rovnik.core.limits.KnownRate;
import rovnik.core.limits.LimitSet;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.SpoiledBand;
import rovnik.core.uncertainty.InstrumentAccuracy;

/**
 * What a spectrum is measured with and judged against.
 *
 * @param correction from the port to the reading plane; null for a record without calibration
 * @param accuracy of the instrument
 * @param limits of the job
 * @param marks reasons to distrust all levels, such as an overload
 * @param spoiled bands whose levels must not be trusted, at the reading plane
 * @param rates of the device under test that are known
 */
public record MeasurementContext(
    PathCorrection correction,
    InstrumentAccuracy accuracy,
    LimitSet limits,
    List<String> marks,
    List<SpoiledBand> spoiled,
    List<KnownRate> rates) {

  public MeasurementContext(
      PathCorrection correction,
      InstrumentAccuracy accuracy,
      LimitSet limits,
      List<String> marks,
      List<SpoiledBand> spoiled) {
    this(correction, accuracy, limits, marks, spoiled, List.of());
  }

  public MeasurementContext(
      PathCorrection correction, InstrumentAccuracy accuracy, LimitSet limits, List<String> marks) {
    this(correction, accuracy, limits, marks, List.of());
  }

  /** The same where nothing is demanded. */
  public MeasurementContext withoutLimits() {
    return new MeasurementContext(correction, accuracy, LimitSet.NONE, marks, spoiled, rates);
  }

  /** The same where more is known of the device under test. */
  public MeasurementContext with(List<KnownRate> known) {
    return new MeasurementContext(correction, accuracy, limits, marks, spoiled, known);
  }

  /** A record by itself: no path, no limits, levels in dBFS. */
  public static final MeasurementContext BARE =
      new MeasurementContext(null, InstrumentAccuracy.UNKNOWN, LimitSet.NONE, List.of());
}
