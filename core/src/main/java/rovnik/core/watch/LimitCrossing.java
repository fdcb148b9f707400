package rovnik.core.watch;

import rovnik.core.limits.Limit;

/**
 * When a number leaves its limits, and when it is back. A number that is not there, as the power of
 * a carrier that is off, is outside them.
 */
final class LimitCrossing {
  enum Change {
    NONE,
    LEFT,
    BACK
  }

  private final Limit limit;
  private final double hysteresis;
  private boolean outside;
  private double worst = Double.NaN;

  LimitCrossing(Limit limit, double hysteresis) {
    this.limit = limit;
    this.hysteresis = hysteresis;
  }

  /**
   * Takes a value.
   *
   * @param value NaN if the number is not there
   */
  Change take(double value) {
    if (limit.open()) {
      return Change.NONE;
    }
    if (Double.isNaN(value)) {
      boolean was = outside;
      outside = true;
      worst = Double.NaN;
      return was ? Change.NONE : Change.LEFT;
    }
    double margin = limit.margin(value);
    if (!outside) {
      outside = margin < 0;
      worst = outside ? value : worst;
      return outside ? Change.LEFT : Change.NONE;
    }
    if (margin < limit.margin(worst)) {
      worst = value;
    }
    // Back on the limit is back inside only where nothing more is asked for.
    if (margin >= hysteresis) {
      outside = false;
      return Change.BACK;
    }
    return Change.NONE;
  }

  /** Goes on with an event that has begun already. */
  void goOn(double worstSoFar) {
    outside = true;
    worst = worstSoFar;
  }

  boolean outside() {
    return outside;
  }

  /** The value that was furthest outside since it left, NaN if it was not there at all. */
  double worst() {
    return worst;
  }
}
