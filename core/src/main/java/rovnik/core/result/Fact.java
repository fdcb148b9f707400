package rovnik.core.result;

import java.util.Locale;
import rovnik.core.units.Frequency;

/**
 * Something known of how a result was made: a number with its unit, or words.
 *
 * @param label as shown, such as "RBW"
 * @param value NaN for words
 * @param unit of the number
 * @param text "" for numbers
 */
public record Fact(String label, double value, String unit, String text) {
  public static Fact of(String label, double value, String unit) {
    return new Fact(label, value, unit, "");
  }

  public static Fact of(String label, String text) {
    return new Fact(label, Double.NaN, "", text);
  }

  /** "50 kHz", "30.00 dBm", "16" or the words. */
  public String words() {
    if (Double.isNaN(value)) {
      return text;
    }
    if (unit.equals("Hz")) {
      return Frequency.ofHertz(Double.parseDouble(String.format(Locale.ROOT, "%.10g", value)))
          .toString();
    }
    String number =
        value == Math.rint(value) && unit.isEmpty()
            ? String.valueOf((long) value)
            : String.format(Locale.ROOT, "%.2f", value);
    return unit.isEmpty() ? number : number + " " + unit;
  }
}
