package rovnik.core.spectrum;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.LimitSet;
import rovnik.core.limits.Verdict;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.SampleSource;
import rovnik.core.signal.Window;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.core.units.Decibels;

public class PeaksAndPowerTest {
  private static SpectrumResult measure(float[] iq, double fs, SpectrumSettings settings) {
    return measure(iq, fs, settings, MeasurementContext.BARE);
  }

  private static SpectrumResult measure(
      float[] iq, double fs, SpectrumSettings settings, MeasurementContext context) {
    IqRecord record = new IqRecord(iq, fs, 0, Double.NaN, false);
    SpectrumLayout layout = RecordSpectrum.plan(iq.length / 2, fs, 0, settings);
    SpectrumEstimator e = RecordSpectrum.estimate(SampleSource.of(record), layout, settings);
    double[] power = new double[layout.points()];
    e.powerInto(power);
    return SpectrumMeasurement.of(
        power, layout, e.outside(), 0, Double.NaN, e.segments(), settings, context);
  }

  private static SpectrumSettings settings(double span, double rbw, Window window) {
    return new SpectrumSettings(0, span, rbw, window, Detector.RMS, 10_000, 0, span / 2);
  }

  @DataProvider
  public Object[][] tones() {
    Object[][] rows = new Object[Window.values().length * 5][];
    double[] offsets = {0, 0.17, -0.31, 0.499, -0.5};
    int i = 0;
    for (Window w : Window.values()) {
      for (double o : offsets) {
        rows[i++] = new Object[] {w, o};
      }
    }
    return rows;
  }

  /** A lone tone anywhere between points: frequency to 1/1000 point, level to 0.01 dB. */
  @Test(dataProvider = "tones")
  public void interpolatesBetweenPoints(Window window, double offset) {
    double fs = 400e3;
    SpectrumSettings s = settings(200e3, 500, window);
    SpectrumLayout layout = SpectrumLayout.plan(fs, 0, 200e3, 500, window);
    double f = (123 + offset) * layout.stepHz();
    Peak top = measure(Signals.tone(40_000, f / fs, 0.1), fs, s).peaks().get(0);
    assertEquals(top.frequencyHz(), f, layout.stepHz() / 1000);
    assertEquals(top.level(), -20, 0.01);
  }

  /**
   * Common practice: lines 2 RBW apart split cleanly, 1 RBW apart do not (6 kHz, 3 kHz at 3 kHz).
   */
  @Test
  public void splitsTwoTonesByRbw() {
    assertEquals(linesAt(6e3), 2);
    assertEquals(linesAt(3e3), 1);
  }

  private static int linesAt(double spacing) {
    double fs = 400e3;
    float[] two =
        Signals.sum(
            Signals.tone(200_000, spacing / 2 / fs, 0.1),
            Signals.tone(200_000, -spacing / 2 / fs, 0.1));
    SpectrumSettings s = settings(200e3, 3e3, Window.HANN);
    return measure(two, fs, s).peaks().size();
  }

  @Test
  public void findsLinesStrongestFirstAndIgnoresNoise() {
    double fs = 400e3;
    float[] x =
        Signals.sum(
            Signals.noise(300_000, 1e-6, 1),
            Signals.sum(
                Signals.tone(300_000, 20e3 / fs, 0.01), Signals.tone(300_000, -33e3 / fs, 0.1)));
    List<Peak> peaks = measure(x, fs, settings(200e3, 200, Window.HANN)).peaks();
    assertEquals(peaks.size(), 2);
    assertEquals(peaks.get(0).frequencyHz(), -33e3, 1);
    assertEquals(peaks.get(1).frequencyHz(), 20e3, 1);
    assertEquals(peaks.get(1).level(), -40, 0.1);
  }

  @Test
  public void excursionJoinsWhatDoesNotFallEnough() {
    float[] level = {-90, -50, -54, -50.5f, -90, -60, -90};
    Trace t = new Trace(0, 1, level, "dBm", "", 1, 1, 1, "", "");
    ToneInterpolator i = new ToneInterpolator(Window.HANN, 0.7);
    assertEquals(new PeakSearch(-80, 6, 10).find(t, i).size(), 2);
    assertEquals(new PeakSearch(-80, 3, 10).find(t, i).size(), 3);
    assertEquals(new PeakSearch(-55, 3, 10).find(t, i).size(), 2);
    assertEquals(new PeakSearch(-80, 3, 1).find(t, i).size(), 1);
  }

  /**
   * White noise of total power P in fs: a channel of B holds P B / fs. A tone in it adds itself.
   */
  @Test
  public void channelPowerSumsNoiseAndTones() {
    double fs = 400e3;
    float[] noise = Signals.noise(400_000, 1e-3, 2);
    SpectrumSettings s = settings(200e3, 500, Window.HANN);
    Trace n = measure(noise, fs, s).trace();
    assertEquals(ChannelPower.of(n, -25e3, 25e3), Decibels.fromPowerRatio(1e-3 * 50e3 / fs), 0.06);
    Trace tone = measure(Signals.tone(400_000, 1234.5 / fs, 0.3), fs, s).trace();
    assertEquals(ChannelPower.of(tone, -25e3, 25e3), 20 * Math.log10(0.3), 0.01);
    assertTrue(ChannelPower.of(tone, 30e3, 80e3) < -90);
    assertThrows(Refusal.class, () -> ChannelPower.of(tone, -150e3, 0));
  }

  /** AM side lines lie 20 log10(m/2) below the carrier. */
  @Test
  public void amSideLines() {
    double fs = 400e3;
    for (double[] row : new double[][] {{1, -6.02}, {0.5, -12.04}, {0.3, -16.48}, {0.1, -26.02}}) {
      float[] x = Signals.tone(200_000, 10e3 / fs, 0.2);
      for (int i = 0; i < 200_000; i++) {
        double a = 1 + row[0] * Math.cos(2 * Math.PI * 5e3 / fs * i);
        x[2 * i] *= (float) a;
        x[2 * i + 1] *= (float) a;
      }
      List<Peak> peaks = measure(x, fs, settings(200e3, 500, Window.BLACKMAN_HARRIS)).peaks();
      assertEquals(peaks.get(1).level() - peaks.get(0).level(), row[1], 0.02);
    }
  }

  @Test
  public void marksAModulatedSignalInsteadOfCallingItACarrier() {
    SpectrumResult noise =
        measure(
            Signals.sum(lowPass(Signals.noise(400_000, 1, 3)), Signals.noise(400_000, 1e-8, 4)),
            400e3,
            settings(200e3, 500, Window.HANN));
    var carrier =
        noise.readings().stream().filter(r -> r.id().equals("carrierPower")).findFirst().get();
    assertTrue(Double.isNaN(carrier.value()));
    assertEquals(carrier.marks(), List.of("modulated: no plain carrier here"));
  }

  @Test
  public void aModulatedSignalHasNoFrequencyErrorToJudge() {
    float[] still = Signals.noise(400_000, 1e-8, 4);
    float[] modulated = Signals.sum(lowPass(Signals.noise(400_000, 1, 3)), still);
    assertEquals(frequencyError(modulated), Verdict.NONE);
    // Without any carrier it stays unanswered, not excused.
    assertEquals(frequencyError(still), Verdict.INVALID);
  }

  private static Verdict frequencyError(float[] iq) {
    LimitSet limits = new LimitSet(1, 2.5, Double.NaN, Double.NaN, Double.NaN);
    MeasurementContext context =
        new MeasurementContext(null, InstrumentAccuracy.UNKNOWN, limits, List.of());
    return measure(iq, 400e3, settings(200e3, 500, Window.HANN), context).readings().stream()
        .filter(r -> r.id().equals("frequencyError"))
        .findFirst()
        .orElseThrow()
        .verdict();
  }

  /** Moving average over 8 samples, three times: a noise hump about 50 kHz wide at 400 kS/s. */
  private static float[] lowPass(float[] iq) {
    float[] x = iq;
    for (int pass = 0; pass < 3; pass++) {
      float[] y = new float[x.length];
      for (int i = 16; i < x.length; i++) {
        float sum = 0;
        for (int k = 0; k < 8; k++) {
          sum += x[i - 2 * k];
        }
        y[i] = sum / 8;
      }
      x = y;
    }
    return x;
  }

  @Test
  public void shortRecordGetsACoarserAutomaticRbwButNotAChosenOne() {
    float[] iq = Signals.tone(1000, 0.1, 0.5);
    SpectrumResult auto = measure(iq, 1e6, settings(1e6, 0, Window.HANN));
    assertEquals(auto.trace().rbwHz(), 1441, 3);
    assertEquals(auto.peaks().get(0).frequencyHz(), 100e3, 2);
    assertThrows(Refusal.class, () -> measure(iq, 1e6, settings(1e6, 100, Window.HANN)));
    assertThrows(Refusal.class, () -> measure(new float[20], 1e6, settings(1e6, 0, Window.HANN)));
  }

  @Test
  public void saysWhichSampleIsNotANumber() {
    float[] iq = Signals.tone(5000, 0.1, 0.5);
    iq[2 * 1234] = Float.NaN;
    Refusal r =
        org.testng.Assert.expectThrows(
            Refusal.class, () -> measure(iq, 1e6, settings(1e6, 0, Window.HANN)));
    assertTrue(r.getMessage().contains("1234"), r.getMessage());
  }

  @Test
  public void settingsRefuseTheAbsurd() {
    assertThrows(Refusal.class, () -> settings(0, 0, Window.HANN));
    assertThrows(Refusal.class, () -> settings(Double.NaN, 0, Window.HANN));
    assertThrows(Refusal.class, () -> settings(1e3, 2e3, Window.HANN));
    assertThrows(Refusal.class, () -> settings(1e3, -1, Window.HANN));
    assertThrows(
        Refusal.class, () -> new SpectrumSettings(0, 1, 0, Window.HANN, Detector.RMS, 0, 0, 1));
  }

  /** Power in a channel is the same whether all points are summed or those in it alone. */
  @Test
  public void channelPowerLooksAtItsChannelAlone() {
    java.util.Random random = new java.util.Random(8);
    float[] level = new float[5000];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) (-100 + 5 * random.nextGaussian());
    }
    Trace t = new Trace(1e6, 100, level, "dBm", "TX", 150, 160, 1, "Hann", "RMS");
    BandPower whole = new BandPower(t);
    for (double low : new double[] {1e6, 1.0001e6, 1.2e6, 1.31234e6}) {
      for (double width : new double[] {100, 333, 50e3, 180e3}) {
        assertEquals(ChannelPower.of(t, low, low + width), whole.level(low, low + width), 1e-9);
      }
    }
  }
}
