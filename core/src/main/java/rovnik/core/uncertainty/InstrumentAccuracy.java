package rovnik.core.uncertainty;

/**
 * What an instrument's data sheet promises; comes with its dialect.
 *
 * @param levelDb level accuracy, plus or minus, NaN if not stated
 * @param frequencyRelative reference accuracy as a ratio (1e-9), NaN if not stated
 * @param linearityDb accuracy of the difference of two levels on one setting, plus or minus
 * @param errorFloorDb error vector magnitude that it has by itself at most, NaN if not stated
 */
public record InstrumentAccuracy(
    double levelDb, double frequencyRelative, double linearityDb, double errorFloorDb) {
  public static final InstrumentAccuracy UNKNOWN = new InstrumentAccuracy(Double.NaN, Double.NaN);

  /** Linearity as a share of level accuracy, where the data sheet is silent (common practice). */
  private static final double LINEARITY_SHARE = 0.3;

  /** With a linearity that follows from the level accuracy. */
  public InstrumentAccuracy(double levelDb, double frequencyRelative) {
    this(levelDb, frequencyRelative, LINEARITY_SHARE * levelDb);
  }

  /** Nothing is promised of its error vector. */
  public InstrumentAccuracy(double levelDb, double frequencyRelative, double linearityDb) {
    this(levelDb, frequencyRelative, linearityDb, Double.NaN);
  }

  /** The same with an error vector magnitude. */
  public InstrumentAccuracy withErrorFloor(double db) {
    return new InstrumentAccuracy(levelDb, frequencyRelative, linearityDb, db);
  }

  /** The relative error of a voltage that the linearity allows. */
  public double linearityShare() {
    return Math.pow(10, linearityDb / 20) - 1;
  }
}
