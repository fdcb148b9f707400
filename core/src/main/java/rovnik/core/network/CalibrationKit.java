package rovnik.core.network;

import java.util.Map;
import rovnik.core.Refusal;

/**
 * The standards of one box.
 *
 * @param standards what is known of each
 * @param throughSeconds delay of the through, 0 for connectors that fit one another
 * @param throughLossOhmPerSecond as of a standard's line
 */
public record CalibrationKit(
    String id,
    String label,
    Map<CalibrationStandard.Kind, KnownReflection> standards,
    double throughSeconds,
    double throughLossOhmPerSecond) {

  public CalibrationKit {
    standards = Map.copyOf(standards);
    for (CalibrationStandard.Kind k : CalibrationStandard.Kind.values()) {
      if (!standards.containsKey(k)) {
        throw new Refusal(
            "kit", "The kit \"" + label + "\" says nothing of its " + k.name().toLowerCase() + ".");
      }
    }
  }

  /** Standards as the textbook has them. */
  public static CalibrationKit ideal() {
    return new CalibrationKit(
        "ideal",
        "ideal standards",
        Map.of(
            CalibrationStandard.Kind.OPEN,
            CalibrationStandard.ideal(CalibrationStandard.Kind.OPEN),
            CalibrationStandard.Kind.SHORT,
            CalibrationStandard.ideal(CalibrationStandard.Kind.SHORT),
            CalibrationStandard.Kind.LOAD,
            CalibrationStandard.ideal(CalibrationStandard.Kind.LOAD)),
        0,
        0);
  }

  /** The through on some frequencies. */
  public NetworkData through(double[] hz) {
    double[] s = new double[8 * hz.length];
    for (int p = 0; p < hz.length; p++) {
      double neper = throughLossOhmPerSecond * throughSeconds / 100 * Math.sqrt(hz[p] / 1e9);
      double angle = -2 * Math.PI * hz[p] * throughSeconds - neper;
      double size = Math.exp(-neper);
      for (int at : new int[] {2, 4}) {
        s[8 * p + at] = size * Math.cos(angle);
        s[8 * p + at + 1] = size * Math.sin(angle);
      }
    }
    return new NetworkData(2, new double[] {50, 50}, hz, s);
  }
}
