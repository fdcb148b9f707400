package rovnik.core.modulation.wave;

import java.util.zip.CRC32;
import rovnik.core.Refusal;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.ofdm.LegacyPacket;
import rovnik.core.modulation.ofdm.LegacyRate;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/**
 * An OFDM packet of IEEE 802.11-2020 clause 17, again and again: PN9 and a frame check sequence.
 *
 * @param rate of the data
 * @param bytes with the frame check sequence
 * @param intervalSeconds from the beginning of one to that of the next
 * @param channelHz 5, 10 or 20 MHz
 */
public record PacketPart(LegacyRate rate, int bytes, double intervalSeconds, double channelHz)
    implements WavePart {
  private static final int CHECK_BYTES = 4;
  private static final int MOST_BYTES = 4095;

  /** What the standard's example begins with. */
  private static final int SCRAMBLER = 0b1011101;

  /** Of a symbol of its tones, against mean power 1. */
  private static final double SCALE = 64 / Math.sqrt(52);

  public PacketPart {
    if (bytes <= CHECK_BYTES || bytes > MOST_BYTES) {
      throw new Refusal("bytes", "A packet has 5 to 4,095 bytes, 4 of them the check sequence.");
    }
    if (channelHz != 5e6 && channelHz != 10e6 && channelHz != 20e6) {
      throw new Refusal("bandHz", "The channel of a packet is 5, 10 or 20 MHz wide.");
    }
    if (!(intervalSeconds <= 1)) {
      throw new Refusal("intervalSeconds", "Packets follow one another within 1 s.");
    }
    double lasts = LegacyPacket.seconds(rate, bytes, channelHz);
    if (!(intervalSeconds > lasts)) {
      throw new Refusal(
          "intervalSeconds",
          "A packet lasts " + Seconds.words(lasts) + "; the next begins later than that.");
    }
  }

  @Override
  public String words() {
    return "OFDM packets of "
        + bytes
        + " bytes, "
        + rate.label()
        + ", every "
        + Seconds.words(intervalSeconds);
  }

  @Override
  public double reachHz() {
    return channelHz / 2;
  }

  @Override
  public Period period(double sampleRateHz) {
    return Period.every(intervalSeconds, sampleRateHz);
  }

  @Override
  public double[] make(int samples, double sampleRateHz) {
    int times = (int) Math.rint(sampleRateHz / channelHz);
    if (times < 1 || Math.abs(times * channelHz - sampleRateHz) > 1e-6 * channelHz) {
      throw new Refusal(
          "sampleRateHz",
          "Packets are made at a multiple of their channel, such as "
              + Frequency.ofHertz(2 * channelHz).toString().replace("Hz", "S/s")
              + ".");
    }
    float[] packet = LegacyPacket.samples(rate, framed(), SCRAMBLER, times);
    double[] out = new double[2 * samples];
    for (double t = 0; ; t += intervalSeconds) {
      long first = Math.round(t * sampleRateHz);
      if (first >= samples) {
        return out;
      }
      for (int n = 0; n < packet.length / 2 && first + n < samples; n++) {
        out[2 * (int) (first + n)] += SCALE * packet[2 * n];
        out[2 * (int) (first + n) + 1] += SCALE * packet[2 * n + 1];
      }
    }
  }

  private byte[] framed() {
    byte[] out = new byte[bytes];
    int count = 8 * (bytes - CHECK_BYTES);
    long[] bits = Prbs.PN9.bits(count);
    for (int i = 0; i < count; i++) {
      out[i / 8] |= (byte) (Prbs.get(bits, i) ? 1 << i % 8 : 0);
    }
    CRC32 sum = new CRC32();
    sum.update(out, 0, bytes - CHECK_BYTES);
    for (int i = 0; i < CHECK_BYTES; i++) {
      out[bytes - CHECK_BYTES + i] = (byte) (sum.getValue() >> 8 * i);
    }
    return out;
  }
}
