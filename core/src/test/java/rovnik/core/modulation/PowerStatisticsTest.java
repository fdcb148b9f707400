package rovnik.core.modulation;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Arrays;
import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.result.Series;

/** How power is spread around its mean: signals whose spread is known by formula. */
public class PowerStatisticsTest {
  /** The power of complex Gaussian noise is exponential. */
  @Test
  public void noiseIsExponential() {
    Random random = new Random(1);
    double[] power = new double[200_000];
    for (int i = 0; i < power.length; i++) {
      double a = random.nextGaussian();
      double b = random.nextGaussian();
      power[i] = a * a + b * b;
    }
    PowerStatistics s = new PowerStatistics(power);
    assertEquals(s.mean(), 2, 0.02);
    double[] y = s.ccdf().y();
    double[] noise = PowerStatistics.ofNoise().y();
    for (int i = 0; i < noise.length; i++) {
      // Four standard deviations of a share that is counted.
      double share = noise[i] / 100;
      double chance = 400 * Math.sqrt(share * (1 - share) / power.length) + 1e-3;
      assertEquals(y[i], noise[i], chance, "at " + i / 10.0 + " dB");
    }
    assertEquals(s.exceededDb(0.01), 10 * Math.log10(-Math.log(0.01)), 0.1);
  }

  /** A carrier is never above its mean; one that is on for a tenth of the time, 10 dB then. */
  @Test
  public void carriersThatComeAndGo() {
    double[] power = new double[1000];
    Arrays.fill(power, 3);
    double[] steady = new PowerStatistics(power).ccdf().y();
    assertEquals(steady[0], 100, 1e-9);
    assertEquals(steady[1], 0, 1e-9);
    Arrays.fill(power, 0, 900, 0);
    Series s = new PowerStatistics(power).ccdf();
    assertEquals(s.valueAt(9.9), 10, 1e-9);
    assertEquals(s.valueAt(10.1), 0, 1e-9);
    Arrays.fill(power, 900, 990, 0);
    Series seldom = new PowerStatistics(power).ccdf();
    assertTrue(seldom.x().last() >= 20, "peaks of 20 dB are in it");
    assertEquals(seldom.valueAt(19.9), 1, 1e-9);
  }
}
