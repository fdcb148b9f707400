package rovnik.core.formats;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.path.Gain;
import rovnik.core.units.Frequency;

/**
 * A gain table as CSV: frequency and gain in dB are the first two columns, split by semicolon or
 * tab, or the only two, split by comma. Numbers have a decimal point; a comma in one is refused and
 * never taken for a split. The frequency may carry a prefix ({@code 458.5M}); a heading line may
 * name its unit ("MHz") for all rows. Lines that begin with # or are empty are passed over.
 */
public final class GainTableCsv {
  /** Longest table. */
  public static final int MOST_ROWS = 100_000;

  private GainTableCsv() {}

  /**
   * Reads a table.
   *
   * @throws Refusal naming the line
   */
  public static Gain.Table parse(String text) {
    List<double[]> rows = new ArrayList<>();
    double unit = 1;
    int lineNumber = 0;
    boolean headingAllowed = true;
    for (String line : (Iterable<String>) text.lines()::iterator) {
      lineNumber++;
      String trimmed = line.replace("\uFEFF", "").strip(); // a byte order mark is no text
      if (trimmed.isEmpty() || trimmed.startsWith("#")) {
        continue;
      }
      boolean byComma = !trimmed.contains(";") && !trimmed.contains("\t");
      String[] cells = trimmed.split(byComma ? "," : "[;\t]");
      if (cells.length < 2) {
        throw refuse(lineNumber, "needs a frequency and a gain in dB, split by a comma");
      }
      if (byComma && cells.length > 2) {
        throw refuse(
            lineNumber,
            "has "
                + cells.length
                + " columns where frequency and gain are two; write numbers with a decimal point");
      }
      if (headingAllowed && !Character.isDigit(firstOf(cells[1]))) {
        unit = unitOf(cells[0]);
        headingAllowed = false;
        continue;
      }
      headingAllowed = false;
      rows.add(new double[] {frequency(cells[0], unit, lineNumber), gain(cells[1], lineNumber)});
      if (rows.size() > 1 && !(rows.get(rows.size() - 1)[0] > rows.get(rows.size() - 2)[0])) {
        throw refuse(lineNumber, "the frequencies must rise from line to line");
      }
      if (rows.size() > MOST_ROWS) {
        throw refuse(lineNumber, "the table has more than " + MOST_ROWS + " rows");
      }
    }
    if (rows.isEmpty()) {
      throw new Refusal("gain", "The table has no rows of frequency and gain.");
    }
    return new Gain.Table(
        rows.stream().mapToDouble(r -> r[0]).toArray(),
        rows.stream().mapToDouble(r -> r[1]).toArray());
  }

  /** Writes a table so that {@link #parse} gives it back to the last digit. */
  public static String write(Gain.Table table) {
    StringBuilder out = new StringBuilder("frequency (Hz),gain (dB)\n");
    for (int i = 0; i < table.frequencyHz().length; i++) {
      out.append(table.frequencyHz()[i]).append(',').append(table.gainDb()[i]).append('\n');
    }
    return out.toString();
  }

  private static char firstOf(String cell) {
    String digits = cell.strip().replaceFirst("^[+\\-.]+", "");
    return digits.isEmpty() ? ' ' : digits.charAt(0);
  }

  private static double unitOf(String heading) {
    String h = heading.toLowerCase(java.util.Locale.ROOT);
    return h.contains("ghz") ? 1e9 : h.contains("mhz") ? 1e6 : h.contains("khz") ? 1e3 : 1;
  }

  private static double frequency(String cell, double unit, int line) {
    try {
      double hertz = Frequency.parse(cell).hertz() * unit;
      if (hertz < 0) {
        throw refuse(line, "the frequency is negative");
      }
      return hertz;
    } catch (Refusal bad) {
      throw refuse(line, bad.getMessage());
    }
  }

  private static double gain(String cell, int line) {
    try {
      return Refusal.finite(
          "gain", Double.parseDouble(cell.strip().replaceFirst("(?i)\\s*dB$", "")));
    } catch (NumberFormatException | Refusal bad) {
      throw refuse(line, "\"" + cell.strip() + "\" is not a gain in dB");
    }
  }

  private static Refusal refuse(int line, String what) {
    return new Refusal("gain", "Gain table, line " + line + ": " + what + ".");
  }
}
