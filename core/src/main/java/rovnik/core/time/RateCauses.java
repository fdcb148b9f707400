package rovnik.core.time;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.KnownRate;

/**
 * Which of the clocks and intervals that are known may be behind an interval that was found. A
 * clock is so fast that a multiple of it fits anything cannot be told by this interval, and is not
 * blamed.
 */
final class RateCauses {
  /** What crystals of boards are off by, at most (common practice). */
  private static final double CRYSTAL = 1e-4;

  /** A rate of chance would fit with this likelihood at most, where a fit tells anything. */
  private static final double CHANCE = 0.05;

  /** How a known rate goes with the interval. */
  enum Fit {
    FITS("fits"),
    OTHER("does not fit"),
    TOO_FAST("too fast to tell");

    private final String words;

    Fit(String words) {
      this.words = words;
    }

    String words() {
      return words;
    }
  }

  /**
   * One of them against the interval.
   *
   * @param cycles of it in an interval; less than one if several bursts come in one
   * @param offPpm by how much the interval is longer than a whole number of them (or they than it)
   */
  record Cause(KnownRate rate, double cycles, double offPpm, Fit fit) {
    boolean fits() {
      return fit == Fit.FITS;
    }

    /** "radio sleep", "3 cycles of core clock", "every 4th of ...". */
    String words() {
      if (cycles > 1.5) {
        return String.format(Locale.ROOT, "%.0f cycles of %s", cycles, rate.name());
      }
      return cycles < 0.75
          ? String.format(Locale.ROOT, "%.0f times a cycle of %s", 1 / cycles, rate.name())
          : rate.name();
    }
  }

  private RateCauses() {}

  /**
   * All of them, those that fit first.
   *
   * @param uncertainty of the interval, expanded
   */
  static List<Cause> of(double interval, double uncertainty, List<KnownRate> rates) {
    double tolerance = CRYSTAL + uncertainty / interval;
    List<Cause> out = new ArrayList<>();
    for (KnownRate r : rates) {
      double x = interval * r.hertz();
      double whole = Math.max(1, Math.rint(Math.max(x, 1 / x)));
      double off = Math.max(x, 1 / x) / whole - 1;
      Fit fit =
          2 * tolerance * whole > CHANCE
              ? Fit.TOO_FAST
              : Math.abs(off) <= tolerance ? Fit.FITS : Fit.OTHER;
      out.add(new Cause(r, x, (x >= 1 ? 1 : -1) * 1e6 * off, fit));
    }
    out.sort((a, b) -> a.fit().compareTo(b.fit()));
    return out;
  }

  /** What the list says of an interval; "" if it is empty. */
  static String words(List<Cause> causes) {
    if (causes.isEmpty()) {
      return "";
    }
    List<String> fitting = causes.stream().filter(Cause::fits).map(Cause::words).toList();
    return fitting.isEmpty()
        ? " Nothing that is known of the job has this rate."
        : " That is "
            + String.join(", or ", fitting)
            + (fitting.size() == causes.size()
                ? "."
                : "; nothing else that is known of the job has this rate.");
  }
}
