package rovnik.server.runs;

import java.util.Locale;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.Series;
import rovnik.core.result.Values;

/**
 * What the tape shows of a run: a small picture of its main series and its first reading.
 *
 * @param points the highest value of each piece of the series
 */
record RunPicture(String headline, String unit, float[] points) {
  private static final int MOST_POINTS = 96;

  static RunPicture of(Outcome o) {
    return o.main()
        .map(s -> new RunPicture(headline(o), s.unit(), points(s)))
        .orElse(new RunPicture(headline(o), "", new float[0]));
  }

  /** The first reading in decibels that has a value, else the first that has one. */
  private static String headline(Outcome o) {
    return o.readings().stream()
        .filter(r -> Double.isFinite(r.value()) && r.unit().startsWith("dB"))
        .findFirst()
        .or(() -> o.readings().stream().filter(r -> Double.isFinite(r.value())).findFirst())
        .map(RunPicture::words)
        .orElse("");
  }

  private static String words(Reading r) {
    return r.unit().startsWith("dB")
        ? String.format(Locale.ROOT, "%.1f %s", r.value(), r.unit())
        : String.format(Locale.ROOT, "%.4g %s", r.value(), r.unit()).strip();
  }

  private static float[] points(Series s) {
    int places = s.x().points();
    int n = Math.min(MOST_POINTS, places);
    float[] picture = new float[n];
    for (int i = 0; i < n; i++) {
      double highest = Double.NEGATIVE_INFINITY;
      for (int k = i * places / n; k < (i + 1) * places / n; k++) {
        double v = value(s.values(), k);
        highest = v > highest ? v : highest;
      }
      picture[i] = Double.isFinite(highest) ? Math.round(highest * 1000) / 1000f : 0;
    }
    return picture;
  }

  private static double value(Values v, int i) {
    if (v instanceof Values.Real r) {
      return r.y()[i];
    }
    if (v instanceof Values.Complex c) {
      return Math.hypot(c.re()[i], c.im()[i]);
    }
    Values.Matrix m = (Values.Matrix) v;
    int rows = m.rows().points();
    double highest = Double.NEGATIVE_INFINITY;
    for (int k = 0; k < rows; k++) {
      highest = Math.max(highest, m.z()[i * rows + k]);
    }
    return highest;
  }
}
