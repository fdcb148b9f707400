package rovnik.core.modulation.analysis;

/**
 * When symbols come, from the line that |y|^2 has at their rate (Oerder and Meyr 1988).
 *
 * @param firstSample instant of the first symbol that counts, in samples
 * @param samplesPerSymbol as found
 */
record SymbolTiming(double firstSample, double samplesPerSymbol) {
  /**
   * Finds the timing.
   *
   * @param samples that there are
   * @param told samples a symbol, as told
   * @param guard symbols at the beginning that do not count
   * @param count symbols that do
   */
  static SymbolTiming of(float[] x, float[] y, int samples, double told, int guard, int count) {
    int perBlock = Math.max(128, Math.min(1000, count / 16));
    int blocks = Math.max(1, count / perBlock);
    double start = guard * told;
    double[] angle = new double[blocks];
    double[] weight = new double[blocks];
    for (int b = 0; b < blocks; b++) {
      int from = (int) Math.ceil(start + b * perBlock * told);
      int to = (int) Math.ceil(start + (b == blocks - 1 ? count : (b + 1) * perBlock) * told);
      double re = 0;
      double im = 0;
      double stepRe = Math.cos(2 * Math.PI / told);
      double stepIm = Math.sin(2 * Math.PI / told);
      double c = Math.cos(2 * Math.PI * from / told);
      double s = Math.sin(2 * Math.PI * from / told);
      for (int n = from; n < to && n < samples; n++) {
        double p = x[n] * x[n] + y[n] * y[n];
        re += p * c;
        im -= p * s;
        double next = c * stepRe - s * stepIm;
        s = c * stepIm + s * stepRe;
        c = next;
      }
      angle[b] = -Math.atan2(im, re);
      weight[b] = Math.hypot(re, im);
    }
    unwrap(angle);
    double slope = 0;
    double mean = 0;
    double all = 0;
    double middle = 0;
    for (int b = 0; b < blocks; b++) {
      all += weight[b];
      mean += weight[b] * angle[b];
      middle += weight[b] * b;
    }
    mean /= all;
    middle /= all;
    double spread = 0;
    for (int b = 0; b < blocks; b++) {
      slope += weight[b] * (b - middle) * (angle[b] - mean);
      spread += weight[b] * (b - middle) * (b - middle);
    }
    slope = blocks > 3 && spread > 0 ? slope / spread : 0;
    // Angle over 2 pi is the instant in symbols; its slope is what a symbol is longer than told.
    double at = mean - middle * slope - slope / 2;
    double first = at / (2 * Math.PI);
    return new SymbolTiming(
        (guard + first - Math.floor(first)) * told, told * (1 + slope / (2 * Math.PI) / perBlock));
  }

  private static void unwrap(double[] angle) {
    for (int i = 1; i < angle.length; i++) {
      angle[i] -= 2 * Math.PI * Math.rint((angle[i] - angle[i - 1]) / (2 * Math.PI));
    }
  }
}
