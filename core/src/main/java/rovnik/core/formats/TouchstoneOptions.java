package rovnik.core.formats;

import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.network.NetworkConversion.Kind;

/**
 * The option line of a Touchstone file: {@code # GHz S MA R 50}, each part in any order and with
 * these defaults.
 */
record TouchstoneOptions(double unitHz, Kind kind, Format format, double resistanceOhm) {
  enum Format {
    MA,
    DB,
    RI
  }

  static final TouchstoneOptions DEFAULT = new TouchstoneOptions(1e9, Kind.S, Format.MA, 50);

  /**
   * Reads an option line.
   *
   * @param line with its number sign
   * @throws Refusal naming the line
   */
  static TouchstoneOptions parse(String line, long lineNumber) {
    double unit = DEFAULT.unitHz;
    Kind kind = DEFAULT.kind;
    Format format = DEFAULT.format;
    double ohm = DEFAULT.resistanceOhm;
    String[] words = line.substring(1).strip().toUpperCase(Locale.ROOT).split("\\s+");
    for (int i = 0; i < words.length; i++) {
      switch (words[i]) {
        case "" -> {}
        case "HZ" -> unit = 1;
        case "KHZ" -> unit = 1e3;
        case "MHZ" -> unit = 1e6;
        case "GHZ" -> unit = 1e9;
        case "S", "Y", "Z", "H", "G" -> kind = Kind.valueOf(words[i]);
        case "MA", "DB", "RI" -> format = Format.valueOf(words[i]);
        case "R" -> ohm = resistance(++i < words.length ? words[i] : "", lineNumber);
        default ->
            throw TouchstoneReader.refuse(
                lineNumber,
                "\""
                    + words[i]
                    + "\" is not known on the option line; it is like \"# GHz S MA R 50\"");
      }
    }
    return new TouchstoneOptions(unit, kind, format, ohm);
  }

  private static double resistance(String text, long lineNumber) {
    try {
      double ohm = Double.parseDouble(text);
      if (ohm > 0 && Double.isFinite(ohm)) {
        return ohm;
      }
    } catch (NumberFormatException e) {
      // refused below
    }
    throw TouchstoneReader.refuse(
        lineNumber, "the R of the option line needs a reference impedance in ohm, such as R 50");
  }
}
