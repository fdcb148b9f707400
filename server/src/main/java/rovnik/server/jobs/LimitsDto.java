package rovnik.server.jobs;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.core.limits.LimitSet;

/** Limits of a job at the output of its source; null where nothing is demanded. */
@Schema(name = "Limits")
public record LimitsDto(
    Double nominalHz,
    Double frequencyTolerancePpm,
    Double nominalLevelDbm,
    Double levelMinusDb,
    Double levelPlusDb) {

  static final LimitsDto NONE = new LimitsDto(null, null, null, null, null);

  private static double orNan(Double value) {
    return value == null ? Double.NaN : value;
  }

  public LimitSet toCore() {
    return new LimitSet(
        orNan(nominalHz),
        orNan(frequencyTolerancePpm),
        orNan(nominalLevelDbm),
        orNan(levelMinusDb),
        orNan(levelPlusDb));
  }
}
