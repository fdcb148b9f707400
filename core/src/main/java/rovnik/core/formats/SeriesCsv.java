package rovnik.core.formats;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import rovnik.core.result.Fact;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.units.Moment;

/**
 * A series as CSV: comment lines with what it is, a heading with units, one row a place. Complex
 * values take two columns, a matrix one for each of its rows.
 */
public final class SeriesCsv {
  private SeriesCsv() {}

  public static String write(Series s) {
    StringBuilder out = new StringBuilder(s.x().points() * 28 + 300);
    out.append("# ").append(line(s.label().isEmpty() ? s.id() : s.label())).append('\n');
    out.append("# plane: ").append(line(s.plane())).append('\n');
    List<String> facts = s.facts().stream().map(f -> line(f.label() + ": " + exact(f))).toList();
    if (!facts.isEmpty()) {
      out.append("# ").append(String.join(", ", facts)).append('\n');
    }
    out.append(head(s.x().quantity(), s.x().unit()));
    for (String column : columns(s)) {
      out.append(',').append(column);
    }
    out.append('\n');
    for (int i = 0; i < s.x().points(); i++) {
      out.append(number(s.x().at(i), s.x().unit()));
      row(out, s, i);
      out.append('\n');
    }
    return out.toString();
  }

  private static String exact(Fact f) {
    return Double.isNaN(f.value())
        ? f.text()
        : String.format(Locale.ROOT, "%.6g", f.value())
            + (f.unit().isEmpty() ? "" : " " + f.unit());
  }

  private static String line(String text) {
    return text.replace('\n', ' ').replace('\r', ' ');
  }

  private static String head(String quantity, String unit) {
    return quantity.toLowerCase(Locale.ROOT) + (unit.isEmpty() ? "" : " (" + unit + ")");
  }

  private static List<String> columns(Series s) {
    if (s.values() instanceof Values.Complex) {
      return List.of("real part", "imaginary part");
    }
    if (s.values() instanceof Values.Matrix m) {
      return java.util.stream.IntStream.range(0, m.rows().points())
          .mapToObj(k -> number(m.rows().at(k), m.rows().unit()) + " " + m.rows().unit())
          .toList();
    }
    return List.of(head(s.quantity(), s.unit()));
  }

  private static void row(StringBuilder out, Series s, int i) {
    if (s.values() instanceof Values.Real r) {
      out.append(',').append(number(r.y()[i], s.unit()));
    } else if (s.values() instanceof Values.Complex c) {
      out.append(String.format(Locale.ROOT, ",%.9g,%.9g", c.re()[i], c.im()[i]));
    } else if (s.values() instanceof Values.Matrix m) {
      int rows = m.rows().points();
      for (int k = 0; k < rows; k++) {
        out.append(',').append(number(m.z()[i * rows + k], s.unit()));
      }
    }
  }

  /**
   * Moments as ISO 8601 has them, hertz and decibels to a ten-thousandth, everything else to nine
   * digits; "" for none.
   */
  private static String number(double v, String unit) {
    if (Double.isNaN(v)) {
      return "";
    }
    if (unit.equals(Moment.UNIT)) {
      return Instant.ofEpochMilli(Math.round(1000 * v)).toString();
    }
    return unit.equals("Hz") || unit.startsWith("dB")
        ? String.format(Locale.ROOT, "%.4f", v)
        : String.format(Locale.ROOT, "%.9g", v);
  }
}
