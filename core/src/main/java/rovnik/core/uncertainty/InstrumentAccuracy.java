package rovnik.core.uncertainty;

/**
 * What an instrument's data sheet promises; comes with its dialect.
 *
 * @param levelDb level accuracy, plus or minus, NaN if not stated
 * @param frequencyRelative reference accuracy as a ratio (1e-9), NaN if not stated
 */
public record InstrumentAccuracy(double levelDb, double frequencyRelative) {
  public static final InstrumentAccuracy UNKNOWN = new InstrumentAccuracy(Double.NaN, Double.NaN);
}
