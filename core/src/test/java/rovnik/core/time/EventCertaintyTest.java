package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.jtransforms.fft.FloatFFT_1D;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.signal.Window;

/**
 * What is stated of events, against events that are put in and looked for by the library's
 * transform.
 */
public class EventCertaintyTest {
  private static final double RATE = 1e6;

  @DataProvider
  public Object[][] settings() {
    return new Object[][] {
      {Window.HANN, 256, 128},
      {Window.HANN, 256, 26},
      {Window.HANN, 200, 200},
      {Window.RECTANGULAR, 256, 192},
      {Window.BLACKMAN_HARRIS, 512, 128},
      {Window.FLAT_TOP, 384, 96},
    };
  }

  /**
   * Highest level at a tone's own point, of a tone of 1 that is there from one sample to another.
   */
  private static double seen(Window window, int length, int hop, int start, int samples) {
    double[] w = window.samples(length);
    double scale = 1 / (window.figures().coherentGain() * length);
    int bin = length / 8;
    FloatFFT_1D fft = new FloatFFT_1D(length);
    double most = 0;
    int first = Math.max(0, (start - length) / hop - 1);
    for (int k = first; k * hop < start + samples; k++) {
      float[] x = new float[2 * length];
      for (int n = 0; n < length; n++) {
        int at = k * hop + n;
        if (at >= start && at < start + samples) {
          double angle = 2 * Math.PI * bin * (double) n / length;
          x[2 * n] = (float) (w[n] * scale * Math.cos(angle));
          x[2 * n + 1] = (float) (w[n] * scale * Math.sin(angle));
        }
      }
      fft.complexForward(x);
      most = Math.max(most, Math.hypot(x[2 * bin], x[2 * bin + 1]));
    }
    return -20 * Math.log10(Math.max(1e-12, most));
  }

  @Test(dataProvider = "settings")
  public void noEventReadsLowerThanStated(Window window, int length, int hop) {
    EventCertainty c = new EventCertainty(RATE, window, length, hop);
    Random random = new Random(length + hop);
    for (int i = 0; i < 1700; i++) {
      int samples = 1 + random.nextInt(length + 2 * hop);
      int start = 3 * length + random.nextInt(4 * hop);
      double stated = c.lossDb(samples / RATE + 1e-12);
      double loss = seen(window, length, hop, start, samples);
      assertTrue(loss <= stated + 0.2, samples + " samples: " + loss + " of " + stated);
    }
  }

  /** The statement is no wider than the worst of all beginnings. */
  @Test(dataProvider = "settings")
  public void theWorstBeginningReadsAsLowAsStated(Window window, int length, int hop) {
    EventCertainty c = new EventCertainty(RATE, window, length, hop);
    for (int samples : new int[] {length / 3, length / 2, length, length + hop / 2}) {
      double stated = c.lossDb(samples / RATE + 1e-12);
      double worst = 0;
      for (int start = 0; start < hop; start++) {
        worst = Math.max(worst, seen(window, length, hop, 4 * hop + length + start, samples));
      }
      if (stated < 80) {
        assertEquals(worst, stated, 0.2, samples + " samples");
      } else {
        assertTrue(worst > 60, samples + " samples: " + worst);
      }
    }
  }

  /** Neither missed, nor longer than needed by more than one step. */
  @Test(dataProvider = "settings")
  public void whatIsSureIsNoLongerThanNeeded(Window window, int length, int hop) {
    EventCertainty c = new EventCertainty(RATE, window, length, hop);
    int sure = (int) Math.round(c.fullSeconds() * RATE);
    assertEquals(sure, length + hop);
    for (int start = 0; start < hop; start++) {
      double loss = seen(window, length, hop, 4 * hop + length + start, sure);
      // The flat-top is below 0 at its ends: what covers less of it may read higher.
      assertTrue(loss < 1e-4 && loss > -0.5, "begins at " + start + ": " + loss);
    }
    if (window == Window.RECTANGULAR) {
      double worst = 0;
      for (int start = 0; start < hop; start++) {
        worst = Math.max(worst, seen(window, length, hop, 4 * hop + length + start, sure - 3));
      }
      assertTrue(worst > 0.01, "two samples less are not sure");
    }
  }

  @Test
  public void lessLossTakesLongerEvents() {
    EventCertainty c = new EventCertainty(RATE, Window.HANN, 256, 128);
    double before = c.fullSeconds();
    for (double loss : new double[] {0.5, 1, 3, 6, 10, 20}) {
      double seconds = c.secondsAt(loss);
      assertTrue(seconds <= before, loss + " dB");
      assertTrue(c.lossDb(seconds) <= loss, loss + " dB");
      assertTrue(c.lossDb(seconds - 1.5 / RATE) > loss, loss + " dB");
      before = seconds;
    }
  }

  /** Without overlap a window's ends let short events slip through. */
  @Test
  public void withoutOverlapAShortEventMayBeMissed() {
    assertTrue(new EventCertainty(RATE, Window.HANN, 256, 256).lossDb(5e-6) > 60);
    assertTrue(new EventCertainty(RATE, Window.HANN, 256, 26).lossDb(5e-6) < 40);
    assertEquals(
        new EventCertainty(RATE, Window.RECTANGULAR, 256, 256).lossDb(0), Double.POSITIVE_INFINITY);
  }
}
