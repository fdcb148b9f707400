package rovnik.core.spectrum;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.signal.Window;

public class RollingSpectrumTest {
  @DataProvider
  public Object[][] detectors() {
    return new Object[][] {
      {Detector.RMS}, {Detector.PEAK}, {Detector.MINIMUM}, {Detector.LOG_AVERAGE},
    };
  }

  /** Blocks that roll give what one estimator over the same segments gives. */
  @Test(dataProvider = "detectors")
  public void equalsOneEstimatorOverTheNewestSegments(Detector detector) {
    SpectrumLayout layout = SpectrumLayout.ofLength(1, 0, 1, Window.HANN, 128);
    RollingSpectrum rolling = new RollingSpectrum(detector, layout.points(), 12);
    SpectrumEstimator block = new SpectrumEstimator(layout, detector);
    SpectrumEstimator newest = new SpectrumEstimator(layout, detector);
    for (int i = 0; i < 20; i++) {
      float[] iq = Signals.noise((int) layout.samplesFor(3), 1, i);
      block.accumulate(iq, 0, iq.length / 2);
      block.breakRecord();
      rolling.take(block);
      if (i >= 16) {
        newest.breakRecord();
        newest.accumulate(iq, 0, iq.length / 2);
      }
    }
    double[] a = new double[layout.points()];
    double[] b = new double[layout.points()];
    rolling.powerInto(a);
    newest.powerInto(b);
    assertEquals(rolling.segments(), 12);
    for (int i = 0; i < a.length; i++) {
      assertEquals(a[i], b[i], 1e-6 * b[i]);
    }
  }

  @Test
  public void manyAveragesAreHeldInFewSlots() {
    SpectrumLayout layout = SpectrumLayout.ofLength(1, 0, 1, Window.HANN, 64);
    RollingSpectrum rolling = new RollingSpectrum(Detector.RMS, layout.points(), 10_000);
    SpectrumEstimator e = new SpectrumEstimator(layout, Detector.RMS);
    for (int i = 0; i < 12_000; i++) {
      e.breakRecord();
      e.accumulate(Signals.noise(64, 1, i), 0, 64);
      rolling.take(e);
    }
    assertTrue(rolling.segments() >= 10_000 && rolling.segments() < 10_200);
    double[] p = new double[layout.points()];
    rolling.powerInto(p);
    assertEquals(p[3], layout.enbwHz(), 0.05 * layout.enbwHz());
  }
}
