package rovnik.server.jobs;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.core.limits.KnownRate;

/**
 * A clock or interval of a job's device under test that is known.
 *
 * @param hertz how often it comes
 */
@Schema(name = "KnownRate")
public record KnownRateDto(String name, double hertz) {
  KnownRate toCore() {
    return new KnownRate(name == null ? "" : name.strip(), hertz);
  }
}
