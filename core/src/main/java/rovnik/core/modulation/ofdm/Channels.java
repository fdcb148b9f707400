package rovnik.core.modulation.ofdm;

import java.util.HashMap;
import java.util.Map;
import java.util.function.IntFunction;

/** Samples of a channel, and of those of its 20 MHz in which packets say what they are. */
final class Channels {
  private final ChannelSamples whole;
  private final IntFunction<ChannelSamples> taken;
  private final Map<Integer, ChannelSamples> preambles = new HashMap<>();

  /**
   * @param whole all of the channel
   * @param taken one of its parts from the lowest, the first is 0; only when it is asked for
   */
  Channels(ChannelSamples whole, IntFunction<ChannelSamples> taken) {
    this.whole = whole;
    this.taken = taken;
  }

  ChannelSamples whole() {
    return whole;
  }

  ChannelSamples preamble(int part) {
    return preambles.computeIfAbsent(part, taken::apply);
  }

  /**
   * What was found in the lowest part, in others of these samples.
   *
   * @param later so many samples
   * @param hz by how much the carrier of the others is higher
   */
  PacketFinder.Found moved(PacketFinder.Found found, int later, double hz, ChannelSamples to) {
    ChannelSamples from = preamble(0);
    int at = found.training() + later;
    if (to == from) {
      return new PacketFinder.Found(at, found.offset());
    }
    double carrierHz = from.offsetHz() + found.offset() * from.rateHz() / (2 * Math.PI) + hz;
    return new PacketFinder.Found(
        to.placeOf(from.seconds(at)), (carrierHz - to.offsetHz()) * 2 * Math.PI / to.rateHz());
  }
}
