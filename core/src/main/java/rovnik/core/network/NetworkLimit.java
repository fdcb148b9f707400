package rovnik.core.network;

import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;

/**
 * A bound on one parameter over a stretch of frequency, straight between its ends.
 *
 * @param upper true if values must stay below it
 * @param part the part, or kind of part, that it is for; "" for the device that the job is about
 */
public record NetworkLimit(
    String name,
    int row,
    int column,
    NetworkFormat format,
    boolean upper,
    double fromHz,
    double toHz,
    double fromValue,
    double toValue,
    String part) {

  /** A bound for the job's device. */
  public NetworkLimit(
      String name,
      int row,
      int column,
      NetworkFormat format,
      boolean upper,
      double fromHz,
      double toHz,
      double fromValue,
      double toValue) {
    this(name, row, column, format, upper, fromHz, toHz, fromValue, toValue, "");
  }

  public NetworkLimit {
    if (format == null) {
      throw new Refusal("format", "A limit needs the format that it bounds, such as dB.");
    }
    if (!(toHz > fromHz)) {
      throw new Refusal("toHz", "A limit's end must lie above its beginning.");
    }
    Refusal.finite("fromValue", fromValue);
    Refusal.finite("toValue", toValue);
    part = part == null ? "" : part.strip();
    if (name == null || name.isBlank()) {
      name = NetworkData.name(row, column) + (upper ? " at most" : " at least");
    }
  }

  /**
   * How a network keeps it.
   *
   * @param worst value where the margin is smallest
   * @param margin in the format's unit, negative if it fails; NaN if no point lies there
   */
  public record Outcome(
      NetworkLimit limit, double worst, double atHz, double margin, Verdict verdict) {}

  /**
   * True if a part is held to it. Names are compared by their letters and digits alone: "filter" is
   * for "Cavity filter" and for "cavity-filter.s2p".
   *
   * @param subject name of what is measured, "" if it is not known: then all limits hold
   * @param device the job's device, "" if there is none: then limits without a part hold for all
   */
  public boolean isFor(String subject, String device) {
    String wanted = plain(part.isEmpty() ? device : part);
    return wanted.isEmpty() || subject.isBlank() || plain(subject).contains(wanted);
  }

  private static String plain(String name) {
    return name.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]", "");
  }

  public double valueAt(double hz) {
    return fromValue + (hz - fromHz) / (toHz - fromHz) * (toValue - fromValue);
  }

  /**
   * Judges one network.
   *
   * @param trust residual errors for the verdict's uncertainty, null if they are not known
   * @param invalid true if the data must not be judged at all, as after an overload
   */
  public Outcome of(NetworkData n, Residuals trust, boolean invalid) {
    if (Math.max(row, column) > n.ports()) {
      return new Outcome(this, Double.NaN, Double.NaN, Double.NaN, Verdict.INVALID);
    }
    double[] y = format.of(n, row, column, 0);
    double margin = Double.POSITIVE_INFINITY;
    int worst = -1;
    for (int p = 0; p < n.points(); p++) {
      double hz = n.frequencyHz()[p];
      if (hz < fromHz || hz > toHz) {
        continue;
      }
      double m = upper ? valueAt(hz) - y[p] : y[p] - valueAt(hz);
      if (m < margin) {
        margin = m;
        worst = p;
      }
    }
    if (worst < 0) {
      return new Outcome(this, Double.NaN, Double.NaN, Double.NaN, Verdict.INVALID);
    }
    double unsure = trust == null ? 0 : uncertaintyAt(n, worst, trust);
    Verdict v =
        invalid
            ? Verdict.INVALID
            : margin >= 0
                ? margin >= unsure ? Verdict.PASS : Verdict.PASS_UNSURE
                : -margin >= unsure ? Verdict.FAIL : Verdict.FAIL_UNSURE;
    return new Outcome(this, y[worst], n.frequencyHz()[worst], margin, v);
  }

  /** Expanded uncertainty (k = 2) of what is held to it, in the format's unit. */
  public double uncertaintyAt(NetworkData n, int p, Residuals trust) {
    double size = n.magnitude(p, row, column);
    double u = trust.at(n, p, row, column);
    return switch (format) {
      case LOG_MAGNITUDE, RETURN_LOSS -> Residuals.inDb(size, u);
      case LINEAR, REAL, IMAGINARY -> u;
      case VSWR -> new Reflection(Math.min(size + u, 0.9999)).vswr() - new Reflection(size).vswr();
      case PHASE, UNWRAPPED_PHASE -> Math.toDegrees(trust.phaseAt(n, p, row, column));
      case GROUP_DELAY ->
          new FigureUncertainty(n, trust)
              .delay(Math.max(0, p - 1), Math.min(n.points() - 1, p + 1), row, column);
      case RESISTANCE, REACTANCE, IMPEDANCE -> impedance(n, p, u);
    };
  }

  /** By the steepest change with the reflection. */
  private double impedance(NetworkData n, int p, double u) {
    double re = n.re(p, row, column);
    double im = n.im(p, row, column);
    double z0 = n.referenceOhm()[row - 1];
    double before = format.at(re, im, z0);
    return Math.hypot(format.at(re + u, im, z0) - before, format.at(re, im + u, z0) - before);
  }

  /** The worst of several: what a part is judged by. */
  public static Verdict worst(List<Outcome> outcomes) {
    return Verdict.worst(outcomes.stream().map(Outcome::verdict).toList());
  }

  /** "S21 at least -1.5 dB from 456.5 to 460.5 MHz". */
  public String words() {
    return String.format(
        Locale.ROOT,
        "%s %s %s %.4g %s",
        NetworkData.name(row, column),
        format.label(),
        upper ? "at most" : "at least",
        fromValue,
        format.unit());
  }
}
