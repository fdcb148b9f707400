package rovnik.core.limits;

import rovnik.core.Refusal;

/**
 * A clock or interval of the device under test that is known.
 *
 * @param name as its maker calls it
 * @param hertz how often it comes
 */
public record KnownRate(String name, double hertz) {
  private static final int LONGEST_NAME = 80;

  public KnownRate {
    if (name.isBlank() || name.length() > LONGEST_NAME) {
      throw new Refusal("rates", "Each known rate has a name of 1 to 80 letters.");
    }
    if (!(hertz >= 1e-6 && hertz <= 1e12)) {
      throw new Refusal(
          "rates", "\"" + name + "\" has a rate of 1 uHz to 1 THz, such as 322.6 Hz or 3.1 ms.");
    }
  }
}
