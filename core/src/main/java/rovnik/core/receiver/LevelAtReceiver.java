package rovnik.core.receiver;

import rovnik.core.path.SignalPath;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.core.uncertainty.LevelUncertainty;
import rovnik.core.uncertainty.UncertaintyBudget;

/**
 * What a receiver at the end of a path gets of what the source at its beginning sends.
 *
 * @param path from the generator to the receiver
 * @param sourceHz frequency at the generator
 * @param source how far off its level may be
 */
public record LevelAtReceiver(SignalPath path, double sourceHz, InstrumentAccuracy source) {

  /** Gain from the generator's output to the receiver's connector. */
  public double gainDb() {
    return path.gainBetweenDb(0, path.planes() - 1, sourceHz);
  }

  /** The same from the other input of the path's first combiner; NaN if there is none. */
  public double sideGainDb() {
    for (int i = 1; i < path.planes(); i++) {
      if (!Double.isNaN(path.elements().get(i).sideGainDb())) {
        double hz = path.frequencyBetween(0, i, sourceHz);
        return path.elements().get(i).sideGainDb() + path.gainBetweenDb(i, path.planes() - 1, hz);
      }
    }
    return Double.NaN;
  }

  /** Name of the receiver's connector. */
  public String plane() {
    return path.planeName(path.planes() - 1);
  }

  /** Frequency at the receiver of what has {@link #sourceHz} at the generator. */
  public double hz() {
    return path.frequencyBetween(0, path.planes() - 1, sourceHz);
  }

  /**
   * Uncertainty of a level there: the generator's accuracy, each element's tolerance, mismatch at
   * every joint, and what chance does.
   */
  public UncertaintyBudget budget(double statisticalDb) {
    return LevelUncertainty.of(path.withReadingPlane(0), source, statisticalDb);
  }
}
