package rovnik.core.network;

import java.util.function.IntToDoubleFunction;
import org.hipparchus.complex.Complex;
import rovnik.core.Refusal;

/**
 * A single resonance of a crystal or a coil, from the immittance around it: straight through the
 * zero of its imaginary part over x = f/f0 - f0/f, which is exact for three elements.
 *
 * @param quality of the part alone, unloaded
 * @param seriesCircuit true for L, C and R in series, false for them in parallel
 */
public record Resonance(
    double hertz, double quality, double henry, double farad, double ohm, boolean seriesCircuit) {

  /** How the part is connected. */
  public enum Connection {
    /** Between port 1 and port 2. */
    BETWEEN_PORTS,
    /** From the line that joins the ports to ground. */
    ACROSS_LINE,
    /** At port 1 alone. */
    AT_PORT_1
  }

  /**
   * The strongest resonance in a band.
   *
   * @throws Refusal if none lies there
   */
  public static Resonance of(
      NetworkData n, Connection connection, boolean series, double fromHz, double toHz) {
    if (connection != Connection.AT_PORT_1 && n.ports() != 2) {
      throw new Refusal("connection", "This connection needs both ports; the data has one.");
    }
    Complex[] v = new Complex[n.points()];
    for (int p = 0; p < v.length; p++) {
      Complex z = impedance(n, connection, p);
      v[p] = series ? z : z.reciprocal();
    }
    int at = -1;
    for (int p = 0; p + 1 < v.length; p++) {
      double hz = n.frequencyHz()[p];
      boolean rises = v[p].getImaginary() < 0 && v[p + 1].getImaginary() >= 0;
      if (rises
          && hz >= fromHz
          && n.frequencyHz()[p + 1] <= toHz
          && (at < 0 || v[p].getReal() < v[at].getReal())) {
        at = p;
      }
    }
    if (at < 0) {
      throw new Refusal(
          "resonance",
          "No resonance of this kind lies in the band. Widen it, or choose the other kind.");
    }
    double f0 = zero(n, v, at);
    return fitted(n, v, at, f0, series);
  }

  private static Complex impedance(NetworkData n, Connection connection, int p) {
    double z0 = n.referenceOhm()[0];
    Complex s =
        connection == Connection.AT_PORT_1
            ? new Complex(n.re(p, 1, 1), n.im(p, 1, 1))
            : new Complex(n.re(p, 2, 1), n.im(p, 2, 1));
    return switch (connection) {
      case AT_PORT_1 -> s.add(1).divide(Complex.ONE.subtract(s)).multiply(z0);
      case BETWEEN_PORTS -> s.reciprocal().subtract(1).multiply(2 * z0);
      case ACROSS_LINE -> s.reciprocal().subtract(1).multiply(2 / z0).reciprocal();
    };
  }

  private static double zero(NetworkData n, Complex[] v, int p) {
    double share = -v[p].getImaginary() / (v[p + 1].getImaginary() - v[p].getImaginary());
    return n.frequencyHz()[p] + share * (n.frequencyHz()[p + 1] - n.frequencyHz()[p]);
  }

  private static Resonance fitted(NetworkData n, Complex[] v, int at, double f0, boolean series) {
    double real = Math.max(v[at].getReal(), 1e-15);
    // Points within the bandwidth: |X| below R. Two at least.
    int first = at;
    int last = at + 1;
    while (first > 0 && Math.abs(v[first - 1].getImaginary()) < real) {
      first--;
    }
    while (last < v.length - 1 && Math.abs(v[last + 1].getImaginary()) < real) {
      last++;
    }
    double centre = f0;
    double slope = 0;
    for (int turn = 0; turn < 3; turn++) {
      double reference = centre;
      IntToDoubleFunction x = p -> n.frequencyHz()[p] / reference - reference / n.frequencyHz()[p];
      double sx = 0;
      double sy = 0;
      double sxx = 0;
      double sxy = 0;
      double sr = 0;
      int count = last - first + 1;
      for (int p = first; p <= last; p++) {
        double a = x.applyAsDouble(p);
        double b = v[p].getImaginary();
        sx += a;
        sy += b;
        sxx += a * a;
        sxy += a * b;
        sr += v[p].getReal();
      }
      slope = (count * sxy - sx * sy) / (count * sxx - sx * sx);
      double offset = (sy - slope * sx) / count; // zero lies at x = -offset / slope
      centre = reference * (1 - offset / slope / 2);
      real = Math.max(sr / count, 1e-15);
    }
    double w = 2 * Math.PI * centre;
    double quality = slope / real;
    return series
        ? new Resonance(centre, quality, slope / w, 1 / (w * slope), real, true)
        : new Resonance(centre, quality, 1 / (w * slope), slope / w, 1 / real, false);
  }
}
