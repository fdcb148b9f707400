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
  public record Measured(KnownReflection standard, double[] raw) {}

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

  /**
   * Transmission put right by the through alone, and S11 too if its standards were measured; what
   * port 2 reflects stays as it is.
   *
   * @param port1 three standards, or none
   */
  public static ErrorTerms response(
      double[] frequencyHz,
      List<Measured> port1,
      NetworkData through,
      NetworkData rawThrough,
      double z0) {
    int n = frequencyHz.length;
    double[] none = new double[2 * n];
    double[] one = ErrorTerms.Side.ones(n);
    ErrorTerms.Side reflection =
        port1.isEmpty() ? ErrorTerms.Side.onePort(none, none, one) : side(frequencyHz, port1, z0);
    double[] forward = new double[2 * n];
    double[] reverse = new double[2 * n];
    for (int p = 0; p < n; p++) {
      Complex loop = Complex.ONE;
      if (!port1.isEmpty()) {
        Complex x = s(rawThrough, p, 1, 1).subtract(at(reflection.directivity(), p));
        Complex seen =
            x.divide(at(reflection.tracking(), p).add(at(reflection.match(), p).multiply(x)));
        loop = Complex.ONE.subtract(at(reflection.match(), p).multiply(seen));
      }
      put(forward, p, s(rawThrough, p, 2, 1).multiply(loop).divide(s(through, p, 2, 1)));
      Complex back = s(rawThrough, p, 1, 2).divide(s(through, p, 1, 2));
      put(reverse, p, back.norm() == 0 ? Complex.ONE : back);
    }
    return new ErrorTerms(
        frequencyHz,
        new ErrorTerms.Side(
            reflection.directivity(),
            reflection.match(),
            reflection.tracking(),
            none,
            forward,
            none),
        new ErrorTerms.Side(none, none, one, none, reverse, none));
  }

  /**
   * All twelve terms with a through that need not be known, only be reciprocal (A. Ferrero and U.
   * Pisani, "Two-port network analyzer calibration using an unknown thru", IEEE Microwave and
   * Guided Wave Letters 2, 1992), with the switch's reflections taken out first (R. B. Marks,
   * "Formulations of the basic vector network analyzer error model including switch-terms", 50th
   * ARFTG, 1997). Both from memory.
   *
   * @param switch1 what port 1 reflects at the receivers while port 2 sends, interleaved
   * @param switch2 what port 2 reflects while port 1 sends
   * @param delaySeconds rough delay of the through, to a quarter period of the lowest frequency
   */
  public static ErrorTerms unknownThrough(
      double[] frequencyHz,
      List<Measured> port1,
      List<Measured> port2,
      NetworkData rawThrough,
      double[] switch1,
      double[] switch2,
      NetworkData rawIsolation,
      double delaySeconds,
      double z0) {
    ErrorTerms.Side one = side(frequencyHz, port1, z0);
    ErrorTerms.Side two = side(frequencyHz, port2, z0);
    int n = frequencyHz.length;
    double[][] out = new double[6][2 * n];
    Complex before = null;
    for (int p = 0; p < n; p++) {
      Complex g1 = at(switch1, p);
      Complex g2 = at(switch2, p);
      Complex leak21 = rawIsolation == null ? Complex.ZERO : s(rawIsolation, p, 2, 1);
      Complex leak12 = rawIsolation == null ? Complex.ZERO : s(rawIsolation, p, 1, 2);
      Complex m11 = s(rawThrough, p, 1, 1);
      Complex m12 = s(rawThrough, p, 1, 2).subtract(leak12);
      Complex m21 = s(rawThrough, p, 2, 1).subtract(leak21);
      Complex m22 = s(rawThrough, p, 2, 2);
      Complex around = Complex.ONE.subtract(m12.multiply(m21).multiply(g1).multiply(g2));
      Complex a12 = m12.subtract(m11.multiply(m12).multiply(g1)).divide(around);
      Complex a21 = m21.subtract(m22.multiply(m21).multiply(g2)).divide(around);
      // Both boxes reciprocal but for one factor: k^2 = (e10 e01 / e23 e32) a21 / a12.
      Complex er1 = at(one.tracking(), p);
      Complex er2 = at(two.tracking(), p);
      Complex ratio = a21.divide(a12);
      Complex forward = er1.multiply(er2).multiply(ratio).sqrt(); // e10 e32, but for its sign
      // The loops between two good matches are near 1: enough to tell the sign.
      Complex guess = a21.divide(forward);
      Complex wanted =
          before == null
              ? turn(frequencyHz[p], delaySeconds)
              : before.multiply(turn(frequencyHz[p] - frequencyHz[p - 1], delaySeconds));
      if (guess.subtract(wanted).norm() > guess.add(wanted).norm()) {
        forward = forward.negate();
        guess = guess.negate();
      }
      before = guess.divide(guess.norm());
      Complex backward = er1.multiply(er2).divide(forward);
      Complex e11 = at(one.match(), p);
      Complex e22 = at(two.match(), p);
      Complex end2 = Complex.ONE.subtract(at(two.directivity(), p).multiply(g2));
      Complex end1 = Complex.ONE.subtract(at(one.directivity(), p).multiply(g1));
      put(out[0], p, e22.add(er2.multiply(g2).divide(end2)));
      put(out[1], p, forward.divide(end2));
      put(out[2], p, leak21);
      put(out[3], p, e11.add(er1.multiply(g1).divide(end1)));
      put(out[4], p, backward.divide(end1));
      put(out[5], p, leak12);
    }
    return new ErrorTerms(
        frequencyHz,
        new ErrorTerms.Side(one.directivity(), one.match(), one.tracking(), out[0], out[1], out[2]),
        new ErrorTerms.Side(
            two.directivity(), two.match(), two.tracking(), out[3], out[4], out[5]));
  }

  private static Complex turn(double hz, double seconds) {
    return new Complex(0, -2 * Math.PI * hz * seconds).exp();
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
