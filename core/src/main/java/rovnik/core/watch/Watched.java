package rovnik.core.watch;

import rovnik.core.Refusal;
import rovnik.core.limits.Limit;

/**
 * One number that a watch follows.
 *
 * @param id what it is called where it is measured, see {@link Followed}
 * @param label as shown
 * @param unit of the values; for what is counted an hour, of the count
 * @param plane that the values are referred to; looks that are referred to another are not taken
 * @param perHour it is a count that grows, and what it grows by in an hour is followed
 * @param limit that it shall keep
 * @param hysteresis so far inside its limit it must be before it counts as back, in its unit
 */
public record Watched(
    String id,
    String label,
    String unit,
    String plane,
    boolean perHour,
    Limit limit,
    double hysteresis) {

  public Watched {
    if (id == null || id.isEmpty()) {
      throw new Refusal("readings", "Say which readings are watched.");
    }
    if (!(hysteresis >= 0) || Double.isInfinite(hysteresis)) {
      throw new Refusal(
          "hysteresis", "How far inside its limit a number must be to be back is 0 or more.");
    }
    if (Double.isInfinite(limit.lower()) || Double.isInfinite(limit.upper())) {
      throw new Refusal("limit", "A limit is a number; leave a side that has none empty.");
    }
    if (2 * hysteresis >= limit.upper() - limit.lower()) {
      throw new Refusal(
          "hysteresis",
          label
              + " could never be back inside its limits: they are not further apart than twice the"
              + " hysteresis. Take less.");
    }
    if (perHour && !unit.isEmpty()) {
      throw new Refusal(
          "perHour",
          label + " is in " + unit + " and no count. Only what is counted can be had an hour.");
    }
  }

  /** The unit of what is followed. */
  public String shownUnit() {
    return perHour ? "/h" : unit;
  }

  /** What is followed, in words. */
  public String shownLabel() {
    return perHour ? label + " an hour" : label;
  }
}
