package rovnik.core.time;

import java.util.List;
import java.util.stream.Collectors;
import rovnik.core.Refusal;
import rovnik.core.units.Seconds;

/**
 * Times from one to the next that are waited for.
 *
 * @param seconds from the beginning of one to that of the next, in their order; empty for any
 * @param withinSeconds each of them may be longer or shorter by so much
 * @param broken true to wait for one that comes too soon, or does not come in time
 */
public record IntervalPattern(List<Double> seconds, double withinSeconds, boolean broken) {
  /** Whatever was between. */
  public static final IntervalPattern ANY = new IntervalPattern(List.of(), 0, false);

  private static final int MOST = 32;

  public IntervalPattern {
    seconds = List.copyOf(seconds);
    if (seconds.size() > MOST) {
      throw new Refusal("intervals", "A pattern has at most " + MOST + " intervals.");
    }
    for (double s : seconds) {
      if (!(s > 0 && s <= TriggerSettings.LONGEST_SECONDS)) {
        throw new Refusal(
            "intervals", "Each interval is more than 0 s and at most 600 s, such as 3.1 ms.");
      }
    }
    double shortest = seconds.stream().mapToDouble(s -> s).min().orElse(Double.POSITIVE_INFINITY);
    if (!seconds.isEmpty() && !(withinSeconds > 0 && withinSeconds < shortest)) {
      throw new Refusal(
          "intervalsWithinSeconds",
          "Say how far an interval may be off: more than 0 s and less than the shortest of them, "
              + Seconds.words(shortest)
              + ".");
    }
    if (broken && seconds.size() != 1) {
      throw new Refusal(
          "intervals", "What shall be told when it breaks is one interval, such as 3.1 ms.");
    }
  }

  boolean any() {
    return seconds.isEmpty();
  }

  /** As a part of a sentence about what comes. */
  String words() {
    if (any()) {
      return "";
    }
    String list = seconds.stream().map(Seconds::words).collect(Collectors.joining(", "));
    String within = " within " + Seconds.words(withinSeconds);
    if (broken) {
      return ", where it does not come " + list + " after the one before," + within;
    }
    return seconds.size() == 1
        ? ", " + list + " after the one before," + within
        : ", with " + list + " from one to the next," + within;
  }
}
