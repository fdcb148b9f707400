package rovnik.core.uncertainty;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class SquareScatterTest {
  /** What is kept of a value in the next, and how many there are. */
  @DataProvider
  public Object[][] memories() {
    return new Object[][] {{0.0, 500}, {0.5, 500}, {0.9, 1000}, {0.97, 6000}};
  }

  private static double[] chain(double keep, int n, Random random) {
    double[] x = new double[n];
    double last = random.nextGaussian();
    for (int i = 0; i < n; i++) {
      last = keep * last + Math.sqrt(1 - keep * keep) * random.nextGaussian();
      x[i] = last;
    }
    return x;
  }

  private static double meanSquare(double[] x) {
    double sum = 0;
    for (double v : x) {
      sum += v * v;
    }
    return sum / x.length;
  }

  /**
   * The squares of a first-order autoregression of variance 1 have a covariance of 2 a^(2 lag), so
   * that their mean has a variance of 2 (1 + a^2) / (1 - a^2) / n (Isserlis' theorem).
   */
  @Test(dataProvider = "memories")
  public void isAsWideAsTheMeanSquareScatters(double keep, int n) {
    double truth = Math.sqrt(2 * (1 + keep * keep) / (1 - keep * keep) / n);
    int trials = 400;
    int inside = 0;
    double sum = 0;
    Random random = new Random(5);
    for (int k = 0; k < trials; k++) {
      double[] x = chain(keep, n, random);
      double relative = SquareScatter.relative(x);
      sum += relative / trials;
      double mean = meanSquare(x);
      inside += Math.abs(mean - 1) < 2 * relative * mean ? 1 : 0;
    }
    assertEquals(sum, truth * (1 + truth), 0.15 * truth);
    assertTrue(inside > 0.92 * trials && inside < 0.985 * trials, inside + " of " + trials);
  }

  /** Of white complex noise each value tells 1, of noise that goes one way 2. */
  @Test
  public void knowsOneWayAndTwo() {
    Random random = new Random(6);
    double[] x = chain(0, 20_000, random);
    double[] y = chain(0, 20_000, random);
    assertEquals(SquareScatter.perValue(x, y), 1, 0.05);
    assertEquals(SquareScatter.perValue(x, new double[20_000]), 2, 0.1);
    assertEquals(SquareScatter.perValue(new double[4]), 0, 0);
  }
}
