package rovnik.core.modulation.analysis;

import java.util.Arrays;
import java.util.function.Supplier;
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
   * Ideal values beside the symbols that were read; slopes are worked out when they are asked for.
   */
  static final class Ideal {
    private final double[] i;
    private final double[] q;
    private final double[] iAtQ;
    private final double[] qAtI;
    private final Supplier<double[]> slopeOfI;
    private final Supplier<double[]> slopeOfQ;
    private double[] iSlope;
    private double[] qSlope;

    /**
     * @param i of I at its own instants
     * @param q of Q at its own
     * @param iAtQ what I is at Q's instants; the same as i where both have the same
     * @param qAtI what Q is at I's instants
     * @param iSlope a symbol
     * @param qSlope a symbol
     */
    Ideal(
        double[] i,
        double[] q,
        double[] iAtQ,
        double[] qAtI,
        Supplier<double[]> iSlope,
        Supplier<double[]> qSlope) {
      this.i = i;
      this.q = q;
      this.iAtQ = iAtQ;
      this.qAtI = qAtI;
      this.slopeOfI = iSlope;
      this.slopeOfQ = qSlope;
    }

    double[] i() {
      return i;
    }

    double[] q() {
      return q;
    }

    double[] iSlope() {
      iSlope = iSlope == null ? slopeOfI.get() : iSlope;
      return iSlope;
    }

    double[] qSlope() {
      qSlope = qSlope == null ? slopeOfQ.get() : qSlope;
      return qSlope;
    }
  }

  /** Symbols that are summed over at once: their columns stay in the nearest memory. */
  private static final int BLOCK = 512;

  private final Ideal ideal;
  private final int symbols;

  // What causes are made of, in one part: what is sent there, what is sent in the other, the slope,
  // each of them over time as well, and 1.
  private static final int OWN = 0;
  private static final int OTHER = 1;
  private static final int SLOPE = 2;
  private static final int OWN_OVER_TIME = 3;
  private static final int OTHER_OVER_TIME = 4;
  private static final int SLOPE_OVER_TIME = 5;
  private static final int ONE = 6;
  private static final int SHAPES = 7;

  /** Of each cause the shape it has, in I and in Q, and by which factor. */
  private static final int[] SHAPE = {
    OWN, OTHER, OTHER_OVER_TIME, SLOPE, SLOPE_OVER_TIME, OWN_OVER_TIME, OWN, OTHER, ONE, ONE, SLOPE
  };

  private static final double[] IN_I = {1, -1, -1, -1, -1, 1, 0.5, -0.5, 1, 0, 0.5};
  private static final double[] IN_Q = {1, 1, 1, -1, -1, 1, -0.5, -0.5, 0, 1, -0.5};

  /** Shapes over symbols; null until they are needed. */
  private final double[][] ofI = new double[SHAPES][];

  private final double[][] ofQ = new double[SHAPES][];
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

  /** Sees to the shapes of all causes before one. */
  private void need(int causes) {
    for (int a = 0; a < causes; a++) {
      int shape = SHAPE[a];
      if (ofI[shape] == null) {
        ofI[shape] = make(shape, ideal.i, ideal.qAtI, ideal::iSlope);
        ofQ[shape] = make(shape, ideal.q, ideal.iAtQ, ideal::qSlope);
      }
    }
  }

  private double[] make(int shape, double[] own, double[] other, Supplier<double[]> slope) {
    return switch (shape) {
      case OWN -> own;
      case OTHER -> other;
      case SLOPE -> slope.get();
      case OWN_OVER_TIME -> overTime(own);
      case OTHER_OVER_TIME -> overTime(other);
      case SLOPE_OVER_TIME -> overTime(slope.get());
      default -> ones();
    };
  }

  private double[] ones() {
    double[] ones = new double[symbols];
    Arrays.fill(ones, 1);
    return ones;
  }

  private double[] overTime(double[] x) {
    double first = time(0, symbols);
    double step = symbols < 2 ? 0 : 2.0 / (symbols - 1);
    double[] out = new double[symbols];
    for (int k = 0; k < symbols; k++) {
      out[k] = (first + k * step) * x[k];
    }
    return out;
  }

  /** Takes causes off, from one on to before another. */
  void takeOff(double[] value, int from, int to, double[] re, double[] im) {
    need(to);
    double[] i = new double[SHAPES];
    double[] q = new double[SHAPES];
    for (int a = from; a < to; a++) {
      i[SHAPE[a]] += value[a] * IN_I[a];
      q[SHAPE[a]] += value[a] * IN_Q[a];
    }
    for (int shape = 0; shape < SHAPES; shape++) {
      take(i[shape], ofI[shape], re);
      take(q[shape], ofQ[shape], im);
    }
  }

  private static void take(double factor, double[] shape, double[] x) {
    if (factor != 0) {
      for (int k = 0; k < x.length; k++) {
        x[k] -= factor * shape[k];
      }
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
    need(causes);
    RealMatrix inverse = inverse(causes);
    double[] inI = new double[SHAPES];
    double[] inQ = new double[SHAPES];
    for (int shape = 0; shape < SHAPES; shape++) {
      inI[shape] = ofI[shape] == null ? 0 : product(ofI[shape], eRe);
      inQ[shape] = ofQ[shape] == null ? 0 : product(ofQ[shape], eIm);
    }
    double[] right = new double[causes];
    for (int a = 0; a < causes; a++) {
      right[a] = IN_I[a] * inI[SHAPE[a]] + IN_Q[a] * inQ[SHAPE[a]];
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
      double[][] inI = products(ofI);
      double[][] inQ = products(ofQ);
      double[][] normal = new double[causes][causes];
      for (int a = 0; a < causes; a++) {
        for (int b = 0; b <= a; b++) {
          int high = Math.max(SHAPE[a], SHAPE[b]);
          int low = Math.min(SHAPE[a], SHAPE[b]);
          normal[a][b] = IN_I[a] * IN_I[b] * inI[high][low] + IN_Q[a] * IN_Q[b] * inQ[high][low];
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

  /** Sums of products of every two shapes that there are, the higher one first. */
  private double[][] products(double[][] shapes) {
    double[][] out = new double[SHAPES][SHAPES];
    for (int from = 0; from < symbols; from += BLOCK) {
      int length = Math.min(symbols, from + BLOCK) - from;
      for (int a = 0; a < SHAPES; a++) {
        for (int b = 0; b <= a && shapes[a] != null; b++) {
          if (shapes[b] != null) {
            out[a][b] += Products.sum(shapes[a], from, shapes[b], from, length);
          }
        }
      }
    }
    return out;
  }
}
