package rovnik.core.modulation;

/**
 * A ratio of two whole numbers.
 *
 * @param samples above
 * @param symbols below
 */
record Ratio(long samples, long symbols) {
  private static final double CLOSE = 1e-12;

  /** The simplest ratio that is equal to within rounding; null if its upper number is too large. */
  static Ratio of(double value, long most) {
    // Continued fraction.
    double rest = value;
    long upper = 1;
    long upperBefore = 0;
    long lower = 0;
    long lowerBefore = 1;
    for (int i = 0; i < 40; i++) {
      long whole = (long) Math.floor(rest);
      long u = whole * upper + upperBefore;
      long l = whole * lower + lowerBefore;
      if (u > most || u < 0) {
        return null;
      }
      upperBefore = upper;
      lowerBefore = lower;
      upper = u;
      lower = l;
      if (Math.abs((double) u / l - value) <= CLOSE * value) {
        return new Ratio(u, l);
      }
      rest = 1 / (rest - whole);
    }
    return null;
  }
}
