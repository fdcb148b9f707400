package rovnik.server.analyzer;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.server.networks.NetworkViewDto;

/**
 * Settings of a live network analyzer.
 *
 * @param sweep how it sweeps
 * @param view what is shown and read of it
 * @param atPart read at the part, pads and cables of the path taken off; null for true
 */
@Schema(name = "NetworkSettings")
public record NetworkSettings(
    SweepDto sweep, NetworkViewDto.@Nullable Request view, @Nullable Boolean atPart) {

  NetworkViewDto.Request viewed() {
    return view == null ? NetworkViewDto.Request.PLAIN : view;
  }

  boolean readAtPart() {
    return !Boolean.FALSE.equals(atPart);
  }
}
