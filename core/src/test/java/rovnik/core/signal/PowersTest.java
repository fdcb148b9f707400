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
}
