package rovnik.core.spectrum;

import rovnik.core.units.Decibels;

/**
 * A line beside the shown span: the window's side lobes of it reach in.
 *
 * @param points distance from the first shown point, in points; below 0 or beyond the last
 * @param power 1.0 for a full-scale tone
 */
public record OutsideLine(double points, double power) {
  /**
   * Where it is.
   *
   * @param startHz of the first shown point
   * @param offsetDb level of a full-scale tone
   */
  public Peak at(double startHz, double stepHz, double offsetDb) {
    return new Peak(startHz + points * stepHz, Decibels.fromPowerRatio(power) + offsetDb);
  }
}
