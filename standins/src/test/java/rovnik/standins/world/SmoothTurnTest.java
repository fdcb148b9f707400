package rovnik.standins.world;

import static org.testng.Assert.assertEquals;

import java.util.Random;
import java.util.function.DoublePredicate;
import java.util.function.DoubleUnaryOperator;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The quick ways of the stand-ins' physics give what the plain ones give. */
public class SmoothTurnTest {
  @DataProvider
  Object[][] rates() {
    return new Object[][] {{25e3}, {2.5e6}, {100e6}};
  }

  @Test(dataProvider = "rates")
  void isTheCarrierSampleBySample(double rateHz) {
    int samples = 50_000;
    double start = 12_345.678;
    DoubleUnaryOperator phase =
        t -> 2 * Math.PI * 8e3 * t + 5000.0 / 2000 * Math.sin(2 * Math.PI * 2000 * t);
    double every = samples / rateHz / 3.7;
    DoublePredicate there = t -> t - Math.floor(t / every) * every < 0.6 * every;
    double[] quick = new double[2 * samples];
    SmoothTurn.add(quick, samples, start, rateHz, 0.3, phase, there);
    for (int n = 0; n < samples; n++) {
      double t = start + n / rateHz;
      double amplitude = there.test(t) ? 0.3 : 0;
      double p = phase.applyAsDouble(t);
      assertEquals(quick[2 * n], amplitude * Math.cos(p), 1e-4, "I of " + n);
      assertEquals(quick[2 * n + 1], amplitude * Math.sin(p), 1e-4, "Q of " + n);
    }
  }

  @Test
  void noiseOfManyValuesIsTheSameAsOneByOne() {
    Noise one = new Noise(new Random(7));
    Noise many = new Noise(new Random(7));
    for (int count : new int[] {1, 5, 4095, 4096, 4097, 30_000}) {
      double[] values = new double[count];
      many.add(values, count, 2);
      for (int i = 0; i < count; i++) {
        assertEquals(values[i], 2 * one.next(), 1e-6, i + " of " + count);
      }
    }
  }
}
