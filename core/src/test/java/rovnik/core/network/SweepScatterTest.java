package rovnik.core.network;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.Refusal;

public class SweepScatterTest {
  private static final double[] HZ = {1e6, 2e6, 3e6};

  private static NetworkData one(double... s) {
    return new NetworkData(1, new double[] {50}, HZ, s);
  }

  /** Four values around 0.3 + 0.4j: by hand, squares of 4 x 0.01 over 3. */
  @Test
  public void scattersAsByHand() {
    SweepScatter s = new SweepScatter(1, HZ);
    for (double[] d : new double[][] {{0.1, 0}, {-0.1, 0}, {0, 0.1}, {0, -0.1}}) {
      s.take(one(0.3 + d[0], 0.4 + d[1], 0.5, 0, 1, 1));
    }
    double sigma = Math.sqrt(0.04 / 3);
    assertEquals(s.taken(), 4);
    assertEquals(s.standard(1, 1), new double[] {sigma, 0, 0}, 1e-12);
    // 8.686 dB a neper at a magnitude of 0.5; half of the variance lies along it.
    assertEquals(s.standardDb(1, 1)[0], 8.685889638 * sigma / Math.sqrt(2) / 0.5, 1e-9);
  }

  @Test
  public void findsTheNoiseThatWasPutIn() {
    SweepScatter s = new SweepScatter(1, HZ);
    Random random = new Random(5);
    for (int i = 0; i < 4000; i++) {
      double[] v = new double[6];
      for (int k = 0; k < 6; k++) {
        v[k] = 0.7 + 0.01 * random.nextGaussian();
      }
      s.take(one(v));
    }
    assertEquals(SweepScatter.rootMeanSquare(s.standard(1, 1)), 0.01 * Math.sqrt(2), 2e-4);
  }

  @Test
  public void anotherSweepIsRefused() {
    SweepScatter s = new SweepScatter(2, HZ);
    assertEquals(
        expectThrows(Refusal.class, () -> s.take(one(0, 0, 0, 0, 0, 0))).field(), "points");
  }
}
