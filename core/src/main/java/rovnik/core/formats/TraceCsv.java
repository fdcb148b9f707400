package rovnik.core.formats;

import java.util.Locale;
import rovnik.core.spectrum.Trace;

/** A trace as CSV: comment lines with what it is, a heading with units, one row a point. */
public final class TraceCsv {
  private TraceCsv() {}

  public static String write(Trace trace) {
    StringBuilder out = new StringBuilder(trace.points() * 28 + 200);
    out.append("# plane: ").append(trace.plane().replace('\n', ' ')).append('\n');
    out.append(
        String.format(
            Locale.ROOT,
            "# rbw: %.6g Hz, enbw: %.6g Hz, window: %s, detector: %s, averages: %d%n",
            trace.rbwHz(),
            trace.enbwHz(),
            trace.window(),
            trace.detector(),
            trace.segments()));
    out.append("frequency (Hz),level (").append(trace.unit()).append(")\n");
    for (int i = 0; i < trace.points(); i++) {
      out.append(String.format(Locale.ROOT, "%.4f,%.4f%n", trace.frequencyHz(i), trace.level()[i]));
    }
    return out.toString();
  }
}
