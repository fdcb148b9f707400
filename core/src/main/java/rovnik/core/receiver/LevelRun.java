package rovnik.core.receiver;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.uncertainty.UncertaintyBudget;

/** Quality at one level after the other. */
public final class LevelRun {
  public static final String KIND = "level-run";
  public static final String TITLE = "Level against quality";

  /** EVM this much above its least: noise is as strong as all else. */
  private static final double KNEE = Math.sqrt(2);

  private LevelRun() {}

  /** What is known after these looks. */
  public static Outcome of(List<LevelPoint> looks, ReceiverModel model, LevelAtReceiver at) {
    LevelCurves curves = new LevelCurves(looks, model, at.plane());
    List<Reading> readings = new ArrayList<>();
    StringBuilder words = new StringBuilder();
    double knee = knee(curves.points());
    if (!Double.isNaN(knee)) {
      double step = step(curves.points());
      readings.add(
          reading(
              "knee",
              "Level at which noise makes half of the EVM",
              knee,
              at.budget(step / Math.sqrt(12)),
              at,
              Limit.NONE));
      words.append(String.format(Locale.ROOT, "Below %.1f dBm noise rules the EVM. ", knee));
    }
    double lowest = Double.NaN;
    double lost = Double.NaN;
    for (LevelPoint p : curves.points()) {
      boolean nothing = !p.quality().lost().isEmpty();
      lost = nothing ? p.dbm() : lost;
      lowest = Double.isNaN(lowest) && !nothing ? p.dbm() : lowest;
    }
    if (!Double.isNaN(lost)) {
      words.append(String.format(Locale.ROOT, "At %.1f dBm nothing is received. ", lost));
    }
    if (!Double.isNaN(lowest)) {
      words.append(String.format(Locale.ROOT, "From %.1f dBm on something is received.", lowest));
    }
    return new Outcome(
        KIND,
        TITLE,
        words.toString().strip(),
        curves.series(),
        List.of(curves.table()),
        readings,
        List.of(),
        List.of());
  }

  private static double step(List<LevelPoint> points) {
    return points.size() < 2
        ? 0
        : (points.get(points.size() - 1).dbm() - points.get(0).dbm()) / (points.size() - 1);
  }

  /** Where EVM has left its least, between two levels; NaN if it never does. */
  private static double knee(List<LevelPoint> points) {
    double least = Double.NaN;
    for (LevelPoint p : points) {
      double e = p.quality().evmPercent();
      least = Double.isNaN(least) || e < least ? e : least;
    }
    for (int i = points.size() - 1; i > 0; i--) {
      double above = points.get(i).quality().evmPercent();
      double below = points.get(i - 1).quality().evmPercent();
      if (above <= KNEE * least && below > KNEE * least) {
        double share =
            (Math.log(KNEE * least) - Math.log(above)) / (Math.log(below) - Math.log(above));
        return points.get(i).dbm() - share * (points.get(i).dbm() - points.get(i - 1).dbm());
      }
    }
    return Double.NaN;
  }

  /** A level at the receiver's connector. */
  static Reading reading(
      String id,
      String label,
      double dbm,
      UncertaintyBudget budget,
      LevelAtReceiver at,
      Limit limit) {
    Verdict verdict = limit.judge(dbm, budget.expanded());
    return new Reading(
        id,
        label,
        dbm,
        "dBm",
        at.plane(),
        budget.expanded(),
        budget.contributions(),
        limit,
        verdict,
        List.of());
  }
}
