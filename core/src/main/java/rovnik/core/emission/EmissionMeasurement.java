package rovnik.core.emission;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.signal.FrequencyCounter;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.BandPower;
import rovnik.core.spectrum.LeakageCheck;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.NoiseStatistics;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.PeakSearch;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Decibels;
import rovnik.core.units.Frequency;

/** Adds to a measured spectrum what a view asks for beside it. */
public final class EmissionMeasurement {
  private static final String WALK = "phase noise";

  /** So many samples tell enough of the walk. */
  private static final int MOST_COUNTED = 1 << 17;

  /** Width around the carrier in which its phase is read. */
  private static final double COUNTED_RBW = 12;

  /** Levels beside the top follow a walk a little more than its mean does (by trials). */
  private static final double POINTS_WANDER = 1.2;

  /**
   * A window weighs its middle: a walk costs this part of its variance over the window's length.
   */
  private static final double WALK_TO_LEVEL = 9;

  private final SpectrumResult base;
  private final Trace trace;
  private final SpectrumSettings settings;
  private final ReadingMaker maker;
  private final MeasurementContext context;
  private final PathCorrection correction;
  private final List<Reading> readings;
  private final List<ResultTable> tables = new ArrayList<>();
  private final List<Series> lines = new ArrayList<>();

  private EmissionMeasurement(
      SpectrumResult base, SpectrumSettings settings, MeasurementContext context) {
    this.base = base;
    this.trace = base.trace();
    this.settings = settings;
    this.context = context;
    this.correction = trace.calibrated() ? context.correction() : null;
    this.maker = new ReadingMaker(trace, settings, correction, context);
    this.readings = new ArrayList<>(base.readings());
  }

  /**
   * Reads what the plan asks for. A part that cannot be read is a reading with a mark that says
   * why; it never takes the rest with it.
   *
   * @param layout that the trace was made with, null for a trace from elsewhere
   * @param record the newest samples, null if there are none
   */
  public static EmissionResult of(
      SpectrumResult base,
      SpectrumSettings settings,
      ViewPlan plan,
      MeasurementContext context,
      SpectrumLayout layout,
      IqRecord record) {
    EmissionMeasurement m = new EmissionMeasurement(base, settings, context);
    if (record != null) {
      m.walk(record);
    }
    if (plan.occupied() != null) {
      m.occupied(plan.occupied());
    }
    if (plan.highestDensity() != null) {
      m.density(plan.highestDensity());
    }
    if (plan.adjacent() != null) {
      m.adjacent(plan.adjacent());
    }
    if (plan.mask() != null) {
      m.mask(plan.mask());
    }
    if (plan.twoTones()) {
      m.twoTones();
    }
    if (plan.amDepth()) {
      m.amDepth(record);
    }
    if (plan.skirt() && layout != null) {
      m.skirt(layout);
    }
    for (int i = 0; i < plan.reads().size(); i++) {
      m.readings.add(
          MarkerReadings.read(
              "read" + i, plan.reads().get(i), m.trace, base.peaks(), m.maker, context, record));
    }
    return new EmissionResult(
        new SpectrumResult(base.trace(), base.peaks(), List.copyOf(m.readings)),
        List.copyOf(m.tables),
        List.copyOf(m.lines));
  }

  /** Nominal frequency at the plane if it is in view, the strongest line, or the centre. */
  private double carrierHz() {
    double source = context.limits().nominalHz();
    double nominal =
        correction == null || Double.isNaN(source) ? source : correction.sourceToPlaneHz(source);
    if (nominal >= trace.startHz() && nominal <= trace.stopHz()) {
      return nominal;
    }
    return settings.centreHz();
  }

  /**
   * An oscillator's phase walks: its mean frequency over the time that was looked is not that over
   * a long time, and within one resolution its line is a little lower. The spectrum hides this
   * below the window's side lobes; the phases of the record show it.
   */
  private void walk(IqRecord record) {
    Reading carrier =
        readings.stream().filter(r -> r.id().equals("carrierFrequency")).findFirst().orElse(null);
    if (carrier == null || Double.isNaN(carrier.value())) {
      return;
    }
    double portHz =
        correction == null ? carrier.value() : correction.planeToPortHz(carrier.value());
    try {
      FrequencyCounter.Count c =
          FrequencyCounter.count(
              record.iq(),
              Math.min(MOST_COUNTED, record.sampleCount()),
              record.sampleRateHz(),
              portHz - record.centreHz(),
              COUNTED_RBW * trace.rbwHz());
      NoiseStatistics looked = new NoiseStatistics(trace);
      double hertz = POINTS_WANDER * c.walkHz(Math.max(c.seconds(), looked.seconds()));
      double levelDb = 10 / Math.log(10) * c.walk() * looked.windowSeconds() / WALK_TO_LEVEL;
      readings.replaceAll(
          r ->
              switch (r.id()) {
                case "carrierFrequency", "frequencyError" -> r.widened(WALK, hertz);
                case "frequencyErrorPpm" ->
                    r.widened(WALK, hertz * 1e6 / context.limits().nominalHz());
                case "carrierPower" -> r.widened(WALK, levelDb);
                default -> r;
              });
    } catch (Refusal tooShort) {
      // a record of a few windows tells nothing of it
    }
  }

  private void occupied(ViewPlan.Occupied asked) {
    boolean share = Double.isNaN(asked.xDb());
    OccupiedBandwidth width =
        share
            ? OccupiedBandwidth.ofShare(new BandPower(trace), asked.share())
            : OccupiedBandwidth.ofFall(trace, asked.xDb());
    List<String> marks =
        share
            ? maker.noiseMarks(trace.startHz(), trace.stopHz())
            : maker.marks(trace.startHz(), trace.stopHz());
    if (width.widthHz() > 0.9 * (trace.stopHz() - trace.startHz())) {
      marks.add("fills the span: widen it");
    }
    Limit limit =
        Double.isNaN(asked.widestHz()) ? Limit.NONE : new Limit(Double.NaN, asked.widestHz());
    String label =
        share
            ? "Occupied bandwidth, " + plainNumber(100 * asked.share()) + " %"
            : "Bandwidth at " + plainNumber(asked.xDb()) + " dB";
    double statisticalHz =
        share
            ? maker.shareEdgesHz(width.lowHz(), width.highHz(), (1 - asked.share()) / 2)
            : fallEdgesHz(width);
    readings.add(
        maker.width("occupiedBandwidth", label, width.widthHz(), statisticalHz, limit, marks));
    lines.add(edge("occupiedLow", width.lowHz()));
    lines.add(edge("occupiedHigh", width.highHz()));
  }

  /**
   * Scatter of two edges at a fall: of the level there and of the highest one, over the slope. The
   * edge is that of the outermost point, so of a noisy flank it lies too far out as well.
   */
  private double fallEdgesHz(OccupiedBandwidth width) {
    double scatterDb = NoiseStatistics.decibels(new NoiseStatistics(trace).point());
    // By trials: the more it scatters, the more points vie for the highest, which lies too high.
    double wanderDb = 1.2 * scatterDb * (1 + 0.8 * scatterDb);
    double variance = 0;
    for (double edge : new double[] {width.lowHz(), width.highHz()}) {
      double reach = Math.max(trace.rbwHz(), 2 * trace.stepHz());
      double inner = edge + (edge == width.lowHz() ? reach : -reach);
      double outer = edge + (edge == width.lowHz() ? -reach : reach);
      double slope = (trace.levelAt(inner) - trace.levelAt(outer)) / (2 * reach);
      double hertz = Math.min(reach, wanderDb / Math.max(1e-12, slope));
      variance += Double.isNaN(hertz) ? reach * reach : hertz * hertz;
    }
    return Math.sqrt(variance);
  }

  /** A vertical stroke. */
  private Series edge(String id, double hz) {
    return Series.limit(id, "", new double[] {hz, hz}, new double[] {-400, 400}, trace.unit())
        .as(Series.Role.EDGE);
  }

  private static String plainNumber(double v) {
    return v == Math.rint(v) ? String.valueOf((long) v) : String.valueOf(v);
  }

  private void density(double highest) {
    double half = settings.channelWidthHz() / 2;
    double low = settings.centreHz() - half;
    double high = settings.centreHz() + half;
    double value =
        new BandPower(trace).level(low, high) - Decibels.fromPowerRatio(settings.channelWidthHz());
    Limit limit = Double.isNaN(highest) ? Limit.NONE : new Limit(Double.NaN, highest);
    readings.add(
        maker.level(
            "channelDensity",
            "Density in the channel",
            value,
            trace.unit() + "/Hz",
            maker.bandDb(low, high, base.peaks()),
            limit,
            maker.noiseMarks(low, high)));
  }

  private void adjacent(AdjacentChannels plan) {
    List<AdjacentChannels.Result> results;
    try {
      results = plan.measure(trace, carrierHz());
    } catch (Refusal narrow) {
      readings.add(unread("adjacentWorst", "Adjacent channels", "dBc", narrow.getMessage()));
      return;
    }
    List<Row> rows = new ArrayList<>();
    AdjacentChannels.Result worst = null;
    for (AdjacentChannels.Result r : results) {
      Reading judged = adjacentReading(r, plan);
      rows.add(
          new Row(
              List.of(
                  Cell.of(r.offsetHz()),
                  Cell.of(r.dbc()),
                  Cell.of(r.level()),
                  Cell.of(r.limit().upper()),
                  Cell.of(r.limit().margin(r.dbc()))),
              judged.verdict()));
      if (worst == null || severity(r) > severity(worst)) {
        worst = r;
      }
    }
    readings.add(adjacentReading(worst, plan));
    tables.add(
        new ResultTable(
            "adjacent",
            "Adjacent channels",
            List.of(
                new Column("Offset", "Hz"),
                new Column("Ratio", "dBc"),
                new Column("Level", trace.unit()),
                new Column("Limit", "dBc"),
                new Column("Margin", "dB")),
            rows));
  }

  /** How bad a channel is: by its margin where it has one, else by its ratio. */
  private static double severity(AdjacentChannels.Result r) {
    return r.limit().open() ? r.dbc() - 1000 : -r.limit().margin(r.dbc());
  }

  private Reading adjacentReading(AdjacentChannels.Result r, AdjacentChannels plan) {
    double reach = Math.abs(r.offsetHz()) + plan.own().reachHz();
    return maker.ratio(
        "adjacentWorst",
        "Worst adjacent channel, " + offsetWords(r.offsetHz()),
        r.dbc(),
        Math.hypot(
            bandDb(carrierHz(), plan.own().widthHz()),
            bandDb(carrierHz() + r.offsetHz(), plan.widthAt(r.offsetHz()))),
        r.limit(),
        adjacentMarks(plan, reach));
  }

  private double bandDb(double centreHz, double widthHz) {
    return maker.bandDb(centreHz - widthHz / 2, centreHz + widthHz / 2, base.peaks());
  }

  private List<String> adjacentMarks(AdjacentChannels plan, double reach) {
    List<String> marks = maker.noiseMarks(carrierHz() - reach, carrierHz() + reach);
    double narrowest =
        plan.channels().stream()
            .mapToDouble(c -> c.filter().widthHz())
            .min()
            .orElse(plan.own().widthHz());
    if (Math.min(narrowest, plan.own().widthHz()) < trace.rbwHz()) {
      marks.add("a channel is narrower than the RBW");
    }
    return marks;
  }

  private static String offsetWords(double hz) {
    return (hz < 0 ? "\u2212" : "+") + rounded(Math.abs(hz));
  }

  /** Few digits: it only tells which one is meant. */
  private static Frequency rounded(double hz) {
    return Frequency.ofHertz(new BigDecimal(hz).round(new MathContext(5)).doubleValue());
  }

  private Reading unread(String id, String label, String unit, String why) {
    return maker.reading(
        id, label, Double.NaN, unit, new UncertaintyBudget(), Limit.NONE, List.of(why));
  }

  private void mask(EmissionMask mask) {
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
                  marks.isEmpty() ? r.margin() : Double.NaN,
                  levelBudget(maker.noiseDb(trace.enbwHz())).expanded())));
    }
    EmissionMask.Result worst =
        results.stream().min(Comparator.comparingDouble(EmissionMask.Result::margin)).orElseThrow();
    readings.add(
        maker.reading(
            "maskMargin",
            "Mask, worst at " + offsetWords(worst.offsetHz()),
            worst.margin(),
            "dB",
            levelBudget(maker.noiseDb(trace.enbwHz())),
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

  private void twoTones() {
    List<Peak> peaks = base.peaks();
    if (peaks.size() < 2) {
      readings.add(
          unread("intercept", "Third-order intercept", "dBm", "two tones are needed in the span"));
      return;
    }
    Peak a = peaks.get(0);
    Peak b = peaks.get(1);
    double low = Math.min(a.frequencyHz(), b.frequencyHz());
    double high = Math.max(a.frequencyHz(), b.frequencyHz());
    double lower = highestNear(2 * low - high);
    double upper = highestNear(2 * high - low);
    if (Double.isNaN(lower) || Double.isNaN(upper)) {
      readings.add(
          unread(
              "intercept",
              "Third-order intercept",
              trace.unit(),
              "the products lie outside the span: widen it"));
      return;
    }
    Distortion.ThirdOrder t = Distortion.thirdOrder(low, high, a.level(), b.level(), lower, upper);
    double product = maker.lineDb(Math.max(lower, upper));
    double tones = Math.hypot(maker.lineDb(a.level()), maker.lineDb(b.level()) / 2);
    List<String> marks = maker.marks(t.lowerHz(), t.upperHz());
    double noise = rovnik.core.spectrum.PeakSearch.median(trace.level());
    if (Math.max(lower, upper) < noise + 6) {
      marks.add("the products are not above the noise: this is the lowest it can be");
    }
    readings.add(
        maker.ratio(
            "thirdOrder",
            "Third-order products",
            -t.distanceDb(),
            Math.hypot(product, tones),
            Limit.NONE,
            marks));
    readings.add(
        maker.level(
            "intercept",
            "Third-order intercept",
            t.interceptDbm(),
            trace.unit(),
            Math.hypot(product / 2, tones),
            Limit.NONE,
            marks));
    tables.add(
        new ResultTable(
            "twoTones",
            "Two tones and their third-order products",
            List.of(
                new Column("", ""),
                new Column("Frequency", "Hz"),
                new Column("Level", trace.unit())),
            List.of(
                row("tone", low, low == a.frequencyHz() ? a.level() : b.level()),
                row("tone", high, high == a.frequencyHz() ? a.level() : b.level()),
                row("2 f1 \u2212 f2", t.lowerHz(), lower),
                row("2 f2 \u2212 f1", t.upperHz(), upper))));
  }

  private static Row row(String what, double hz, double level) {
    return new Row(List.of(Cell.of(what), Cell.of(hz), Cell.of(level)), Verdict.NONE);
  }

  /** Interpolated line within one RBW, else the highest point there; NaN outside the trace. */
  private double highestNear(double hz) {
    double reach = Math.max(trace.rbwHz(), trace.stepHz());
    if (hz - reach < trace.startHz() || hz + reach > trace.stopHz()) {
      return Double.NaN;
    }
    for (Peak p : base.peaks()) {
      if (Math.abs(p.frequencyHz() - hz) <= reach) {
        return p.level();
      }
    }
    double highest = Double.NEGATIVE_INFINITY;
    for (double f = hz - reach; f <= hz + reach; f += trace.stepHz()) {
      highest = Math.max(highest, trace.levelAt(f));
    }
    return highest;
  }

  private void amDepth(IqRecord record) {
    String why = "a carrier with a line on each side is needed";
    List<Peak> peaks = base.peaks();
    for (Peak side : peaks.subList(Math.min(1, peaks.size()), peaks.size())) {
      Peak carrier = peaks.get(0);
      double other = 2 * carrier.frequencyHz() - side.frequencyHz();
      Peak mirrored =
          peaks.stream()
              .filter(p -> Math.abs(p.frequencyHz() - other) <= trace.rbwHz())
              .findFirst()
              .orElse(null);
      if (mirrored == null) {
        continue;
      }
      try {
        readings.add(
            record == null
                ? amDepthOfLevels(carrier, side, mirrored)
                : amDepthOfPhases(carrier, side, record));
        return;
      } catch (Refusal unlike) {
        why = unlike.getMessage();
      }
    }
    readings.add(unread("amDepth", "AM depth", "%", why));
  }

  /** The phases of the side lines tell AM from phase modulation. */
  private Reading amDepthOfPhases(Peak carrier, Peak side, IqRecord record) {
    double carrierHz = carrier.frequencyHz();
    double portHz = correction == null ? carrierHz : correction.planeToPortHz(carrierHz);
    double away = Math.abs(side.frequencyHz() - carrierHz);
    double noisePerHertz =
        Decibels.toPowerRatio(PeakSearch.median(trace.level()) - carrier.level()) / trace.enbwHz();
    SideLines s = SideLines.of(record, portHz - record.centreHz(), away, noisePerHertz);
    double percent = 100 * s.depth();
    return amDepth(
        percent,
        away,
        new UncertaintyBudget()
            .rectangular("instrument linearity", percent * context.accuracy().linearityShare())
            .normal("noise", 100 * s.standard()),
        maker.marks(carrierHz - away, carrierHz + away));
  }

  /** A sweep has no phases: what is read holds only if nothing but AM is there. */
  private Reading amDepthOfLevels(Peak carrier, Peak side, Peak mirrored) {
    double percent = Distortion.amPercent(carrier.level(), side.level(), mirrored.level());
    double away = Math.abs(side.frequencyHz() - carrier.frequencyHz());
    List<String> marks = maker.marks(carrier.frequencyHz() - away, carrier.frequencyHz() + away);
    marks.add("from levels alone: FM looks the same");
    return amDepth(
        percent,
        away,
        new UncertaintyBudget()
            .normal("average", percent * Math.log(10) / 20 * maker.lineDb(side.level())),
        marks);
  }

  private Reading amDepth(
      double percent, double awayHz, UncertaintyBudget budget, List<String> marks) {
    String label = "AM depth at " + rounded(awayHz);
    return maker.reading("amDepth", label, percent, "%", budget, Limit.NONE, marks);
  }

  private void skirt(SpectrumLayout layout) {
    if (base.peaks().isEmpty()) {
      return;
    }
    double tunedHz = trace.startHz() - layout.offsetHz(0);
    Peak top = base.peaks().get(0);
    LeakageCheck.Finding f = LeakageCheck.look(trace, layout, tunedHz, top);
    String advice =
        f.skirt() == LeakageCheck.Skirt.LEAKAGE
            ? "take a Hann or Blackman-Harris window, or a source at the frequency in the last column"
            : "";
    tables.add(
        new ResultTable(
            "skirt",
            "Skirt of the strongest line",
            List.of(
                new Column("Line", "Hz"),
                new Column("It is", ""),
                new Column("Above leakage", "dB"),
                new Column("What to do", ""),
                new Column("Coherent at", "Hz")),
            List.of(
                new Row(
                    List.of(
                        Cell.of(top.frequencyHz()),
                        Cell.of(f.skirt().label()),
                        Cell.of(f.excessDb()),
                        Cell.of(advice),
                        Cell.of(f.nearestCoherentHz())),
                    Verdict.NONE))));
  }
}
