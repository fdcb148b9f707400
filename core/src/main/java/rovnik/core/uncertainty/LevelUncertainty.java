package rovnik.core.uncertainty;

import rovnik.core.path.PathElement;
import rovnik.core.path.SignalPath;
import rovnik.core.units.Decibels;

/** The uncertainty of a level that was measured at a port and is referred to a plane. */
public final class LevelUncertainty {
  private LevelUncertainty() {}

  /**
   * Tolerances of all elements between plane and port, mismatch at every joint from the plane on,
   * the instrument's accuracy, and the statistics of the average.
   *
   * @param statisticalDb standard deviation of the reading in dB, from its averaging
   */
  public static UncertaintyBudget of(
      SignalPath path, InstrumentAccuracy accuracy, double statisticalDb) {
    UncertaintyBudget budget = new UncertaintyBudget();
    for (int i = path.readingPlane(); i < path.planes(); i++) {
      PathElement near = path.elements().get(i);
      PathElement far = path.elements().get(i + 1);
      if (i > path.readingPlane()) {
        budget.rectangular(near.name() + " tolerance", near.toleranceDb());
      }
      if (!Double.isNaN(near.returnLossDb()) && !Double.isNaN(far.returnLossDb())) {
        double halfWidthDb =
            Mismatch.highestDb(
                Decibels.reflectionFromReturnLoss(near.returnLossDb()),
                Decibels.reflectionFromReturnLoss(far.returnLossDb()));
        budget.ushaped("mismatch " + near.name() + " / " + far.name(), halfWidthDb);
      }
    }
    if (!Double.isNaN(accuracy.levelDb())) {
      budget.rectangular("instrument level accuracy", accuracy.levelDb());
    }
    return budget.normal("average", statisticalDb);
  }
}
