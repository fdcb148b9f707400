package rovnik.instruments;

import rovnik.core.Refusal;

/** Reads what a control is to be. */
public final class Values {
  private Values() {}

  public static boolean onOff(String value) {
    return choice(value, Control.OFF, Control.ON) == 1;
  }

  /** Which of the choices it is, from 0. */
  public static int choice(String value, String... choices) {
    for (int i = 0; i < choices.length; i++) {
      if (choices[i].equalsIgnoreCase(value)) {
        return i;
      }
    }
    throw new Refusal("value", "\"" + value + "\" is none of " + String.join(", ", choices) + ".");
  }

  public static double number(String value) {
    try {
      double v = Double.parseDouble(value.strip());
      Refusal.finite("value", v);
      return v;
    } catch (NumberFormatException | NullPointerException e) {
      throw new Refusal("value", "\"" + value + "\" is not a number.");
    }
  }
}
