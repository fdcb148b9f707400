package rovnik.core.network;

import org.hipparchus.complex.Complex;
import rovnik.core.Refusal;

/**
 * A one-port standard as kits describe it: a short line with a termination whose capacitance or
 * inductance is a polynomial of the frequency (common practice of calibration kits).
 *
 * @param kind what stands at the end
 * @param delaySeconds of the line, one way
 * @param lossOhmPerSecond of the line at 1 GHz, growing with the root of the frequency
 * @param lineOhm of the line
 * @param coefficients farad, farad/Hz ... for an open; henry, henry/Hz ... for a short; none for a
 *     load
 * @param loadOhm resistance of a load
 */
public record CalibrationStandard(
    Kind kind,
    double delaySeconds,
    double lossOhmPerSecond,
    double lineOhm,
    double[] coefficients,
    double loadOhm)
    implements KnownReflection {

  /** What stands at the end of the line. */
  public enum Kind {
    OPEN,
    SHORT,
    LOAD
  }

  public CalibrationStandard {
    if (kind == null || !(lineOhm > 0) || !(loadOhm > 0)) {
      throw new Refusal(
          "standard", "A standard needs its kind, and impedances of more than 0 ohm.");
    }
    if (coefficients.length > 4) {
      throw new Refusal("standard", "A standard has at most four coefficients.");
    }
  }

  /** As the textbook has it: no line, nothing fringing. */
  public static CalibrationStandard ideal(Kind kind) {
    return new CalibrationStandard(kind, 0, 0, 50, new double[0], 50);
  }

  @Override
  public Complex reflection(double hertz, double referenceOhm) {
    double w = 2 * Math.PI * hertz;
    double sum = 0;
    for (int i = coefficients.length - 1; i >= 0; i--) {
      sum = sum * hertz + coefficients[i];
    }
    Complex end =
        switch (kind) {
          // (Z - Z0) / (Z + Z0), written so that it holds for no capacitance as well.
          case OPEN -> {
            Complex y = new Complex(0, w * sum * lineOhm);
            yield Complex.ONE.subtract(y).divide(Complex.ONE.add(y));
          }
          case SHORT -> {
            Complex z = new Complex(0, w * sum / lineOhm);
            yield z.subtract(1).divide(z.add(1));
          }
          case LOAD -> new Complex((loadOhm - lineOhm) / (loadOhm + lineOhm), 0);
        };
    double loss = lossOhmPerSecond * delaySeconds / (2 * lineOhm) * Math.sqrt(hertz / 1e9);
    Complex back = new Complex(-2 * loss, -2 * (w * delaySeconds + loss)).exp();
    Complex atPlane = end.multiply(back);
    // From the line's impedance to the reference's.
    double step = (lineOhm - referenceOhm) / (lineOhm + referenceOhm);
    return atPlane.add(step).divide(atPlane.multiply(step).add(1));
  }
}
