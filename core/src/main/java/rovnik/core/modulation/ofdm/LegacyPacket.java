package rovnik.core.modulation.ofdm;

import rovnik.core.Refusal;

/**
 * Makes packets of IEEE 802.11-2020 clause 17: short training, long training, SIGNAL, data; each
 * symbol under the window of 17.3.2.5. The power of a symbol is that of the standard's example: 52
 * tones of mean power 1, over the length of the transform.
 */
public final class LegacyPacket {
  static final int SHORT_PERIOD = 16;

  /** Samples of each training, at the rate of the channel. */
  static final int TRAINING = 160;

  static final int SYMBOL = LegacyTones.TRANSFORM + LegacyTones.GUARD;

  private LegacyPacket() {}

  /**
   * A packet at a multiple of the channel's width.
   *
   * @param scramblerState 1 to 127
   * @param times samples a second, over the width of the channel
   * @return interleaved samples; half an edge comes before the first symbol and after the last
   */
  public static float[] samples(LegacyRate rate, byte[] bytes, int scramblerState, int times) {
    if (bytes.length < 1 || bytes.length > LegacyBits.MOST_BYTES) {
      throw new Refusal("bytes", "A packet has 1 to 4,095 bytes.");
    }
    if (scramblerState < 1 || scramblerState > Scrambler.PERIOD) {
      throw new Refusal("scrambler", "The scrambler begins with 1 to 127.");
    }
    int symbols = rate.symbolsOf(bytes.length);
    PacketMaker t = new PacketMaker(times, 2 * TRAINING + (1 + symbols) * SYMBOL);
    t.preamble(LegacyBits.signal(rate, bytes.length));
    byte[] bits = LegacyBits.data(rate, bytes, scramblerState);
    byte[] own = new byte[rate.codedBits()];
    for (int s = 0; s < symbols; s++) {
      System.arraycopy(bits, s * own.length, own, 0, own.length);
      t.symbol(own, rate.coding(), s + 1);
    }
    return t.samples();
  }

  /** How long a packet lasts. */
  public static double seconds(LegacyRate rate, int bytes, double channelHz) {
    return (2 * TRAINING + (1 + rate.symbolsOf(bytes)) * SYMBOL) / channelHz;
  }

  /** Packets of a rate with frames of so many bytes. */
  public static SentPacket of(LegacyRate rate, int bytes) {
    return new SentPacket() {
      @Override
      public String label() {
        return rate.label();
      }

      @Override
      public String refused(double channelHz) {
        return channelHz == 5e6 || channelHz == 10e6 || channelHz == 20e6
            ? ""
            : "The channel of a packet is 5, 10 or 20 MHz wide.";
      }

      @Override
      public double seconds(double channelHz) {
        return LegacyPacket.seconds(rate, bytes, channelHz);
      }

      @Override
      public float[] samples(byte[] frame, int scramblerState, int times) {
        return LegacyPacket.samples(rate, frame, scramblerState, times);
      }
    };
  }
}
