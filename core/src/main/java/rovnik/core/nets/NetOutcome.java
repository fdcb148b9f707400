package rovnik.core.nets;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.IntToDoubleFunction;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.VoltageRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlacedSeries;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.time.Burst;
import rovnik.core.time.FoundBursts;
import rovnik.core.uncertainty.UncertaintyBudget;

/** Curves, ranking, readings and words of bursts beside nets. */
final class NetOutcome {
  /** Cells that a curve is thinned to; each keeps its highest and its lowest. */
  private static final int MOST_CELLS = 1000;

  private static final String NEAR = "Time from the burst";
  private static final double LOWEST_POWER = 1e-30;

  private final NetSettings settings;
  private final IqRecord record;
  private final FoundBursts found;
  private final List<VoltageRecord> channels;
  private final List<Activity> activities;
  private final List<RankedNet> ranking;
  private final PlaneReadings maker;

  /** Times have no plane. */
  private final PlaneReadings times;

  private final PlacedSeries series;

  NetOutcome(
      NetSettings settings,
      IqRecord record,
      MeasurementContext context,
      FoundBursts found,
      List<VoltageRecord> channels,
      List<Activity> activities,
      List<RankedNet> ranking) {
    this.settings = settings;
    this.record = record;
    this.found = found;
    this.channels = channels;
    this.activities = activities;
    this.ranking = ranking;
    this.maker = new CarrierReadings(record, context, 0).maker();
    this.times = new PlaneReadings(null, context, "", record.centreHz());
    this.series = PlacedSeries.of(record, context);
  }

  Outcome outcome() {
    return new Outcome(
        NetMeasurement.KIND,
        NetMeasurement.TITLE,
        summary(),
        curves(),
        List.of(table()),
        readings(),
        marks(),
        List.of());
  }

  private List<String> marks() {
    List<String> out = new ArrayList<>(maker.levelMarks());
    if (found.firesOnNoise()) {
      out.add("noise passes for bursts");
    }
    return out;
  }

  /** What is probed now, the likeliest first. */
  private List<RankedNet> probed() {
    return ranking.stream().filter(n -> settings.nets().contains(n.name())).toList();
  }

  private String summary() {
    if (!found.none().isEmpty()) {
      return found.none();
    }
    StringBuilder out = new StringBuilder();
    probed().forEach(n -> out.append(out.isEmpty() ? "" : " ").append(n.words()));
    RankedNet first = ranking.get(0);
    if (first.related() && !settings.nets().contains(first.name())) {
      out.append(
          String.format(Locale.ROOT, " First of the ranking is %s, %s.", first.name(), first.is()));
    }
    probed().stream()
        .filter(RankedNet::drifts)
        .min(Comparator.comparing(n -> n.score().driftStandard()))
        .ifPresent(
            n ->
                out.append(
                    String.format(
                        Locale.ROOT,
                        " The clocks of receiver and oscilloscope run apart by %.1f ppm; lags are"
                            + " those at the trigger.",
                        1e6 * n.score().drift())));
    return out.toString();
  }

  private ResultTable table() {
    return new ResultTable(
        "ranking",
        "Nets, the likeliest first",
        List.of(
            new Column("Net", ""),
            new Column("It is", ""),
            new Column("Score", ""),
            new Column("Burst later by", "s"),
            new Column("Give or take", "s"),
            new Column("Than", ""),
            new Column("Both", ""),
            new Column("Burst alone", ""),
            new Column("Net alone", ""),
            new Column("Looks", "")),
        ranking.stream().map(NetOutcome::row).toList());
  }

  private static Row row(RankedNet n) {
    NetScore s = n.score();
    return new Row(
        List.of(
            Cell.of(n.name()),
            Cell.of(n.is()),
            Cell.of(s.score()),
            Cell.of(n.related() ? s.lag() : Double.NaN),
            Cell.of(n.related() ? n.lagBudget().expanded() : Double.NaN),
            Cell.of(n.related() ? s.event().words() : ""),
            Cell.of(s.together()),
            Cell.of(s.burstsWithout()),
            Cell.of(s.eventsWithout()),
            Cell.of(n.looks())),
        Verdict.NONE);
  }

  // Readings

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    List<String> marks = marks();
    UncertaintyBudget exact = new UncertaintyBudget();
    out.add(times.reading("bursts", "Bursts", found.bursts().size(), "", exact, Limit.NONE, marks));
    for (int i = 0; i < settings.nets().size(); i++) {
      String name = settings.nets().get(i);
      String id = Integer.toString(i + 1);
      ranking.stream()
          .filter(n -> !name.isEmpty() && n.name().equals(name))
          .findFirst()
          .ifPresent(n -> ofNet(out, id, n, marks));
    }
    return out;
  }

  private void ofNet(List<Reading> out, String id, RankedNet n, List<String> marks) {
    NetScore s = n.score();
    UncertaintyBudget exact = new UncertaintyBudget();
    out.add(
        times.reading(
            "score" + id, "Score of " + n.name(), s.score(), "", exact, Limit.NONE, marks));
    if (n.related()) {
      out.add(
          times.reading(
              "lag" + id,
              "Burst later than " + n.name(),
              s.lag(),
              "s",
              n.lagBudget(),
              Limit.NONE,
              marks));
    }
    if (n.drifts()) {
      out.add(
          times.reading(
              "drift" + id,
              "Clocks apart, by " + n.name(),
              1e6 * s.drift(),
              "ppm",
              new UncertaintyBudget().normal("scatter of lags", 1e6 * s.driftStandard()),
              Limit.NONE,
              marks));
    }
  }

  // Curves

  private List<Series> curves() {
    double begins = found.startSeconds();
    double ends = begins + found.power().length / found.rateHz();
    List<Series> out = new ArrayList<>();
    draw(out, "", "Time", begins, ends, 0);
    if (!found.bursts().isEmpty()) {
      Burst shown = found.bursts().get(found.bursts().size() / 2);
      double at = begins + shown.startSeconds();
      double around = around(shown);
      draw(out, "-near", NEAR, at - around, at + shown.length() + around, at);
      out.add(stroke("begins", 0));
      out.add(stroke("ends", shown.length()));
    }
    return out;
  }

  /** A stroke over the voltages where the burst begins or ends. */
  private static Series stroke(String id, double at) {
    return Series.curve(
            id, "", Axis.own(NEAR, "s", new double[] {at, at}), new double[] {-1e12, 1e12}, "V")
        .as(Series.Role.EDGE);
  }

  /** Time on each side of a burst that shows what goes with it. */
  private double around(Burst shown) {
    double lag =
        probed().stream()
            .filter(RankedNet::related)
            .mapToDouble(n -> Math.abs(n.score().lag()))
            .max()
            .orElse(0);
    return Math.max(shown.length(), Math.max(2 * settings.coincidentSeconds(), 1.3 * lag));
  }

  /**
   * Level and voltages from one instant to another.
   *
   * @param zero instant that is called 0 s
   */
  private void draw(
      List<Series> out, String suffix, String quantity, double from, double to, double zero) {
    double[] power = found.power();
    Cells level = Cells.of(from, to, found.startSeconds(), found.rateHz(), power.length);
    double[] db = level.extremes(n -> power[n]);
    for (int i = 0; i < db.length; i++) {
      db[i] = 10 * Math.log10(Math.max(LOWEST_POWER, db[i])) + found.addDb();
    }
    out.add(
        series.curve(
            "level" + suffix,
            suffix.isEmpty() ? "Power in the band" : "Power of a burst",
            level.axis(quantity, zero),
            "Level",
            record.calibrated() ? "dBm" : "dBFS",
            db));
    for (int i = 0; i < channels.size(); i++) {
      String name = i < settings.nets().size() ? settings.nets().get(i) : "";
      if (name.isEmpty()) {
        continue;
      }
      float[] volts = channels.get(i).volts();
      Cells cells =
          Cells.of(
              from,
              to,
              activities.get(i).fromSeconds(),
              channels.get(i).sampleRateHz(),
              volts.length);
      out.add(
          Series.curve(
                  "net" + (i + 1) + suffix,
                  suffix.isEmpty() ? name + ", all of it" : name,
                  cells.axis(quantity, zero),
                  cells.extremes(n -> volts[n]),
                  "V")
              .of("Voltage"));
    }
  }

  /** Samples in cells of which each keeps its highest and its lowest, in the order they came. */
  private record Cells(int from, int together, int cells, double startSeconds, double rateHz) {
    static Cells of(double from, double to, double startSeconds, double rateHz, int samples) {
      int first = (int) Math.max(0, Math.floor((from - startSeconds) * rateHz));
      int end = (int) Math.min(samples, Math.ceil((to - startSeconds) * rateHz) + 1);
      int there = Math.max(0, end - first);
      int together = Math.max(1, there / MOST_CELLS);
      return new Cells(first, together, there / together, startSeconds, rateHz);
    }

    private int each() {
      return together == 1 ? 1 : 2;
    }

    Axis axis(String quantity, double zero) {
      return Axis.even(
          quantity,
          "s",
          startSeconds + from / rateHz - zero,
          together / rateHz / each(),
          cells * each());
    }

    double[] extremes(IntToDoubleFunction value) {
      double[] out = new double[cells * each()];
      for (int c = 0; c < cells; c++) {
        int highest = from + c * together;
        int lowest = highest;
        for (int n = highest; n < from + (c + 1) * together; n++) {
          double v = value.applyAsDouble(n);
          highest = v > value.applyAsDouble(highest) ? n : highest;
          lowest = v < value.applyAsDouble(lowest) ? n : lowest;
        }
        if (each() == 1) {
          out[c] = value.applyAsDouble(highest);
        } else {
          out[2 * c] = value.applyAsDouble(Math.min(highest, lowest));
          out[2 * c + 1] = value.applyAsDouble(Math.max(highest, lowest));
        }
      }
      return out;
    }
  }
}
