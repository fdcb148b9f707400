package rovnik.core.signal;

import static org.testng.Assert.assertEquals;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Each way to make powers against sums in double precision. */
public class PowersTest {
  @DataProvider
  public Object[][] ways() {
    return new Object[][] {{new PlainPowers()}, {Powers.fastest()}};
  }

  @Test(dataProvider = "ways")
  public void powersAndBlocks(Powers way) {
    Random random = new Random(2);
    for (int samples : new int[] {1, 63, 64, 65, 1000, 4096}) {
      int from = random.nextInt(9);
      float[] iq = new float[2 * (from + samples)];
      for (int i = 0; i < iq.length; i++) {
        iq[i] = (float) random.nextGaussian();
      }
      int blocks = (samples + Powers.TOGETHER - 1) / Powers.TOGETHER;
      float[] power = new float[samples];
      float[] highest = new float[blocks];
      float[] lowest = new float[blocks];
      float[] sum = new float[blocks];
      way.of(iq, from, samples, power, highest, lowest, sum);
      for (int b = 0; b < blocks; b++) {
        double high = 0;
        double low = Double.POSITIVE_INFINITY;
        double all = 0;
        for (int i = b * 64; i < Math.min(samples, b * 64 + 64); i++) {
          double re = iq[2 * (from + i)];
          double im = iq[2 * (from + i) + 1];
          double p = re * re + im * im;
          assertEquals(power[i], p, 1e-6 * p);
          high = Math.max(high, p);
          low = Math.min(low, p);
          all += p;
        }
        assertEquals(highest[b], high, 1e-6 * high);
        assertEquals(lowest[b], low, 1e-6 * low);
        assertEquals(sum[b], all, 1e-5 * all);
      }
    }
  }

  @Test(dataProvider = "ways")
  public void powersAreGathered(Powers way) {
    Random random = new Random(3);
    for (int points : new int[] {1, 7, 64, 1021}) {
      float[] sum = new float[points];
      float[] lowest = new float[points];
      java.util.Arrays.fill(lowest, Float.POSITIVE_INFINITY);
      float[] highest = new float[points + 5];
      double[] all = new double[points];
      float[] low = lowest.clone();
      float[] high = new float[points];
      for (int spectrum = 0; spectrum < 50; spectrum++) {
        float[] power = new float[points + 3]; // what lies behind the points is not taken
        for (int i = 0; i < power.length; i++) {
          power[i] = random.nextFloat();
        }
        float most = way.gather(power, points, sum, lowest, highest, 5);
        float of = 0;
        for (int i = 0; i < points; i++) {
          of = Math.max(of, power[i]);
        }
        assertEquals(most, of);
        for (int i = 0; i < points; i++) {
          all[i] += power[i];
          low[i] = Math.min(low[i], power[i]);
          high[i] = Math.max(high[i], power[i]);
        }
      }
      for (int i = 0; i < points; i++) {
        assertEquals(sum[i], all[i], 1e-4);
        assertEquals(lowest[i], low[i]);
        assertEquals(highest[5 + i], high[i]);
      }
      assertEquals(highest[4], 0f);
    }
  }
}
