package rovnik.core.runs;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import rovnik.core.path.Gain;
import rovnik.core.path.PathElement;
import rovnik.core.path.SignalPath;
import rovnik.core.result.Axis;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.TraceSeries;
import rovnik.core.units.Frequency;

/**
 * What differs between two runs: second minus first.
 *
 * @param difference second minus first, one for each series that both have, on the finer grid of
 *     both over the stretch they share; none where they share none or their units differ
 * @param changes what changed in settings, path, conditions and readings
 * @param lines every line of either run and where it stands
 */
public record RunComparison(List<Series> difference, List<Change> changes, List<Line> lines) {
  /** A line is the same if it moved by less than this share of the wider RBW. */
  private static final double SAME_LINE_RBW = 1.5;

  /** A line is as strong as before if its level moved by no more than this. */
  private static final double SAME_LEVEL_DB = 3;

  /** Where a line is missing, its level falls back to the floor by at least this. */
  private static final double GONE_DB = 6;

  /**
   * One thing that changed.
   *
   * @param group "settings", "path", "conditions" or "readings"
   * @param what its name
   * @param before in the first run
   * @param after in the second run
   * @param direction "up", "down" or "" if there is no order
   */
  public record Change(String group, String what, String before, String after, String direction) {}

  /** Where a line stands. */
  public enum Presence {
    ONLY_FIRST,
    ONLY_SECOND,
    BOTH,
    BOTH_LEVEL_MOVED
  }

  /**
   * One line of either run.
   *
   * @param frequencyHz in the run where it is stronger
   * @param firstLevel level there in the first run
   * @param secondLevel level there in the second run
   */
  public record Line(
      double frequencyHz, double firstLevel, double secondLevel, Presence presence) {}

  /** Compares two runs. */
  public static RunComparison of(RunFacts first, RunFacts second) {
    List<Change> changes = new ArrayList<>();
    compare("settings", settings(first), settings(second), changes);
    compare("path", path(first.path()), path(second.path()), changes);
    compare("conditions", first.conditions(), second.conditions(), changes);
    compare("readings", readings(first), readings(second), changes);
    Series a = first.outcome().main().orElse(null);
    Series b = second.outcome().main().orElse(null);
    boolean lines = a != null && b != null && comparable(a, b);
    return new RunComparison(
        differences(first.outcome(), second.outcome()),
        List.copyOf(changes),
        lines ? lines(first.outcome(), second.outcome(), a, b) : List.of());
  }

  private static boolean comparable(Series a, Series b) {
    return a.real() && b.real() && a.x().like(b.x()) && a.unit().equals(b.unit());
  }

  /** The main series of both, then those of the same id. */
  private static List<Series> differences(Outcome first, Outcome second) {
    List<Series> all = new ArrayList<>();
    for (Series a : first.series()) {
      if (a.role() == Series.Role.DATA) {
        second.series(a.id()).map(b -> difference(a, b)).ifPresent(all::add);
      }
    }
    if (all.isEmpty() && first.main().isPresent() && second.main().isPresent()) {
      Series mains = difference(first.main().get(), second.main().get());
      if (mains != null) {
        all.add(mains);
      }
    }
    return List.copyOf(all);
  }

  private static Series difference(Series first, Series second) {
    if (!comparable(first, second) || first.x().points() == 0 || second.x().points() == 0) {
      return null;
    }
    double start = Math.max(first.x().first(), second.x().first());
    double stop = Math.min(first.x().last(), second.x().last());
    Series finer = spacing(first) <= spacing(second) ? first : second;
    double slack = 1e-6 * spacing(finer);
    int from = 0;
    int to = finer.x().points() - 1;
    while (from <= to && finer.x().at(from) < start - slack) {
      from++;
    }
    while (to >= from && finer.x().at(to) > stop + slack) {
      to--;
    }
    if (to < from) {
      return null;
    }
    double[] y = new double[to - from + 1];
    for (int i = 0; i < y.length; i++) {
      double at = Math.min(Math.max(finer.x().at(from + i), start), stop);
      y[i] = second.valueAt(at) - first.valueAt(at);
    }
    Axis x =
        finer.x().own() == null
            ? Axis.even(
                finer.x().quantity(),
                finer.x().unit(),
                finer.x().at(from),
                finer.x().step(),
                y.length)
            : Axis.own(
                finer.x().quantity(),
                finer.x().unit(),
                Arrays.copyOfRange(finer.x().own(), from, to + 1));
    String plane =
        first.plane().equals(second.plane())
            ? first.plane()
            : first.plane() + " / " + second.plane();
    return new Series(
        finer.id(),
        finer.label(),
        Series.Role.DATA,
        plane,
        first.calibrated() && second.calibrated(),
        finer.x().logarithmic() ? x.overDecades() : x,
        finer.quantity(),
        finer.unit().startsWith("dB") ? "dB" : finer.unit(),
        new Values.Real(y),
        List.of());
  }

  private static double spacing(Series s) {
    int n = s.x().points();
    return n < 2 ? Double.POSITIVE_INFINITY : (s.x().last() - s.x().first()) / (n - 1);
  }

  private static List<Peak> peaks(Outcome o) {
    return o.table(Outcome.LINES).map(ResultTable::rows).orElse(List.of()).stream()
        .map(r -> new Peak(r.cells().get(0).value(), r.cells().get(1).value()))
        .toList();
  }

  private static List<Line> lines(Outcome first, Outcome second, Series a, Series b) {
    double rbw = Math.max(a.fact(TraceSeries.RBW), b.fact(TraceSeries.RBW));
    if (Double.isNaN(rbw)) {
      return List.of();
    }
    double sameHz = SAME_LINE_RBW * rbw;
    List<Line> lines = new ArrayList<>();
    Set<Peak> used = new LinkedHashSet<>();
    List<Peak> later = peaks(second);
    for (Peak p : peaks(first)) {
      Peak q = nearest(p, later, sameHz, used);
      double other = q != null ? q.level() : strongestNear(b, p.frequencyHz(), sameHz);
      if (q != null) {
        used.add(q);
      }
      if (!Double.isNaN(other)) {
        lines.add(
            new Line(p.frequencyHz(), p.level(), other, presence(q != null, p.level(), other)));
      }
    }
    for (Peak q : later) {
      if (!used.contains(q)) {
        double other = strongestNear(a, q.frequencyHz(), sameHz);
        if (!Double.isNaN(other)) {
          lines.add(new Line(q.frequencyHz(), other, q.level(), presence(false, other, q.level())));
        }
      }
    }
    lines.sort(
        (x, y) ->
            Double.compare(
                Math.max(y.firstLevel(), y.secondLevel()),
                Math.max(x.firstLevel(), x.secondLevel())));
    return List.copyOf(lines);
  }

  private static Presence presence(boolean matched, double first, double second) {
    if (!matched && Math.abs(first - second) >= GONE_DB) {
      return first > second ? Presence.ONLY_FIRST : Presence.ONLY_SECOND;
    }
    return Math.abs(first - second) <= SAME_LEVEL_DB ? Presence.BOTH : Presence.BOTH_LEVEL_MOVED;
  }

  private static Peak nearest(Peak wanted, List<Peak> peaks, double withinHz, Set<Peak> used) {
    Peak best = null;
    double bestHz = withinHz;
    for (Peak p : peaks) {
      double away = Math.abs(p.frequencyHz() - wanted.frequencyHz());
      if (away <= bestHz && !used.contains(p)) {
        best = p;
        bestHz = away;
      }
    }
    return best;
  }

  /** Highest value within a distance of a place; NaN outside the series. */
  private static double strongestNear(Series s, double hz, double withinHz) {
    double best = Double.NaN;
    double[] y = s.y();
    for (int i = 0; i < y.length; i++) {
      if (Math.abs(s.x().at(i) - hz) <= withinHz && !(y[i] <= best)) {
        best = y[i];
      }
    }
    return best;
  }

  private static void compare(
      String group, Map<String, String> first, Map<String, String> second, List<Change> out) {
    Set<String> names = new LinkedHashSet<>(first.keySet());
    names.addAll(second.keySet());
    for (String name : names) {
      String before = first.getOrDefault(name, "");
      String after = second.getOrDefault(name, "");
      if (!Objects.equals(before, after)) {
        out.add(new Change(group, name, before, after, direction(before, after)));
      }
    }
  }

  /** Both texts begin with a number in the same unit, or carry an SI prefix before Hz. */
  private static String direction(String before, String after) {
    double a = leadingNumber(before);
    double b = leadingNumber(after);
    return a < b ? "up" : a > b ? "down" : "";
  }

  private static double leadingNumber(String text) {
    if (text.endsWith("Hz") && !text.endsWith("/Hz")) {
      try {
        return Frequency.parse(text).hertz();
      } catch (rovnik.core.Refusal notANumber) {
        return Double.NaN;
      }
    }
    String number = text.split(" ", 2)[0];
    return number.matches("[+-]?\\d+(\\.\\d+)?") ? Double.parseDouble(number) : Double.NaN;
  }

  /** What was asked for, then what is known of the main series. */
  private static Map<String, String> settings(RunFacts run) {
    Map<String, String> map = new LinkedHashMap<>();
    run.settings().forEach(f -> map.put(f.label(), f.words()));
    run.outcome()
        .main()
        .ifPresent(
            s -> {
              s.facts().stream()
                  .filter(f -> !map.containsKey(f.label()) && !f.label().equals(TraceSeries.ENBW))
                  .forEach(f -> map.put(f.label(), rounded(f).words()));
              map.put("reading plane", s.plane());
              map.put("unit", s.unit());
            });
    return map;
  }

  private static Fact rounded(Fact f) {
    return Double.isNaN(f.value())
        ? f
        : Fact.of(
            f.label(), Double.parseDouble(String.format(Locale.ROOT, "%.3g", f.value())), f.unit());
  }

  private static Map<String, String> path(SignalPath path) {
    Map<String, String> map = new LinkedHashMap<>();
    if (path == null) {
      return map;
    }
    List<String> order = new ArrayList<>();
    Map<String, Integer> seen = new LinkedHashMap<>();
    for (PathElement e : path.elements()) {
      int nth = seen.merge(e.name(), 1, Integer::sum);
      String name = nth == 1 ? e.name() : e.name() + " (" + nth + ")";
      order.add(name);
      map.put(name, describe(e));
    }
    map.put("order", String.join(" > ", order));
    return map;
  }

  private static String describe(PathElement e) {
    if (!Double.isNaN(e.outputLevelDbm())) {
      return db(e.outputLevelDbm(), "dBm");
    }
    String gain =
        e.gain() instanceof Gain.Fixed fixed
            ? db(fixed.gainDb(), "dB")
            : "table of " + ((Gain.Table) e.gain()).gainDb().length + " rows";
    return gain + " +-" + e.toleranceDb() + " dB";
  }

  private static Map<String, String> readings(RunFacts run) {
    Map<String, String> map = new LinkedHashMap<>();
    for (Reading r : run.outcome().readings()) {
      String name = r.label() + " (" + r.unit() + ")";
      String value =
          Double.isNaN(r.value())
              ? "not read"
              : String.format(
                  Locale.ROOT, r.unit().equals("Hz") ? "%.1f %s" : "%.2f %s", r.value(), r.unit());
      if (!r.marks().isEmpty()) {
        value += ": " + String.join(", ", r.marks());
      } else if (!r.verdict().label().isEmpty()) {
        value += ", " + r.verdict().label();
      }
      map.put(name, value);
    }
    return map;
  }

  private static String db(double value, String unit) {
    return String.format(Locale.ROOT, "%.2f %s", value, unit);
  }
}
