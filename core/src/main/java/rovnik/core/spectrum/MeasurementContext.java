package rovnik.core.spectrum;

import java.util.List;
import rovnik.core.limits.LimitSet;
import rovnik.core.path.PathCorrection;
import rovnik.core.uncertainty.InstrumentAccuracy;

/**
 * What a spectrum is measured with and judged against.
 *
 * @param correction from the port to the reading plane; null for a record without calibration
 * @param accuracy of the instrument
 * @param limits of the job
 * @param marks reasons to distrust all levels, such as an overload
 */
public record MeasurementContext(
    PathCorrection correction, InstrumentAccuracy accuracy, LimitSet limits, List<String> marks) {

  /** A record by itself: no path, no limits, levels in dBFS. */
  public static final MeasurementContext BARE =
      new MeasurementContext(null, InstrumentAccuracy.UNKNOWN, LimitSet.NONE, List.of());
}
