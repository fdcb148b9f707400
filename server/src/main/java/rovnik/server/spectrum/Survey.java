package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.emission.EmissionResult;
import rovnik.core.limits.Limit;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.LineSearch;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Frequency;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.results.Nulls;

/** Spurious emissions over ranges, each with its own RBW, limit and detector. */
final class Survey implements Guided<SpectrumBench> {
  /**
   * What it is told.
   *
   * @param ranges where to look
   * @param excludeFromHz the wanted emission, left out of the table; null for none
   * @param excludeToHz its end
   */
  @Schema(name = "SurveyForm")
  record Form(List<RangeForm> ranges, @Nullable Double excludeFromHz, @Nullable Double excludeToHz)
      implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new Survey(
          ranges == null
              ? List.of()
              : ranges.stream()
                  .map(r -> new Range(r.startHz, r.stopHz, r.rbwHz, r.limitDbm, r.detector))
                  .toList(),
          Nulls.orNan(excludeFromHz),
          Nulls.orNan(excludeToHz));
    }
  }

  /** One range; the detector is RMS if it is null. */
  @Schema(name = "SurveyRange")
  record RangeForm(
      double startHz, double stopHz, double rbwHz, double limitDbm, @Nullable Detector detector) {}

  /** Lines within this of the limit are listed. */
  private static final double LISTED_WITHIN_DB = 6;

  /** A line that fell by this when the receiver was tuned elsewhere was the receiver's own. */
  private static final double GONE_DB = 8;

  private static final int MOST_RANGES = 20;

  /**
   * One range.
   *
   * @param limitDbm highest level at the reading plane
   * @param detector null for RMS
   */
  record Range(double startHz, double stopHz, double rbwHz, double limitDbm, Detector detector) {
    Range {
      if (!(startHz >= 0) || !(stopHz > startHz) || Double.isInfinite(stopHz)) {
        throw new Refusal("ranges", "A range leads from a start to a higher stop frequency.");
      }
      if (!(rbwHz > 0)) {
        throw new Refusal("ranges", "Each range needs an RBW, such as 100k.");
      }
      Refusal.finite("ranges", limitDbm);
    }
  }

  /** A line near or over the limit. */
  private record Found(Peak peak, Range range, List<String> marks) {
    double margin() {
      return range.limitDbm() - peak.level();
    }
  }

  private final List<Range> ranges;
  private final double excludeFromHz;
  private final double excludeToHz;

  /**
   * @param excludeFromHz the wanted emission, left out of the table; NaN for none
   */
  Survey(List<Range> ranges, double excludeFromHz, double excludeToHz) {
    if (ranges == null || ranges.isEmpty() || ranges.size() > MOST_RANGES) {
      throw new Refusal("ranges", "A survey has 1 to " + MOST_RANGES + " ranges.");
    }
    this.ranges = List.copyOf(ranges);
    this.excludeFromHz = excludeFromHz;
    this.excludeToHz = excludeToHz;
  }

  @Override
  public String id() {
    return "survey";
  }

  @Override
  public String title() {
    return "Spurious survey";
  }

  @Override
  public Outcome run(SpectrumBench bench) {
    List<Series> curves = new ArrayList<>();
    List<Found> found = new ArrayList<>();
    List<SpectrumLook> looks = new ArrayList<>();
    for (int i = 0; i < ranges.size(); i++) {
      Range r = ranges.get(i);
      bench.say(
          Frequency.ofHertz(r.startHz()) + " to " + Frequency.ofHertz(r.stopHz()),
          (double) i / ranges.size());
      SpectrumLook look = bench.look(settings(bench, r));
      looks.add(look);
      Trace t = look.result().base().trace();
      curves.add(SpectrumBench.curve("range" + i, i == 0 ? "highest in each point" : "", t));
      curves.add(
          Series.limit(
              "limit" + i,
              "",
              new double[] {r.startHz(), r.stopHz()},
              new double[] {r.limitDbm(), r.limitDbm()},
              t.unit()));
      for (Peak p : look.result().base().peaks()) {
        if (!excluded(p.frequencyHz())) {
          found.add(checked(bench, new Found(p, r, marks(look, p))));
        }
      }
      bench.partial(finding(bench, curves, found, looks));
    }
    return finding(bench, curves, found, looks);
  }

  /**
   * Looks at a line once more with the receiver tuned close beside it: an image or a spur of the
   * receiver's tuning is not there then, and must not be held against the device.
   */
  private Found checked(SpectrumBench bench, Found f) {
    double span = Math.max(50 * f.range().rbwHz(), 200e3);
    double hz = f.peak().frequencyHz();
    double portHz = bench.correction().planeToPortHz(hz);
    if (!f.marks().isEmpty() || portHz - 2 * span < bench.receiver().lowestHz()) {
      return f;
    }
    SpectrumSettings s = bench.settings();
    SpectrumLook close =
        bench.look(
            AutoFrame.withAverages(s.with(hz, span, f.range().rbwHz(), s.referenceLevelDbm()), 8));
    // The level and not the lines: a hump of noise is still there though no line stands out of it.
    Trace t = close.result().base().trace();
    double there = Double.NEGATIVE_INFINITY;
    for (double at = hz - 2 * f.range().rbwHz();
        at <= hz + 2 * f.range().rbwHz();
        at += t.stepHz()) {
      double level = t.levelAt(at);
      there = level > there ? level : there;
    }
    return there < f.peak().level() - GONE_DB
        ? new Found(f.peak(), f.range(), List.of("made in the receiver: gone when tuned elsewhere"))
        : f;
  }

  private boolean excluded(double hz) {
    return hz >= excludeFromHz && hz <= excludeToHz;
  }

  private static List<String> marks(SpectrumLook look, Peak p) {
    List<String> marks = new ArrayList<>(look.marks());
    look.spoiled().stream()
        .filter(b -> p.frequencyHz() >= b.fromHz() && p.frequencyHz() <= b.toHz())
        .forEach(b -> marks.add(b.why()));
    return marks;
  }

  private SpectrumSettings settings(SpectrumBench bench, Range r) {
    SpectrumSettings s = bench.settings();
    return new SpectrumSettings(
        (r.startHz() + r.stopHz()) / 2,
        r.stopHz() - r.startHz(),
        r.rbwHz(),
        s.window(),
        r.detector() == null ? Detector.RMS : r.detector(),
        8,
        s.referenceLevelDbm(),
        Math.min(s.channelWidthHz(), (r.stopHz() - r.startHz()) / 2),
        0,
        new LineSearch(r.limitDbm() - LISTED_WITHIN_DB, s.lines().excursionDb(), LineSearch.MOST));
  }

  private Outcome finding(
      SpectrumBench bench, List<Series> curves, List<Found> found, List<SpectrumLook> looks) {
    List<Found> sorted =
        found.stream()
            .sorted(
                Comparator.comparing((Found f) -> !f.marks().isEmpty())
                    .thenComparingDouble(Found::margin))
            .limit(60)
            .toList();
    List<Row> rows = new ArrayList<>();
    for (Found f : sorted) {
      Limit limit = new Limit(Double.NaN, f.range().limitDbm());
      double level = f.peak().level();
      ReadingMaker maker = makerAt(bench, looks, f.peak().frequencyHz());
      rows.add(
          new Row(
              List.of(
                  Cell.of(f.peak().frequencyHz()),
                  Cell.of(f.peak().level()),
                  Cell.of(f.range().limitDbm()),
                  Cell.of(f.margin()),
                  Cell.of(f.range().rbwHz()),
                  Cell.of(String.join(", ", f.marks()))),
              maker.level("", "", level, "dBm", maker.lineDb(level), limit, f.marks()).verdict()));
    }
    EmissionResult widest = looks.get(0).result();
    String unit = widest.base().trace().unit();
    long over = sorted.stream().filter(f -> f.margin() < 0 && f.marks().isEmpty()).count();
    long near = sorted.stream().filter(f -> f.margin() >= 0 && f.marks().isEmpty()).count();
    long own = sorted.size() - over - near;
    return SpectrumBench.found(
        this,
        String.format(
            Locale.ROOT,
            "%d of %d ranges measured; %d lines over the limit, %d within %.0f dB of it,"
                + " %d not judged.",
            looks.size(),
            ranges.size(),
            over,
            near,
            LISTED_WITHIN_DB,
            own),
        List.copyOf(curves),
        true,
        List.of(
            new ResultTable(
                id(),
                "Lines over the limit or within 6 dB of it",
                List.of(
                    new Column("Line", "Hz"),
                    new Column("Level", unit),
                    new Column("Limit", unit),
                    new Column("Margin", "dB"),
                    new Column("In", "Hz"),
                    new Column("", "")),
                rows)),
        List.of(worst(bench, looks, sorted)),
        widest);
  }

  /** Margin of the worst line; with none listed, that of the highest point. */
  private Reading worst(SpectrumBench bench, List<SpectrumLook> looks, List<Found> sorted) {
    double margin = Double.POSITIVE_INFINITY;
    double at = Double.NaN;
    List<String> marks = new ArrayList<>();
    if (!sorted.isEmpty() && sorted.get(0).marks().isEmpty()) {
      margin = sorted.get(0).margin();
      at = sorted.get(0).peak().frequencyHz();
      marks.addAll(sorted.get(0).marks());
    } else {
      for (int i = 0; i < looks.size(); i++) {
        Trace t = looks.get(i).result().base().trace();
        for (int k = 0; k < t.points(); k++) {
          double m = ranges.get(i).limitDbm() - t.level()[k];
          if (m < margin && !excluded(t.frequencyHz(k))) {
            margin = m;
            at = t.frequencyHz(k);
          }
        }
      }
    }
    ReadingMaker maker = makerAt(bench, looks, at);
    return maker.level(
        "surveyMargin",
        "Worst margin, at " + Frequency.ofHertz(Math.rint(at / 1e3) * 1e3),
        margin,
        "dB",
        Double.isNaN(at) ? 0 : maker.lineDb(lookAt(looks, at).result().base().trace().levelAt(at)),
        new Limit(0, Double.NaN),
        marks);
  }

  /** The look that shows a frequency, else the first. */
  private static SpectrumLook lookAt(List<SpectrumLook> looks, double hertz) {
    return looks.stream()
        .filter(l -> !Double.isNaN(l.result().base().trace().levelAt(hertz)))
        .findFirst()
        .orElse(looks.get(0));
  }

  private static ReadingMaker makerAt(SpectrumBench bench, List<SpectrumLook> looks, double hertz) {
    Setting s = bench.setting(bench.settings());
    return new ReadingMaker(
        lookAt(looks, hertz).result().base().trace(),
        s.settings(),
        s.correction(),
        s.context(List.of(), List.of()));
  }
}
