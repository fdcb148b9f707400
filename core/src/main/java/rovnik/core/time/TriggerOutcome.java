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
    this.carrier = watch.carrier(record, context);
    this.maker = carrier.maker();
    this.series = PlacedSeries.of(record, context);
    this.addDb = carrier.referredDb();
    this.waits = settings.by() != TriggerSettings.By.NONE;
    this.rises = settings.by() != TriggerSettings.By.FALLS;
  }

  Outcome outcome() {
    return new Outcome(
        TriggerMeasurement.KIND,
        TriggerMeasurement.TITLE,
        summary(),
        curves(),
        search.count() == 0 ? List.of() : List.of(table()),
        readings(),
        marks(),
        List.of());
  }

  private String unit() {
    return record.calibrated() ? "dBm" : "dBFS";
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
      out.append(search.count() == 0 ? none() : some());
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
            "%d trigger%s in %s: the power %s %.1f %s%s.",
            search.count(),
            search.count() == 1 ? "" : "s",
            Seconds.words(watch.seenSeconds()),
            settings.by().words(),
            settings.levelDb(),
            unit(),
            settings.lasting()));
    if (search.heldBack() > 0) {
      out.append(String.format(Locale.ROOT, " %d came within the hold-off.", search.heldBack()));
    }
    if (search.otherLength() > 0) {
      out.append(String.format(Locale.ROOT, " %d were shorter or longer.", search.otherLength()));
    }
    return out.toString();
  }

  /** Why nothing came, with what would have to change. */
  private String none() {
    String crossed = String.format(Locale.ROOT, "the level of %.1f %s", settings.levelDb(), unit());
    if (search.otherLength() > 0) {
      return String.format(
          Locale.ROOT,
          "%d times the power crossed %s, but never%s.",
          search.otherLength(),
          crossed,
          settings.lasting());
    }
    if (search.neverOff()) {
      return "The power is "
          + (rises ? "never below " : "never over ")
          + crossed
          + ", so that it cannot "
          + (rises ? "rise over it: raise the level." : "fall below it: lower the level.");
    }
    if (!Double.isNaN(search.goesOn())) {
      return "It goes on since "
          + Seconds.words(seconds(search.goesOn()))
          + "; its length is open.";
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
        crossed);
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
    return out;
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
    if (waits) {
      Axis ends =
          Axis.own(quantity, "s", new double[] {time.first(), Math.max(time.last(), first + step)});
      double[] at = {settings.levelDb(), settings.levelDb()};
      out.add(
          series
              .curve(id + "-at", "trigger level", ends, "Level", unit(), at)
              .as(Series.Role.LIMIT));
    }
  }

  private Series level(String id, String label, Axis time, double[] power) {
    double[] y = new double[power.length];
    for (int i = 0; i < y.length; i++) {
      y[i] = Double.isNaN(power[i]) ? Double.NaN : db(power[i]);
    }
    return series.curve(id, label, time, "Level", unit(), y);
  }

  private ResultTable table() {
    List<Row> rows = new ArrayList<>();
    Iterator<TriggerEvent> newestFirst = search.counted().descendingIterator();
    while (newestFirst.hasNext()) {
      TriggerEvent e = newestFirst.next();
      rows.add(
          new Row(
              List.of(
                  Cell.of(e.number()),
                  Cell.of(seconds(e.sample())),
                  Cell.of(seconds(e.sinceLast())),
                  Cell.of(seconds(e.lasted())),
                  Cell.of(db(e.farthest()))),
              Verdict.NONE));
    }
    return new ResultTable(
        "triggers",
        "Triggers, the newest first",
        List.of(
            new Column("No.", ""),
            new Column("At", "s"),
            new Column("From the last", "s"),
            new Column(rises ? "Stays over" : "Stays below", "s"),
            new Column(rises ? "Highest" : "Lowest", unit())),
        rows);
  }

  // Readings

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    List<String> marks = marks();
    if (waits) {
      out.add(count("triggers", "Triggers", search.count(), marks));
      if (settings.holdOffSeconds() > 0) {
        out.add(count("heldBack", "Held back", search.heldBack(), marks));
      }
      if (settings.leastSeconds() > 0 || !Double.isInfinite(settings.mostSeconds())) {
        out.add(count("otherLength", "Of another length", search.otherLength(), marks));
      }
    }
    out.add(
        maker.level("highest", "Highest level", db(watch.highest()), unit(), 0, Limit.NONE, marks));
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

  private Reading count(String id, String label, double value, List<String> marks) {
    return maker.reading(id, label, value, "", new UncertaintyBudget(), Limit.NONE, marks);
  }
}
