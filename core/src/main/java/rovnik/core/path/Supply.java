package rovnik.core.path;

import java.util.Locale;
import rovnik.core.Refusal;

/**
 * What the dc supply of a part may be, and how a source that modulates it would use that: a level
 * plan in volts.
 *
 * @param lowestVolts that the part works at
 * @param highestVolts that the part works at
 * @param damageVolts that it must never see; NaN for the highest
 */
public record Supply(double lowestVolts, double highestVolts, double damageVolts) {
  private static final double MOST_VOLTS = 1000;

  /** So much the wrong way round does no part any harm. */
  private static final double REVERSE_VOLTS = 0.2;

  public Supply {
    if (!(lowestVolts >= 0 && highestVolts > lowestVolts && highestVolts <= MOST_VOLTS)) {
      throw new Refusal(
          "supplyHighestVolts",
          "A supply is from 0 V or more to a higher voltage, such as 4.5 to 5.5 V.");
    }
    damageVolts = Double.isNaN(damageVolts) ? highestVolts : damageVolts;
    if (!(damageVolts >= highestVolts && damageVolts <= MOST_VOLTS)) {
      throw new Refusal(
          "supplyDamageVolts",
          "The voltage that damages the part lies below the highest that it works at.");
    }
  }

  /**
   * What a source puts out.
   *
   * @param offsetVolts its mean
   * @param amplitudeVolts from the mean to the crest, 0 for a steady voltage
   * @param accuracyVolts crest and trough may be so far from what they are set to
   */
  public record Drive(double offsetVolts, double amplitudeVolts, double accuracyVolts) {
    public double crestVolts() {
      return offsetVolts + amplitudeVolts;
    }

    public double troughVolts() {
      return offsetVolts - amplitudeVolts;
    }

    private double surelyBelow() {
      return crestVolts() + accuracyVolts;
    }

    private double surelyAbove() {
      return troughVolts() - accuracyVolts;
    }
  }

  /** What a drive would do harm by, "" if nothing: whatever the source errs by. */
  public String harm(String part, Drive d) {
    if (d.surelyBelow() > damageVolts || d.surelyAbove() < -REVERSE_VOLTS) {
      return words(
          "%s would see %s at its supply, %s: it must not see %s.",
          part,
          swing(d),
          plusMinus(d),
          d.surelyBelow() > damageVolts ? volts(damageVolts) + " or more" : "less than 0 V");
    }
    return d.surelyBelow() > highestVolts ? outside(part, d) : "";
  }

  /** What stands against a drive, "" if nothing: harm, or a part that does not work. */
  public String trouble(String part, Drive d) {
    String harm = harm(part, d);
    return harm.isEmpty() && d.surelyAbove() < lowestVolts ? outside(part, d) : harm;
  }

  private String outside(String part, Drive d) {
    return words(
        "%s would see %s at its supply, %s: it works from %s to %s.",
        part, swing(d), plusMinus(d), volts(lowestVolts), volts(highestVolts));
  }

  /** How far beyond what the part bears a drive goes, volts; negative if it stays within. */
  public double stressVolts(Drive d) {
    return Math.max(d.surelyBelow() - highestVolts, -d.surelyAbove());
  }

  /**
   * The bias and the swing that use the part's range best: all of it, less what the source may err
   * by.
   *
   * @param accuracy of the source
   */
  public Drive best(Accuracy accuracy) {
    double bias = (lowestVolts + highestVolts) / 2;
    double half = (highestVolts - lowestVolts) / 2;
    // Of a swing s the crest may err by: fixed + share (bias + s).
    double swing = (half - accuracy.volts() - accuracy.share() * bias) / (1 + accuracy.share());
    double whole = Math.max(0, Math.floor(swing * 1000) / 1000);
    return accuracy.of(bias, whole);
  }

  /**
   * How far a source errs.
   *
   * @param volts whatever it is set to
   * @param share of offset and amplitude
   */
  public record Accuracy(double volts, double share) {
    public Drive of(double offsetVolts, double amplitudeVolts) {
      return new Drive(
          offsetVolts, amplitudeVolts, volts + share * (Math.abs(offsetVolts) + amplitudeVolts));
    }
  }

  /** "4.5 to 5.5 V", or "5 V". */
  public static String swing(Drive d) {
    return d.amplitudeVolts() == 0
        ? volts(d.offsetVolts())
        : words("%s to %s", number(d.troughVolts()), volts(d.crestVolts()));
  }

  private static String plusMinus(Drive d) {
    return words("give or take %.3f V", d.accuracyVolts());
  }

  /** "4.5 V". */
  public static String volts(double v) {
    return number(v) + " V";
  }

  private static String number(double v) {
    return java.math.BigDecimal.valueOf(Math.rint(v * 1000) / 1000)
        .stripTrailingZeros()
        .toPlainString();
  }

  private static String words(String format, Object... values) {
    return String.format(Locale.ROOT, format, values);
  }
}
