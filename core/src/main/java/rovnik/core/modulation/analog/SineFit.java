package rovnik.core.modulation.analog;

import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import rovnik.core.signal.DoubleTransforms;

/**
 * The tone in a signal with its harmonics, fitted by least squares (the four-parameter fit of IEEE
 * Std 1057, from memory; then all harmonics at once). No window: a record need not hold whole
 * periods.
 *
 * @param rateHz frequency of the tone, 0 if there is none
 * @param amplitude peak of the tone and each harmonic, the tone first
 * @param phase of the tone: it is {@code amplitude cos(2 pi rate t + phase)}
 * @param mean what is left beside them at 0 Hz
 * @param rest what is left of the signal
 */
public record SineFit(double rateHz, double[] amplitude, double phase, double mean, double[] rest) {
  private static final int ROUNDS = 8;

  /** Share of a line's width to which the frequency is sought. */
  private static final double CLOSE = 1e-7;

  /** A tone stands so far above what is left, both as powers in the width of one line. */
  private static final double STANDS = 60;

  static final int HARMONICS = 10;

  /**
   * @param lowHz where the tone is looked for
   * @param highHz up to where
   * @param mostHz harmonics beyond this are not looked at
   */
  public static SineFit of(
      double[] x, double sampleHz, double lowHz, double highHz, double mostHz) {
    double coarse = strongest(x, sampleHz, lowHz, highHz);
    if (coarse <= 0) {
      return none(x);
    }
    double hz = refined(x, sampleHz, coarse);
    if (!(hz > 0 && Math.abs(hz - coarse) < 4 * sampleHz / x.length)) {
      hz = coarse;
    }
    int orders = (int) Math.max(1, Math.min(HARMONICS, Math.floor(mostHz / hz)));
    SineFit fit = at(x, sampleHz, hz, orders);
    double left = 0;
    for (double v : fit.rest) {
      left += v * v / fit.rest.length;
    }
    double tone = fit.amplitude[0] * fit.amplitude[0] / 2;
    // White rest: its share within one line is 2 / n of it.
    return tone > STANDS * left * 2 / x.length ? fit : none(x);
  }

  private static SineFit none(double[] x) {
    double mean = 0;
    for (double v : x) {
      mean += v / x.length;
    }
    double[] rest = new double[x.length];
    for (int i = 0; i < x.length; i++) {
      rest[i] = x[i] - mean;
    }
    return new SineFit(0, new double[] {0}, 0, mean, rest);
  }

  private static double strongest(double[] x, double sampleHz, double lowHz, double highHz) {
    int n = x.length;
    int length = Integer.highestOneBit(Math.max(2, 4 * n - 1));
    double[] work = new double[length];
    double mean = 0;
    for (double v : x) {
      mean += v / n;
    }
    for (int i = 0; i < n; i++) {
      work[i] = (x[i] - mean) * (1 - Math.cos(2 * Math.PI * (i + 0.5) / n));
    }
    DoubleTransforms.of(length).realForward(work);
    double step = sampleHz / length;
    int first = (int) Math.max(2.0 * length / n, Math.ceil(lowHz / step));
    int last = (int) Math.min(length / 2.0 - 2, Math.floor(highHz / step));
    double most = 0;
    int at = -1;
    for (int k = first; k <= last; k++) {
      double p = work[2 * k] * work[2 * k] + work[2 * k + 1] * work[2 * k + 1];
      if (p > most) {
        most = p;
        at = k;
      }
    }
    return at * step;
  }

  /** Newton's way to the frequency: the fit with a fourth parameter, its change. */
  private static double refined(double[] x, double sampleHz, double startHz) {
    int n = x.length;
    double hz = startHz;
    for (int round = 0; round < ROUNDS; round++) {
      double[] now = three(x, sampleHz, hz);
      double size = Math.hypot(now[0], now[1]);
      if (!(size > 0)) {
        return startHz;
      }
      double[][] m = new double[4][5];
      for (int i = 0; i < n; i++) {
        double t = (i - (n - 1) / 2.0) / sampleHz;
        double c = Math.cos(2 * Math.PI * hz * t);
        double s = Math.sin(2 * Math.PI * hz * t);
        double d = 2 * Math.PI * t * (now[1] * c - now[0] * s) / size;
        double[] row = {c, s, 1, d};
        for (int a = 0; a < 4; a++) {
          for (int b = 0; b < 4; b++) {
            m[a][b] += row[a] * row[b];
          }
          m[a][4] += row[a] * x[i];
        }
      }
      double[] solved = solve(m);
      double step = solved[3] / size;
      hz += step;
      if (Math.abs(step) < CLOSE * sampleHz / n) {
        break;
      }
    }
    return hz;
  }

  private static double[] three(double[] x, double sampleHz, double hz) {
    double[][] m = new double[3][4];
    int n = x.length;
    for (int i = 0; i < n; i++) {
      double t = (i - (n - 1) / 2.0) / sampleHz;
      double[] row = {Math.cos(2 * Math.PI * hz * t), Math.sin(2 * Math.PI * hz * t), 1};
      for (int a = 0; a < 3; a++) {
        for (int b = 0; b < 3; b++) {
          m[a][b] += row[a] * row[b];
        }
        m[a][3] += row[a] * x[i];
      }
    }
    return solve(m);
  }

  private static double[] solve(double[][] m) {
    int size = m.length;
    double[][] a = new double[size][size];
    double[] b = new double[size];
    for (int i = 0; i < size; i++) {
      System.arraycopy(m[i], 0, a[i], 0, size);
      b[i] = m[i][size];
    }
    return new LUDecomposition(new Array2DRowRealMatrix(a, false))
        .getSolver()
        .solve(new ArrayRealVector(b, false))
        .toArray();
  }

  /** The tone at a known frequency with so many orders. */
  static SineFit at(double[] x, double sampleHz, double hz, int orders) {
    int n = x.length;
    int size = 2 * orders + 1;
    double[][] m = new double[size][size + 1];
    double[] row = new double[size];
    for (int i = 0; i < n; i++) {
      fill(row, 2 * Math.PI * hz * i / sampleHz);
      for (int a = 0; a < size; a++) {
        for (int b = a; b < size; b++) {
          m[a][b] += row[a] * row[b];
        }
        m[a][size] += row[a] * x[i];
      }
    }
    for (int a = 0; a < size; a++) {
      for (int b = 0; b < a; b++) {
        m[a][b] = m[b][a];
      }
    }
    double[] p = solve(m);
    double[] amplitude = new double[orders];
    for (int k = 0; k < orders; k++) {
      amplitude[k] = Math.hypot(p[2 * k + 1], p[2 * k + 2]);
    }
    double[] rest = new double[n];
    for (int i = 0; i < n; i++) {
      fill(row, 2 * Math.PI * hz * i / sampleHz);
      double sum = 0;
      for (int a = 0; a < size; a++) {
        sum += p[a] * row[a];
      }
      rest[i] = x[i] - sum;
    }
    return new SineFit(hz, amplitude, Math.atan2(-p[2], p[1]), p[0], rest);
  }

  /** 1, then cosine and sine of each order of an angle. */
  private static void fill(double[] row, double angle) {
    row[0] = 1;
    double c1 = Math.cos(angle);
    double s1 = Math.sin(angle);
    double c = 1;
    double s = 0;
    for (int k = 1; k < row.length; k += 2) {
      double next = c * c1 - s * s1;
      s = s * c1 + c * s1;
      c = next;
      row[k] = c;
      row[k + 1] = s;
    }
  }

  public boolean found() {
    return rateHz > 0;
  }

  /** Power of the harmonics beyond the first, of all of them together. */
  double harmonicPower() {
    double sum = 0;
    for (int k = 1; k < amplitude.length; k++) {
      sum += amplitude[k] * amplitude[k] / 2;
    }
    return sum;
  }

  double restPower() {
    double sum = 0;
    for (double v : rest) {
      sum += v * v / rest.length;
    }
    return sum;
  }
}
