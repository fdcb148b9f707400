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
      angle[k] = angle(y * u - x * v, x * u + y * v);
      vector[k] = Math.sqrt((x - u) * (x - u) + (y - v) * (y - v));
    }
    return new SymbolErrors(reference, magnitude, angle, vector);
  }

  /** As {@link Math#atan2}; that of half a small angle by its series, to 1e-15. */
  private static double angle(double across, double along) {
    double t = across / along;
    if (!(along > 0 && Math.abs(t) < 0.3)) {
      return Math.atan2(across, along);
    }
    double half = t / (1 + Math.sqrt(1 + t * t));
    double s = half * half;
    double far = 1.0 / 9 - s * (1.0 / 11 - s * (1.0 / 13 - s * (1.0 / 15 - s / 17)));
    return 2 * half * (1 - s * (1.0 / 3 - s * (1.0 / 5 - s * (1.0 / 7 - s * far))));
  }

  /** Values times a factor. */
  static double[] times(double factor, double[] x) {
    double[] out = new double[x.length];
    for (int k = 0; k < x.length; k++) {
      out[k] = factor * x[k];
    }
    return out;
  }
}
