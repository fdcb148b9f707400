package rovnik.server.live;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;

/**
 * A stretch of samples that becomes a recording.
 *
 * @param name of the recording
 * @param fromSeconds where it begins, as the outcome counts; null for the newest
 * @param seconds at most
 */
@Schema(name = "LiveCut")
public record Cut(String name, @Nullable Double fromSeconds, double seconds) {}
