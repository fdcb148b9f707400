package rovnik.core.modulation;

import org.hipparchus.special.Erf;
import rovnik.core.Refusal;

/**
 * What one symbol looks like: in time, for making it, and over frequency, for measuring it. Time is
 * in symbols, frequency in symbol rates; the response at 0 Hz is 1.
 *
 * @param kind of shape
 * @param parameter roll-off of the cosines (more than 0, at most 1), B T of the Gaussian (0.1 to
 *     3); of no meaning to the others
 */
public record PulseShape(Kind kind, double parameter) {
  /** The shapes; formulas: Proakis, Digital Communications, chapter 9, from memory. */
  public enum Kind {
    ROOT_RAISED_COSINE("root-raised cosine"),
    RAISED_COSINE("raised cosine"),
    GAUSSIAN("Gaussian"),
    HALF_SINE("half sine"),
    RECTANGULAR("rectangle"),
    NONE("none");

    private final String label;

    Kind(String label) {
      this.label = label;
    }

    public String label() {
      return label;
    }
  }

  public static final PulseShape NO_FILTER = new PulseShape(Kind.NONE, 0);

  private static final double LN2 = Math.log(2);

  public PulseShape {
    if (cosine(kind) && !(parameter > 0 && parameter <= 1)) {
      throw new Refusal("parameter", "The roll-off is more than 0 and at most 1, such as 0.35.");
    }
    if (kind == Kind.GAUSSIAN && !(parameter >= 0.1 && parameter <= 3)) {
      throw new Refusal("parameter", "B T of a Gaussian filter is 0.1 to 3, such as 0.3.");
    }
  }

  /** "root-raised cosine 0.35". */
  public String words() {
    boolean number = cosine(kind) || kind == Kind.GAUSSIAN;
    return kind.label() + (number ? " " + parameter : "");
  }

  private static boolean cosine(Kind kind) {
    return kind == Kind.ROOT_RAISED_COSINE || kind == Kind.RAISED_COSINE;
  }

  public static PulseShape rootRaisedCosine(double rollOff) {
    return new PulseShape(Kind.ROOT_RAISED_COSINE, rollOff);
  }

  /** The filter that a receiver of this shape has, so that symbols do not meet. */
  public PulseShape matched() {
    return kind == Kind.ROOT_RAISED_COSINE ? this : NO_FILTER;
  }

  /** True if nothing lies beyond {@link #halfWidth}. */
  public boolean bandLimited() {
    return cosine(kind);
  }

  /** Highest frequency that there is anything worth counting at, in symbol rates. */
  public double halfWidth() {
    return switch (kind) {
      case ROOT_RAISED_COSINE, RAISED_COSINE -> (1 + parameter) / 2;
      case GAUSSIAN -> 2.5 * parameter;
      case HALF_SINE, RECTANGULAR, NONE -> 4;
    };
  }

  /** Symbols to each side that a shape without a limit in band reaches; cosines have no end. */
  public double reach() {
    return switch (kind) {
      case ROOT_RAISED_COSINE, RAISED_COSINE -> Double.POSITIVE_INFINITY;
      case GAUSSIAN -> Math.max(1, 1.2 / parameter);
      case HALF_SINE, RECTANGULAR, NONE -> 1;
    };
  }

  /** Amplitude response. */
  public double response(double frequency) {
    double f = Math.abs(frequency);
    return switch (kind) {
      case ROOT_RAISED_COSINE -> Math.sqrt(raisedCosine(f, parameter));
      case RAISED_COSINE -> raisedCosine(f, parameter);
      // 3 dB down at B = parameter symbol rates.
      case GAUSSIAN -> Math.exp(-LN2 / 2 * f * f / parameter / parameter);
      case HALF_SINE -> halfSine(f);
      case RECTANGULAR -> sinc(f);
      case NONE -> 1;
    };
  }

  /** Amplitude response of the frequency pulse of a carrier that is keyed through this shape. */
  public double keyedResponse(double frequency) {
    return kind == Kind.GAUSSIAN || kind == Kind.NONE
        ? response(frequency) * sinc(frequency)
        : response(frequency);
  }

  /** Such a frequency pulse in time, of area 1; a Gaussian filters symbols that are rectangles. */
  public double keyedAt(double time) {
    if (kind != Kind.GAUSSIAN) {
      return at(time);
    }
    double steep = Math.PI * parameter * Math.sqrt(2 / LN2);
    return (Erf.erf(steep * (time + 0.5)) - Erf.erf(steep * (time - 0.5))) / 2;
  }

  /** Symbols to each side that such a pulse reaches. */
  public double keyedReach() {
    return switch (kind) {
      case ROOT_RAISED_COSINE, RAISED_COSINE -> Math.min(64, Math.ceil(10 / parameter));
      case GAUSSIAN -> 0.5 + reach();
      case HALF_SINE, RECTANGULAR, NONE -> 0.5;
    };
  }

  private static double raisedCosine(double f, double a) {
    double edge = (1 - a) / 2;
    if (f <= edge) {
      return 1;
    }
    return f >= (1 + a) / 2 ? 0 : (1 + Math.cos(Math.PI / a * (f - edge))) / 2;
  }

  /** Of half a period of a sine, one symbol long. */
  private static double halfSine(double f) {
    double d = 1 - 4 * f * f;
    return Math.abs(d) < 1e-9 ? Math.PI / 4 : Math.cos(Math.PI * f) / d;
  }

  private static double sinc(double x) {
    return Math.abs(x) < 1e-9 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
  }

  /** The shape in time: what an impulse of area 1 becomes. */
  public double at(double time) {
    double t = Math.abs(time);
    return switch (kind) {
      case ROOT_RAISED_COSINE -> rootRaisedCosineAt(t, parameter);
      case RAISED_COSINE -> raisedCosineAt(t, parameter);
      case GAUSSIAN -> {
        double sigma = Math.sqrt(LN2) / (2 * Math.PI * parameter);
        yield Math.exp(-t * t / 2 / sigma / sigma) / (sigma * Math.sqrt(2 * Math.PI));
      }
      case HALF_SINE -> t < 0.5 ? Math.PI / 2 * Math.cos(Math.PI * t) : 0;
      // One of two neighbours holds the instant between them, so that the envelope is constant.
      case RECTANGULAR, NONE -> t < 0.5 || time == -0.5 ? 1 : 0;
    };
  }

  private static double rootRaisedCosineAt(double t, double a) {
    if (t < 1e-9) {
      return 1 - a + 4 * a / Math.PI;
    }
    double at4 = 4 * a * t;
    if (Math.abs(at4 - 1) < 1e-7) {
      double angle = Math.PI / 4 / a;
      return a
          / Math.sqrt(2)
          * ((1 + 2 / Math.PI) * Math.sin(angle) + (1 - 2 / Math.PI) * Math.cos(angle));
    }
    return (Math.sin(Math.PI * t * (1 - a)) + at4 * Math.cos(Math.PI * t * (1 + a)))
        / (Math.PI * t * (1 - at4 * at4));
  }

  private static double raisedCosineAt(double t, double a) {
    double at2 = 2 * a * t;
    return Math.abs(at2 - 1) < 1e-7
        ? Math.PI / 4 * sinc(1 / (2 * a))
        : sinc(t) * Math.cos(Math.PI * a * t) / (1 - at2 * at2);
  }
}
