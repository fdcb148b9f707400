package rovnik.core.modulation.ofdm;

/** A kind of packet that can be made. */
public interface SentPacket {
  /** "64-QAM 3/4". */
  String label();

  /** Why a channel of a width does not suit it; "" if it does. */
  String refused(double channelHz);

  /** Bytes of its frame at most. */
  default int mostBytes() {
    return LegacyBits.MOST_BYTES;
  }

  /** How long it lasts. */
  double seconds(double channelHz);

  /**
   * A packet at a multiple of the channel's width.
   *
   * @param frame with its check sequence at the end
   * @param scramblerState 1 to 127
   * @param times samples a second, over the width of the channel
   * @return interleaved samples; half an edge comes before the first symbol and after the last
   */
  float[] samples(byte[] frame, int scramblerState, int times);
}
