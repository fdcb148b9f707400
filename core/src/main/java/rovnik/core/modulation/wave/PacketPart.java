package rovnik.core.modulation.wave;

import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.ofdm.FrameCheck;
import rovnik.core.modulation.ofdm.LegacyPacket;
import rovnik.core.modulation.ofdm.LegacyRate;
import rovnik.core.modulation.ofdm.SentPacket;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/**
 * An OFDM packet of IEEE 802.11-2020 clause 17, 19 or 21, or of HE or EHT, again and again: PN9 and
 * a frame check sequence.
 *
 * @param packet what is sent, with so many bytes
 * @param bytes with the frame check sequence
 * @param intervalSeconds from the beginning of one to that of the next
 * @param channelHz its width, as the packet has it
 */
public record PacketPart(SentPacket packet, int bytes, double intervalSeconds, double channelHz)
    implements WavePart {
  /** What the standard's example begins with. */
  private static final int SCRAMBLER = 0b1011101;

  /** Of a symbol of its tones, against mean power 1. */
  private static final double SCALE = 64 / Math.sqrt(52);

  public PacketPart {
    if (bytes <= FrameCheck.BYTES || bytes > packet.mostBytes()) {
      throw new Refusal(
          "bytes",
          String.format(
              Locale.ROOT,
              "A packet has 5 to %,d bytes, 4 of them the check sequence.",
              packet.mostBytes()));
    }
    String refused = packet.refused(channelHz);
    if (!refused.isEmpty()) {
      throw new Refusal("bandHz", refused);
    }
    if (!(intervalSeconds <= 1)) {
      throw new Refusal("intervalSeconds", "Packets follow one another within 1 s.");
    }
    double lasts = packet.seconds(channelHz);
    if (!(intervalSeconds > lasts)) {
      throw new Refusal(
          "intervalSeconds",
          "A packet lasts " + Seconds.words(lasts) + "; the next begins later than that.");
    }
  }

  /** A packet of clause 17. */
  public PacketPart(LegacyRate rate, int bytes, double intervalSeconds, double channelHz) {
    this(LegacyPacket.of(rate, bytes), bytes, intervalSeconds, channelHz);
  }

  @Override
  public String words() {
    return "OFDM packets of "
        + bytes
        + " bytes, "
        + packet.label()
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
    float[] one = packet.samples(framed(), SCRAMBLER, times);
    double[] out = new double[2 * samples];
    for (double t = 0; ; t += intervalSeconds) {
      long first = Math.round(t * sampleRateHz);
      if (first >= samples) {
        return out;
      }
      for (int n = 0; n < one.length / 2 && first + n < samples; n++) {
        out[2 * (int) (first + n)] += SCALE * one[2 * n];
        out[2 * (int) (first + n) + 1] += SCALE * one[2 * n + 1];
      }
    }
  }

  private byte[] framed() {
    byte[] out = new byte[bytes];
    int count = 8 * (bytes - FrameCheck.BYTES);
    long[] bits = Prbs.PN9.bits(count);
    for (int i = 0; i < count; i++) {
      out[i / 8] |= (byte) (Prbs.get(bits, i) ? 1 << i % 8 : 0);
    }
    FrameCheck.seal(out);
    return out;
  }
}
