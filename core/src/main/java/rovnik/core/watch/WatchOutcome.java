package rovnik.core.watch;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.result.SpoiledBand;
import rovnik.core.result.Values;
import rovnik.core.units.Frequency;
import rovnik.core.units.Moment;
import rovnik.core.units.Seconds;

/** What a watch came to in a stretch of time: its curves, its events, its readings. */
public final class WatchOutcome {
  public static final String KIND = "watch";

  /** More readings than these have only their newest value beside the curves. */
  private static final int MOST_IN_FULL = 6;

  private static final int MOST_ROWS = 500;

  /**
   * A watch, or a stretch of one.
   *
   * @param what is measured of what, in words
   * @param fromMillis where the stretch begins, milliseconds since 1970
   * @param toMillis where it ends: now, if it goes on
   * @param lookedShare of all the time of the watch, what its looks have samples of; NaN if unknown
   */
  public record About(
      String name, String what, long fromMillis, long toMillis, double lookedShare) {}

  private final About about;
  private final WatchSettings settings;
  private final List<WatchStretch> stretches;
  private final List<WatchEvent> events;
  private final List<WatchGap> gaps;
  private final int columns;
  private final Optional<WatchStretch> whole;

  /**
   * @param stretches of the time asked for, in its order
   * @param events that reach into it
   * @param gaps that reach into it
   * @param columns so many lowest and highest values are drawn at most
   */
  public WatchOutcome(
      About about,
      WatchSettings settings,
      List<WatchStretch> stretches,
      List<WatchEvent> events,
      List<WatchGap> gaps,
      int columns) {
    this.about = about;
    this.settings = settings;
    this.stretches = stretches;
    this.events = events;
    this.gaps = gaps;
    this.columns = columns;
    this.whole = stretches.stream().reduce(WatchStretch::and);
  }

  public Outcome outcome() {
    return new Outcome(
        KIND,
        about.name(),
        summary(),
        series(),
        List.of(numbers(), eventTable(), gapTable()),
        readings(),
        List.of(),
        gaps.stream()
            .map(
                g ->
                    new SpoiledBand(
                        Math.max(g.fromMillis(), about.fromMillis()) / 1000.0,
                        Math.min(g.toMillis(), about.toMillis()) / 1000.0,
                        g.why()))
            .toList());
  }

  private String summary() {
    if (whole.isEmpty()) {
      return about.what() + ": no look was taken yet.";
    }
    int points = whole.get().points();
    return String.format(
        Locale.ROOT,
        "%s over %s: %,d points, %s.",
        about.what(),
        lasted(about.toMillis() - about.fromMillis()),
        points,
        events.isEmpty()
            ? "nothing left its limits"
            : events.size() == 1 ? "one time outside a limit" : events.size() + " times outside");
  }

  /** "3 d 4 h", "2 h 05 min", "41 s". */
  static String lasted(long millis) {
    long s = Math.max(0, millis) / 1000;
    if (s >= 86_400) {
      return s / 86_400 + " d " + s % 86_400 / 3600 + " h";
    }
    if (s >= 3600) {
      return String.format(Locale.ROOT, "%d h %02d min", s / 3600, s % 3600 / 60);
    }
    return s >= 60
        ? String.format(Locale.ROOT, "%d min %02d s", s / 60, s % 60)
        : Seconds.words(Math.max(0, millis) / 1000.0);
  }

  // Curves

  private List<Series> series() {
    List<Series> out = new ArrayList<>();
    List<Series> limits = new ArrayList<>();
    for (int i = 0; i < settings.readings().size(); i++) {
      Watched w = settings.readings().get(i);
      WatchCurve curve = new WatchCurve(i, stretches, gaps, columns);
      out.add(
          new Series(
              w.id(),
              w.shownLabel(),
              Series.Role.DATA,
              w.plane(),
              true,
              curve.axis(),
              quantity(w),
              w.shownUnit(),
              new Values.Real(curve.values()),
              List.of()));
      addLimit(limits, w, w.limit().upper(), "upper", "at most");
      addLimit(limits, w, w.limit().lower(), "lower", "at least");
    }
    out.addAll(WatchMatrix.of(settings, stretches));
    out.addAll(limits);
    return out;
  }

  private static String quantity(Watched w) {
    return w.unit().startsWith("dB") ? "Level" : w.shownLabel();
  }

  private void addLimit(List<Series> out, Watched w, double value, String side, String words) {
    if (!Double.isNaN(value)) {
      double[] ends = {about.fromMillis() / 1000.0, about.toMillis() / 1000.0};
      out.add(
          Series.curve(
                  "limit." + w.id() + "." + side,
                  w.shownLabel() + ", " + words,
                  Axis.own("Clock", Moment.UNIT, ends),
                  new double[] {value, value},
                  w.shownUnit())
              .as(Series.Role.LIMIT));
    }
  }

  // Readings

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    boolean full = settings.readings().size() <= MOST_IN_FULL;
    for (int i = 0; i < settings.readings().size(); i++) {
      Watched w = settings.readings().get(i);
      out.add(reading(w, "newest", newest(i), newestUncertainty(i)));
      if (full) {
        int reading = i;
        double u = whole.map(s -> s.uncertainty(reading)).orElse(Double.NaN);
        out.add(reading(w, "highest", high(i), u));
        out.add(reading(w, "lowest", low(i), u));
        if (!w.limit().open()) {
          out.add(timeOutside(w, i));
        }
      }
    }
    out.add(plain("seen", "Time that was watched", 100 * seen(), "%", ""));
    if (!Double.isNaN(about.lookedShare())) {
      double percent = 100 * Math.min(1, about.lookedShare());
      out.add(plain("looked", "Share of it that looks saw", percent, "%", ""));
    }
    out.add(plain("events", "Times outside a limit", events.size(), "", ""));
    return out;
  }

  private static Reading reading(Watched w, String which, double value, double uncertainty) {
    return new Reading(
        w.id() + "." + which,
        w.shownLabel() + ", " + which,
        value,
        w.shownUnit(),
        w.plane(),
        uncertainty,
        List.of(),
        w.limit(),
        w.limit().judge(value, uncertainty),
        List.of());
  }

  /** No time outside is allowed; how sure it was, the worst values say. */
  private Reading timeOutside(Watched w, int i) {
    double u = whole.map(s -> s.uncertainty(i)).orElse(Double.NaN);
    List<Verdict> all = new ArrayList<>();
    all.add(whole.isEmpty() ? Verdict.INVALID : Verdict.PASS);
    for (WatchEvent e : events) {
      if (e.reading() == i) {
        all.add(Double.isNaN(e.worst()) ? Verdict.FAIL : w.limit().judge(e.worst(), u));
      }
    }
    return new Reading(
        w.id() + ".outside",
        w.shownLabel() + ", time outside",
        100 * outside(i),
        "%",
        "",
        Double.NaN,
        List.of(),
        Limit.NONE,
        Verdict.worst(all),
        List.of());
  }

  private static Reading plain(String id, String label, double value, String unit, String plane) {
    return new Reading(
        id, label, value, unit, plane, Double.NaN, List.of(), Limit.NONE, Verdict.NONE, List.of());
  }

  private double newest(int reading) {
    return lastWith(reading).map(s -> s.mean(reading)).orElse(Double.NaN);
  }

  private double newestUncertainty(int reading) {
    return lastWith(reading).map(s -> s.uncertainty(reading)).orElse(Double.NaN);
  }

  private Optional<WatchStretch> lastWith(int reading) {
    for (int k = stretches.size() - 1; k >= 0; k--) {
      if (stretches.get(k).has(reading)) {
        return Optional.of(stretches.get(k));
      }
    }
    return Optional.empty();
  }

  private double low(int reading) {
    return whole.map(s -> s.low(reading)).orElse(Double.NaN);
  }

  private double high(int reading) {
    return whole.map(s -> s.high(reading)).orElse(Double.NaN);
  }

  /** Of the time that was asked for. */
  private long within(long from, long to) {
    return Math.max(0, Math.min(to, about.toMillis()) - Math.max(from, about.fromMillis()));
  }

  private long gapMillis() {
    return gaps.stream().mapToLong(g -> within(g.fromMillis(), g.toMillis())).sum();
  }

  private double seen() {
    long all = about.toMillis() - about.fromMillis();
    return all <= 0 ? Double.NaN : Math.max(0, 1 - gapMillis() / (double) all);
  }

  /** Share of the time that was seen. */
  private double outside(int reading) {
    long all = about.toMillis() - about.fromMillis() - gapMillis();
    long out = 0;
    for (WatchEvent e : events) {
      if (e.reading() == reading) {
        out += within(e.fromMillis(), e.toMillis());
        for (WatchGap g : gaps) {
          out -=
              within(
                  Math.max(g.fromMillis(), e.fromMillis()), Math.min(g.toMillis(), e.toMillis()));
        }
      }
    }
    return all <= 0 ? Double.NaN : Math.min(1, out / (double) all);
  }

  // Tables

  private ResultTable numbers() {
    List<Row> rows = new ArrayList<>();
    for (int i = 0; i < settings.readings().size(); i++) {
      Watched w = settings.readings().get(i);
      int reading = i;
      long times = events.stream().filter(e -> e.reading() == reading).count();
      rows.add(
          new Row(
              List.of(
                  Cell.of(w.shownLabel()),
                  Cell.of(words(w, newest(i))),
                  Cell.of(words(w, low(i))),
                  Cell.of(words(w, whole.map(s -> s.mean(reading)).orElse(Double.NaN))),
                  Cell.of(words(w, high(i))),
                  Cell.of(w.limit().open() ? Double.NaN : 100 * outside(i)),
                  Cell.of(times)),
              w.limit().open() ? Verdict.NONE : timeOutside(w, i).verdict()));
    }
    return new ResultTable(
        "numbers",
        "What is watched",
        List.of(
            new Column("Reading", ""),
            new Column("Newest", ""),
            new Column("Lowest", ""),
            new Column("Mean of readings", ""),
            new Column("Highest", ""),
            new Column("Time outside", "%"),
            new Column("Times", "")),
        rows);
  }

  /** A value with its unit: numbers of one column are of several quantities. */
  private static String words(Watched w, double value) {
    if (Double.isNaN(value)) {
      return "not seen";
    }
    return switch (w.shownUnit()) {
      case "Hz" ->
          Frequency.ofHertz(Double.parseDouble(String.format(Locale.ROOT, "%.10g", value)))
              .toString();
      case "s" -> Seconds.words(value);
      case "" -> String.format(Locale.ROOT, "%.6g", value);
      default -> String.format(Locale.ROOT, "%.2f %s", value, w.shownUnit());
    };
  }

  private ResultTable eventTable() {
    List<Row> rows = new ArrayList<>();
    for (WatchEvent e : newest(events)) {
      Watched w = settings.readings().get(e.reading());
      boolean on = e.toMillis() > about.toMillis();
      rows.add(
          new Row(
              List.of(
                  Cell.of(e.fromMillis() / 1000.0),
                  Cell.of(w.shownLabel()),
                  Cell.of(Double.isNaN(e.worst()) ? "not there" : words(w, e.worst())),
                  Cell.of(on ? "goes on" : lasted(e.toMillis() - e.fromMillis())),
                  Cell.of(e.kept())),
              Verdict.NONE));
    }
    return new ResultTable(
        "events",
        title("Outside a limit", events.size()),
        List.of(
            new Column("Since", Moment.UNIT),
            new Column("Reading", ""),
            new Column("Worst", ""),
            new Column("Lasted", ""),
            new Column("Kept", "")),
        rows);
  }

  private ResultTable gapTable() {
    return new ResultTable(
        "gaps",
        title("Not watched", gaps.size()),
        List.of(new Column("Since", Moment.UNIT), new Column("Lasted", ""), new Column("Why", "")),
        newest(gaps).stream()
            .map(
                g ->
                    new Row(
                        List.of(
                            Cell.of(g.fromMillis() / 1000.0),
                            Cell.of(
                                g.toMillis() > about.toMillis()
                                    ? "goes on"
                                    : lasted(g.toMillis() - g.fromMillis())),
                            Cell.of(g.why())),
                        Verdict.NONE))
            .toList());
  }

  private static String title(String what, int all) {
    return all > MOST_ROWS ? what + ", the last " + MOST_ROWS + " of " + all + " times" : what;
  }

  /** The newest first, as many as a table holds. */
  private static <T> List<T> newest(List<T> all) {
    List<T> out = new ArrayList<>(all.subList(Math.max(0, all.size() - MOST_ROWS), all.size()));
    Collections.reverse(out);
    return out;
  }
}
