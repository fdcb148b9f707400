package rovnik.core.spectrum;

import java.util.List;
import rovnik.core.result.Axis;
import rovnik.core.result.Fact;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.signal.IqRecord;

/**
 * Makes series that are read at the reading plane.
 *
 * @param plane its name, empty if there is none
 * @param calibrated whether levels are known
 * @param facts that belong to each of them
 */
public record PlacedSeries(String plane, boolean calibrated, List<Fact> facts) {
  /** Of a record, where the context reads it. */
  public static PlacedSeries of(IqRecord record, MeasurementContext context, Fact... facts) {
    return new PlacedSeries(
        context.correction() == null ? "" : context.correction().planeName(),
        record.calibrated(),
        List.of(facts));
  }

  /** The same with other facts. */
  public PlacedSeries with(Fact... others) {
    return new PlacedSeries(plane, calibrated, List.of(others));
  }

  /** A curve over its own or even places. */
  public Series curve(String id, String label, Axis x, String quantity, String unit, double[] y) {
    return series(id, label, x, quantity, unit, new Values.Real(y));
  }

  /** Values of any shape. */
  public Series series(
      String id, String label, Axis x, String quantity, String unit, Values values) {
    return new Series(
        id, label, Series.Role.DATA, plane, calibrated, x, quantity, unit, values, facts);
  }
}
