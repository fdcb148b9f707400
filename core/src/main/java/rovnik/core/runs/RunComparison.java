package rovnik.core.runs;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import rovnik.core.limits.Reading;
import rovnik.core.path.Gain;
import rovnik.core.path.PathElement;
import rovnik.core.path.SignalPath;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Frequency;

/**
 * What differs between two runs: second minus first.
 *
 * @param difference second minus first in dB on the finer grid of both, over the band they share;
 *     null if they share none or their units differ
 * @param changes what changed in settings, path, conditions and readings
 * @param lines every line of either run and where it stands
 */
public record RunComparison(Trace difference, List<Change> changes, List<Line> lines) {
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
    boolean sameUnit = first.trace().unit().equals(second.trace().unit());
    return new RunComparison(
        sameUnit ? difference(first.trace(), second.trace()) : null,
        List.copyOf(changes),
        sameUnit ? lines(first, second) : List.of());
  }

  private static Trace difference(Trace first, Trace second) {
    double start = Math.max(first.startHz(), second.startHz());
    double stop = Math.min(first.stopHz(), second.stopHz());
    if (stop < start) {
      return null;
    }
    Trace grid = first.stepHz() <= second.stepHz() ? first : second;
    int from = (int) Math.ceil((start - grid.startHz()) / grid.stepHz() - 1e-6);
    int to = (int) Math.floor((stop - grid.startHz()) / grid.stepHz() + 1e-6);
    if (to < from) {
      return null;
    }
    float[] level = new float[to - from + 1];
    for (int i = 0; i < level.length; i++) {
      double f = Math.min(Math.max(grid.frequencyHz(from + i), start), stop);
      level[i] = (float) (second.levelAt(f) - first.levelAt(f));
    }
    return new Trace(
        grid.frequencyHz(from),
        grid.stepHz(),
        level,
        "dB",
        first.plane().equals(second.plane())
            ? first.plane()
            : first.plane() + " / " + second.plane(),
        Math.max(first.rbwHz(), second.rbwHz()),
        Math.max(first.enbwHz(), second.enbwHz()),
        Math.min(first.segments(), second.segments()),
        grid.window(),
        grid.detector());
  }

  private static List<Line> lines(RunFacts first, RunFacts second) {
    double sameHz = SAME_LINE_RBW * Math.max(first.trace().rbwHz(), second.trace().rbwHz());
    List<Line> lines = new ArrayList<>();
    Set<Peak> used = new LinkedHashSet<>();
    for (Peak a : first.peaks()) {
      Peak b = nearest(a, second.peaks(), sameHz, used);
      double other = b != null ? b.level() : strongestNear(second.trace(), a.frequencyHz(), sameHz);
      if (b != null) {
        used.add(b);
      }
      if (!Double.isNaN(other)) {
        lines.add(
            new Line(a.frequencyHz(), a.level(), other, presence(b != null, a.level(), other)));
      }
    }
    for (Peak b : second.peaks()) {
      if (!used.contains(b)) {
        double other = strongestNear(first.trace(), b.frequencyHz(), sameHz);
        if (!Double.isNaN(other)) {
          lines.add(new Line(b.frequencyHz(), other, b.level(), presence(false, other, b.level())));
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

  private static double strongestNear(Trace trace, double hz, double withinHz) {
    double best = Double.NaN;
    int reach = (int) Math.ceil(withinHz / trace.stepHz());
    int at = (int) Math.round((hz - trace.startHz()) / trace.stepHz());
    for (int i = Math.max(0, at - reach); i <= Math.min(trace.points() - 1, at + reach); i++) {
      if (!(trace.level()[i] <= best)) {
        best = trace.level()[i];
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

  private static Map<String, String> settings(RunFacts run) {
    SpectrumSettings s = run.settings();
    Map<String, String> map = new LinkedHashMap<>();
    map.put("centre", Frequency.ofHertz(s.centreHz()).toString());
    map.put("span", Frequency.ofHertz(s.spanHz()).toString());
    map.put("RBW", Frequency.ofHertz(round3(run.trace().rbwHz())).toString());
    map.put("window", s.window().label());
    map.put("detector", s.detector().label());
    map.put("averages", Integer.toString(s.averages()));
    map.put("reference level", db(s.referenceLevelDbm(), "dBm"));
    map.put("channel width", Frequency.ofHertz(s.channelWidthHz()).toString());
    map.put("reading plane", run.trace().plane());
    map.put("level unit", run.trace().unit());
    return map;
  }

  private static double round3(double hertz) {
    return Double.parseDouble(String.format(Locale.ROOT, "%.3g", hertz));
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
    for (Reading r : run.readings()) {
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
