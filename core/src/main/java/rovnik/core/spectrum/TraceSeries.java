package rovnik.core.spectrum;

import java.util.List;
import rovnik.core.result.Axis;
import rovnik.core.result.Fact;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.result.Values;

/** Traces and their lines in the form that every measurement shares. */
public final class TraceSeries {
  /** Names of what is known of a trace. */
  public static final String RBW = "RBW";

  public static final String ENBW = "ENBW";
  public static final String AVERAGES = "averages";

  private TraceSeries() {}

  public static Series of(String id, String label, Trace t) {
    double[] y = new double[t.points()];
    for (int i = 0; i < y.length; i++) {
      y[i] = t.level()[i];
    }
    return new Series(
        id,
        label,
        Series.Role.DATA,
        t.plane(),
        t.calibrated(),
        Axis.even(Axis.FREQUENCY, "Hz", t.startHz(), t.stepHz(), t.points()),
        "Level",
        t.unit(),
        new Values.Real(y),
        List.of(
            Fact.of(RBW, t.rbwHz(), "Hz"),
            Fact.of(ENBW, t.enbwHz(), "Hz"),
            Fact.of(AVERAGES, t.segments(), ""),
            Fact.of("window", t.window()),
            Fact.of("detector", t.detector())));
  }

  /** A trace with at most so many points, each the highest of what it stands for. */
  public static Series thin(String id, String label, Trace t, int most) {
    return of(id, label, PointReducer.PEAK.reduce(t, most));
  }

  /** The lines of a trace, the strongest first. */
  public static ResultTable lines(List<Peak> peaks, String unit) {
    return new ResultTable(
        rovnik.core.result.Outcome.LINES,
        "Lines",
        List.of(new ResultTable.Column("Frequency", "Hz"), new ResultTable.Column("Level", unit)),
        peaks.stream()
            .map(
                p ->
                    new ResultTable.Row(
                        List.of(
                            ResultTable.Cell.of(p.frequencyHz()), ResultTable.Cell.of(p.level())),
                        rovnik.core.limits.Verdict.NONE))
            .toList());
  }
}
