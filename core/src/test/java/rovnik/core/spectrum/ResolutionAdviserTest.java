package rovnik.core.spectrum;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.SampleSource;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.ResolutionAdviser.Advice;
import rovnik.core.spectrum.ResolutionAdviser.Separation;

public class ResolutionAdviserTest {
  /** Common practice at 3 kHz RBW: 6 kHz clean, 4 to 5 kHz just visible, 3 kHz not. */
  @DataProvider
  public Object[][] spacings() {
    return new Object[][] {
      {6e3, Separation.CLEAN},
      {5e3, Separation.JUST_VISIBLE},
      {4e3, Separation.JUST_VISIBLE},
      {3e3, Separation.NOT}
    };
  }

  @Test(dataProvider = "spacings")
  public void equalLinesFollowTheRuleOfTheTrade(double spacing, Separation expected) {
    for (Window w : Window.values()) {
      assertEquals(ResolutionAdviser.advise(spacing, 0, 3e3, w).separation(), expected);
    }
    assertEquals(ResolutionAdviser.advise(spacing, 0, 3e3, Window.HANN).cleanRbwHz(), spacing / 2);
  }

  @DataProvider
  public Object[][] unequal() {
    return new Object[][] {
      {Window.HANN, 20},
      {Window.HANN, 40},
      {Window.BLACKMAN_HARRIS, 40},
      {Window.BLACKMAN_HARRIS, 60},
      {Window.FLAT_TOP, 30},
    };
  }

  /** At the RBW that is advised the estimator really shows both lines. */
  @Test(dataProvider = "unequal")
  public void theAdvisedRbwShowsTheWeakerLine(Window window, double difference) {
    double spacing = 5e3;
    Advice advice = ResolutionAdviser.advise(spacing, difference, 5e3, window);
    assertEquals(advice.separation(), Separation.NOT);
    assertTrue(advice.cleanRbwHz() <= spacing / 2 + 1e-6);
    assertEquals(lines(window, spacing, difference, advice.cleanRbwHz()), 2);
    assertEquals(
        ResolutionAdviser.advise(spacing, difference, advice.cleanRbwHz(), window).separation(),
        Separation.CLEAN);
    assertEquals(lines(window, spacing, difference, spacing * 1.2), 1);
  }

  private static int lines(Window window, double spacing, double difference, double rbw) {
    double fs = 400e3;
    float[] x =
        Signals.sum(
            Signals.tone(200_000, 0, 0.5),
            Signals.tone(200_000, spacing / fs, 0.5 * Math.pow(10, -difference / 20)));
    SpectrumSettings s = new SpectrumSettings(0, 200e3, rbw, window, Detector.RMS, 10, 0, 50e3);
    SpectrumLayout layout = RecordSpectrum.plan(x.length / 2, fs, 0, s);
    SpectrumEstimator e =
        RecordSpectrum.estimate(
            SampleSource.of(new IqRecord(x, fs, 0, Double.NaN, false)), layout, s);
    double[] power = new double[layout.points()];
    e.powerInto(power);
    return SpectrumMeasurement.of(
            power, layout, e.outside(), 0, Double.NaN, e.segments(), s, MeasurementContext.BARE)
        .peaks()
        .size();
  }

  @Test
  public void nonsenseIsRefused() {
    assertThrows(Refusal.class, () -> ResolutionAdviser.advise(0, 0, 1, Window.HANN));
    assertThrows(Refusal.class, () -> ResolutionAdviser.advise(1, -1, 1, Window.HANN));
  }
}
