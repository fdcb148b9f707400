package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.Test;

/**
 * How surely packets are found, and how surely nothing else is. With {@code -Drovnik.trials=long}
 * as many trials as are claimed; else a tenth of them.
 */
public class DetectionTest extends PacketBench {
  private static final int TENTHS = "long".equals(System.getProperty("rovnik.trials")) ? 10 : 1;

  /** Mean power of what is made. */
  private static final double POWER = 52.0 / 64 / 64;

  /** Samples of a record. */
  private static final int RECORD = 2_000_000;

  private static float[] made(int kind, Random random) {
    byte[] frame = framed(random, 40 + random.nextInt(80));
    int state = 1 + random.nextInt(127);
    return switch (kind) {
      case 0 -> LegacyPacket.samples(LegacyRate.R6, frame, state, 2);
      case 1 -> new MixedPacket(PacketFormat.HT, 0, false, frame.length).samples(frame, state, 2);
      case 2 -> new MixedPacket(PacketFormat.VHT, 0, true, frame.length).samples(frame, state, 2);
      default -> UserPacket.of(PacketFormat.HE, 20e6, 0, 3, frame.length).samples(frame, state, 2);
    };
  }

  /** At 10 dB no more than one of 1,000 is missed or not decoded, whatever its offset and place. */
  @Test
  public void packetsAreFoundInNoise() {
    Random random = new Random(1000);
    int tries = 100 * TENTHS;
    int wrong = 0;
    for (int t = 0; t < tries; t++) {
      PacketFormat[] formats = {
        PacketFormat.LEGACY, PacketFormat.HT, PacketFormat.VHT, PacketFormat.HE
      };
      int kind = t % formats.length;
      double hz = 110e3 * (2 * random.nextDouble() - 1);
      double width = kind == 0 ? 52 * 312.5e3 : kind == 3 ? 242 * 78.125e3 : 56 * 312.5e3;
      float[] iq = received(made(kind, random), hz, 10, random, POWER, width);
      OfdmPacket p = packet(iq, FS, 1);
      boolean right = p != null && p.said().format() == formats[kind] && p.check().isEmpty();
      wrong += right ? 0 : 1;
    }
    assertTrue(wrong <= tries / 1000, wrong + " of " + tries);
  }

  /** Nothing is found in noise, over 1e8 samples in all. */
  @Test
  public void nothingIsFoundInNoise() {
    Random random = new Random(8);
    int found = 0;
    for (int r = 0; r < 5 * TENTHS; r++) {
      float[] iq = new float[2 * RECORD];
      for (int n = 0; n < iq.length; n++) {
        iq[n] = (float) random.nextGaussian();
      }
      ChannelSamples samples = new ChannelSamples(iq, 0, RECORD, FS, 0, 20e6, 0.9);
      double[] re = new double[samples.count()];
      double[] im = new double[samples.count()];
      samples.read(0, 0, re, im);
      found += new PacketFinder(re, im).next(0) == null ? 0 : 1;
    }
    assertEquals(found, 0);
  }
}
