package rovnik.core.modulation.ofdm;

import java.util.List;

/** What a packet says of itself behind SIGNAL. */
sealed interface PacketHeader permits HtSignal, VhtSignal, LaterSignal {
  PacketFormat format();

  /** Why nothing of it can be believed, "" if it can. */
  String wrong();

  /** Bit by bit. */
  List<HeaderBits.Part> parts();

  /** Why its data are not read, "" if they are. */
  String unread();

  /** How its data are coded; only if they are read. */
  Coding coding();

  /** Guard of a symbol with data, samples at 20 MS/s. */
  int guard();

  /** True if its data are coded by parity checks of low density. */
  boolean lowDensity();

  /**
   * Symbols with data.
   *
   * @param room for so many there is until the end that SIGNAL names
   */
  int symbols(int room);
}
