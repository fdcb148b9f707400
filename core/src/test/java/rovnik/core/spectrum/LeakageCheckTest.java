package rovnik.core.spectrum;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.LeakageCheck.Finding;
import rovnik.core.spectrum.LeakageCheck.Skirt;

public class LeakageCheckTest {
  private static final int N = 4096;
  private static final double FS = 409.6e3; // 100 Hz a bin

  private static Finding look(float[] signal, Window window) {
    SpectrumLayout layout = SpectrumLayout.ofLength(FS, 0, FS * 0.9, window, N);
    SpectrumEstimator e = new SpectrumEstimator(layout, Detector.RMS);
    e.accumulate(signal, 0, signal.length / 2);
    double[] power = new double[layout.points()];
    e.powerInto(power);
    SpectrumSettings s = new SpectrumSettings(0, FS * 0.9, 0, window, Detector.RMS, 1, 0, 50e3);
    SpectrumResult r =
        SpectrumMeasurement.of(
            power, layout, e.outside(), 0, Double.NaN, e.segments(), s, MeasurementContext.BARE);
    return LeakageCheck.look(r.trace(), layout, 0, r.peaks().get(0));
  }

  private static float[] withNoise(float[] tone) {
    return Signals.sum(tone, Signals.noise(tone.length / 2, 1e-5, 4));
  }

  /** Common practice: a record that holds no whole number of periods has skirts, ... */
  @Test
  public void aToneBetweenBinsLeaksWithoutAWindow() {
    Finding f = look(withNoise(Signals.tone(40_960, 100.5 / N, 0.5)), Window.RECTANGULAR);
    assertEquals(f.skirt(), Skirt.LEAKAGE);
    assertEquals(f.excessDb(), 0, 4);
  }

  /** ... which are gone with a Hann window ... */
  @Test
  public void theSkirtIsGoneWithAWindow() {
    Finding f = look(withNoise(Signals.tone(40_960, 100.5 / N, 0.5)), Window.HANN);
    assertEquals(f.skirt(), Skirt.NONE);
  }

  /** ... or when the record is coherent. */
  @Test
  public void theSkirtIsGoneWhenTheRecordIsCoherent() {
    Finding f = look(withNoise(Signals.tone(40_960, 101.0 / N, 0.5)), Window.RECTANGULAR);
    assertEquals(f.skirt(), Skirt.NONE);
    assertEquals(f.nearestCoherentHz(), 101 * 100.0, 1e-6);
  }

  /** The frequency that is offered is coherent and near, with odd periods in 4,096 points. */
  @Test
  public void theCoherentFrequencyIsOffered() {
    Finding f = look(withNoise(Signals.tone(40_960, 100.5 / N, 0.5)), Window.RECTANGULAR);
    double cycles = f.nearestCoherentHz() / 100;
    assertEquals(cycles, Math.rint(cycles), 1e-9);
    assertEquals(Math.floorMod((long) Math.rint(cycles), 2), 1);
    assertTrue(Math.abs(cycles - 100.5) <= 1.5);
    Finding again = look(withNoise(Signals.tone(40_960, cycles / N, 0.5)), Window.RECTANGULAR);
    assertEquals(again.skirt(), Skirt.NONE);
  }

  /** A record of whole periods leaks nothing: what lies beside the line then is the signal's. */
  @Test
  public void phaseNoiseOfAcoherentToneIsReal() {
    for (long seed = 1; seed <= 20; seed++) {
      java.util.Random random = new java.util.Random(seed);
      float[] iq = new float[2 * N];
      double[] noise = new double[N];
      double walk = 0;
      for (int i = 0; i < N; i++) {
        walk += 1e-4 * random.nextGaussian();
        noise[i] = walk;
      }
      for (int i = 0; i < N; i++) {
        // Without a trend: the mean frequency is that of whole periods.
        double phase = 2 * Math.PI * 101.0 * i / N + noise[i] - noise[N - 1] * i / N;
        iq[2 * i] = (float) (0.5 * Math.cos(phase));
        iq[2 * i + 1] = (float) (0.5 * Math.sin(phase));
      }
      float[] quiet = Signals.sum(iq, Signals.noise(N, 1e-11, seed));
      assertEquals(look(quiet, Window.RECTANGULAR).skirt(), Skirt.REAL);
    }
  }

  /** Slow random frequency modulation makes a skirt that no window takes away. */
  @Test
  public void aNoisyCarrierHasARealSkirt() {
    java.util.Random random = new java.util.Random(8);
    float[] iq = new float[2 * 81_920];
    double phase = 0;
    for (int i = 0; i < 81_920; i++) {
      phase += 2 * Math.PI * 100.5 / N + 0.01 * random.nextGaussian();
      iq[2 * i] = (float) (0.5 * Math.cos(phase));
      iq[2 * i + 1] = (float) (0.5 * Math.sin(phase));
    }
    for (Window w : new Window[] {Window.HANN, Window.BLACKMAN_HARRIS}) {
      Finding f = look(withNoise(iq), w);
      assertEquals(f.skirt(), Skirt.REAL);
      assertTrue(f.excessDb() > 20);
    }
  }
}
