package rovnik.server.jobs;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.core.limits.LimitSet;
import rovnik.server.results.Nulls;

/** Limits of a job at the output of its source; null where nothing is demanded. */
@Schema(name = "Limits")
public record LimitsDto(
    @Nullable Double nominalHz,
    @Nullable Double frequencyTolerancePpm,
    @Nullable Double nominalLevelDbm,
    @Nullable Double levelMinusDb,
    @Nullable Double levelPlusDb) {

  public static final LimitsDto NONE = new LimitsDto(null, null, null, null, null);

  public LimitSet toCore() {
    return new LimitSet(
        Nulls.orNan(nominalHz),
        Nulls.orNan(frequencyTolerancePpm),
        Nulls.orNan(nominalLevelDbm),
        Nulls.orNan(levelMinusDb),
        Nulls.orNan(levelPlusDb));
  }
}
