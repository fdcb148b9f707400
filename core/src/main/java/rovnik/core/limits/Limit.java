package rovnik.core.limits;

import rovnik.core.Refusal;

/**
 * A window that a value must lie in; NaN where a side is open. A value on the limit passes.
 *
 * @param lower lowest allowed value or NaN
 * @param upper highest allowed value or NaN
 */
public record Limit(double lower, double upper) {
  public static final Limit NONE = new Limit(Double.NaN, Double.NaN);

  public Limit {
    if (lower > upper) {
      throw new Refusal("limit", "The lower limit lies above the upper one. Swap or correct them.");
    }
  }

  public boolean open() {
    return Double.isNaN(lower) && Double.isNaN(upper);
  }

  /** Distance to the nearest side, negative outside; NaN for an open limit. */
  public double margin(double value) {
    double below = value - lower;
    double above = upper - value;
    if (Double.isNaN(below)) {
      return above;
    }
    return Double.isNaN(above) ? below : Math.min(below, above);
  }

  /** Judges a value with its expanded uncertainty (NaN if not known). */
  public Verdict judge(double value, double expandedUncertainty) {
    if (open()) {
      return Verdict.NONE;
    }
    if (Double.isNaN(value)) {
      return Verdict.INVALID;
    }
    double margin = margin(value);
    boolean unsure = Math.abs(margin) < expandedUncertainty;
    if (margin >= 0) {
      return unsure ? Verdict.PASS_UNSURE : Verdict.PASS;
    }
    return unsure ? Verdict.FAIL_UNSURE : Verdict.FAIL;
  }
}
