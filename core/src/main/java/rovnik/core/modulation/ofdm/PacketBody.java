package rovnik.core.modulation.ofdm;

import java.util.List;

/** How what is behind the headers of a packet is read: a frame with its own training. */
interface PacketBody {
  /** Fields behind SIGNAL and before the data. */
  List<OfdmPacket.Field> fields();

  /** Width of its channel, in 20 MHz. */
  default int width() {
    return 1;
  }

  /** Where the transform of its own training begins, from the first one, samples read of 20 MHz. */
  int training();

  /** True if the signs of its training are not known and have to be learned. */
  boolean learned();

  /**
   * Symbols with data.
   *
   * @param usual symbols of 4 us behind SIGNAL that this names
   */
  int symbols(int usual);

  /** The packet as a frame that begins with its own training. */
  FramePlan plan(int symbols);

  /** How far its tones reach from the middle, over the width of the channel. */
  default double reach() {
    return (MixedTones.LAST + 0.5) / LegacyTones.TRANSFORM;
  }

  /** The same with what only its own training shows; most say all before. */
  default PacketBody withMore(SymbolReader begun, FramePlan plan) {
    return this;
  }

  /** Whose data it has. */
  List<? extends UserData> users();

  /** Units that are looked at where nobody has them. */
  default List<ResourceUnit> watched() {
    return List.of();
  }

  /** All that it says, bit by bit. */
  List<HeaderBits.Part> parts();
}
