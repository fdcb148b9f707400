package rovnik.core.receiver;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.DoubleUnaryOperator;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.uncertainty.UncertaintyBudget;

/** The level at which a receiver is just good enough. */
public final class Sensitivity {
  public static final String KIND = "sensitivity";
  public static final String TITLE = "Sensitivity";

  private Sensitivity() {}

  /**
   * What is known after these looks.
   *
   * @param fit share that is wrong at a level, as it was fitted; null if nothing was
   * @param highestDbm sensitivity that passes, NaN for no limit
   */
  public static Outcome of(
      Criterion criterion,
      LevelEstimate found,
      List<LevelPoint> looks,
      DoubleUnaryOperator fit,
      ReceiverModel model,
      LevelAtReceiver at,
      double highestDbm) {
    LevelCurves curves = new LevelCurves(looks, model, at.plane());
    List<Reading> readings = new ArrayList<>();
    StringBuilder words = new StringBuilder();
    if (found.known()) {
      UncertaintyBudget budget = at.budget(found.standardDb());
      readings.add(
          LevelRun.reading(
              "sensitivity",
              "Sensitivity at " + criterion.words(),
              found.dbm(),
              budget,
              at,
              new Limit(Double.NaN, highestDbm)));
      words.append(
          String.format(
              Locale.ROOT,
              "%.2f dBm for %s; by chance within ±%.2f dB, with level and path ±%.2f dB.",
              found.dbm(),
              criterion.words(),
              2 * found.standardDb(),
              budget.expanded()));
      if (criterion.of() == Criterion.Of.BER && model.comparable()) {
        readings.add(theory(criterion, found, model, at, budget));
      }
    } else {
      words.append("Not found yet.");
    }
    return new Outcome(
        KIND,
        TITLE,
        words.toString(),
        curves.series(criterion, found, fit),
        List.of(curves.table()),
        readings,
        List.of(),
        List.of());
  }

  private static Reading theory(
      Criterion criterion,
      LevelEstimate found,
      ReceiverModel model,
      LevelAtReceiver at,
      UncertaintyBudget budget) {
    double loss = found.dbm() - model.theoryDbm(criterion.target());
    return new Reading(
        "loss",
        model.lossLabel(),
        loss,
        "dB",
        at.plane(),
        budget.expanded(),
        budget.contributions(),
        Limit.NONE,
        Verdict.NONE,
        List.of());
  }
}
