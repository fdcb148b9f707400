package rovnik.core.signal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;

/** A band taken from samples that go on. */
public class BandStreamTest {
  private static final double RATE = 1e6;

  private static BandStream stream() {
    return new BandStream(
        RATE, 123_456, 12e3, 30e3, 1e-3, hz -> Math.max(0, Math.min(1, (12e3 - hz) / 4e3)));
  }

  private static List<float[]> taken(float[] iq, int... cuts) {
    BandStream s = stream();
    List<float[]> out = new ArrayList<>();
    BandStream.Sink sink =
        (re, im, from, count) -> {
          for (int i = from; i < from + count; i++) {
            out.add(new float[] {re[i], im[i]});
          }
        };
    int at = 0;
    for (int cut : cuts) {
      s.take(iq, at, cut - at, sink);
      at = cut;
    }
    s.take(iq, at, iq.length / 2 - at, sink);
    s.end(sink);
    return out;
  }

  /** A tone in the band turns on from stretch to stretch, as strong as it is, at its place. */
  @Test
  public void aToneGoesOn() {
    int n = 200_000;
    float[] iq = new float[2 * n];
    double hz = 123_456 + 3_210.5;
    for (int i = 0; i < n; i++) {
      iq[2 * i] = (float) (0.3 * Math.cos(2 * Math.PI * hz * i / RATE));
      iq[2 * i + 1] = (float) (0.3 * Math.sin(2 * Math.PI * hz * i / RATE));
    }
    BandStream s = stream();
    List<float[]> z = taken(iq, 10, 77_777);
    assertEquals(z.size(), n * s.outRateHz() / RATE, 1);
    double step = 2 * Math.PI * (hz - s.offsetHz()) / s.outRateHz();
    int rings = (int) Math.ceil(1e-3 * s.outRateHz());
    for (int i = rings; i < z.size() - rings; i++) {
      assertEquals(z.get(i)[0], 0.3 * Math.cos(step * i), 3e-4, "re " + i);
      assertEquals(z.get(i)[1], 0.3 * Math.sin(step * i), 3e-4, "im " + i);
    }
  }

  /** However the samples are cut, the same comes out; what lies beside the band does not. */
  @Test
  public void cutsDoNotShow() {
    int n = 90_000;
    float[] iq = new float[2 * n];
    Random random = new Random(3);
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) (0.1 * random.nextGaussian());
    }
    List<float[]> once = taken(iq);
    List<float[]> parts = taken(iq, 1, 2, 500, 16_384, 16_385, 50_001);
    assertEquals(parts.size(), once.size());
    for (int i = 0; i < once.size(); i++) {
      assertEquals(parts.get(i)[0], once.get(i)[0], 1e-7);
      assertEquals(parts.get(i)[1], once.get(i)[1], 1e-7);
    }
    double power = 0;
    for (float[] v : once) {
      power += (v[0] * v[0] + v[1] * v[1]) / once.size();
    }
    // Noise of 0.02 a sample over 1 MHz, through 16 kHz flat and two slopes of 4 kHz.
    double share = (16e3 + 2 * 4e3 / 3) / RATE;
    assertEquals(power / (0.02 * share), 1, 0.1);
    assertTrue(stream().outRateHz() >= 30e3);
  }
}
