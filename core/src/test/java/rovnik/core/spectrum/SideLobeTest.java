package rovnik.core.spectrum;

import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.signal.Window;

/** What a window makes beside a line is not listed as lines. */
public class SideLobeTest {
  private static final double FS = 400e3;

  private static List<Peak> lines(Window w, double hz, double noise, long seed, int averages) {
    SpectrumLayout layout = SpectrumLayout.plan(FS, 0, 200e3, 1000, w);
    SpectrumSettings s = new SpectrumSettings(0, 200e3, 1000, w, Detector.RMS, averages, 0, 50e3);
    int samples = (int) layout.samplesFor(averages);
    SpectrumEstimator e = new SpectrumEstimator(layout, Detector.RMS);
    e.accumulate(
        Signals.sum(Signals.tone(samples, hz / FS, 0.5), Signals.noise(samples, noise, seed)),
        0,
        samples);
    double[] power = new double[layout.points()];
    e.powerInto(power);
    return SpectrumMeasurement.of(
            power,
            layout,
            e.outside(),
            0,
            0,
            e.segments(),
            s,
            new MeasurementContext(
                null,
                rovnik.core.uncertainty.InstrumentAccuracy.UNKNOWN,
                rovnik.core.limits.LimitSet.NONE,
                List.of()))
        .peaks();
  }

  @DataProvider
  public Object[][] windows() {
    return java.util.Arrays.stream(Window.values())
        .map(w -> new Object[] {w})
        .toArray(Object[][]::new);
  }

  /** Whatever the noise, and up to the edge of the span. */
  @Test(dataProvider = "windows")
  public void sideLobesAreNoLines(Window w) {
    Random random = new Random(1);
    int trials = 0;
    int extra = 0;
    for (double noise : new double[] {1e-12, 1e-8, 1e-6}) {
      for (boolean edge : new boolean[] {false, true}) {
        for (int k = 0; k < 40; k++) {
          double hz =
              edge ? 100e3 - random.nextDouble() * 3e3 : (random.nextDouble() - 0.5) * 150e3;
          trials++;
          List<Peak> found = lines(w, hz, noise, k, 8);
          assertTrue(found.size() > 0, "the line itself is missing");
          extra += found.stream().filter(p -> Math.abs(p.frequencyHz() - hz) > 1500).count();
        }
      }
    }
    assertTrue(extra <= 0.02 * trials, extra + " side lobes in " + trials + " spectra");
  }

  /** A line beside the span is not in it, and what the window makes of it is not either. */
  @Test(dataProvider = "windows")
  public void sideLobesOfAlineBesideTheSpanAreNoLines(Window w) {
    Random random = new Random(2);
    int trials = 0;
    int found = 0;
    for (double noise : new double[] {1e-12, 1e-8, 1e-6}) {
      for (int k = 0; k < 40; k++) {
        double away = k % 2 == 0 ? 4e3 * random.nextDouble() : 95e3 * random.nextDouble();
        double hz = (k % 4 < 2 ? 1 : -1) * (101e3 + away);
        trials++;
        found += lines(w, hz, noise, k, 8).size();
      }
    }
    assertTrue(found <= 0.03 * trials, found + " lines in " + trials + " empty spectra");
  }
}
