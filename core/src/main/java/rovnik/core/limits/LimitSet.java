package rovnik.core.limits;

import rovnik.core.Refusal;

/**
 * What a job demands of its transmitter, at the output of the source. NaN where nothing is
 * demanded.
 *
 * @param nominalHz nominal carrier frequency
 * @param frequencyTolerancePpm allowed error, plus or minus
 * @param nominalLevelDbm nominal carrier power
 * @param levelMinusDb allowed distance below, positive
 * @param levelPlusDb allowed distance above, positive
 */
public record LimitSet(
    double nominalHz,
    double frequencyTolerancePpm,
    double nominalLevelDbm,
    double levelMinusDb,
    double levelPlusDb) {

  public static final LimitSet NONE =
      new LimitSet(Double.NaN, Double.NaN, Double.NaN, Double.NaN, Double.NaN);

  public LimitSet {
    if (nominalHz <= 0) {
      throw new Refusal("nominalHz", "The nominal frequency must be more than 0 Hz.");
    }
    refuseNegative("frequencyTolerancePpm", frequencyTolerancePpm);
    refuseNegative("levelMinusDb", levelMinusDb);
    refuseNegative("levelPlusDb", levelPlusDb);
  }

  private static void refuseNegative(String field, double value) {
    if (value < 0 || Double.isInfinite(value)) {
      throw new Refusal(field, "A tolerance is a positive number; the sign is understood.");
    }
  }

  /** The allowed window of carrier power at a plane with this gain from the source. */
  public Limit levelAt(double gainFromSourceDb) {
    return new Limit(
        nominalLevelDbm + gainFromSourceDb - levelMinusDb,
        nominalLevelDbm + gainFromSourceDb + levelPlusDb);
  }

  /** The allowed window of the frequency error in hertz. */
  public Limit frequencyErrorHz() {
    double toleranceHz = nominalHz * frequencyTolerancePpm * 1e-6;
    return new Limit(-toleranceHz, toleranceHz);
  }
}
