package rovnik.core.modulation.analysis;

import rovnik.core.Refusal;

/**
 * Where something that grows with the square of the distance from its best place is least: three
 * looks at a power tell it, whatever the scale and the sign of what is turned.
 *
 * @param at the best place, from where the middle look was taken
 * @param least the power that is left there
 */
public record Valley(double at, double least) {

  /**
   * @param step how far the two outer looks were from the middle one, not 0
   * @param below power at {@code -step}
   * @param middle power at 0
   * @param above power at {@code step}
   * @throws Refusal if the three do not bend upward
   */
  public static Valley of(double step, double below, double middle, double above) {
    double bend = (above + below - 2 * middle) / (2 * step * step);
    double slope = (above - below) / (2 * step);
    if (!(bend > 0)) {
      throw new Refusal("step", "Turning this changes nothing that could be told from noise.");
    }
    double at = -slope / (2 * bend);
    return new Valley(at, Math.max(0, middle + slope * at + bend * at * at));
  }
}
