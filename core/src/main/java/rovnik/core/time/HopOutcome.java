package rovnik.core.time;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.TreeSet;
import java.util.function.ToDoubleFunction;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Axis;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlacedSeries;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Seconds;

/** Who hops, on which channels, how long, how strong; in words, readings, tables and curves. */
final class HopOutcome {
  private static final int MOST_ROWS = 500;
  private static final int MOST_TIMES = 400;

  /** A channel that is used would have been seen, but for this chance. */
  private static final double CHANCE = 0.01;

  /** Edges are found to this share of a slot, by how it is filled. */
  private static final double SLOT_SHARE = 0.1;

  /** What of a hop lies beside its channel, as a standard uncertainty. */
  private static final double BESIDE_DB = 0.05;

  /** How often a sequence must come back to be one. */
  private static final int SEEN_AGAIN = 8;

  /**
   * What was looked at.
   *
   * @param looks that have no time in common
   * @param seconds of all
   * @param slotSeconds step of time
   * @param began where the newest look began, in the recording
   */
  record Seen(int looks, double seconds, double slotSeconds, double began) {}

  /** The newest look over time and frequency. */
  record Picture(SlotPowers powers, SpectrumLayout layout, double startSeconds) {}

  private final HopSettings settings;
  private final IqRecord record;
  private final MeasurementContext context;
  private final List<Hop> hops;
  private final Seen seen;
  private final Picture picture;
  private final List<Hoppers.Hopper> hoppers;
  private final ChannelPlan plan;
  private final PlaneReadings maker;
  private final double[] channelHz;
  private final double[] channelAddDb;

  HopOutcome(
      HopSettings settings,
      IqRecord record,
      MeasurementContext context,
      List<Hop> hops,
      Seen seen,
      Picture picture) {
    this.settings = settings;
    this.record = record;
    this.context = context;
    this.hops = hops;
    this.seen = seen;
    this.picture = picture;
    this.hoppers = Hoppers.among(hops);
    PathCorrection c = context.correction();
    double told = settings.firstHz();
    double first =
        told == 0 ? Double.NaN : (c == null ? told : c.planeToPortHz(told)) - record.centreHz();
    this.plan = ChannelPlan.of(hops, first, settings.channelHz(), settings.channels());
    double middle =
        hops.isEmpty()
            ? CarrierReadings.expectedHz(record, context, settings.centreHz())
            : plan.hz((plan.count() + 1) / 2);
    this.maker = new CarrierReadings(record, context, middle).maker();
    PlaneFrequencies at =
        PlaneFrequencies.of(
            record, context, plan.firstHz(), plan.stepHz(), Math.max(1, plan.count()));
    this.channelHz = at.hz();
    this.channelAddDb = at.addDb();
  }

  Outcome outcome() {
    return new Outcome(
        HopMeasurement.KIND,
        HopMeasurement.TITLE,
        summary(),
        series(),
        hops.isEmpty() ? List.of() : List.of(channels(), list()),
        readings(),
        List.copyOf(maker.levelMarks()),
        List.of());
  }

  private String unit() {
    return record.calibrated() ? "dBm" : "dBFS";
  }

  private double level(Hop h) {
    int channel = Math.max(1, plan.of(h));
    return 10 * Math.log10(h.power() + 1e-30) + channelAddDb[channel - 1];
  }

  // Words

  private String summary() {
    if (hops.isEmpty()) {
      return "No hop: nothing that lasts "
          + Seconds.words(settings.leastSeconds())
          + " rises over the noise of a channel and ends again.";
    }
    StringBuilder out = new StringBuilder();
    out.append(
        String.format(Locale.ROOT, "%d hops in %s.", hops.size(), Seconds.words(seen.seconds())));
    for (Hoppers.Hopper h : hoppers) {
      out.append(
          String.format(
              Locale.ROOT,
              " %s stays %s on each of %d channels%s",
              h.name(),
              Seconds.words(HopTracker.median(h.lengths())),
              used(h).size(),
              h.several() ? " (two or more that stay alike long)" : ""));
      int again = repeats(h);
      if (again > 0) {
        out.append(", in an order that repeats after ").append(again);
      }
      out.append(".");
    }
    if (hoppers.isEmpty()) {
      out.append(" No three of them stay alike long; look for longer.");
      return out.toString();
    }
    List<Integer> free = free();
    if (!free.isEmpty()) {
      out.append(missedByChance() < CHANCE ? " Not used: " : " Not seen yet: ")
          .append(numbers(free))
          .append(".");
    }
    return out.toString();
  }

  /** "11 to 14, 20". */
  static String numbers(List<Integer> sorted) {
    StringBuilder out = new StringBuilder();
    for (int i = 0; i < sorted.size(); i++) {
      int last = i;
      while (last + 1 < sorted.size() && sorted.get(last + 1) == sorted.get(last) + 1) {
        last++;
      }
      out.append(i == 0 ? "" : ", ").append(sorted.get(i));
      if (last > i) {
        out.append(last > i + 1 ? " to " : ", ").append(sorted.get(last));
      }
      i = last;
    }
    return out.toString();
  }

  private TreeSet<Integer> used(Hoppers.Hopper hopper) {
    TreeSet<Integer> out = new TreeSet<>();
    hopper.hops().forEach(h -> out.add(plan.of(h)));
    out.remove(0);
    return out;
  }

  /** Channels that nobody was seen on. */
  private List<Integer> free() {
    TreeSet<Integer> out = new TreeSet<>();
    for (int c = 1; c <= plan.count(); c++) {
      out.add(c);
    }
    hops.forEach(h -> out.remove(plan.of(h)));
    return List.copyOf(out);
  }

  /**
   * How likely one of the channels that were not seen is used all the same: if each hop goes to any
   * of the used ones with the same chance, of all that could be missed, for the hopper of which
   * least is known.
   */
  private double missedByChance() {
    double most = 0;
    for (Hoppers.Hopper h : hoppers) {
      int used = used(h).size() + 1;
      most = Math.max(most, Math.pow(1 - 1.0 / used, h.hops().size()));
    }
    return free().size() * most;
  }

  /**
   * After how many hops the order comes back; 0 if it does not, or was not looked at for so long.
   */
  private int repeats(Hoppers.Hopper hopper) {
    int look = hopper.hops().get(hopper.hops().size() - 1).look();
    int[] order = hopper.hops().stream().filter(h -> h.look() == look).mapToInt(plan::of).toArray();
    for (int p = 1; p + SEEN_AGAIN <= order.length; p++) {
      boolean same = true;
      for (int i = 0; same && i + p < order.length; i++) {
        same = order[i] == order[i + p];
      }
      if (same) {
        return p;
      }
    }
    return 0;
  }

  // Readings

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    out.add(count("hops", "Hops", hops.size()));
    out.add(count("hoppers", "That stay alike long", hoppers.size()));
    for (Hoppers.Hopper h : hoppers) {
      times(out, h);
      out.add(count("channels" + h.name(), h.name() + " uses channels", used(h).size()));
      out.add(
          maker.level(
              "level" + h.name(),
              h.name() + " has in the mean",
              mean(h, this::level),
              unit(),
              Math.hypot(ofMean(h, this::level), BESIDE_DB),
              Limit.NONE,
              maker.levelMarks()));
    }
    if (!hops.isEmpty()) {
      out.add(count("free", "Channels that nobody was seen on", free().size()));
    }
    return out;
  }

  private Reading count(String id, String label, int n) {
    return maker.reading(id, label, n, "", new UncertaintyBudget(), Limit.NONE, maker.levelMarks());
  }

  private void times(List<Reading> out, Hoppers.Hopper h) {
    double dwell = HopTracker.median(h.lengths());
    double relative = context.accuracy().frequencyRelative();
    double clock = Double.isNaN(relative) ? 0 : relative;
    UncertaintyBudget ofDwell =
        new UncertaintyBudget()
            .rectangular("reference", clock * dwell)
            .rectangular("between spectra", seen.slotSeconds() * SLOT_SHARE)
            .normal("hops", 1.25 * ofMean(h, Hop::seconds));
    out.add(
        maker.reading(
            "dwell" + h.name(),
            h.name() + " stays for",
            dwell,
            "s",
            ofDwell,
            settings.dwell(),
            maker.levelMarks()));
    if (h.several()) {
      return;
    }
    HopInterval times = h.interval(seen.slotSeconds() * SLOT_SHARE / 2);
    if (!Double.isNaN(times.seconds())) {
      double interval = times.seconds();
      double standard = times.standard();
      out.add(
          maker.reading(
              "interval" + h.name(),
              h.name() + " hops every",
              interval,
              "s",
              new UncertaintyBudget()
                  .rectangular("reference", clock * interval)
                  .normal("starts", standard),
              Limit.NONE,
              maker.levelMarks()));
      out.add(
          maker.reading(
              "blank" + h.name(),
              h.name() + " is off for",
              interval - dwell,
              "s",
              new UncertaintyBudget()
                  .normal("starts", standard)
                  .normal("stays for", ofDwell.combined()),
              Limit.NONE,
              maker.levelMarks()));
    }
  }

  private static double mean(Hoppers.Hopper h, ToDoubleFunction<Hop> of) {
    return h.hops().stream().mapToDouble(of).average().orElse(Double.NaN);
  }

  private static double ofMean(Hoppers.Hopper h, ToDoubleFunction<Hop> of) {
    double mean = mean(h, of);
    int n = h.hops().size();
    double sum = h.hops().stream().mapToDouble(x -> Math.pow(of.applyAsDouble(x) - mean, 2)).sum();
    // Of few the scatter is not known well (JCGM 101:2008, 6.4.9.4).
    double few = n > 3 ? Math.sqrt((n - 1.0) / (n - 3.0)) : 3;
    return few * Math.sqrt(sum / (n - 1) / n);
  }

  // Tables and curves

  private ResultTable channels() {
    List<Column> columns = new ArrayList<>();
    columns.add(new Column("Channel", ""));
    columns.add(new Column(Axis.FREQUENCY, "Hz"));
    columns.add(new Column("Hops", ""));
    columns.add(new Column("Level", unit()));
    hoppers.forEach(h -> columns.add(new Column(h.name(), "")));
    columns.add(new Column("Share of time", "%"));
    columns.add(new Column("Share now", "%"));
    List<Row> rows = new ArrayList<>();
    for (int c = 1; c <= plan.count(); c++) {
      int channel = c;
      List<Hop> there = hops.stream().filter(h -> plan.of(h) == channel).toList();
      List<Cell> cells = new ArrayList<>();
      cells.add(Cell.of(c));
      cells.add(Cell.of(channelHz[c - 1]));
      cells.add(Cell.of(there.size()));
      cells.add(Cell.of(there.stream().mapToDouble(this::level).average().orElse(Double.NaN)));
      for (Hoppers.Hopper h : hoppers) {
        cells.add(Cell.of(h.hops().stream().filter(x -> plan.of(x) == channel).count()));
      }
      cells.add(Cell.of(100 * there.stream().mapToDouble(Hop::seconds).sum() / seen.seconds()));
      cells.add(Cell.of(100 * inNewest(there) * seen.looks() / seen.seconds()));
      rows.add(new Row(cells, Verdict.NONE));
    }
    return new ResultTable("channels", "Channels", columns, rows);
  }

  /** Looks are alike long: what one has of the whole is the same for all. */
  private double inNewest(List<Hop> some) {
    return some.stream().filter(h -> h.look() == seen.looks()).mapToDouble(Hop::seconds).sum();
  }

  private ResultTable list() {
    List<Row> rows = new ArrayList<>();
    int first = Math.max(0, hops.size() - MOST_ROWS);
    for (Hop h : hops.subList(first, hops.size())) {
      String whose =
          hoppers.stream()
              .filter(x -> x.hops().contains(h))
              .map(Hoppers.Hopper::name)
              .findFirst()
              .orElse(h.whole() ? "other" : "cut off");
      rows.add(
          new Row(
              List.of(
                  Cell.of(h.look()),
                  Cell.of(h.startSeconds() + (h.look() == seen.looks() ? seen.began() : 0)),
                  Cell.of(h.seconds()),
                  Cell.of(plan.of(h)),
                  Cell.of(level(h)),
                  Cell.of(whose)),
              Verdict.NONE));
    }
    return new ResultTable(
        "hops",
        first > 0 ? "The last " + MOST_ROWS + " of " + hops.size() + " hops" : "Hops",
        List.of(
            new Column("Look", ""),
            new Column("Start", "s"),
            new Column("Length", "s"),
            new Column("Channel", ""),
            new Column("Level", unit()),
            new Column("Whose", "")),
        rows);
  }

  private List<Series> series() {
    List<Series> out = new ArrayList<>();
    out.add(pictureSeries());
    if (!hops.isEmpty()) {
      int n = plan.count();
      double[] count = new double[n];
      double[] level = new double[n];
      for (Hop h : hops) {
        int c = plan.of(h);
        if (c > 0) {
          count[c - 1]++;
          level[c - 1] += level(h);
        }
      }
      for (int c = 0; c < n; c++) {
        level[c] = count[c] > 0 ? level[c] / count[c] : Double.NaN;
      }
      Axis axis = Axis.even("Channel", "", 1, 1, n);
      out.add(placed().curve("counts", "Hops by channel", axis, "Hops", "", count));
      out.add(placed().curve("levels", "Level by channel", axis, "Level", unit(), level));
    }
    return out;
  }

  private Series pictureSeries() {
    SlotPowers p = picture.powers();
    int together = Math.max(1, (p.slots + MOST_TIMES - 1) / MOST_TIMES);
    int rows = Math.max(1, p.slots / together);
    PlaneFrequencies at =
        PlaneFrequencies.of(
            record, context, picture.layout().offsetHz(0), picture.layout().stepHz(), p.points);
    float[] z = new float[rows * p.points];
    for (int r = 0; r < rows; r++) {
      for (int i = 0; i < p.points; i++) {
        float most = 0;
        for (int s = r * together; s < Math.min(p.slots, (r + 1) * together); s++) {
          most = Math.max(most, p.point[s * p.points + i]);
        }
        z[i * rows + r] = (float) (10 * Math.log10(most + 1e-30) + at.addDb()[i]);
      }
    }
    Axis time =
        Axis.even(
            "Time",
            "s",
            picture.startSeconds() + p.firstSeconds + together * p.slotSeconds / 2,
            together * p.slotSeconds,
            rows);
    return placed()
        .series("look", "The newest look", at.axis(), "Level", unit(), new Values.Matrix(z, time));
  }

  private PlacedSeries placed() {
    return PlacedSeries.of(
        record,
        context,
        Fact.of("looked at", seen.seconds(), "s"),
        Fact.of("looks", seen.looks(), ""));
  }
}
