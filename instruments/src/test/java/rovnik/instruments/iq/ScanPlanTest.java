package rovnik.instruments.iq;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Arrays;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.LineSearch;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.uncertainty.InstrumentAccuracy;

/** How a wide span is cut into steps and put together again; no instrument is needed. */
public class ScanPlanTest {
  private static final IqCapabilities ABLE =
      new IqCapabilities(
          10e3,
          8e9,
          102.4e6,
          16,
          0.8,
          1 << 23,
          -20,
          40,
          2,
          20,
          18,
          1,
          0,
          new InstrumentAccuracy(0.4, 1e-9));

  private static ScanPlan plan(double start, double stop, double rbw, Window window, int fft) {
    return ScanPlan.of(
        new SpectrumSettings(
            (start + stop) / 2,
            stop - start,
            rbw,
            window,
            Detector.RMS,
            8,
            0,
            1e6,
            fft,
            LineSearch.AUTO),
        ABLE);
  }

  @DataProvider
  public Object[][] scans() {
    return new Object[][] {
      {100e6, 200e6, 100e3, Window.HANN, 0},
      {10e6, 6e9, 300e3, Window.FLAT_TOP, 0},
      {1e9, 1.09e9, 10e3, Window.BLACKMAN_HARRIS, 0},
      {1e6, 7.9e9, 0.0, Window.RECTANGULAR, 0},
      {300e6, 900e6, 0.0, Window.HANN, 16384},
    };
  }

  /** Every point is in a step, every step is where its points say, and none shows its dc spike. */
  @Test(dataProvider = "scans")
  public void stepsCoverEveryPointOnOneGrid(
      double start, double stop, double rbw, Window window, int fft) {
    ScanPlan p = plan(start, stop, rbw, window, fft);
    int[] seen = new int[p.layout().points()];
    for (int i = 0; i < p.steps().size(); i++) {
      AcquisitionPlan step = p.steps().get(i);
      int first = p.firstPoint().get(i);
      for (int k = 0; k < step.layout().points(); k++) {
        seen[first + k]++;
      }
      assertEquals(
          step.setup().centreHz() + step.layout().offsetHz(0),
          p.originHz() + first * p.layout().stepHz(),
          1e-3);
      assertTrue(step.layout().firstBin() >= 1);
      double edge = step.layout().offsetHz(step.layout().points() - 1);
      assertTrue(edge <= 0.4 * 102.4e6 + 1, "beyond the flat part: " + edge);
    }
    assertTrue(Arrays.stream(seen).allMatch(n -> n == 1 || n == 2));
    assertEquals(p.pointsAfter(p.steps().size() - 1), p.layout().points());
    assertTrue(p.samples() > 0);
    if (fft > 0) {
      assertEquals(p.layout().fftLength(), fft);
    } else {
      assertTrue(p.layout().rbwHz() <= Math.max(rbw, 1e6) * 1.02);
    }
  }

  /** Steps of unlike level: a straight slope in dB over the shared points, and no step anywhere. */
  @Test
  public void unlikeStepsFadeIntoOneAnother() {
    ScanPlan p = plan(100e6, 250e6, 100e3, Window.HANN, 0);
    double[] stitched = new double[p.layout().points()];
    for (int i = 0; i < p.steps().size(); i++) {
      double[] power = new double[p.steps().get(i).layout().points()];
      Arrays.fill(power, i % 2 == 0 ? 1e-9 : 2e-9);
      p.merge(i, power, stitched);
    }
    double steepest = 0;
    for (int k = 1; k < stitched.length; k++) {
      steepest = Math.max(steepest, Math.abs(10 * Math.log10(stitched[k] / stitched[k - 1])));
    }
    assertTrue(steepest > 0 && steepest < 2 * 3.01 / p.overlapPoints(), "step of " + steepest);
    assertEquals(stitched[0], 1e-9, 0);
  }
}
