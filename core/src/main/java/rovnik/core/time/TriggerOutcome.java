package rovnik.core.time;

import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
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
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlacedSeries;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Seconds;

/** Curves, table, readings and words of what was waited for. */
final class TriggerOutcome {
  private final TriggerSettings settings;
  private final IqRecord record;
  private final TriggerWatch watch;
  private final TriggerSearch search;
  private final TriggerTally tally;
  private final MaskSpectra mask;
  private final CarrierReadings carrier;
  private final PlaneReadings maker;
  private final PlacedSeries series;
  private final double addDb;
  private final boolean waits;
  private final boolean rises;

  TriggerOutcome(
      TriggerSettings settings, IqRecord record, MeasurementContext context, TriggerWatch watch) {
    this.settings = settings;
    this.record = record;
    this.watch = watch;
    this.search = watch.search();
    this.tally = watch.tally();
    this.mask = watch.mask();
    this.carrier = watch.carrier(record, context);
    this.maker = carrier.maker();
    this.series = PlacedSeries.of(record, context);
    this.addDb = mask == null ? carrier.referredDb() : 0;
    this.waits = settings.by() != TriggerSettings.By.NONE;
    this.rises = settings.by() != TriggerSettings.By.FALLS;
  }

  Outcome outcome() {
    return new Outcome(
        TriggerMeasurement.KIND,
        TriggerMeasurement.TITLE,
        summary(),
        curves(),
        tally.count() == 0 ? List.of() : List.of(table()),
        readings(),
        marks(),
        List.of());
  }

  /** Of what is watched: a level, or how far the spectrum is over the mask. */
  private String unit() {
    return mask != null ? "dB" : levelUnit();
  }

  private String levelUnit() {
    return record.calibrated() ? "dBm" : "dBFS";
  }

  private boolean external() {
    return settings.by() == TriggerSettings.By.EXTERNAL;
  }

  /** What is crossed. */
  private String crossed() {
    return mask != null
        ? "the mask"
        : String.format(Locale.ROOT, "%.1f %s", settings.levelDb(), unit());
  }

  private double db(double power) {
    return 10 * Math.log10(Math.max(power, 1e-30)) + addDb;
  }

  private double seconds(double samples) {
    return samples / watch.rateHz();
  }

  private double lostSeconds() {
    return watch.lostSeconds(record.sampleRateHz());
  }

  private double sharePercent() {
    return 100 * watch.seenSeconds() / (watch.seenSeconds() + lostSeconds());
  }

  // Words

  private String summary() {
    StringBuilder out = new StringBuilder();
    if (waits) {
      out.append(tally.count() == 0 ? none() : some());
    } else {
      out.append("No trigger is set: the level is watched.");
    }
    if (waits && search.firesOnNoise()) {
      out.append(" Most of what crosses the level is as short as noise is; ");
      out.append(rises ? "raise it, or ask for a length." : "ask for a length.");
    }
    if (watch.gaps() > 0) {
      out.append(
          String.format(
              Locale.ROOT,
              " %d gap%s: %s was not seen, %.3g %% of the time was.",
              watch.gaps(),
              watch.gaps() == 1 ? "" : "s",
              Seconds.words(lostSeconds()),
              sharePercent()));
    }
    return out.toString();
  }

  private String some() {
    StringBuilder out = new StringBuilder();
    out.append(
        String.format(
            Locale.ROOT,
            "%d trigger%s in %s: %s%s.",
            tally.count(),
            tally.count() == 1 ? "" : "s",
            Seconds.words(watch.seenSeconds()),
            what(),
            settings.pattern().words()));
    if (tally.heldBack() > 0) {
      out.append(String.format(Locale.ROOT, " %d came within the hold-off.", tally.heldBack()));
    }
    if (search.otherLength() > 0) {
      out.append(String.format(Locale.ROOT, " %d were shorter or longer.", search.otherLength()));
    }
    return out.toString();
  }

  /** What comes, without what comes before it. */
  private String what() {
    return external()
        ? "an edge at the trigger input"
        : String.format(
            Locale.ROOT,
            "the %s %s %s%s",
            mask == null ? "power" : "spectrum",
            settings.by().words(),
            crossed(),
            settings.lasting());
  }

  /** Why nothing came, with what would have to change. */
  private String none() {
    if (mask != null && mask.spectra() == 0) {
      return "No spectrum is complete yet: one takes "
          + Seconds.words(mask.length() / record.sampleRateHz())
          + " of samples. Wait, or take a coarser RBW.";
    }
    if (tally.came() > 0) {
      return noInterval();
    }
    if (external()) {
      return "Nothing came in "
          + Seconds.words(watch.seenSeconds())
          + ": the trigger input never rose. Check its cable and what drives it.";
    }
    if (search.otherLength() > 0) {
      return String.format(
          Locale.ROOT,
          "%d times the %s crossed %s, but never%s.",
          search.otherLength(),
          mask == null ? "power" : "spectrum",
          mask == null ? "the level of " + crossed() : crossed(),
          settings.lasting());
    }
    if (search.neverOff()) {
      if (mask != null) {
        return "The spectrum is never below the mask, so that it cannot rise over it: raise the"
            + " mask.";
      }
      return "The power is "
          + (rises ? "never below " : "never over ")
          + "the level of "
          + crossed()
          + ", so that it cannot "
          + (rises ? "rise over it: raise the level." : "fall below it: lower the level.");
    }
    if (!Double.isNaN(search.goesOn())) {
      return "It goes on since "
          + Seconds.words(seconds(search.goesOn()))
          + "; its length is open.";
    }
    if (mask != null) {
      return String.format(
          Locale.ROOT,
          "Nothing came in %s: the spectrum stayed %.1f dB below the mask.",
          Seconds.words(watch.seenSeconds()),
          -db(search.nearest()));
    }
    double nearest = db(search.nearest());
    return String.format(
        Locale.ROOT,
        "Nothing came in %s: the %s power was %.1f %s, %.1f dB %s %s.",
        Seconds.words(watch.seenSeconds()),
        rises ? "highest" : "lowest",
        nearest,
        unit(),
        Math.abs(settings.levelDb() - nearest),
        rises ? "below" : "over",
        "the level of " + crossed());
  }

  /** Some came, but not after such a time. */
  private String noInterval() {
    StringBuilder out = new StringBuilder();
    boolean one = tally.came() == 1;
    out.append(
        String.format(
            Locale.ROOT,
            "%d time%s %s, but never%s.",
            tally.came(),
            one ? "" : "s",
            what(),
            settings.pattern().words().substring(1)));
    if (!Double.isNaN(tally.nearestInterval())) {
      out.append(
          (settings.pattern().broken() ? " The farthest from it was " : " The nearest to it was ")
              + Seconds.words(seconds(tally.nearestInterval()))
              + ".");
    }
    return out.toString();
  }

  private List<String> marks() {
    return maker.levelMarks();
  }

  // Curves

  private List<Series> curves() {
    List<Series> out = new ArrayList<>();
    add(out, watch.level(), "level", "Time", "over time", 0);
    if (watch.detail() != null) {
      add(
          out,
          watch.detail(),
          "trigger",
          "Time from the trigger",
          "around trigger " + watch.shown().number(),
          watch.shown().sample());
    }
    if (mask != null) {
      spectra(out);
    }
    return out;
  }

  /** The spectra that are held against the mask. */
  private void spectra(List<Series> out) {
    Axis hz = mask.at().axis();
    double[] last = mask.farthestDb();
    if (last != null) {
      out.add(spectrum("over-mask", "Spectrum, last over the mask", hz, last));
    }
    out.add(spectrum("spectrum", "Highest spectrum", hz, mask.highestDb()));
    double[] edges = watch.limits().points().stream().mapToDouble(TriggerMask.Point::hz).toArray();
    double[] levels =
        watch.limits().points().stream().mapToDouble(TriggerMask.Point::levelDb).toArray();
    out.add(
        spectrum("mask", "mask", Axis.own(Axis.FREQUENCY, "Hz", edges), levels)
            .as(Series.Role.LIMIT));
  }

  private Series spectrum(String id, String label, Axis hz, double[] y) {
    return series.curve(id, label, hz, "Level", levelUnit(), y);
  }

  /**
   * Highest and lowest of each cell, with the level that is waited for.
   *
   * @param when what its curves are called after
   * @param zero sample that is 0 s
   */
  private void add(
      List<Series> out,
      LevelOverTime.Stretch s,
      String id,
      String quantity,
      String when,
      double zero) {
    double step = seconds(s.cellSamples());
    double first = seconds(s.first() - zero) + step / 2;
    Axis time = Axis.even(quantity, "s", first, step, s.highest().length);
    boolean thinned = s.cellSamples() > 1;
    out.add(level(id, (thinned ? "Highest " : "Level ") + when, time, s.highest()));
    if (thinned) {
      out.add(level(id + "-lowest", "Lowest " + when, time, s.lowest()));
    }
    if (waits && !external()) {
      Axis ends =
          Axis.own(quantity, "s", new double[] {time.first(), Math.max(time.last(), first + step)});
      double level = mask == null ? settings.levelDb() : 0;
      double[] at = {level, level};
      out.add(
          overTime()
              .curve(
                  id + "-at", mask == null ? "trigger level" : "mask", ends, quantity(), unit(), at)
              .as(Series.Role.LIMIT));
    }
  }

  private Series level(String id, String label, Axis time, double[] power) {
    double[] y = new double[power.length];
    for (int i = 0; i < y.length; i++) {
      y[i] = Double.isNaN(power[i]) ? Double.NaN : db(power[i]);
    }
    return overTime().curve(id, label, time, quantity(), unit(), y);
  }

  /** How far something is over a mask is the same at all planes. */
  private PlacedSeries overTime() {
    return mask == null ? series : new PlacedSeries("", series.calibrated(), series.facts());
  }

  private String quantity() {
    return mask == null ? "Level" : "Over the mask";
  }

  private ResultTable table() {
    List<Column> columns =
        new ArrayList<>(
            List.of(
                new Column("No.", ""), new Column("At", "s"), new Column("From the last", "s")));
    if (!settings.pattern().any()) {
      columns.add(new Column("After the one before", "s"));
    }
    if (settings.lasts()) {
      columns.add(new Column(rises ? "Stays over" : "Stays below", "s"));
      columns.add(new Column(rises ? "Highest" : "Lowest", unit()));
    }
    if (mask != null) {
      columns.add(new Column("Frequency", "Hz"));
    }
    List<Row> rows = new ArrayList<>();
    Iterator<TriggerEvent> newestFirst = tally.counted().descendingIterator();
    while (newestFirst.hasNext()) {
      rows.add(new Row(cells(newestFirst.next()), Verdict.NONE));
    }
    return new ResultTable("triggers", "Triggers, the newest first", columns, rows);
  }

  private List<Cell> cells(TriggerEvent e) {
    List<Cell> out = new ArrayList<>();
    out.add(Cell.of(e.number()));
    out.add(Cell.of(seconds(e.sample())));
    out.add(Cell.of(seconds(e.sinceLast())));
    boolean missed = Double.isInfinite(e.interval());
    if (!settings.pattern().any()) {
      out.add(missed ? Cell.of("none came") : Cell.of(seconds(e.interval())));
    }
    if (settings.lasts()) {
      out.add(Cell.of(seconds(e.lasted())));
      out.add(Cell.of(missed ? Double.NaN : db(e.farthest())));
    }
    if (mask != null) {
      out.add(Cell.of(missed ? Double.NaN : mask.hz(e.where())));
    }
    return out;
  }

  // Readings

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    List<String> marks = marks();
    if (waits) {
      out.add(count("triggers", "Triggers", tally.count(), marks));
      if (settings.holdOffSeconds() > 0) {
        out.add(count("heldBack", "Held back", tally.heldBack(), marks));
      }
      if (settings.lasts() && !settings.lasting().isEmpty()) {
        out.add(count("otherLength", "Of another length", search.otherLength(), marks));
      }
      if (!settings.pattern().any()) {
        out.add(count("otherInterval", "After another time", tally.otherInterval(), marks));
      }
    }
    String label = mask == null ? "Highest level" : "Most over the mask";
    out.add(maker.level("highest", label, db(watch.highest()), unit(), 0, Limit.NONE, marks));
    if (mask != null) {
      out.add(certain());
    }
    out.add(
        maker.reading(
            "seen",
            "Share of the time seen",
            sharePercent(),
            "%",
            new UncertaintyBudget(),
            Limit.NONE,
            List.of()));
    out.add(
        maker.reading(
            "watched",
            "Watched",
            watch.seenSeconds(),
            "s",
            new UncertaintyBudget(),
            Limit.NONE,
            List.of()));
    return out;
  }

  /** What is as long reads at its full level in one of the spectra. */
  private Reading certain() {
    EventCertainty certainty =
        new EventCertainty(record.sampleRateHz(), MaskSpectra.WINDOW, mask.length(), mask.hop());
    return maker.reading(
        "fullLevel",
        "Shortest at full level",
        certainty.fullSeconds(),
        "s",
        new UncertaintyBudget(),
        Limit.NONE,
        List.of());
  }

  private Reading count(String id, String label, double value, List<String> marks) {
    return maker.reading(id, label, value, "", new UncertaintyBudget(), Limit.NONE, marks);
  }
}
