package rovnik.core.modulation.ofdm;

import java.util.List;

/** What a packet says of itself behind SIGNAL. */
sealed interface PacketHeader
    permits HtSignal, VhtSignal, HeSignal, HeSharedSignal, HeTriggeredSignal, UniversalSignal {
  PacketFormat format();

  /** Why nothing of it can be believed, "" if it can. */
  String wrong();

  /** Bit by bit. */
  List<HeaderBits.Part> parts();

  /** Why its data are not read, "" if they are. */
  String unread();

  /** How its data are read; only if they are. */
  PacketBody data();
}
