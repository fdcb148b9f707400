package rovnik.core.coverage;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import rovnik.core.result.Reading;

/** Counts how often the truth lies inside the uncertainty that a reading states. */
final class Coverage {
  /** Fewest trials that say anything about 93 to 99.5 %. */
  static final int TRIALS = 200;

  /** What is known of one reading in one setting. */
  static final class Tally {
    private int cases;
    private int inside;
    private int marked;
    private double squares;

    double share() {
      return (double) inside / cases;
    }

    int cases() {
      return cases;
    }

    /** How many root mean square errors U is: 2 for what is just right. */
    double overError() {
      return 1 / Math.sqrt(squares / cases);
    }
  }

  private final Map<String, Tally> tallies = new LinkedHashMap<>();

  /** Notes a reading whose truth is known; one with marks makes no promise and is only counted. */
  void note(String setting, List<Reading> readings, String id, double truth) {
    Reading r = readings.stream().filter(x -> x.id().equals(id)).findFirst().orElseThrow();
    note(
        r.label().replaceFirst("(,| at [-\\d]).*", "") + ", " + setting,
        r.value(),
        r.uncertainty(),
        truth,
        !r.marks().isEmpty());
  }

  void note(String what, double value, double uncertainty, double truth, boolean marked) {
    Tally t = tallies.computeIfAbsent(what, k -> new Tally());
    if (marked || Double.isNaN(value)) {
      t.marked++;
      return;
    }
    double error = value - truth;
    t.cases++;
    t.squares += uncertainty > 0 ? error * error / uncertainty / uncertainty : 1;
    if (Math.abs(error) <= uncertainty) {
      t.inside++;
    }
  }

  Map<String, Tally> tallies() {
    return tallies;
  }

  /** The rows of the table in docs/uncertainty.md. */
  String table() {
    StringBuilder text = new StringBuilder();
    tallies.forEach(
        (what, t) ->
            text.append(
                t.cases == 0
                    ? String.format(Locale.ROOT, "| %s | 0 | | | %d |%n", what, t.marked)
                    : String.format(
                        Locale.ROOT,
                        "| %s | %d | %.1f %% | %.2f | %d |%n",
                        what,
                        t.cases,
                        100 * t.share(),
                        t.overError(),
                        t.marked)));
    return text.toString();
  }
}
