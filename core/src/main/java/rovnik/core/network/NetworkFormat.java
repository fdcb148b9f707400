package rovnik.core.network;

import rovnik.core.Refusal;
import rovnik.core.units.Decibels;

/** What one S-parameter can be shown as over frequency. */
public enum NetworkFormat {
  /** 20 log10 of the magnitude. */
  LOG_MAGNITUDE("magnitude", "dB", false),
  LINEAR("magnitude", "", false),
  /** Within plus and minus 180 degrees. */
  PHASE("phase", "\u00B0", false),
  /** Without jumps, from the first point on. */
  UNWRAPPED_PHASE("unwrapped phase", "\u00B0", false),
  /** Minus the slope of the phase over the angular frequency. */
  GROUP_DELAY("group delay", "s", false),
  VSWR("VSWR", "", true),
  /** A positive number of dB for a passive part. */
  RETURN_LOSS("return loss", "dB", true),
  REAL("real part", "", false),
  IMAGINARY("imaginary part", "", false),
  RESISTANCE("resistance", "\u03A9", true),
  REACTANCE("reactance", "\u03A9", true),
  IMPEDANCE("impedance", "\u03A9", true);

  private final String label;
  private final String unit;
  private final boolean reflection;

  NetworkFormat(String label, String unit, boolean reflection) {
    this.label = label;
    this.unit = unit;
    this.reflection = reflection;
  }

  public String label() {
    return label;
  }

  public String unit() {
    return unit;
  }

  /** True if it only makes sense of a reflection, S11 or S22. */
  public boolean reflection() {
    return reflection;
  }

  /**
   * Values of S(row, column) in this format, one a point.
   *
   * @param apertureHz width over which group delay takes the slope; neighbours at least
   * @throws Refusal if the network has no such parameter, or the format needs a reflection
   */
  public double[] of(NetworkData n, int row, int column, double apertureHz) {
    if (!(apertureHz >= 0)) {
      throw new Refusal("apertureHz", "The aperture is a width of 0 Hz, for two points, or more.");
    }
    if (Math.min(row, column) < 1 || Math.max(row, column) > n.ports()) {
      throw new Refusal(
          "parameter",
          "There is no "
              + NetworkData.name(row, column)
              + ": the network has "
              + n.ports()
              + (n.ports() == 1 ? " port." : " ports."));
    }
    if (reflection && row != column) {
      throw new Refusal(
          "format",
          label
              + " belongs to a reflection such as S11; "
              + NetworkData.name(row, column)
              + " is a transmission.");
    }
    double[] y = new double[n.points()];
    switch (this) {
      case UNWRAPPED_PHASE -> degrees(unwrapped(n, row, column), y);
      case GROUP_DELAY -> groupDelay(n, row, column, apertureHz, y);
      default -> {
        double z0 = n.referenceOhm()[row - 1];
        for (int i = 0; i < y.length; i++) {
          y[i] = at(n.re(i, row, column), n.im(i, row, column), z0);
        }
      }
    }
    return y;
  }

  /** Of one value; not for what is made of all points. */
  double at(double re, double im, double z0) {
    double magnitude = Math.hypot(re, im);
    return switch (this) {
      case LOG_MAGNITUDE -> Decibels.fromAmplitudeRatio(magnitude);
      case LINEAR -> magnitude;
      case PHASE -> Math.toDegrees(Math.atan2(im, re));
      case VSWR -> new Reflection(magnitude).vswr();
      case RETURN_LOSS -> -Decibels.fromAmplitudeRatio(magnitude);
      case REAL -> re;
      case IMAGINARY -> im;
      case RESISTANCE -> z0 * resistance(re, im);
      case REACTANCE -> z0 * reactance(re, im);
      case IMPEDANCE -> z0 * Math.hypot(resistance(re, im), reactance(re, im));
      default -> throw new IllegalStateException(this + " is made of all points");
    };
  }

  /** Real part of (1 + gamma) / (1 - gamma). */
  static double resistance(double re, double im) {
    return (1 - re * re - im * im) / below(re, im);
  }

  static double reactance(double re, double im) {
    return 2 * im / below(re, im);
  }

  /** |1 - gamma|^2, held off zero: an ideal open shows a large number, not none. */
  private static double below(double re, double im) {
    return Math.max((1 - re) * (1 - re) + im * im, 1e-18);
  }

  private static void degrees(double[] radians, double[] y) {
    for (int i = 0; i < y.length; i++) {
      y[i] = Math.toDegrees(radians[i]);
    }
  }

  /** Phase in radians without jumps. */
  static double[] unwrapped(NetworkData n, int row, int column) {
    double[] phase = new double[n.points()];
    double turns = 0;
    for (int i = 0; i < phase.length; i++) {
      double wrapped = Math.atan2(n.im(i, row, column), n.re(i, row, column));
      if (i > 0) {
        double step = wrapped + turns - phase[i - 1];
        turns -= 2 * Math.PI * Math.rint(step / (2 * Math.PI));
      }
      phase[i] = wrapped + turns;
    }
    return phase;
  }

  private static void groupDelay(
      NetworkData n, int row, int column, double apertureHz, double[] y) {
    if (y.length < 2) {
      throw new Refusal("format", "Group delay needs at least two points.");
    }
    double[] phase = unwrapped(n, row, column);
    double[] f = n.frequencyHz();
    int low = 0;
    int high = 0;
    for (int i = 0; i < y.length; i++) {
      while (low < i - 1 && f[i] - f[low + 1] >= apertureHz / 2) {
        low++;
      }
      high = Math.max(high, Math.min(i + 1, y.length - 1));
      while (high < y.length - 1 && f[high] - f[i] < apertureHz / 2) {
        high++;
      }
      int a = Math.min(low, y.length - 2);
      y[i] = -(phase[high] - phase[a]) / (2 * Math.PI * (f[high] - f[a]));
    }
  }

  /**
   * Running mean over an odd number of points, fewer at the ends.
   *
   * @param share of all points, 0 to 0.25; 0 leaves the values alone
   */
  public static double[] smoothed(double[] y, double share) {
    if (!(share >= 0 && share <= 0.25)) {
      throw new Refusal("smoothing", "Smoothing is over 0 to 25 % of the points.");
    }
    int half = (int) (share * y.length / 2);
    if (half == 0) {
      return y;
    }
    double[] sum = new double[y.length + 1];
    for (int i = 0; i < y.length; i++) {
      sum[i + 1] = sum[i] + y[i];
    }
    double[] out = new double[y.length];
    for (int i = 0; i < y.length; i++) {
      int reach = Math.min(half, Math.min(i, y.length - 1 - i));
      out[i] = (sum[i + reach + 1] - sum[i - reach]) / (2 * reach + 1);
    }
    return out;
  }
}
