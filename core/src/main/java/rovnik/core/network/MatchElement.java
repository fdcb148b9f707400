package rovnik.core.network;

import org.hipparchus.complex.Complex;
import rovnik.core.Refusal;

/**
 * One element of a matching network that is only thought of.
 *
 * @param value ohm, henry or farad; for a line its delay in seconds
 */
public record MatchElement(Place place, Part part, double value) {
  /** In the line, or from the line to ground. */
  public enum Place {
    SERIES,
    SHUNT
  }

  /** What it is. */
  public enum Part {
    RESISTOR,
    INDUCTOR,
    CAPACITOR,
    /** A length of line of the reference impedance, always in series. */
    LINE
  }

  public MatchElement {
    if (place == null || part == null || !(value > 0)) {
      throw new Refusal("element", "An element needs its place, its part, and a value above 0.");
    }
  }

  /** The element as a two-port on the frequencies of another network. */
  public NetworkData on(NetworkData like) {
    double z0 = like.referenceOhm()[0];
    double[] hz = like.frequencyHz();
    double[] s = new double[8 * hz.length];
    for (int p = 0; p < hz.length; p++) {
      double w = 2 * Math.PI * hz[p];
      Complex reflected;
      Complex passed;
      if (part == Part.LINE) {
        reflected = Complex.ZERO;
        passed = new Complex(0, -w * value).exp();
      } else {
        Complex z =
            switch (part) {
              case RESISTOR -> new Complex(value, 0);
              case INDUCTOR -> new Complex(0, w * value);
              default -> new Complex(0, -1 / (w * value));
            };
        Complex below = place == Place.SERIES ? z.add(2 * z0) : z.multiply(2).add(z0);
        reflected = place == Place.SERIES ? z.divide(below) : new Complex(-z0, 0).divide(below);
        passed =
            place == Place.SERIES
                ? new Complex(2 * z0, 0).divide(below)
                : z.multiply(2).divide(below);
      }
      put(s, 8 * p, reflected);
      put(s, 8 * p + 2, passed);
      put(s, 8 * p + 4, passed);
      put(s, 8 * p + 6, reflected);
    }
    return new NetworkData(2, new double[] {z0, z0}, hz, s);
  }

  /** A network seen through this element at its port 1. */
  public NetworkData before(NetworkData n) {
    NetworkData element = on(n);
    if (n.ports() == 2) {
      return NetworkChange.cascade(element, n);
    }
    if (n.ports() != 1) {
      throw new Refusal("element", "Elements are put before a part of one or two ports.");
    }
    double[] s = new double[n.s().length];
    for (int p = 0; p < n.points(); p++) {
      TwoPort t = TwoPort.of(element, p);
      Complex end = new Complex(n.re(p, 1, 1), n.im(p, 1, 1));
      Complex seen =
          t.s11()
              .add(
                  t.s12()
                      .multiply(t.s21())
                      .multiply(end)
                      .divide(Complex.ONE.subtract(t.s22().multiply(end))));
      put(s, 2 * p, seen);
    }
    return new NetworkData(1, n.referenceOhm(), n.frequencyHz(), s);
  }

  private static void put(double[] s, int at, Complex v) {
    s[at] = v.getReal();
    s[at + 1] = v.getImaginary();
  }
}
