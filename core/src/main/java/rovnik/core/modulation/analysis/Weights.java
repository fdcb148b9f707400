package rovnik.core.modulation.analysis;

import java.util.List;

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
    LeastSquares sum = new LeastSquares(2 * taps);
    double[] row = new double[2 * taps];
    for (int k = 0; k < symbols; k++) {
      int first = 2 * k;
      for (int t = 0; t < taps; t++) {
        row[2 * t] = way[0][first + t];
        row[2 * t + 1] = -way[1][first + t];
      }
      sum.add(row, ideal.i()[k]);
      for (int t = 0; t < taps; t++) {
        row[2 * t] = way[1][first + t];
        row[2 * t + 1] = way[0][first + t];
      }
      sum.add(row, ideal.q()[k]);
    }
    double[] w = sum.solve().factor();
    double[] re = new double[taps];
    double[] im = new double[taps];
    for (int t = 0; t < taps; t++) {
      re[t] = w[2 * t];
      im[t] = w[2 * t + 1];
    }
    return new Weights(re, im);
  }

  int reach() {
    return re.length / 4;
  }

  /** Response at a frequency from the carrier, in symbol rates. */
  void response(double frequency, double[] out) {
    out[0] = 0;
    out[1] = 0;
    int middle = re.length / 2;
    for (int t = 0; t < re.length; t++) {
      double angle = Math.PI * frequency * (t - middle);
      double c = Math.cos(angle);
      double s = Math.sin(angle);
      out[0] += re[t] * c - im[t] * s;
      out[1] += re[t] * s + im[t] * c;
    }
  }
}
