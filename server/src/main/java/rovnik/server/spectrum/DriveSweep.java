package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.live.Workbench;

/** Level of the source against its harmonics: how clean is it at which output? */
final class DriveSweep implements Guided<SpectrumBench> {
  /**
   * What it is told.
   *
   * @param fromDbm first level of the source
   * @param toDbm last level of the source
   */
  @Schema(name = "DriveSweepForm")
  record Form(double fromDbm, double toDbm, int steps) implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new DriveSweep(fromDbm, toDbm, steps);
    }
  }

  private static final int ORDERS = 3;
  private final double fromDbm;
  private final double toDbm;
  private final int steps;

  DriveSweep(double fromDbm, double toDbm, int steps) {
    if (!(toDbm > fromDbm) || steps < 2 || steps > 50) {
      throw new Refusal(
          "steps", "A drive sweep leads from a lower to a higher level in 2 to 50 steps.");
    }
    this.fromDbm = fromDbm;
    this.toDbm = toDbm;
    this.steps = steps;
  }

  @Override
  public String id() {
    return "drive-sweep";
  }

  @Override
  public String title() {
    return "Drive against harmonics";
  }

  @Override
  public Outcome run(SpectrumBench bench) {
    double[] range = bench.sourceRangeDbm();
    if (fromDbm < range[0] || toDbm > range[1]) {
      throw new Refusal(
          "fromDbm",
          String.format(
              Locale.ROOT,
              "The source can be set from %.1f to %.1f dBm. Choose the sweep within.",
              range[0],
              range[1]));
    }
    if (!bench.sourceOn()) {
      throw new Refusal("source", "The source is off. Switch it on at the Bench first.");
    }
    double before = bench.sourceLevelDbm();
    SpectrumLook first = bench.look(bench.settings());
    if (first.result().base().peaks().isEmpty()) {
      throw new Refusal("harmonics", "There is no line in view. Frame the carrier first.");
    }
    double f0 = first.result().base().peaks().get(0).frequencyHz();
    List<double[]> points = new ArrayList<>();
    Workbench.Restored levelBack = () -> bench.setSourceLevelDbm(before);
    try (levelBack) {
      for (int i = 0; i < steps; i++) {
        double level = fromDbm + (toDbm - fromDbm) * i / (steps - 1);
        bench.say(String.format(Locale.ROOT, "at %.1f dBm", level), (double) i / steps);
        bench.setSourceLevelDbm(level);
        List<Harmonics.Line> lines = Harmonics.levels(bench, f0, ORDERS);
        double[] p = new double[1 + ORDERS];
        p[0] = level;
        for (int h = 1; h <= ORDERS; h++) {
          p[h] = h <= lines.size() ? lines.get(h - 1).level() : Double.NaN;
        }
        points.add(p);
        bench.partial(finding(points, first));
      }
    }
    return finding(points, first);
  }

  private Outcome finding(List<double[]> points, SpectrumLook first) {
    List<Row> rows = new ArrayList<>();
    double[] x = points.stream().mapToDouble(p -> p[1]).toArray();
    List<Series> curves = new ArrayList<>();
    double[] cleanest = points.get(0);
    for (double[] p : points) {
      rows.add(
          new Row(
              List.of(Cell.of(p[0]), Cell.of(p[1]), Cell.of(p[2] - p[1]), Cell.of(p[3] - p[1])),
              Verdict.NONE));
      if (Math.max(p[2], p[3]) - p[1] < Math.max(cleanest[2], cleanest[3]) - cleanest[1]) {
        cleanest = p;
      }
    }
    for (int h = 2; h <= ORDERS; h++) {
      int order = h;
      curves.add(
          Series.curve(
              "harmonic" + h,
              h == 2 ? "2nd harmonic" : "3rd harmonic",
              Axis.own("Carrier level", "dBm", x),
              points.stream().mapToDouble(p -> p[order] - p[1]).toArray(),
              "dBc"));
    }
    return SpectrumBench.found(
        this,
        String.format(
            Locale.ROOT,
            "Cleanest at %.1f dBm: the strongest harmonic is %.1f dB down there.",
            cleanest[1],
            cleanest[1] - Math.max(cleanest[2], cleanest[3])),
        curves,
        false,
        List.of(
            new ResultTable(
                id(),
                "Level against harmonics",
                List.of(
                    new Column("Set to", "dBm"),
                    new Column("Carrier", "dBm"),
                    new Column("2nd", "dBc"),
                    new Column("3rd", "dBc")),
                rows)),
        List.of(),
        first.result());
  }
}
