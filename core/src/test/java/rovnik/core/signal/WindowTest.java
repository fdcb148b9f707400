package rovnik.core.signal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class WindowTest {
  /**
   * Harris, "On the use of windows for harmonic analysis with the DFT", Proc. IEEE 66 (1978), table
   * 1, from memory; the first three and the flat-top recomputed with SciPy.
   */
  @DataProvider
  public Object[][] harris() {
    return new Object[][] {
      {Window.RECTANGULAR, 1.00, 1.00, 3.92, -13.0},
      {Window.HANN, 0.50, 1.50, 1.42, -32.0},
      {Window.HAMMING, 0.54, 1.36, 1.78, -43.0},
      {Window.BLACKMAN, 0.42, 1.73, 1.10, -58.0},
      {Window.BLACKMAN_HARRIS, 0.36, 2.00, 0.83, -92.0},
      {Window.FLAT_TOP, 0.2156, 3.770, 0.01, -93.0},
    };
  }

  @Test(dataProvider = "harris")
  public void figuresAreThePublishedOnes(
      Window window, double gain, double enbw, double scallop, double sideLobe) {
    WindowFigures f = window.figures();
    assertEquals(f.coherentGain(), gain, 0.005);
    assertEquals(f.enbwBins(), enbw, 0.006);
    // Harris prints 1.78 for Hamming; SciPy gives 1.75 for 0.54 / 0.46.
    assertEquals(f.scallopLossDb(), scallop, 0.03);
    assertEquals(highestSideLobeDb(window), sideLobe, 1.3);
  }

  @Test(dataProvider = "harris")
  public void figuresAgreeWithTheSamples(
      Window window, double gain, double enbw, double scallop, double sideLobe) {
    int length = 4096;
    double[] w = window.samples(length);
    double sum = 0;
    double energy = 0;
    double re = 0;
    double im = 0;
    for (int i = 0; i < length; i++) {
      sum += w[i];
      energy += w[i] * w[i];
      double t = 2 * Math.PI * 0.5 * i / length;
      re += w[i] * Math.cos(t);
      im -= w[i] * Math.sin(t);
    }
    assertEquals(sum / length, window.figures().coherentGain(), 1e-9);
    assertEquals(length * energy / (sum * sum), window.figures().enbwBins(), 1e-9);
    assertEquals(
        -20 * Math.log10(Math.hypot(re, im) / sum), window.figures().scallopLossDb(), 1e-4);
  }

  /** SciPy: the flat-top's 3-dB width is 3.7 bins. Hann's 1.44 is Harris table 1, from memory. */
  @Test
  public void widthAtHalfPower() {
    assertEquals(Window.FLAT_TOP.figures().width3dbBins(), 3.72, 0.03);
    assertEquals(Window.HANN.figures().width3dbBins(), 1.44, 0.005);
    assertEquals(Window.RECTANGULAR.figures().width3dbBins(), 0.886, 0.005);
  }

  private static double highestSideLobeDb(Window window) {
    double highest = -300;
    for (double x = window.mainLobeHalfWidthBins() + 0.01; x < 40; x += 0.01) {
      highest = Math.max(highest, 20 * Math.log10(Math.abs(window.response(x)) + 1e-15));
    }
    assertTrue(highest < 0);
    return highest;
  }

  /**
   * Half-overlapped segments: the voltages of noise in two Hann segments are correlated by 1/6
   * (Welch, IEEE Trans. AU-15, 1967); with cos^2 and sin^2 the energies follow as 35/18 and 1/12
   * (arithmetic).
   */
  @Test
  public void whatOverlappingSegmentsShare() {
    WindowFigures hann = Window.HANN.figures();
    assertEquals(hann.overlapAmplitude(), 1 / 6.0, 1e-3);
    assertEquals(hann.spread(), 35 / 18.0, 1e-3);
    assertEquals(hann.overlapSpread(), 1 / 12.0, 1e-3);
    WindowFigures rectangular = Window.RECTANGULAR.figures();
    assertEquals(rectangular.overlapAmplitude(), 0.5, 1e-3);
    assertEquals(rectangular.spread(), 1, 1e-3);
    assertEquals(rectangular.overlapSpread(), 0.5, 1e-3);
    // Noise of a Hann window is correlated by 2/3 with its neighbouring bin, by 1/6 with the next.
    assertEquals(Math.abs(Window.HANN.noiseCorrelation(1)), 2 / 3.0, 1e-3);
    assertEquals(Math.abs(Window.HANN.noiseCorrelation(2)), 1 / 6.0, 1e-3);
    assertEquals(Window.HANN.noiseCorrelation(3), 0, 1e-3);
    assertEquals(Window.HANN.overlapCorrelation(0, 0), 1 / 6.0, 1e-3);
  }
}
