package rovnik.core.spectrum;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.signal.Window;
import rovnik.core.units.Decibels;

public class SpectrumEstimatorTest {
  private static double[] estimate(float[] iq, SpectrumLayout layout, Detector detector) {
    SpectrumEstimator e = new SpectrumEstimator(layout, detector);
    e.accumulate(iq, 0, iq.length / 2);
    double[] power = new double[layout.points()];
    e.powerInto(power);
    return power;
  }

  private static double maxDb(double[] power) {
    double max = 0;
    for (double p : power) {
      max = Math.max(max, p);
    }
    return Decibels.fromPowerRatio(max);
  }

  private static ByteBuffer resource(String name) throws IOException {
    try (InputStream in = SpectrumEstimatorTest.class.getResourceAsStream("/fixtures/" + name)) {
      return ByteBuffer.wrap(in.readAllBytes()).order(ByteOrder.LITTLE_ENDIAN);
    }
  }

  /** scipy.signal.welch on the same samples; see fixtures/make_fixtures.py. */
  @Test
  public void agreesWithScipyWelch() throws IOException {
    ByteBuffer in = resource("welch_input.f32");
    float[] iq = new float[in.remaining() / 4];
    in.asFloatBuffer().get(iq);
    ByteBuffer expected = resource("welch_scipy.f64");
    double[] ours = estimate(iq, SpectrumLayout.ofLength(1, 0, 1, Window.HANN, 1024), Detector.RMS);
    assertEquals(ours.length, 1024);
    for (int i = 0; i < 1024; i++) {
      double theirs = expected.getDouble();
      // float32 transform against float64: 0.1 % plus a floor 140 dB below the strong tone.
      assertEquals(ours[i], theirs, theirs * 1e-3 + 2.5e-15, "bin " + i);
    }
  }

  @Test
  public void piecesOfAnySizeGiveTheSameSpectrum() {
    float[] iq = Signals.noise(20_000, 1, 5);
    SpectrumLayout layout = SpectrumLayout.ofLength(1, 0, 1, Window.HANN, 700);
    double[] whole = estimate(iq, layout, Detector.RMS);
    SpectrumEstimator pieces = new SpectrumEstimator(layout, Detector.RMS);
    Random random = new Random(3);
    int at = 0;
    while (at < 20_000) {
      int count = Math.min(20_000 - at, random.nextInt(1500));
      pieces.accumulate(iq, at, count);
      at += count;
    }
    double[] power = new double[layout.points()];
    pieces.powerInto(power);
    assertEquals(pieces.segments(), (20_000 - 700) / 350 + 1);
    for (int i = 0; i < power.length; i++) {
      assertEquals(power[i], whole[i], 1e-12);
    }
  }

  @DataProvider
  public Object[][] windows() {
    Object[][] rows = new Object[Window.values().length][];
    for (Window w : Window.values()) {
      rows[w.ordinal()] = new Object[] {w};
    }
    return rows;
  }

  @Test(dataProvider = "windows")
  public void toneOnABinReadsItsLevelAndHalfwayItsScallopLoss(Window window) {
    SpectrumLayout layout = SpectrumLayout.ofLength(1, 0, 1, window, 1024);
    double on = maxDb(estimate(Signals.tone(1024, 100.0 / 1024, 0.5), layout, Detector.RMS));
    double half = maxDb(estimate(Signals.tone(1024, 100.5 / 1024, 0.5), layout, Detector.RMS));
    assertEquals(on, -6.0206, 0.001);
    assertEquals(on - half, window.figures().scallopLossDb(), 0.01);
    if (window == Window.FLAT_TOP) {
      assertEquals(half, on, 0.05);
    }
  }

  /** RBW is the 3-dB width of the filter: sweep a tone past one point and find the half power. */
  @Test(dataProvider = "windows")
  public void rbwIsTheHalfPowerWidth(Window window) {
    double fs = 400e3;
    SpectrumLayout layout = SpectrumLayout.plan(fs, 0, 200e3, 1e3, window);
    assertEquals(layout.rbwHz(), 1e3, 3);
    int centre = -layout.firstBin();
    double[] edges = new double[2];
    double last = 1;
    for (double f = -1500; f <= 1500; f += 5) {
      float[] tone = Signals.tone(layout.windowLength(), f / fs, 1);
      double p = estimate(tone, layout, Detector.RMS)[centre];
      if (last < 0.5 && p >= 0.5 && edges[0] == 0) {
        edges[0] = f;
      }
      if (last >= 0.5 && p < 0.5 && f > 0 && edges[1] == 0) {
        edges[1] = f;
      }
      last = p;
    }
    assertEquals(edges[1] - edges[0], 1e3, 12);
  }

  /** Common practice: automatic RBW is span / 1000, 50 MHz gives 50 kHz. */
  @Test
  public void automaticRbw() {
    SpectrumSettings s = new SpectrumSettings(1e9, 50e6, 0, Window.HANN, Detector.RMS, 1, 0, 1e6);
    assertEquals(s.effectiveRbwHz(), 50e3, 1e-9);
  }

  /** Common practice: 102.4 MS/s gives bins of 195.3 Hz with 512 Ki points, 100 kHz with 1 Ki. */
  @Test
  public void binSpacing() {
    assertEquals(
        SpectrumLayout.ofLength(102.4e6, 0, 51.2e6, Window.HANN, 512 * 1024).stepHz(), 195.3, 0.02);
    assertEquals(
        SpectrumLayout.ofLength(102.4e6, 0, 51.2e6, Window.HANN, 1024).stepHz(), 100e3, 1e-6);
  }

  @Test(dataProvider = "windows")
  public void noiseDensityIsTrueInEveryWindow(Window window) {
    double fs = 1e6;
    float[] iq = Signals.noise(1 << 19, 1, 11);
    SpectrumLayout layout = SpectrumLayout.plan(fs, 0, fs, 2e3, window);
    double sum = 0;
    double[] power = estimate(iq, layout, Detector.RMS);
    for (double p : power) {
      sum += p;
    }
    double densityDb = Decibels.fromPowerRatio(sum / power.length / layout.enbwHz());
    assertEquals(densityDb, Decibels.fromPowerRatio(1 / fs), 0.03);
  }

  /** Euler's constant: the mean of the logarithm of noise power is 10 x 0.5772 / ln 10 lower. */
  @Test
  public void logAverageReadsNoiseLow() {
    float[] iq = Signals.noise(1 << 20, 1, 12);
    SpectrumLayout layout = SpectrumLayout.ofLength(1, 0, 1, Window.HANN, 256);
    double rms = meanDb(estimate(iq, layout, Detector.RMS));
    double log = meanDb(estimate(iq, layout, Detector.LOG_AVERAGE));
    assertEquals(log - rms, -2.51, 0.03);
  }

  private static double meanDb(double[] power) {
    double sum = 0;
    for (double p : power) {
      sum += Decibels.fromPowerRatio(p);
    }
    return sum / power.length;
  }

  /** Chi-square with 2N degrees of freedom: N independent averages spread by 1/sqrt N. */
  @Test
  public void averagesCalmTheNoise() {
    int length = 256;
    SpectrumLayout layout = SpectrumLayout.ofLength(1, 0, 1, Window.RECTANGULAR, length);
    SpectrumEstimator e = new SpectrumEstimator(layout, Detector.RMS);
    double[] mean = new double[length];
    for (int block = 0; block < 100; block++) {
      e.breakRecord();
      e.accumulate(Signals.noise(length, 1, 100 + block), 0, length);
    }
    assertEquals(e.segments(), 100);
    e.powerInto(mean);
    double sum = 0;
    double squares = 0;
    for (double p : mean) {
      sum += p;
      squares += p * p;
    }
    double average = sum / length;
    double relative = Math.sqrt(squares / length - average * average) / average;
    assertEquals(relative, 0.10, 0.02);
  }

  @Test
  public void peakAndMinimumEncloseTheMean() {
    float[] iq = Signals.noise(1 << 14, 1, 13);
    SpectrumLayout layout = SpectrumLayout.ofLength(1, 0, 1, Window.HANN, 128);
    double[] rms = estimate(iq, layout, Detector.RMS);
    double[] peak = estimate(iq, layout, Detector.PEAK);
    double[] minimum = estimate(iq, layout, Detector.MINIMUM);
    for (int i = 0; i < rms.length; i++) {
      assertTrue(minimum[i] < rms[i] && rms[i] < peak[i]);
    }
  }

  @Test
  public void refusesWhatCannotBeMade() {
    assertThrows(Refusal.class, () -> SpectrumLayout.plan(1e6, 0, 2e6, 1e3, Window.HANN));
    assertThrows(Refusal.class, () -> SpectrumLayout.plan(1e6, 0, 1e6, 1e-3, Window.HANN));
    assertThrows(Refusal.class, () -> SpectrumLayout.plan(1e6, 0, 1e6, 500e3, Window.HANN));
    SpectrumEstimator empty =
        new SpectrumEstimator(SpectrumLayout.ofLength(1, 0, 1, Window.HANN, 128), Detector.RMS);
    assertThrows(Refusal.class, () -> empty.powerInto(new double[128]));
  }

  /** Cut into three parts the average is that of the whole, for every detector and a rest. */
  @Test
  public void severalCoresGiveWhatOneGives() {
    float[] iq = new float[2 * 100_123];
    java.util.Random random = new java.util.Random(3);
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) random.nextGaussian();
    }
    SpectrumLayout layout = SpectrumLayout.ofLength(1e6, 0, 5e5, Window.HANN, 256);
    RecordSpectrum.Opener opener =
        first -> {
          long[] at = {first};
          return (block, most) -> {
            int count = (int) Math.min(most, iq.length / 2 - at[0]);
            System.arraycopy(iq, (int) (2 * at[0]), block, 0, 2 * count);
            at[0] += count;
            return count;
          };
        };
    for (Detector d : Detector.values()) {
      for (int averages : new int[] {1, 500, 1_000_000}) {
        SpectrumSettings s = new SpectrumSettings(0, 5e5, 0, Window.HANN, d, averages, 0, 1e5);
        SpectrumEstimator one = RecordSpectrum.estimate(opener.openAt(0), layout, s);
        SpectrumEstimator three = RecordSpectrum.estimate(opener, iq.length / 2, layout, s, 3);
        assertEquals(three.segments(), one.segments(), d + " " + averages);
        double[] a = new double[layout.points()];
        double[] b = new double[layout.points()];
        one.powerInto(a);
        three.powerInto(b);
        for (int i = 0; i < a.length; i++) {
          assertEquals(b[i], a[i], 1e-6 * a[i], d + " " + averages + " point " + i);
        }
      }
    }
  }
}
