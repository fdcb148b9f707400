package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.emission.Distortion;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.results.Nulls;

/** Harmonics of the strongest line in view up to the tenth, with total harmonic distortion. */
final class Harmonics implements Guided<SpectrumBench> {
  /**
   * What it is told.
   *
   * @param highest order, 2 to 10
   * @param limitDbm highest level of a harmonic at the reading plane, null for none
   * @param limitDbc highest ratio, null for none
   */
  @Schema(name = "HarmonicsForm")
  record Form(int highest, @Nullable Double limitDbm, @Nullable Double limitDbc)
      implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new Harmonics(highest, Nulls.orNan(limitDbm), Nulls.orNan(limitDbc));
    }
  }

  static final int HIGHEST = 10;
  private static final double SPAN_HZ = 500e3;
  private static final double RBW_HZ = 1e3;
  private final int highest;
  private final double limitDbm;
  private final double limitDbc;

  /**
   * @param highest order, 2 to 10
   * @param limitDbm highest level of a harmonic at the reading plane, NaN for none
   * @param limitDbc highest ratio, NaN for none
   */
  Harmonics(int highest, double limitDbm, double limitDbc) {
    if (highest < 2 || highest > HIGHEST) {
      throw new Refusal("highest", "Harmonics are measured up to the 2nd to the 10th.");
    }
    this.highest = highest;
    this.limitDbm = limitDbm;
    this.limitDbc = limitDbc;
  }

  @Override
  public String id() {
    return "harmonics";
  }

  @Override
  public String title() {
    return "Harmonics";
  }

  /** One harmonic; {@code inNoise} if only the noise was read, which the true level lies below. */
  record Line(
      int order,
      double hz,
      double level,
      boolean inNoise,
      double statisticalDb,
      List<String> marks) {}

  /** What is said before each look at a harmonic, with what was measured so far. */
  private interface Telling {
    void before(int order, double hz, List<Line> soFar);
  }

  @Override
  public Outcome run(SpectrumBench bench) {
    bench.say("carrier", 0);
    SpectrumLook first =
        bench.look(narrow(bench, bench.settings().centreHz(), bench.settings().spanHz()));
    if (first.result().base().peaks().isEmpty()) {
      throw new Refusal("harmonics", "There is no line in view. Frame the carrier first.");
    }
    double f0 = first.result().base().peaks().get(0).frequencyHz();
    SpectrumLook carrier = bench.look(narrow(bench, f0, SPAN_HZ));
    List<Line> lines =
        measure(
            bench,
            f0,
            carrier,
            (order, hz, soFar) -> {
              if (order > 2) {
                bench.partial(finding(bench, carrier, soFar));
              }
              bench.say(
                  "harmonic " + order + " at " + Frequency.ofHertz(Math.rint(hz / 1e3) * 1e3),
                  (order - 1.0) / highest);
            });
    return finding(bench, carrier, lines);
  }

  private List<Line> measure(
      SpectrumBench bench, double f0, SpectrumLook carrier, Telling telling) {
    List<Line> lines = new ArrayList<>();
    lines.add(line(bench, carrier, 1, f0));
    double f = lines.get(0).hz();
    PathCorrection c = bench.correction();
    for (int h = 2; h <= highest; h++) {
      double hz = h * f;
      if (c.planeToPortHz(hz) + SPAN_HZ > bench.receiver().highestHz()) {
        break;
      }
      telling.before(h, hz, lines);
      lines.add(line(bench, bench.look(narrow(bench, hz, SPAN_HZ)), h, hz));
    }
    return lines;
  }

  private static SpectrumSettings narrow(SpectrumBench bench, double hz, double spanHz) {
    SpectrumSettings s = bench.settings();
    double rbw = spanHz > SPAN_HZ ? 0 : RBW_HZ;
    // The reference level stays: the carrier is at the receiver's input whatever is looked at.
    return AutoFrame.withAverages(s.with(hz, spanHz, rbw, s.referenceLevelDbm()), 20);
  }

  /** The line at a place, or the noise there if none stands out. */
  private static Line line(SpectrumBench bench, SpectrumLook look, int order, double hz) {
    Trace t = look.result().base().trace();
    double reach = Math.max(3 * t.rbwHz(), hz * 2e-7);
    Peak found =
        look.result().base().peaks().stream()
            .filter(p -> Math.abs(p.frequencyHz() - hz) <= reach)
            .findFirst()
            .orElse(null);
    double level = found == null ? t.levelAt(hz) : found.level();
    return new Line(
        order,
        found == null ? hz : found.frequencyHz(),
        level,
        found == null,
        maker(bench, t, look).lineDb(level),
        look.marks());
  }

  private Outcome finding(SpectrumBench bench, SpectrumLook carrier, List<Line> lines) {
    Line fundamental = lines.get(0);
    List<Row> rows = new ArrayList<>();
    List<Reading> readings = new ArrayList<>();
    List<Double> levels = new ArrayList<>();
    List<Double> scatter = new ArrayList<>();
    Trace trace = carrier.result().base().trace();
    ReadingMaker maker = maker(bench, trace, carrier);
    Line worst = null;
    for (Line l : lines) {
      double dbc = l.level() - fundamental.level();
      double allowed = l.order() == 1 ? Double.NaN : allowed(fundamental.level());
      Limit limit = Double.isNaN(allowed) ? Limit.NONE : new Limit(Double.NaN, allowed);
      Verdict verdict =
          maker
              .level("", "", l.level(), trace.unit(), l.statisticalDb(), limit, l.marks())
              .verdict();
      rows.add(
          new Row(
              List.of(
                  Cell.of(l.order() == 1 ? "carrier" : l.order() + "."),
                  Cell.of(l.hz()),
                  Cell.of(l.level()),
                  Cell.of(l.order() == 1 ? Double.NaN : dbc),
                  Cell.of(limit.margin(l.level())),
                  Cell.of(l.inNoise() ? "below the noise read here" : "")),
              verdict));
      if (l.order() > 1) {
        if (!l.inNoise()) {
          levels.add(l.level());
          scatter.add(l.statisticalDb());
        }
        worst = worst == null || l.level() > worst.level() ? l : worst;
      }
    }
    readings.add(
        maker.level(
            "carrierPower",
            "Carrier power",
            fundamental.level(),
            trace.unit(),
            maker.lineDb(fundamental.level()),
            Limit.NONE,
            fundamental.marks()));
    if (worst != null) {
      double allowed = allowed(fundamental.level());
      readings.add(
          maker.level(
              "worstHarmonic",
              "Strongest harmonic, the " + worst.order() + ".",
              worst.level(),
              trace.unit(),
              worst.statisticalDb(),
              Double.isNaN(allowed) ? Limit.NONE : new Limit(Double.NaN, allowed),
              worst.marks()));
      readings.add(
          maker.farRatio(
              "worstHarmonicDbc",
              "The same below the carrier",
              worst.level() - fundamental.level(),
              Math.hypot(worst.statisticalDb(), fundamental.statisticalDb()),
              worst.marks()));
    }
    // The lines lie in other bands: what path and instrument do to them does not cancel.
    Distortion.Harmonics distortion =
        Distortion.harmonics(
            fundamental.level(), fundamental.statisticalDb(), levels, scatter, maker.farRatioDb(0));
    readings.add(
        maker.reading(
            "harmonicDistortion",
            "Total harmonic distortion",
            distortion.percent(),
            "%",
            new UncertaintyBudget()
                .normal("noise, path and instrument", distortion.standardPercent()),
            Limit.NONE,
            fundamental.marks()));
    return SpectrumBench.found(
        this,
        String.format(
            Locale.ROOT,
            "Total harmonic distortion %.2f %% up to the %d. harmonic.",
            distortion.percent(),
            lines.get(lines.size() - 1).order()),
        List.of(curve(lines, trace.unit())),
        false,
        List.of(
            new ResultTable(
                id(),
                "Harmonics",
                List.of(
                    new Column("", ""),
                    new Column("Frequency", "Hz"),
                    new Column("Level", trace.unit()),
                    new Column("Ratio", "dBc"),
                    new Column("Margin", "dB"),
                    new Column("", "")),
                rows)),
        readings,
        carrier.result());
  }

  private double allowed(double carrierDbm) {
    double relative = carrierDbm + limitDbc;
    if (Double.isNaN(limitDbm)) {
      return relative;
    }
    return Double.isNaN(relative) ? limitDbm : Math.max(limitDbm, relative);
  }

  private static ReadingMaker maker(SpectrumBench bench, Trace trace, SpectrumLook carrier) {
    Setting s = bench.setting(bench.settings());
    return new ReadingMaker(
        trace, s.settings(), s.correction(), s.context(carrier.marks(), List.of()));
  }

  private static Series curve(List<Line> lines, String unit) {
    return Series.curve(
        "harmonics",
        "level of each harmonic",
        Axis.own("Harmonic", "", lines.stream().mapToDouble(Line::order).toArray()),
        lines.stream().mapToDouble(Line::level).toArray(),
        unit);
  }

  /** Levels by order, for work that tells of its own progress. */
  static List<Line> levels(SpectrumBench bench, double f0, int highest) {
    Harmonics h = new Harmonics(highest, Double.NaN, Double.NaN);
    return h.measure(bench, f0, bench.look(narrow(bench, f0, SPAN_HZ)), (order, hz, soFar) -> {});
  }
}
