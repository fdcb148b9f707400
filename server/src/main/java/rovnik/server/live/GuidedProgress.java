package rovnik.server.live;

import io.swagger.v3.oas.annotations.media.Schema;

/**
 * How far guided work is.
 *
 * @param words what it does at the moment
 * @param progress 0 to 1
 * @param remainingSeconds 0 while it cannot be told
 */
@Schema(name = "GuidedProgress")
public record GuidedProgress(
    String id, String title, String words, double progress, double remainingSeconds) {}
