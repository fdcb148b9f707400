package rovnik.core.network;

import rovnik.core.Refusal;
import rovnik.core.units.Decibels;

/**
 * A cable of known length: how fast it is and what it loses.
 *
 * @param velocityFactor share of the speed of light
 * @param lossDbPerMetre at {@code atHz}; what is reflected at its end is not counted as lost
 */
public record CableFigures(double velocityFactor, double lossDbPerMetre, double atHz) {

  /** From its transmission; the loss at the point nearest to a frequency. */
  public static CableFigures of(NetworkData n, double metres, double atHz) {
    if (n.ports() != 2 || n.points() < 3) {
      throw new Refusal("cable", "A cable is measured between two ports, at three points or more.");
    }
    if (!(metres > 0)) {
      throw new Refusal("metres", "Give the length of the cable, such as 24 m.");
    }
    double[] phase = NetworkFormat.unwrapped(n, 2, 1);
    double mx = 0;
    double my = 0;
    for (int p = 0; p < phase.length; p++) {
      mx += n.frequencyHz()[p] / phase.length;
      my += phase[p] / phase.length;
    }
    double top = 0;
    double below = 0;
    int near = 0;
    for (int p = 0; p < phase.length; p++) {
      double x = n.frequencyHz()[p] - mx;
      top += x * (phase[p] - my);
      below += x * x;
      if (Math.abs(n.frequencyHz()[p] - atHz) < Math.abs(n.frequencyHz()[near] - atHz)) {
        near = p;
      }
    }
    double passed = n.magnitude(near, 2, 1);
    double back = n.magnitude(near, 1, 1);
    double seconds = -top / below / (2 * Math.PI);
    return new CableFigures(
        metres / seconds / TimeDomain.LIGHT,
        -Decibels.fromPowerRatio(passed * passed / (1 - back * back)) / metres,
        n.frequencyHz()[near]);
  }
}
