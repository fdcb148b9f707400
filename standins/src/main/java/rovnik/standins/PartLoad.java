package rovnik.standins;

import rovnik.standins.rf.Parts;
import rovnik.standins.scpi.ScpiError;

/** A part from measured data: name, then frequency and eight numbers a point, in Hz and 50 ohm. */
final class PartLoad {
  private PartLoad() {}

  static void into(Parts parts, String text) {
    String[] words = text.split(",");
    String name = words[0].replaceAll("[\"']", "").strip();
    if (name.isEmpty() || words.length < 10 || (words.length - 1) % 9 != 0) {
      throw ScpiError.illegalValue("a part is a name and nine numbers a point");
    }
    int points = (words.length - 1) / 9;
    double[] hz = new double[points];
    double[][] s = new double[points][8];
    try {
      for (int p = 0; p < points; p++) {
        hz[p] = Double.parseDouble(words[1 + 9 * p]);
        for (int k = 0; k < 8; k++) {
          s[p][k] = Double.parseDouble(words[2 + 9 * p + k]);
        }
      }
    } catch (NumberFormatException e) {
      throw new ScpiError(-104, "Data type error; " + e.getMessage());
    }
    parts.add(name, hz, s);
  }
}
