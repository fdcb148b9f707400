package rovnik.core.receiver;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.uncertainty.UncertaintyBudget;

/** Where a squelch opens as the level rises, and closes as it falls. */
public final class SquelchLevels {
  public static final String KIND = "squelch";
  public static final String TITLE = "Squelch";

  private SquelchLevels() {}

  /**
   * What is known after these passages.
   *
   * @param opened levels at which it was found open first, one a passage
   * @param closed levels at which it was found closed first
   * @param stepDb between two levels: the truth lies within one before
   */
  public static Outcome of(
      List<Double> opened,
      List<Double> closed,
      double stepDb,
      List<LevelPoint> looks,
      LevelAtReceiver at) {
    List<Reading> readings = new ArrayList<>();
    add(readings, "squelchOpens", "Squelch opens at", opened, -stepDb, at);
    add(readings, "squelchCloses", "Squelch closes at", closed, stepDb, at);
    String words =
        readings.size() < 2
            ? "Not passed both ways yet."
            : String.format(
                Locale.ROOT,
                "It opens at %.1f dBm and closes at %.1f dBm.",
                readings.get(0).value(),
                readings.get(1).value());
    if (readings.size() == 2) {
      double scatter = Math.hypot(chance(opened, stepDb), chance(closed, stepDb));
      UncertaintyBudget budget = new UncertaintyBudget().normal("passages", scatter);
      readings.add(
          new Reading(
              "hysteresis",
              "Hysteresis",
              readings.get(0).value() - readings.get(1).value(),
              "dB",
              at.plane(),
              budget.expanded(),
              budget.contributions(),
              Limit.NONE,
              Verdict.NONE,
              List.of()));
    }
    LevelCurves curves =
        new LevelCurves(
            looks, new ReceiverModel(java.util.Optional.empty(), 0, Double.NaN), at.plane());
    return new Outcome(
        KIND,
        TITLE,
        words,
        curves.series(),
        List.of(curves.table()),
        readings,
        List.of(),
        List.of());
  }

  private static void add(
      List<Reading> out,
      String id,
      String label,
      List<Double> levels,
      double stepDb,
      LevelAtReceiver at) {
    if (levels.isEmpty()) {
      return;
    }
    double mean = levels.stream().mapToDouble(v -> v).average().orElse(0) + stepDb / 2;
    out.add(
        LevelRun.reading(
            id, label, mean, at.budget(chance(levels, Math.abs(stepDb))), at, Limit.NONE));
  }

  /** The step, and how the passages scatter, on their mean. */
  private static double chance(List<Double> levels, double stepDb) {
    int n = levels.size();
    double mean = levels.stream().mapToDouble(v -> v).average().orElse(0);
    double sum = levels.stream().mapToDouble(v -> (v - mean) * (v - mean)).sum();
    double scatter = n > 1 ? Math.sqrt(sum / (n - 1)) : stepDb;
    return Math.max(stepDb / Math.sqrt(12), scatter) / Math.sqrt(n);
  }
}
