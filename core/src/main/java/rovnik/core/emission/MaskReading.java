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
import rovnik.core.spectrum.NoiseStatistics;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.UncertaintyBudget;

/** How a mask is kept: its worst point, a table of its segments, and its lines. */
final class MaskReading extends EmissionPart {
  /** Over what is there anyway: half of the power or more is not of the signal. */
  private static final double DROWNED_DB = 3;

  MaskReading(EmissionPart look) {
    super(look);
  }

  /** Limits relative to the power of the channel. */
  void mask(EmissionMask mask) {
    double half = settings.channelWidthHz() / 2;
    double carrier = carrierHz();
    double level = new BandPower(trace).level(carrier - half, carrier + half);
    double standardDb = maker.bandDb(carrier - half, carrier + half, base.peaks());
    mask(mask, new MaskReference(level, standardDb, "dBc", false), "", null);
  }

  /**
   * @param reference that relative limits refer to
   * @param name of the mask, "" for the user's own
   * @param beneath what is there without the signal; null if nobody knows
   */
  void mask(EmissionMask mask, MaskReference to, String name, Trace beneath) {
    double carrier = carrierHz();
    double reference = to.level();
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
    // Of noise-like signals a slope of the mask may be as narrow as the RBW: levels fall slower.
    if (!to.noise() && trace.rbwHz() > mask.narrowestHz()) {
      marks.add("a segment is narrower than the RBW");
    }
    boolean whole =
        carrier - mask.reachHz() >= trace.startHz() - trace.stepHz()
            && carrier + mask.reachHz() <= trace.stopHz() + trace.stepHz();
    if (!whole && !to.noise()) {
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
                  Cell.of(rounded(r.offsetHz()).hertz()),
                  Cell.of(r.margin()),
                  Cell.of(r.dbc()),
                  Cell.of(r.level()),
                  Cell.of(r.limit()),
                  Cell.of(s.rbwHz() == 0 ? trace.rbwHz() : s.rbwHz())),
              limit.judge(
                  marks.isEmpty() && !drowned(r, carrier, beneath) ? r.margin() : Double.NaN,
                  budget(mask, r, carrier, to).expanded())));
    }
    // What fails by the signal itself goes before what only seems to.
    EmissionMask.Result worst =
        results.stream()
            .min(
                Comparator.comparing(
                        (EmissionMask.Result r) -> r.margin() >= 0 || drowned(r, carrier, beneath))
                    .thenComparingDouble(EmissionMask.Result::margin))
            .orElseThrow();
    if (drowned(worst, carrier, beneath)) {
      marks.add("as high without the signal");
    }
    readings.add(
        maker.reading(
            "maskMargin",
            "Mask"
                + (whole ? "" : " to \u00b1" + rounded((trace.stopHz() - trace.startHz()) / 2))
                + ", worst at "
                + offsetWords(worst.offsetHz()),
            worst.margin(),
            "dB",
            budget(mask, worst, carrier, to),
            new Limit(0, Double.NaN),
            marks));
    tables.add(
        new ResultTable(
            "mask",
            name.isEmpty()
                ? "Mask, worst point of each segment"
                : name + ", worst point of each segment",
            List.of(
                new Column("Segment", ""),
                new Column("Offset", "Hz"),
                new Column("Margin", "dB"),
                new Column("Ratio", to.unit()),
                new Column("Level", trace.unit()),
                new Column("Limit", trace.unit()),
                new Column("In", "Hz")),
            rows));
  }

  /** Of a margin: the level's own, and that of the reference where the limit is relative to it. */
  private UncertaintyBudget budget(
      EmissionMask mask, EmissionMask.Result r, double carrier, MaskReference to) {
    EmissionMask.Segment s = mask.segments().get(r.segment());
    double at = carrier + r.offsetHz();
    double reference = Double.isNaN(s.fromDbc()) ? 0 : to.standardDb();
    if (to.noise()) {
      double point = noiseDb();
      boolean relative = s.relativeAt(Math.abs(r.offsetHz()), to.level());
      UncertaintyBudget budget =
          relative
              ? new UncertaintyBudget()
                  .rectangular("instrument linearity", context.accuracy().linearityDb())
                  .normal("average", Math.hypot(point, reference))
              : levelBudget(point);
      return budget.rectangular("worst of many places", point * worstOf(s));
    }
    double own =
        s.rbwHz() > trace.rbwHz()
            ? maker.bandDb(at - s.rbwHz() / 2, at + s.rbwHz() / 2, base.peaks())
            : maker.lineDb(r.level());
    return levelBudget(Math.hypot(own, reference));
  }

  /** True if a limit seems to be passed where there is about as much without the signal. */
  private static boolean drowned(EmissionMask.Result r, double carrier, Trace beneath) {
    return beneath != null
        && r.margin() < 0
        && r.level() - beneath.levelAt(carrier + r.offsetHz()) < DROWNED_DB;
  }

  /** How much one place of a noise-like signal scatters. */
  private double noiseDb() {
    return NoiseStatistics.decibels(new NoiseStatistics(trace).point());
  }

  /** By how many standard deviations the worst of the places of a segment stands out. */
  private double worstOf(EmissionMask.Segment s) {
    double places = Math.max(1, (s.toHz() - s.fromHz()) / trace.enbwHz());
    return Math.sqrt(2 * Math.log(places));
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
