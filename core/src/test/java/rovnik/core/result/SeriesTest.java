package rovnik.core.result;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.formats.SeriesCsv;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;

public class SeriesTest {
  private static final Axis EVEN = Axis.even(Axis.FREQUENCY, "Hz", 100, 10, 3);
  private static final Axis OWN = Axis.own("Offset", "Hz", new double[] {1, 10, 100});

  @DataProvider
  public Object[][] places() {
    return new Object[][] {
      {EVEN, 100, 0},
      {EVEN, 105, 5},
      {EVEN, 120, 40},
      {EVEN, 115, 25},
      {EVEN, 99.9, Double.NaN},
      {EVEN, 120.1, Double.NaN},
      {OWN, 1, 0},
      {OWN, 5.5, 5},
      {OWN, 10, 10},
      {OWN, 55, 25},
      {OWN, 100, 40},
      {OWN, 0.5, Double.NaN},
      {OWN, 101, Double.NaN},
    };
  }

  /** Straight between the points, nothing outside. */
  @Test(dataProvider = "places")
  public void valuesBetweenThePoints(Axis x, double at, double expected) {
    Series s = Series.curve("s", "", x, new double[] {0, 10, 40}, "dB");
    assertEquals(s.valueAt(at), expected, 1e-9);
  }

  @Test
  public void asManyValuesAsPlaces() {
    assertThrows(Refusal.class, () -> Series.curve("s", "", EVEN, new double[] {1, 2}, "dB"));
    assertThrows(Refusal.class, () -> new Axis("x", "", false, 0, 0, 2, new double[3]));
    Values.Matrix m = new Values.Matrix(new float[6], Axis.even("Level", "dBm", 0, 1, 2));
    assertEquals(m.points(), 3);
  }

  @Test
  public void everyFormOfValuesIsWrittenAsCsv() {
    String[] complex =
        SeriesCsv.write(
                with(OWN, "", new Values.Complex(new double[] {1, 2, 3}, new double[] {4, 5, 6})))
            .split("\n");
    assertEquals(complex[complex.length - 4], "offset (Hz),real part,imaginary part");
    assertEquals(complex[complex.length - 1], "100.0000,3.00000000,6.00000000");
    Values.Matrix density =
        new Values.Matrix(new float[] {1, 2, 3, 4, 5, 6}, Axis.even("Level", "dBm", -10, 5, 2));
    String[] matrix = SeriesCsv.write(with(EVEN, "%", density)).split("\n");
    assertEquals(matrix[matrix.length - 4], "frequency (Hz),-10.0000 dBm,-5.0000 dBm");
    assertEquals(matrix[matrix.length - 1], "120.0000,5.00000000,6.00000000");
    String[] gap =
        SeriesCsv.write(with(EVEN, "dB", new Values.Real(new double[] {1, Double.NaN, 3})))
            .split("\n");
    assertEquals(gap[gap.length - 2], "110.0000,");
  }

  private static Series with(Axis x, String unit, Values v) {
    return new Series("s", "", Series.Role.DATA, "", true, x, "Level", unit, v, List.of());
  }

  @Test
  public void theWorstVerdictIsThatOfTheOutcome() {
    Outcome o =
        Outcome.words("k", "K", "").withReadings(List.of(reading(5), reading(50), reading(20)));
    assertEquals(o.verdict(), Verdict.FAIL);
    assertEquals(Outcome.words("k", "K", "").verdict(), Verdict.NONE);
    assertTrue(o.reading("r50.0").isPresent() && o.reading("other").isEmpty());
  }

  private static Reading reading(double v) {
    Limit limit = new Limit(Double.NaN, 30);
    return new Reading("r" + v, "", v, "dB", "", 1, List.of(), limit, limit.judge(v, 1), List.of());
  }
}
