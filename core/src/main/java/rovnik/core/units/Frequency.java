package rovnik.core.units;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rovnik.core.Refusal;

/**
 * A frequency, or a frequency difference, in hertz. Text form: a number, an optional SI prefix (u,
 * m, k, M, G) and an optional "Hz": {@code 458.525M}, {@code 12.5 kHz}, {@code -3e3}. What may be
 * meant in two ways is refused: "mhz" is neither mHz nor MHz, and a number has a point, no comma.
 */
public record Frequency(double hertz) implements Comparable<Frequency> {
  private static final Pattern TEXT =
      Pattern.compile(
          "\\s*([+-]?(?:\\d+(?:\\.\\d*)?|\\.\\d+)(?:[eE][+-]?\\d+)?)\\s*([umkKMG\u00B5\u03BC]?)"
              + "((?:[hH][zZ])?)\\s*");

  private static final double BEYOND_ALL = 1e15;

  public Frequency {
    Refusal.finite("frequency", hertz);
  }

  public static Frequency ofHertz(double hertz) {
    return new Frequency(hertz);
  }

  public static Frequency ofMegahertz(double megahertz) {
    return new Frequency(megahertz * 1e6);
  }

  /**
   * Reads the text form.
   *
   * @throws Refusal if the text is not a number with an optional SI prefix and "Hz"
   */
  public static Frequency parse(String text) {
    Matcher m = TEXT.matcher(text);
    if (m.matches()
        && m.group(2).equals("m")
        && !m.group(3).equals("Hz")
        && !m.group(3).isEmpty()) {
      throw new Refusal(
          "frequency",
          "\"" + text.strip() + "\" may be millihertz or megahertz; write MHz, or mHz.");
    }
    if (!m.matches()) {
      throw new Refusal(
          "frequency",
          "\"" + text.strip() + "\" is not a frequency; write it like 458.525M, 12.5 kHz or 1e6.");
    }
    return new Frequency(Double.parseDouble(m.group(1)) * prefix(m.group(2)));
  }

  private static double prefix(String letter) {
    return switch (letter) {
      case "u", "\u00B5", "\u03BC" -> 1e-6;
      case "m" -> 1e-3;
      case "k", "K" -> 1e3;
      case "M" -> 1e6;
      case "G" -> 1e9;
      default -> 1;
    };
  }

  @Override
  public int compareTo(Frequency other) {
    return Double.compare(hertz, other.hertz);
  }

  /** The value with the SI prefix that keeps 1 to 999 before the point: "458.525 MHz". */
  @Override
  public String toString() {
    double size = Math.abs(hertz);
    if (size >= BEYOND_ALL) {
      return String.format(
          Locale.ROOT, "%.3g Hz", hertz); // hundreds of digits tell nobody anything
    }
    String[] units = {"Hz", "kHz", "MHz", "GHz"};
    int unit = size >= 1e9 ? 3 : size >= 1e6 ? 2 : size >= 1e3 ? 1 : 0;
    String digits = String.format(Locale.ROOT, "%.9f", hertz / Math.pow(1000, unit));
    return digits.replaceFirst("\\.?0+$", "") + " " + units[unit];
  }
}
