package rovnik.core.modulation;

import rovnik.core.Refusal;

/**
 * Ideal points of a format, by symbol value (bits, first sent highest), of mean power 1.
 *
 * <p>Where the points stand on a square lattice, deciding takes the nearest lattice point and looks
 * up its value; elsewhere all points are tried.
 */
public final class Constellation {
  /** Lattice steps beyond which a table would not pay. */
  private static final int LARGEST_LATTICE = 128;

  private static final double ON_LATTICE = 1e-6;

  private final double[] re;
  private final double[] im;
  private final double largest;
  private final double step;
  private final double firstRe;
  private final double firstIm;
  private final int[][] lattice;

  /**
   * @param re real parts by symbol value, not yet normalised; as many as a power of two
   * @param im imaginary parts
   */
  public Constellation(double[] re, double[] im) {
    int n = re.length;
    if (n < 2 || Integer.bitCount(n) != 1 || im.length != n) {
      throw new Refusal("mapping", "A mapping has 2, 4, 8, ... points, each with I and Q.");
    }
    double power = 0;
    for (int i = 0; i < n; i++) {
      power += Refusal.finite("mapping", re[i]) * re[i] + Refusal.finite("mapping", im[i]) * im[i];
    }
    if (!(power > 0)) {
      throw new Refusal("mapping", "All points of the mapping are at 0.");
    }
    double scale = Math.sqrt(n / power);
    this.re = new double[n];
    this.im = new double[n];
    double most = 0;
    for (int i = 0; i < n; i++) {
      this.re[i] = scale * re[i];
      this.im[i] = scale * im[i];
      most = Math.max(most, Math.hypot(this.re[i], this.im[i]));
    }
    this.largest = most;
    this.step = leastDistance();
    this.firstRe = java.util.Arrays.stream(this.re).min().orElseThrow();
    this.firstIm = java.util.Arrays.stream(this.im).min().orElseThrow();
    this.lattice = latticeOrNull();
  }

  private double leastDistance() {
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < re.length; i++) {
      for (int k = i + 1; k < re.length; k++) {
        double dx = re[i] - re[k];
        double dy = im[i] - im[k];
        least = Math.min(least, dx * dx + dy * dy);
      }
    }
    if (!(least > 1e-12)) {
      throw new Refusal("mapping", "Two symbols of the mapping stand on the same point.");
    }
    return Math.sqrt(least);
  }

  private int[][] latticeOrNull() {
    int wide = steps(re, firstRe);
    int high = steps(im, firstIm);
    if (wide < 0 || high < 0 || wide >= LARGEST_LATTICE || high >= LARGEST_LATTICE) {
      return null;
    }
    int[][] table = new int[wide + 1][high + 1];
    for (int[] column : table) {
      java.util.Arrays.fill(column, -1);
    }
    for (int i = 0; i < re.length; i++) {
      table[(int) Math.rint((re[i] - firstRe) / step)][(int) Math.rint((im[i] - firstIm) / step)] =
          i;
    }
    return table;
  }

  private int steps(double[] x, double first) {
    int most = 0;
    for (double v : x) {
      double at = (v - first) / step;
      if (Math.abs(at - Math.rint(at)) > ON_LATTICE) {
        return -1;
      }
      most = Math.max(most, (int) Math.rint(at));
    }
    return most;
  }

  public int size() {
    return re.length;
  }

  public int bitsPerSymbol() {
    return Integer.numberOfTrailingZeros(re.length);
  }

  public double re(int value) {
    return re[value];
  }

  public double im(int value) {
    return im[value];
  }

  /** Farthest point from 0; the root mean square is 1. */
  public double largest() {
    return largest;
  }

  /** Distance of the two nearest points. */
  public double leastStep() {
    return step;
  }

  /** Value of the nearest point. */
  public int decide(double x, double y) {
    if (lattice != null) {
      int i = Math.max(0, Math.min(lattice.length - 1, (int) Math.rint((x - firstRe) / step)));
      int k = Math.max(0, Math.min(lattice[0].length - 1, (int) Math.rint((y - firstIm) / step)));
      int value = lattice[i][k];
      if (value >= 0) {
        return value;
      }
    }
    int best = 0;
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < re.length; i++) {
      double dx = x - re[i];
      double dy = y - im[i];
      double d = dx * dx + dy * dy;
      if (d < least) {
        least = d;
        best = i;
      }
    }
    return best;
  }

  /** Mean of |s|^4: 1 for a circle, 1.32 for 16-QAM; 2 is noise. */
  public double fourthMoment() {
    double sum = 0;
    for (int i = 0; i < re.length; i++) {
      double p = re[i] * re[i] + im[i] * im[i];
      sum += p * p;
    }
    return sum / re.length;
  }

  /** Mean of s^n as a complex number. */
  public double[] mean(int power) {
    double x = 0;
    double y = 0;
    for (int i = 0; i < re.length; i++) {
      double angle = power * Math.atan2(im[i], re[i]);
      double length = Math.pow(Math.hypot(re[i], im[i]), power);
      x += length * Math.cos(angle);
      y += length * Math.sin(angle);
    }
    return new double[] {x / re.length, y / re.length};
  }
}
