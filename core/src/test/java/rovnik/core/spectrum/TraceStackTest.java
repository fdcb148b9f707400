package rovnik.core.spectrum;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;

/** Every mode against a straightforward computation over all spectra. */
public class TraceStackTest {
  private static final int POINTS = 200;

  /** Exponential power: what one bin of white noise does from record to record. */
  private static List<double[]> noise(int spectra) {
    Random random = new Random(17);
    List<double[]> all = new ArrayList<>();
    for (int i = 0; i < spectra; i++) {
      double[] p = new double[POINTS];
      for (int k = 0; k < POINTS; k++) {
        p[k] = -Math.log(1 - random.nextDouble());
      }
      all.add(p);
    }
    return all;
  }

  private static double[] run(TraceRow row, List<double[]> spectra) {
    TraceStack stack = new TraceStack(List.of(row), POINTS, List.of());
    spectra.forEach(stack::take);
    assertEquals(stack.taken(0), spectra.size());
    return stack.power(0);
  }

  @DataProvider
  public Object[][] counts() {
    return new Object[][] {{1}, {7}, {64}, {256}};
  }

  @Test(dataProvider = "counts")
  public void averagesOfTheNewest(int count) {
    List<double[]> all = noise(300);
    double[] power = run(TraceRow.of(TraceMode.POWER_AVERAGE, count), all);
    double[] log = run(TraceRow.of(TraceMode.LOG_AVERAGE, count), all);
    int slot = (count + 63) / 64; // more than 64 are held in slots of that many
    int held = count + (300 - count) % slot;
    for (int k = 0; k < POINTS; k++) {
      double sum = 0;
      double logs = 0;
      int used = 300 - (300 - count) / slot * slot;
      for (int i = 300 - used; i < 300; i++) {
        sum += all.get(i)[k];
        logs += Math.log(all.get(i)[k]);
      }
      assertEquals(used, held);
      assertEquals(power[k], sum / used, 1e-9);
      assertEquals(Math.log(log[k]), logs / used, 1e-9);
    }
  }

  @Test
  public void fadingAverageCountsANewOneWithOneOverN() {
    List<double[]> all = noise(50);
    double[] faded = run(TraceRow.of(TraceMode.EXPONENTIAL_AVERAGE, 8), all);
    double[] plain = new double[POINTS];
    for (int i = 0; i < 50; i++) {
      double weight = 1.0 / Math.min(i + 1, 8);
      for (int k = 0; k < POINTS; k++) {
        plain[k] = (1 - weight) * plain[k] + weight * all.get(i)[k];
      }
    }
    assertEquals(faded, plain, 1e-12);
  }

  @Test
  public void holdsKeepTheExtremes() {
    List<double[]> all = noise(40);
    double[] high = run(TraceRow.of(TraceMode.HIGHEST, 1), all);
    double[] low = run(TraceRow.of(TraceMode.LOWEST, 1), all);
    double[] live = run(TraceRow.of(TraceMode.LIVE, 1), all);
    for (int k = 0; k < POINTS; k++) {
      int at = k;
      assertEquals(high[k], all.stream().mapToDouble(p -> p[at]).max().getAsDouble());
      assertEquals(low[k], all.stream().mapToDouble(p -> p[at]).min().getAsDouble());
      assertEquals(live[k], all.get(39)[k]);
    }
  }

  /**
   * White noise: a power average of N scatters by 1/sqrt(N) (chi-square with 2N degrees of freedom:
   * 100 averages 10 %), and the log average reads 2.51 dB low (Euler's constant, 10 x 0.5772 / ln
   * 10).
   */
  @Test
  public void whiteNoiseBehavesAsTheTheorySays() {
    List<double[]> all = noise(100);
    double[] power = run(TraceRow.of(TraceMode.POWER_AVERAGE, 100), all);
    double mean = Arrays.stream(power).average().getAsDouble();
    double variance =
        Arrays.stream(power).map(p -> (p - mean) * (p - mean)).average().getAsDouble();
    assertEquals(mean, 1, 0.03);
    assertEquals(Math.sqrt(variance), 0.1, 0.015);
    double[] log = run(TraceRow.of(TraceMode.LOG_AVERAGE, 100), all);
    double logMean = Arrays.stream(log).map(p -> 10 * Math.log10(p)).average().getAsDouble();
    assertEquals(logMean, -2.51, 0.1);
    // Highest of n exponentials: the mean is the harmonic number, ln n + 0.5772.
    double[] high = run(TraceRow.of(TraceMode.HIGHEST, 1), all);
    assertEquals(Arrays.stream(high).average().getAsDouble(), Math.log(100) + 0.5772, 0.3);
    double[] low = run(TraceRow.of(TraceMode.LOWEST, 1), all);
    assertEquals(Arrays.stream(low).average().getAsDouble(), 0.01, 0.003);
  }

  @Test
  public void mathAndFrozenRows() {
    List<TraceRow> rows =
        List.of(
            TraceRow.of(TraceMode.LIVE, 1),
            TraceRow.of(TraceMode.FROZEN, 1),
            TraceRow.math(TraceMode.RATIO, 0, 1),
            TraceRow.math(TraceMode.REST, 0, 1));
    TraceStack stack = new TraceStack(rows, 2, List.of());
    stack.take(new double[] {1, 4});
    stack.take(new double[] {3, 2});
    assertEquals(stack.power(1), new double[] {1, 4});
    assertEquals(stack.power(2), new double[] {3, 0.5});
    assertEquals(stack.power(3), new double[] {2, 0});
    TraceStack next = new TraceStack(rows, 2, stack.frozen());
    next.take(new double[] {8, 8});
    assertEquals(next.power(2), new double[] {8, 2});
    assertEquals(rows.get(2).label(), "1 \u2212 2 in dB");
  }

  @Test
  public void rowsThatCannotBeAreRefused() {
    assertThrows(Refusal.class, () -> TraceRow.of(TraceMode.POWER_AVERAGE, 257));
    assertThrows(Refusal.class, () -> TraceRow.of(null, 1));
    assertThrows(Refusal.class, () -> TraceRow.math(TraceMode.RATIO, 0, 6));
    List<TraceRow> self = List.of(TraceRow.math(TraceMode.RATIO, 0, 0));
    assertThrows(Refusal.class, () -> new TraceStack(self, 5, List.of()));
    List<TraceRow> large = List.of(TraceRow.of(TraceMode.POWER_AVERAGE, 256));
    Refusal r =
        org.testng.Assert.expectThrows(
            Refusal.class, () -> new TraceStack(large, 1 << 19, List.of()));
    assertTrue(r.getMessage().contains("fading average"));
  }

  /** One look at white noise in fewer points: what each way of reducing must show. */
  @Test
  public void fewerPointsThanBins() {
    Random random = new Random(5);
    float[] level = new float[100_000];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) (10 * Math.log10(-Math.log(1 - random.nextDouble())));
    }
    Trace t = new Trace(0, 1, level, "dBm", "", 1, 1, 1, "", "");
    assertEquals(meanPower(PointReducer.RMS.reduce(t, 1000)), 1, 0.02);
    assertEquals(meanPower(PointReducer.SAMPLE.reduce(t, 1000)), 1, 0.1);
    assertEquals(meanPower(PointReducer.PEAK.reduce(t, 1000)), Math.log(100) + 0.5772, 0.15);
    assertEquals(meanPower(PointReducer.NEGATIVE_PEAK.reduce(t, 1000)), 0.01, 0.001);
    Trace reduced = PointReducer.PEAK.reduce(t, 1000);
    assertEquals(reduced.points(), 1000);
    assertEquals(reduced.frequencyHz(0), 49.5, 1e-9);
    assertEquals(reduced.stepHz(), 100.0);
    Trace odd = PointReducer.PEAK.reduce(t, 999);
    assertTrue(odd.points() <= 999 && odd.stopHz() < 100_100);
    assertEquals(PointReducer.SAMPLE.reduce(t, 100_000), t);
  }

  private static double meanPower(Trace t) {
    double sum = 0;
    for (float v : t.level()) {
      sum += Math.pow(10, v / 10);
    }
    return sum / t.points();
  }
}
