package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.ofdm.Trigger;

/**
 * What a trigger asked for, which HE packets that answer it do not say.
 *
 * @param training its kind and the guard: 0 for 1x and 1.6 us, 1 for 2x and 1.6, 2 for 4x and 3.2
 * @param users which units are filled; of each tones, place and mcs count
 * @param lowDensity their bits are in LDPC; null for false
 */
@Schema(name = "Trigger")
public record TriggerDto(int training, List<SentUserDto> users, @Nullable Boolean lowDensity) {
  Trigger toCore() {
    return new Trigger(
        training,
        users == null ? List.of() : users.stream().map(SentUserDto::toCore).toList(),
        lowDensity != null && lowDensity);
  }
}
