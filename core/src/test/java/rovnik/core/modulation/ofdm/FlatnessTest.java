package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;

/** How far the tones of a packet are within the limits of flatness. */
public class FlatnessTest extends PacketBench {
  /** A second path, one sample of 40 MS/s behind. */
  private static float[] tilted(float[] clean, double re, double im) {
    float[] out = clean.clone();
    for (int n = 1; n < clean.length / 2; n++) {
      double x = clean[2 * n - 2];
      double y = clean[2 * n - 1];
      out[2 * n] += (float) (re * x - im * y);
      out[2 * n + 1] += (float) (re * y + im * x);
    }
    return out;
  }

  private static double power(int tone, double re, double im) {
    double turn = -2 * Math.PI * tone * 312.5e3 / FS;
    double x = 1 + re * Math.cos(turn) - im * Math.sin(turn);
    double y = re * Math.sin(turn) + im * Math.cos(turn);
    return x * x + y * y;
  }

  /** Tones to 16 within 4 dB of their mean, those to 26 not over 4 dB, not under 6. */
  private static double margin(double re, double im) {
    double mean = 0;
    for (int k = -16; k <= 16; k++) {
      mean += k == 0 ? 0 : power(k, re, im) / 32;
    }
    double least = Double.POSITIVE_INFINITY;
    for (int k = -26; k <= 26; k++) {
      double db = 10 * Math.log10(power(k, re, im) / mean);
      double low = Math.abs(k) <= 16 ? -4 : -6;
      least = k == 0 ? least : Math.min(least, Math.min(db - low, 4 - db));
    }
    return least;
  }

  @DataProvider
  public Object[][] channels() {
    return new Object[][] {{0, false}, {1, true}};
  }

  /** Even channels and steep ones: the margin that is claimed is the true one, k = 2. */
  @Test(dataProvider = "channels")
  public void theTruthLiesWithinWhatIsClaimed(int seed, boolean steep) {
    Random random = new Random(seed);
    holds(
        100,
        new String[] {"flatnessMargin"},
        t -> {
          double size = steep ? 0.5 * random.nextDouble() : 0;
          double angle = 2 * Math.PI * random.nextDouble();
          double re = size * Math.cos(angle);
          double im = size * Math.sin(angle);
          byte[] frame = framed(random, 200);
          float[] clean = LegacyPacket.samples(LegacyRate.R12, frame, 7, 2);
          double snr = 22 + 8 * random.nextDouble();
          Outcome o = measured(received(tilted(clean, re, im), 3e3, snr, random), FS, 1);
          return new Trial(o, margin(re, im));
        });
  }

  /** Beyond the limit it fails, at the tone where that is; users of a part have no such limit. */
  @Test
  public void whatIsTooSteepFails() {
    Random random = new Random(4);
    byte[] frame = framed(random, 200);
    float[] clean = LegacyPacket.samples(LegacyRate.R12, frame, 7, 2);
    float[] iq = received(tilted(clean, 0, 0.7), 0, 40, random);
    Outcome o = measured(iq, FS, 1);
    assertTrue(margin(0, 0.7) < -0.5);
    assertEquals(value(o, "flatnessMargin"), margin(0, 0.7), 0.15);
    assertEquals(o.reading("flatnessMargin").orElseThrow().verdict(), Verdict.FAIL);
    List<SentUser> users = List.of(new SentUser(26, 9, 1, 3, 0));
    float[] part = UserPacket.of(20e6, users, 1, 100).samples(framed(random, 100), 3, 2);
    Outcome other = measured(received(part, 0, 40, random), FS, 1);
    assertTrue(other.reading("flatnessMargin").isEmpty());
    double[] flat =
        other.series().stream().filter(s -> s.id().equals("flatness")).findFirst().get().y();
    for (double v : flat) {
      assertTrue(Math.abs(v) < 1, "" + v);
    }
  }
}
