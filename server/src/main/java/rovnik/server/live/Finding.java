package rovnik.server.live;

import java.util.List;
import rovnik.core.emission.EmissionResult;
import rovnik.core.limits.Reading;
import rovnik.core.spectrum.Curve;
import rovnik.core.spectrum.PointReducer;
import rovnik.core.spectrum.ResultTable;
import rovnik.core.spectrum.Trace;

/**
 * What guided work found.
 *
 * @param summary one sentence
 * @param curves with axes of their own
 * @param logarithmic whether the x axis of the curves is
 * @param base spectrum that it goes back to, kept as the main trace of a run; null if there is none
 */
record Finding(
    String kind,
    String title,
    String summary,
    List<Curve> curves,
    boolean logarithmic,
    List<ResultTable> tables,
    List<Reading> readings,
    EmissionResult base) {

  private static final int CURVE_POINTS = 1500;

  /** A trace as a curve of not too many points, each the highest of what it stands for. */
  static Curve curve(String id, String label, Trace t) {
    Trace thin = PointReducer.PEAK.reduce(t, CURVE_POINTS);
    double[] x = new double[thin.points()];
    double[] y = new double[thin.points()];
    for (int i = 0; i < x.length; i++) {
      x[i] = thin.frequencyHz(i);
      y[i] = thin.level()[i];
    }
    return new Curve(id, label, x, y, "Hz", t.unit());
  }

  Finding withSummary(String words) {
    return new Finding(kind, title, words, curves, logarithmic, tables, readings, base);
  }
}
