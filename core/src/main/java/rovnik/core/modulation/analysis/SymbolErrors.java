package rovnik.core.modulation.analysis;

/**
 * How far symbols stand from where they should be; each an array over symbols.
 *
 * @param reference how far from the middle the ideal point is
 * @param magnitude how much farther out the measured one is
 * @param angle by which it is turned, radians
 * @param vector how far it is from the ideal point
 */
record SymbolErrors(double[] reference, double[] magnitude, double[] angle, double[] vector) {
  static SymbolErrors of(Symbols s) {
    int n = s.count();
    double[] reference = new double[n];
    double[] magnitude = new double[n];
    double[] angle = new double[n];
    double[] vector = new double[n];
    for (int k = 0; k < n; k++) {
      double u = s.ideal().i()[k];
      double v = s.ideal().q()[k];
      double x = s.re()[k];
      double y = s.im()[k];
      reference[k] = Math.sqrt(u * u + v * v);
      magnitude[k] = Math.sqrt(x * x + y * y) - reference[k];
      angle[k] = Math.atan2(y * u - x * v, x * u + y * v);
      vector[k] = Math.sqrt((x - u) * (x - u) + (y - v) * (y - v));
    }
    return new SymbolErrors(reference, magnitude, angle, vector);
  }
}
