package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;

/**
 * A point of a mask.
 *
 * @param hz at the reading plane
 * @param levelDb in dBm there (dBFS of a recording without levels)
 */
@Schema(name = "TriggerMaskPoint")
public record TriggerMaskPointDto(double hz, double levelDb) {}
