package rovnik.core.modulation.analysis;

import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.CholeskyDecomposition;
import org.hipparchus.linear.RealMatrix;

/**
 * The error of symbols as a sum of what carriers do wrong: least squares over all symbols at once,
 * so that one cause is not taken for another.
 *
 * <p>For small errors every cause is a column beside the ideal symbols: u for gain, j u for phase,
 * j u times time for frequency, minus the slope for a late instant, conj(u) / 2 for what I has more
 * gain than Q, -j conj(u) / 2 for the angle by which Q leads its right place, 1 and j for leakage,
 * conj(slope) / 2 for Q coming late.
 */
final class ErrorModel {
  static final int GAIN = 0;
  static final int PHASE = 1;
  static final int FREQUENCY = 2;
  static final int LATE = 3;
  static final int CLOCK = 4;
  static final int DROOP = 5;
  static final int IMBALANCE = 6;
  static final int QUADRATURE = 7;
  static final int LEAK_I = 8;
  static final int LEAK_Q = 9;
  static final int DELAY = 10;
  static final int ALL = 11;

  /** Causes that a receiver follows: gain, phase, frequency, instant, clock. */
  static final int FOLLOWED = 5;

  private static final double SLIGHT = 1e-9;

  /**
   * Ideal values beside the symbols that were read.
   *
   * @param i of I at its own instants
   * @param q of Q at its own
   * @param iAtQ what I is at Q's instants; the same as i where both have the same
   * @param qAtI what Q is at I's instants
   * @param iSlope a symbol
   * @param qSlope a symbol
   */
  record Ideal(
      double[] i, double[] q, double[] iAtQ, double[] qAtI, double[] iSlope, double[] qSlope) {}

  private final Ideal ideal;
  private final int symbols;
  private final RealMatrix[] inverses = new RealMatrix[ALL + 1];

  ErrorModel(Ideal ideal) {
    this.ideal = ideal;
    this.symbols = ideal.i().length;
  }

  Ideal ideal() {
    return ideal;
  }

  /** Time of a symbol from -1 to 1 over all. */
  static double time(int k, int symbols) {
    return symbols < 2 ? 0 : (2.0 * k - (symbols - 1)) / (symbols - 1);
  }

  /** Both parts of each cause at a symbol, I then Q. */
  void columns(int k, double[] out) {
    double x = time(k, symbols);
    double i = ideal.i()[k];
    double q = ideal.q()[k];
    double iQ = ideal.iAtQ()[k];
    double qI = ideal.qAtI()[k];
    double di = ideal.iSlope()[k];
    double dq = ideal.qSlope()[k];
    set(out, GAIN, i, q);
    set(out, PHASE, -qI, iQ);
    set(out, FREQUENCY, -qI * x, iQ * x);
    set(out, LATE, -di, -dq);
    set(out, CLOCK, -di * x, -dq * x);
    set(out, DROOP, i * x, q * x);
    set(out, IMBALANCE, i / 2, -q / 2);
    set(out, QUADRATURE, -qI / 2, -iQ / 2);
    set(out, LEAK_I, 1, 0);
    set(out, LEAK_Q, 0, 1);
    set(out, DELAY, di / 2, -dq / 2);
  }

  private static void set(double[] out, int cause, double re, double im) {
    out[2 * cause] = re;
    out[2 * cause + 1] = im;
  }

  /**
   * How much of each cause there is.
   *
   * @param value as a share of the symbols, radians, symbols, or relative frequency over half of
   *     the time
   * @param standard its standard uncertainty from what is left over
   * @param left mean square of what is left over
   */
  record Fit(double[] value, double[] standard, double left) {}

  /** Fits the causes to errors; what hangs on the ideal symbols alone is worked out once. */
  Fit fit(double[] eRe, double[] eIm, int causes) {
    RealMatrix inverse = inverse(causes);
    double[] right = new double[causes];
    double[] c = new double[2 * ALL];
    double all = 0;
    for (int k = 0; k < symbols; k++) {
      columns(k, c);
      double x = eRe[k];
      double y = eIm[k];
      all += x * x + y * y;
      for (int a = 0; a < causes; a++) {
        right[a] += c[2 * a] * x + c[2 * a + 1] * y;
      }
    }
    double[] value = inverse.operate(right);
    double explained = 0;
    for (int a = 0; a < causes; a++) {
      explained += value[a] * right[a];
    }
    double left = Math.max(0, all - explained) / symbols;
    double[] standard = new double[causes];
    double freedom = Math.max(1, 2.0 * symbols - causes) / (2.0 * symbols);
    for (int a = 0; a < causes; a++) {
      // Half of what is left lies in each of I and Q.
      standard[a] = Math.sqrt(Math.max(0, inverse.getEntry(a, a)) * left / 2 / freedom);
    }
    return new Fit(value, standard, left);
  }

  private RealMatrix inverse(int causes) {
    if (inverses[causes] == null) {
      double[][] normal = new double[causes][causes];
      double[] c = new double[2 * ALL];
      for (int k = 0; k < symbols; k++) {
        columns(k, c);
        for (int a = 0; a < causes; a++) {
          double re = c[2 * a];
          double im = c[2 * a + 1];
          double[] row = normal[a];
          for (int b = 0; b <= a; b++) {
            row[b] += re * c[2 * b] + im * c[2 * b + 1];
          }
        }
      }
      for (int a = 0; a < causes; a++) {
        normal[a][a] += SLIGHT * symbols;
        for (int b = a + 1; b < causes; b++) {
          normal[a][b] = normal[b][a];
        }
      }
      inverses[causes] =
          new CholeskyDecomposition(new Array2DRowRealMatrix(normal, false), 1e-9, 0)
              .getSolver()
              .getInverse();
    }
    return inverses[causes];
  }
}
