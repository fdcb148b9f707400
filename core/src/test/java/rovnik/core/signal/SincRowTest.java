package rovnik.core.signal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class SincRowTest {
  private static final int SAMPLES = 200;
  private static final double CYCLES = 0.11;

  @DataProvider
  public Object[][] rows() {
    return new Object[][] {
      {SincRow.fastest()}, {new PlainSincRow()}, {new VectorSincRow()},
    };
  }

  private static float[] wave(boolean sine) {
    float[] x = new float[SAMPLES];
    for (int n = 0; n < SAMPLES; n++) {
      double angle = 2 * Math.PI * CYCLES * n;
      x[n] = (float) (sine ? Math.sin(angle) : Math.cos(angle));
    }
    return x;
  }

  /** A turning vector has a known value everywhere. */
  @Test(dataProvider = "rows")
  public void aRowIsWhatTheWaveIsThere(Object row) {
    double first = 8.37;
    double step = 0.731;
    double[] x = new double[240];
    double[] y = new double[x.length];
    ((SincRow) row).read(wave(false), wave(true), SAMPLES, first, step, x, y);
    for (int i = 0; i < x.length; i++) {
      double angle = 2 * Math.PI * CYCLES * (first + i * step);
      // 80 dB down is 1e-4.
      assertEquals(x[i], Math.cos(angle), 1e-4, "at " + i);
      assertEquals(y[i], Math.sin(angle), 1e-4, "at " + i);
    }
  }

  /** Also where a register reaches beyond the last tap, and where a place is too near to an end. */
  @Test(dataProvider = "rows")
  public void endsAreReadWhereTheReachAllows(Object row) {
    float[] re = wave(false);
    float[] im = wave(true);
    double[] x = new double[60];
    double[] y = new double[60];
    double first = SAMPLES - 30.0;
    ((SincRow) row).read(re, im, SAMPLES, first, 1.07, x, y);
    double last = SAMPLES - SincSampler.REACH - 1.0;
    for (int i = 0; i < x.length; i++) {
      double place = Math.min(last, first + 1.07 * i);
      assertEquals(x[i], SincSampler.at(re, place), 1e-6, "at " + i);
      assertEquals(y[i], SincSampler.at(im, place), 1e-6, "at " + i);
    }
    ((SincRow) row).read(re, im, SAMPLES, -40, 0.5, x, y);
    assertEquals(x[0], SincSampler.at(re, SincSampler.REACH), 1e-6);
    ((SincRow) row).read(re, im, SAMPLES, Double.NaN, 0.5, x, y);
    assertTrue(Double.isFinite(x[0]) && Double.isFinite(y[59]));
  }
}
