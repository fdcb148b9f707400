package rovnik.core.modulation.analysis;

import java.util.List;
import rovnik.core.signal.Products;

/**
 * Weights of an equalizer, half a symbol apart around the middle: what is read at an instant
 * becomes the sum of what is read so much later, each times its weight.
 */
record Weights(double[] re, double[] im) {
  static Weights of(List<List<Double>> taps) {
    return new Weights(
        taps.stream().mapToDouble(t -> t.get(0)).toArray(),
        taps.stream().mapToDouble(t -> t.get(1)).toArray());
  }

  /**
   * The weights that bring what was read nearest to what it should be (Wiener, by least squares
   * over all symbols).
   *
   * @param way two points a symbol, beginning so many symbols before the first as they reach
   * @param ideal where the symbols should be
   */
  static Weights trained(double[][] way, ErrorModel.Ideal ideal, int reach) {
    int taps = 4 * reach + 1;
    int symbols = ideal.i().length;
    // What is read half a symbol apart, as two rows of symbols each.
    double[][][] half = new double[2][2][];
    for (int part = 0; part < 2; part++) {
      for (int late = 0; late < 2; late++) {
        half[late][part] = everySecond(way[part], late);
      }
    }
    double[][][] normal = new double[2][taps][taps];
    double[] right = new double[2 * taps];
    for (int t = 0; t < taps; t++) {
      double[] x = half[t % 2][0];
      double[] y = half[t % 2][1];
      right[2 * t] =
          Products.sum(x, t / 2, ideal.i(), 0, symbols)
              + Products.sum(y, t / 2, ideal.q(), 0, symbols);
      right[2 * t + 1] =
          Products.sum(x, t / 2, ideal.q(), 0, symbols)
              - Products.sum(y, t / 2, ideal.i(), 0, symbols);
      for (int u = 0; u <= t; u++) {
        if (u < 2) {
          double[] v = half[u][0];
          double[] w = half[u][1];
          set(
              normal,
              t,
              u,
              Products.sum(x, t / 2, v, 0, symbols) + Products.sum(y, t / 2, w, 0, symbols),
              Products.sum(x, t / 2, w, 0, symbols) - Products.sum(y, t / 2, v, 0, symbols));
        } else {
          // The sum of a symbol earlier, without its first product and with one more.
          int end = 2 * symbols;
          double re = normal[0][t - 2][u - 2];
          double im = normal[1][t - 2][u - 2];
          re -= way[0][t - 2] * way[0][u - 2] + way[1][t - 2] * way[1][u - 2];
          im -= way[0][t - 2] * way[1][u - 2] - way[1][t - 2] * way[0][u - 2];
          int a = t - 2 + end;
          int b = u - 2 + end;
          re += way[0][a] * way[0][b] + way[1][a] * way[1][b];
          im += way[0][a] * way[1][b] - way[1][a] * way[0][b];
          set(normal, t, u, re, im);
        }
      }
    }
    double all =
        Products.sum(ideal.i(), 0, ideal.i(), 0, symbols)
            + Products.sum(ideal.q(), 0, ideal.q(), 0, symbols);
    double[] w = new LeastSquares(inParts(normal), right, all, 2L * symbols).solve().factor();
    double[] re = new double[taps];
    double[] im = new double[taps];
    for (int t = 0; t < taps; t++) {
      re[t] = w[2 * t];
      im[t] = w[2 * t + 1];
    }
    return new Weights(re, im);
  }

  private static double[] everySecond(double[] x, int late) {
    double[] out = new double[(x.length - late + 1) / 2];
    for (int k = 0; k < out.length; k++) {
      out[k] = x[2 * k + late];
    }
    return out;
  }

  private static void set(double[][][] z, int t, int u, double re, double im) {
    z[0][t][u] = re;
    z[1][t][u] = im;
    z[0][u][t] = re;
    z[1][u][t] = -im;
  }

  /** Complex normal equations, sum conj(x_t) x_u, for real and imaginary parts of each weight. */
  private static double[][] inParts(double[][][] z) {
    int taps = z[0].length;
    double[][] out = new double[2 * taps][2 * taps];
    for (int t = 0; t < taps; t++) {
      for (int u = 0; u < taps; u++) {
        out[2 * t][2 * u] = z[0][t][u];
        out[2 * t + 1][2 * u + 1] = z[0][t][u];
        out[2 * t][2 * u + 1] = -z[1][t][u];
        out[2 * t + 1][2 * u] = z[1][t][u];
      }
    }
    return out;
  }

  int reach() {
    return re.length / 4;
  }

  /** Response at a frequency from the carrier, in symbol rates. */
  void response(double frequency, double[] out) {
    // Horner's scheme in the turn of half a symbol, and back to the middle.
    double c = Math.cos(Math.PI * frequency);
    double s = Math.sin(Math.PI * frequency);
    double x = 0;
    double y = 0;
    for (int t = re.length - 1; t >= 0; t--) {
      double a = x * c - y * s + re[t];
      y = x * s + y * c + im[t];
      x = a;
    }
    double back = -Math.PI * frequency * (re.length / 2);
    double d = Math.cos(back);
    double e = Math.sin(back);
    out[0] = x * d - y * e;
    out[1] = x * e + y * d;
  }
}
