package rovnik.core.modulation.analysis;

import java.util.Arrays;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.CholeskyDecomposition;
import org.hipparchus.linear.RealMatrix;
import rovnik.core.signal.Products;

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

  /** Symbols that are summed over at once: their columns stay in the nearest memory. */
  private static final int BLOCK = 512;

  private final Ideal ideal;
  private final int symbols;

  /** Both parts of each cause, over symbols. */
  private final double[][] ofI = new double[ALL][];

  private final double[][] ofQ = new double[ALL][];
  private final RealMatrix[] inverses = new RealMatrix[ALL + 1];

  ErrorModel(Ideal ideal) {
    this.ideal = ideal;
    this.symbols = ideal.i().length;
    columns();
  }

  Ideal ideal() {
    return ideal;
  }

  /** Time of a symbol from -1 to 1 over all. */
  static double time(int k, int symbols) {
    return symbols < 2 ? 0 : (2.0 * k - (symbols - 1)) / (symbols - 1);
  }

  private void columns() {
    double[] ones = new double[symbols];
    Arrays.fill(ones, 1);
    double[] none = new double[symbols];
    cause(GAIN, ideal.i(), ideal.q());
    cause(PHASE, times(-1, ideal.qAtI()), ideal.iAtQ());
    cause(FREQUENCY, overTime(ofI[PHASE]), overTime(ofQ[PHASE]));
    cause(LATE, times(-1, ideal.iSlope()), times(-1, ideal.qSlope()));
    cause(CLOCK, overTime(ofI[LATE]), overTime(ofQ[LATE]));
    cause(DROOP, overTime(ideal.i()), overTime(ideal.q()));
    cause(IMBALANCE, times(0.5, ideal.i()), times(-0.5, ideal.q()));
    cause(QUADRATURE, times(-0.5, ideal.qAtI()), times(-0.5, ideal.iAtQ()));
    cause(LEAK_I, ones, none);
    cause(LEAK_Q, none, ones);
    cause(DELAY, times(0.5, ideal.iSlope()), times(-0.5, ideal.qSlope()));
  }

  private void cause(int cause, double[] i, double[] q) {
    ofI[cause] = i;
    ofQ[cause] = q;
  }

  private static double[] times(double factor, double[] x) {
    double[] out = new double[x.length];
    for (int k = 0; k < x.length; k++) {
      out[k] = factor * x[k];
    }
    return out;
  }

  private double[] overTime(double[] x) {
    double[] out = new double[symbols];
    for (int k = 0; k < symbols; k++) {
      out[k] = time(k, symbols) * x[k];
    }
    return out;
  }

  /** Takes causes off, from one on to before another. */
  void takeOff(double[] value, int from, int to, double[] re, double[] im) {
    for (int a = from; a < to; a++) {
      take(value[a], ofI[a], re);
      take(value[a], ofQ[a], im);
    }
  }

  private static void take(double factor, double[] column, double[] x) {
    for (int k = 0; k < x.length; k++) {
      x[k] -= factor * column[k];
    }
  }

  private double product(double[] x, double[] y) {
    return Products.sum(x, 0, y, 0, symbols);
  }

  /**
   * How much of each cause there is.
   *
   * @param value as a share of the symbols, radians, symbols, or relative frequency over half of
   *     the time
   * @param standard its standard uncertainty from what is left over
   * @param left mean square of what is left over
   */
  record Fit(double[] value, double[] standard, double left) {
    /** The same after the first causes were taken off. */
    Fit without(int causes) {
      double[] other = value.clone();
      Arrays.fill(other, 0, causes, 0);
      return new Fit(other, standard, left);
    }
  }

  /** Fits the causes to errors; what hangs on the ideal symbols alone is worked out once. */
  Fit fit(double[] eRe, double[] eIm, int causes) {
    RealMatrix inverse = inverse(causes);
    double[] right = new double[causes];
    for (int a = 0; a < causes; a++) {
      right[a] = product(ofI[a], eRe) + product(ofQ[a], eIm);
    }
    double all = product(eRe, eRe) + product(eIm, eIm);
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
      for (int from = 0; from < symbols; from += BLOCK) {
        int to = Math.min(symbols, from + BLOCK);
        for (int a = 0; a < causes; a++) {
          for (int b = 0; b <= a; b++) {
            normal[a][b] +=
                Products.sum(ofI[a], from, ofI[b], from, to - from)
                    + Products.sum(ofQ[a], from, ofQ[b], from, to - from);
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
