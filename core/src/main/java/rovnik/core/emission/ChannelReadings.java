package rovnik.core.emission;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.spectrum.BandPower;
import rovnik.core.spectrum.NoiseStatistics;
import rovnik.core.units.Decibels;

/** Occupied bandwidth, density of a channel, adjacent channels. */
final class ChannelReadings extends EmissionPart {
  ChannelReadings(EmissionPart look) {
    super(look);
  }

  void occupied(ViewPlan.Occupied asked) {
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

  void density(double highest) {
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

  void adjacent(AdjacentChannels plan) {
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
}
