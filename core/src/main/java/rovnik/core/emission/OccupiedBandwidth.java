package rovnik.core.emission;

import rovnik.core.Refusal;
import rovnik.core.spectrum.BandPower;
import rovnik.core.spectrum.Trace;

/**
 * Width of an emission.
 *
 * @param lowHz lower edge
 * @param highHz upper edge
 */
public record OccupiedBandwidth(double lowHz, double highHz) {
  public double widthHz() {
    return highHz - lowHz;
  }

  public double centreHz() {
    return (lowHz + highHz) / 2;
  }

  /**
   * The band that holds a share of all power in the trace, with half of the rest beyond each edge
   * (ITU Radio Regulations 1.153 and ITU-R SM.328: 99 %, 0.5 % beyond each edge). The noise in the
   * span counts as well: choose a span of two to three times the width.
   *
   * @param share 0 to 1, such as 0.99
   */
  public static OccupiedBandwidth ofShare(BandPower power, double share) {
    if (!(share > 0 && share < 1)) {
      throw new Refusal("occupiedShare", "The share of power must lie between 0 and 100 %, as 99.");
    }
    return new OccupiedBandwidth(
        power.frequencyAtShare((1 - share) / 2), power.frequencyAtShare((1 + share) / 2));
  }

  /**
   * The band between the outermost points that lie no more than {@code xDb} below the highest one,
   * with straight lines between points.
   *
   * @param xDb positive, such as 26
   */
  public static OccupiedBandwidth ofFall(Trace trace, double xDb) {
    if (!(xDb > 0)) {
      throw new Refusal("occupiedXDb", "x dB must be a positive number of dB, such as 26.");
    }
    float[] level = trace.level();
    double wall = Double.NEGATIVE_INFINITY;
    for (float v : level) {
      wall = Math.max(wall, v);
    }
    wall -= xDb;
    int first = 0;
    while (level[first] < wall) {
      first++;
    }
    int last = level.length - 1;
    while (level[last] < wall) {
      last--;
    }
    return new OccupiedBandwidth(crossing(trace, first, -1, wall), crossing(trace, last, 1, wall));
  }

  private static double crossing(Trace t, int inside, int direction, double wall) {
    int outside = inside + direction;
    if (outside < 0 || outside >= t.points()) {
      return t.frequencyHz(inside);
    }
    double fall = t.level()[inside] - t.level()[outside];
    return t.frequencyHz(inside) + direction * t.stepHz() * (t.level()[inside] - wall) / fall;
  }
}
