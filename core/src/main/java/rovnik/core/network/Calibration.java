package rovnik.core.network;

import java.util.List;
import java.util.function.IntFunction;
import org.hipparchus.complex.Complex;
import org.hipparchus.complex.ComplexField;
import org.hipparchus.linear.FieldDecompositionSolver;
import org.hipparchus.linear.FieldLUDecomposition;
import org.hipparchus.linear.FieldMatrix;
import org.hipparchus.linear.MatrixUtils;
import rovnik.core.Refusal;

/** From measured standards to error terms. */
public final class Calibration {
  private Calibration() {}

  /** A standard at one port: what it is at each point, and what was measured, interleaved. */
  public record Measured(CalibrationStandard standard, double[] raw) {}

  /** Reflections that are nearer than this to one another are one standard measured twice. */
  private static final double SAME = 0.2;

  /** A load reflects less than this in any usable test set (common practice). */
  private static final double MOST_OF_A_LOAD = 0.5;

  /** An open or a short reflects at least this. */
  private static final double LEAST_OF_A_REFLECTION = 0.4;

  /**
   * Terms of one port from open, short and load, or any other three known reflections that differ.
   *
   * @throws Refusal if they do not tell the terms apart
   */
  public static ErrorTerms onePort(double[] frequencyHz, List<Measured> standards, double z0) {
    return new ErrorTerms(frequencyHz, side(frequencyHz, standards, z0), null);
  }

  private static ErrorTerms.Side side(double[] f, List<Measured> standards, double z0) {
    if (standards.size() < 3) {
      throw new Refusal(
          "standards", "A port needs three standards: an open, a short and a load, in any order.");
    }
    double[] directivity = new double[2 * f.length];
    double[] match = new double[2 * f.length];
    double[] tracking = new double[2 * f.length];
    for (int p = 0; p < f.length; p++) {
      // m = ed + (m g) es - g (ed es - et): three unknowns, straight.
      int point = p;
      Complex[] solved =
          solve(
              3,
              k -> {
                Complex g = standards.get(k).standard().reflection(f[point], z0);
                Complex m = at(standards.get(k).raw(), point);
                return new Complex[] {Complex.ONE, g.multiply(m), g.negate(), m};
              });
      put(directivity, p, solved[0]);
      put(match, p, solved[1]);
      put(tracking, p, solved[0].multiply(solved[1]).subtract(solved[2]));
    }
    return ErrorTerms.Side.onePort(directivity, match, tracking);
  }

  private static Complex[] solve(int n, IntFunction<Complex[]> row) {
    FieldMatrix<Complex> a = MatrixUtils.createFieldMatrix(ComplexField.getInstance(), n, n);
    FieldMatrix<Complex> b = MatrixUtils.createFieldMatrix(ComplexField.getInstance(), n, 1);
    for (int k = 0; k < n; k++) {
      Complex[] r = row.apply(k);
      for (int c = 0; c < n; c++) {
        a.setEntry(k, c, r[c]);
      }
      b.setEntry(k, 0, r[n]);
    }
    FieldDecompositionSolver<Complex> solver = new FieldLUDecomposition<>(a).getSolver();
    if (!solver.isNonSingular()) {
      throw new Refusal(
          "standards",
          "Two of the standards look alike. Check that each was plugged in for its own step.");
    }
    FieldMatrix<Complex> x = solver.solve(b);
    Complex[] out = new Complex[n];
    for (int k = 0; k < n; k++) {
      out[k] = x.getEntry(k, 0);
    }
    return out;
  }

  /**
   * All twelve terms from three standards at each port and a known through.
   *
   * @param through the through itself; what was measured of it is {@code rawThrough}
   * @param rawIsolation measured with loads at both ports, null to leave isolation out
   */
  public static ErrorTerms twoPort(
      double[] frequencyHz,
      List<Measured> port1,
      List<Measured> port2,
      NetworkData through,
      NetworkData rawThrough,
      NetworkData rawIsolation,
      double z0) {
    NetworkData known = NetworkChange.on(through, rawThrough);
    ErrorTerms.Side one = side(frequencyHz, port1, z0);
    ErrorTerms.Side two = side(frequencyHz, port2, z0);
    return new ErrorTerms(
        frequencyHz,
        across(frequencyHz, one, known, rawThrough, rawIsolation, 1, 2),
        across(frequencyHz, two, known, rawThrough, rawIsolation, 2, 1));
  }

  private static ErrorTerms.Side across(
      double[] f,
      ErrorTerms.Side port,
      NetworkData t,
      NetworkData raw,
      NetworkData isolation,
      int from,
      int to) {
    double[] loadMatch = new double[2 * f.length];
    double[] through = new double[2 * f.length];
    double[] leak = new double[2 * f.length];
    for (int p = 0; p < f.length; p++) {
      Complex ed = at(port.directivity(), p);
      Complex es = at(port.match(), p);
      Complex er = at(port.tracking(), p);
      Complex x = s(raw, p, from, from).subtract(ed);
      Complex seen = x.divide(er.add(es.multiply(x)));
      Complex rest = seen.subtract(s(t, p, from, from));
      Complex both = s(t, p, from, to).multiply(s(t, p, to, from));
      Complex el = rest.divide(both.add(s(t, p, to, to).multiply(rest)));
      Complex ex = isolation == null ? Complex.ZERO : s(isolation, p, to, from);
      Complex loops =
          Complex.ONE
              .subtract(es.multiply(s(t, p, from, from)))
              .multiply(Complex.ONE.subtract(el.multiply(s(t, p, to, to))))
              .subtract(es.multiply(el).multiply(both));
      put(loadMatch, p, el);
      put(leak, p, ex);
      put(through, p, s(raw, p, to, from).subtract(ex).multiply(loops).divide(s(t, p, to, from)));
    }
    return new ErrorTerms.Side(
        port.directivity(), port.match(), port.tracking(), loadMatch, through, leak);
  }

  /**
   * Looks at a standard before it is taken: a load must reflect little, open and short much, and
   * what is measured must differ from the standards that were measured before.
   *
   * @param before other standards of the same port
   * @return "" if it looks as it should, otherwise a sentence
   */
  public static String doubt(CalibrationStandard.Kind kind, double[] raw, List<Measured> before) {
    double mean = mean(raw, null);
    if (kind == CalibrationStandard.Kind.LOAD && mean > MOST_OF_A_LOAD) {
      return "This reflects nearly all: it is no load. Plug the load in.";
    }
    if (kind != CalibrationStandard.Kind.LOAD && mean < LEAST_OF_A_REFLECTION) {
      return "This reflects hardly anything: it looks like the load. Plug the "
          + kind.name().toLowerCase(java.util.Locale.ROOT)
          + " in.";
    }
    for (Measured m : before) {
      if (m.standard().kind() != kind && mean(raw, m.raw()) < SAME) {
        return "This looks just like the "
            + m.standard().kind().name().toLowerCase(java.util.Locale.ROOT)
            + " that was measured before. Plug the "
            + kind.name().toLowerCase(java.util.Locale.ROOT)
            + " in.";
      }
    }
    return "";
  }

  private static double mean(double[] raw, double[] from) {
    double sum = 0;
    for (int i = 0; i < raw.length; i += 2) {
      double re = raw[i] - (from == null ? 0 : from[i]);
      double im = raw[i + 1] - (from == null ? 0 : from[i + 1]);
      sum += Math.hypot(re, im);
    }
    return sum / (raw.length / 2.0);
  }

  private static Complex at(double[] v, int point) {
    return new Complex(v[2 * point], v[2 * point + 1]);
  }

  private static Complex s(NetworkData n, int point, int row, int column) {
    return new Complex(n.re(point, row, column), n.im(point, row, column));
  }

  private static void put(double[] v, int point, Complex z) {
    v[2 * point] = z.getReal();
    v[2 * point + 1] = z.getImaginary();
  }
}
