package rovnik.core.spectrum;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.signal.Window;

/** The table of lines: median, order, threshold, and half a million bins. */
public class LineTableTest {
  private static Trace trace(float[] level) {
    return new Trace(0, 1, level, "dBm", "", 1.44, 1.5, 1, "", "");
  }

  @DataProvider
  public Object[][] sizes() {
    return new Object[][] {{1}, {2}, {101}, {4096}, {100_000}};
  }

  /** The histogram's median against a plain sort. */
  @Test(dataProvider = "sizes")
  public void theMedianIsThatOfASort(int size) {
    Random random = new Random(size);
    float[] level = new float[size];
    for (int i = 0; i < size; i++) {
      level[i] = (float) (-110 + 20 * random.nextGaussian());
    }
    float[] sorted = level.clone();
    Arrays.sort(sorted);
    assertEquals(PeakSearch.median(level), sorted[size / 2], 0.0051);
  }

  @Test
  public void levelsBeyondTheHistogramAreHeldAtItsEnds() {
    assertTrue(PeakSearch.median(new float[] {-1000, -1000, 0}) < -340);
    assertTrue(PeakSearch.median(new float[] {1000, 1000, 0}) > 300);
  }

  /** A thousand lines in half a million bins: the strongest are listed, in order. */
  @Test
  public void theStrongestOfManyAreListed() {
    Random random = new Random(4);
    float[] level = new float[1 << 19];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) (-100 + random.nextGaussian());
    }
    float[] made = new float[1000];
    for (int k = 0; k < made.length; k++) {
      made[k] = (float) (-60 + 40 * random.nextDouble());
      level[200 + k * 500] = made[k];
    }
    List<Peak> peaks =
        new PeakSearch(-90, 6, 32).find(trace(level), new ToneInterpolator(Window.HANN, 1));
    Arrays.sort(made);
    assertEquals(peaks.size(), 32);
    for (int i = 0; i < peaks.size(); i++) {
      assertEquals(peaks.get(i).level(), made[made.length - 1 - i], 0.1);
      double places = (peaks.get(i).frequencyHz() - 200) / 500;
      assertEquals(places, Math.rint(places), 0.002);
    }
  }

  @Test
  public void thresholdAndCountAreTheUsers() {
    float[] level = new float[1000];
    Arrays.fill(level, -100);
    level[100] = -50;
    level[300] = -60;
    level[500] = -70;
    SpectrumSettings auto = new SpectrumSettings(500, 1000, 1, Window.HANN, Detector.RMS, 1, 0, 10);
    assertEquals(lines(level, auto), 3);
    assertEquals(lines(level, with(auto, new LineSearch(-65, 6, 32))), 2);
    assertEquals(lines(level, with(auto, new LineSearch(Double.NaN, 6, 1))), 1);
    assertEquals(lines(level, with(auto, new LineSearch(Double.NaN, 45, 9))), 1);
  }

  private static int lines(float[] level, SpectrumSettings s) {
    return SpectrumMeasurement.of(
            trace(level), ToneInterpolator.gaussian(1.44, 1), List.of(), s, MeasurementContext.BARE)
        .peaks()
        .size();
  }

  private static SpectrumSettings with(SpectrumSettings s, LineSearch lines) {
    return new SpectrumSettings(
        s.centreHz(),
        s.spanHz(),
        s.rbwHz(),
        s.window(),
        s.detector(),
        s.averages(),
        s.referenceLevelDbm(),
        s.channelWidthHz(),
        0,
        lines);
  }

  @Test
  public void searchesThatCannotBeAreRefused() {
    assertThrows(Refusal.class, () -> new LineSearch(0, 0, 10));
    assertThrows(Refusal.class, () -> new LineSearch(0, 6, 0));
    assertThrows(Refusal.class, () -> new LineSearch(0, 6, 201));
    assertThrows(Refusal.class, () -> new LineSearch(0, Double.NaN, 20));
  }

  @DataProvider
  public Object[][] offsets() {
    return new Object[][] {{0.0}, {0.2}, {-0.37}, {0.49}, {-0.5}};
  }

  /** A line through a swept Gaussian filter: half power at half the RBW from its middle. */
  @Test(dataProvider = "offsets")
  public void linesOfAGaussianFilterAreInterpolated(double offset) {
    double rbw = 10;
    double step = 7;
    double at = (50 + offset) * step;
    float[] level = new float[101];
    for (int i = 0; i < level.length; i++) {
      double x = (i * step - at) / rbw;
      level[i] = (float) Math.max(-30 - 40 * Math.log10(2) * x * x, -140);
    }
    Trace t = new Trace(0, step, level, "dBm", "", rbw, 1.0645 * rbw, 1, "", "");
    Peak top = new PeakSearch(-90, 6, 3).find(t, ToneInterpolator.gaussian(rbw, step)).get(0);
    assertEquals(top.frequencyHz(), at, 0.01);
    assertEquals(top.level(), -30, 0.01);
  }

  @DataProvider
  public Object[][] absurd() {
    return new Object[][] {
      {"spanHz", 1e9, 0.0, 0.0, 8, 75e3, 0},
      {"spanHz", 1e9, Double.NaN, 0.0, 8, 75e3, 0},
      {"centreHz", Double.POSITIVE_INFINITY, 1e6, 0.0, 8, 75e3, 0},
      {"rbwHz", 1e9, 1e6, -1.0, 8, 75e3, 0},
      {"rbwHz", 1e9, 1e6, 2e6, 8, 75e3, 0},
      {"averages", 1e9, 1e6, 0.0, 0, 75e3, 0},
      {"averages", 1e9, 1e6, 0.0, 1_000_001, 75e3, 0},
      {"channelWidthHz", 1e9, 1e6, 0.0, 8, 0.0, 0},
      {"fftLength", 1e9, 1e6, 0.0, 8, 75e3, 512},
      {"fftLength", 1e9, 1e6, 0.0, 8, 75e3, 1 << 20},
      {"fftLength", 1e9, 1e6, 0.0, 8, 75e3, 3000},
    };
  }

  @Test(dataProvider = "absurd")
  public void absurdSettingsNameTheirField(
      String field, double centre, double span, double rbw, int averages, double channel, int fft) {
    Refusal r =
        org.testng.Assert.expectThrows(
            Refusal.class,
            () ->
                new SpectrumSettings(
                    centre,
                    span,
                    rbw,
                    Window.HANN,
                    Detector.RMS,
                    averages,
                    0,
                    channel,
                    fft,
                    LineSearch.AUTO));
    assertEquals(r.field(), field, r.getMessage());
  }

  /** RBW of a transform's length: 512 Ki points at 102.4 MS/s lie 195.3 Hz apart, 1 Ki 100 kHz. */
  @Test
  public void transformLengthsGiveTheKnownSpacing() {
    SpectrumLayout fine =
        SpectrumLayout.ofLength(102.4e6, 0, 51.2e6, Window.HANN, SpectrumSettings.LONGEST_FFT);
    assertEquals(fine.stepHz(), 195.3, 0.05);
    SpectrumLayout coarse =
        SpectrumLayout.ofLength(102.4e6, 0, 51.2e6, Window.HANN, SpectrumSettings.SHORTEST_FFT);
    assertEquals(coarse.stepHz(), 100e3, 0);
    assertEquals(fine.windowLength(), fine.fftLength());
    assertEquals(coarse.rbwHz(), 1.44 * 100e3, 500);
  }
}
