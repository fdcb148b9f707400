package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.ofdm.SentUser;

/**
 * One of several users of a packet.
 *
 * @param tones of its unit: 26, 52, 106, 242, 484 or 996
 * @param place of that among all of its size, from the lowest, which is 1
 * @param station its number, 0 to 2045
 * @param mcs 0 to 11
 * @param levelDb of its tones over those of others, -12 to 12, null for 0
 */
@Schema(name = "SentUser")
public record SentUserDto(int tones, int place, int station, int mcs, @Nullable Double levelDb) {
  SentUser toCore() {
    return new SentUser(tones, place, station, mcs, levelDb == null ? 0 : levelDb);
  }
}
