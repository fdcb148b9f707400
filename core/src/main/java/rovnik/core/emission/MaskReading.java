package rovnik.core.emission;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.spectrum.BandPower;
import rovnik.core.uncertainty.UncertaintyBudget;

/** How a mask is kept: its worst point, a table of its segments, and its lines. */
final class MaskReading extends EmissionPart {
  MaskReading(EmissionPart look) {
    super(look);
  }

  void mask(EmissionMask mask) {
    double carrier = carrierHz();
    double half = settings.channelWidthHz() / 2;
    double reference = new BandPower(trace).level(carrier - half, carrier + half);
    List<EmissionMask.Result> results;
    try {
      results = mask.judge(trace, carrier, reference, base.peaks());
    } catch (Refusal coarse) {
      readings.add(unread("maskMargin", "Mask", "dB", coarse.getMessage()));
      return;
    }
    drawMask(mask, carrier, reference);
    if (results.isEmpty()) {
      readings.add(unread("maskMargin", "Mask", "dB", "no segment of the mask is in view"));
      return;
    }
    List<String> marks = maker.marks(carrier - mask.reachHz(), carrier + mask.reachHz());
    if (trace.rbwHz() > mask.narrowestHz()) {
      marks.add("a segment is narrower than the RBW");
    }
    if (carrier - mask.reachHz() < trace.startHz() - trace.stepHz()
        || carrier + mask.reachHz() > trace.stopHz() + trace.stepHz()) {
      marks.add("the mask reaches beyond the span");
    }
    List<Row> rows = new ArrayList<>();
    for (EmissionMask.Result r : results) {
      EmissionMask.Segment s = mask.segments().get(r.segment());
      Limit limit = new Limit(0, Double.NaN);
      rows.add(
          new Row(
              List.of(
                  Cell.of((r.offsetHz() < 0 ? "\u2212" : "+") + (r.segment() + 1)),
                  Cell.of(r.offsetHz()),
                  Cell.of(r.level()),
                  Cell.of(r.dbc()),
                  Cell.of(r.limit()),
                  Cell.of(r.margin()),
                  Cell.of(s.rbwHz() == 0 ? trace.rbwHz() : s.rbwHz())),
              limit.judge(
                  marks.isEmpty() ? r.margin() : Double.NaN, budget(mask, r, carrier).expanded())));
    }
    EmissionMask.Result worst =
        results.stream().min(Comparator.comparingDouble(EmissionMask.Result::margin)).orElseThrow();
    readings.add(
        maker.reading(
            "maskMargin",
            "Mask, worst at " + offsetWords(worst.offsetHz()),
            worst.margin(),
            "dB",
            budget(mask, worst, carrier),
            new Limit(0, Double.NaN),
            marks));
    tables.add(
        new ResultTable(
            "mask",
            "Mask, worst point of each segment",
            List.of(
                new Column("Segment", ""),
                new Column("Offset", "Hz"),
                new Column("Level", trace.unit()),
                new Column("Ratio", "dBc"),
                new Column("Limit", trace.unit()),
                new Column("Margin", "dB"),
                new Column("In", "Hz")),
            rows));
  }

  /** Of a margin: the level's own, and that of the reference where the limit is relative to it. */
  private UncertaintyBudget budget(EmissionMask mask, EmissionMask.Result r, double carrier) {
    EmissionMask.Segment s = mask.segments().get(r.segment());
    double at = carrier + r.offsetHz();
    double own =
        s.rbwHz() > trace.rbwHz()
            ? maker.bandDb(at - s.rbwHz() / 2, at + s.rbwHz() / 2, base.peaks())
            : maker.lineDb(r.level());
    double half = settings.channelWidthHz() / 2;
    double reference =
        Double.isNaN(s.fromDbc()) ? 0 : maker.bandDb(carrier - half, carrier + half, base.peaks());
    return levelBudget(Math.hypot(own, reference));
  }

  private UncertaintyBudget levelBudget(double statisticalDb) {
    UncertaintyBudget budget = new UncertaintyBudget();
    maker
        .level("", "", 0, "", statisticalDb, Limit.NONE, List.of())
        .contributions()
        .forEach(c -> budget.normal(c.name(), c.standard()));
    return budget;
  }

  private void drawMask(EmissionMask mask, double carrier, double reference) {
    for (int side : new int[] {-1, 1}) {
      for (int i = 0; i < mask.segments().size(); i++) {
        EmissionMask.Segment s = mask.segments().get(i);
        double near = EmissionMask.drawnAt(s, s.fromHz(), reference, trace);
        double far = EmissionMask.drawnAt(s, s.toHz(), reference, trace);
        boolean below = side < 0;
        lines.add(
            Series.limit(
                "mask" + (below ? "Below" : "Above") + i,
                i == 0 && !below ? "mask" : "",
                below
                    ? new double[] {carrier - s.toHz(), carrier - s.fromHz()}
                    : new double[] {carrier + s.fromHz(), carrier + s.toHz()},
                below ? new double[] {far, near} : new double[] {near, far},
                trace.unit()));
      }
    }
  }
}
