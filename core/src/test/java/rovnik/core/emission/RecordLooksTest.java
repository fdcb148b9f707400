package rovnik.core.emission;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.signal.SampleSource;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.RecordSpectrum;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.TraceMode;
import rovnik.core.spectrum.TraceRow;

/** Further traces of a recording: what a tone that comes and goes leaves in each. */
public class RecordLooksTest {
  private static final double RATE = 1e6;
  private static final int SAMPLES = 1 << 19;

  /**
   * Of the tone in one sample: on a point of the transform, so that nothing is lost between two.
   */
  private static final double TURNS = 102 / 1024.0;

  /** A tone of amplitude 0.5 at +100 kHz in the first quarter, and weak noise throughout. */
  private static float[] record() {
    Random random = new Random(2);
    float[] iq = new float[2 * SAMPLES];
    for (int n = 0; n < SAMPLES; n++) {
      double a = n < SAMPLES / 4 ? 0.5 : 0;
      iq[2 * n] = (float) (a * Math.cos(2 * Math.PI * TURNS * n) + 1e-4 * random.nextGaussian());
      iq[2 * n + 1] =
          (float) (a * Math.sin(2 * Math.PI * TURNS * n) + 1e-4 * random.nextGaussian());
    }
    return iq;
  }

  private static SampleSource source(float[] iq) {
    int[] at = {0};
    return (block, most) -> {
      int count = Math.min(most, iq.length / 2 - at[0]);
      System.arraycopy(iq, 2 * at[0], block, 0, 2 * count);
      at[0] += count;
      return count;
    };
  }

  private static double db(double[] power, SpectrumLayout layout) {
    int point = (int) Math.round((TURNS * RATE - layout.offsetHz(0)) / layout.stepHz());
    double top = 0;
    for (int i = point - 3; i <= point + 3; i++) {
      top = Math.max(top, power[i]);
    }
    return 10 * Math.log10(top);
  }

  @Test
  public void eachTraceSeesTheRecordInItsOwnWay() {
    SpectrumSettings s =
        new SpectrumSettings(0, 800e3, 2e3, Window.HANN, Detector.RMS, 1_000_000, 0, 1e5);
    SpectrumLayout layout = SpectrumLayout.plan(RATE, 0, 800e3, 2e3, Window.HANN);
    RecordLooks looks =
        new RecordLooks(
            List.of(
                TraceRow.of(TraceMode.HIGHEST, 1),
                TraceRow.of(TraceMode.LOWEST, 1),
                TraceRow.of(TraceMode.LIVE, 1),
                TraceRow.of(TraceMode.POWER_AVERAGE, 256),
                TraceRow.of(TraceMode.CISPR_AVERAGE, 1)),
            layout,
            s,
            20e6,
            List.of());
    SpectrumEstimator all = RecordSpectrum.estimate(source(record()), layout, s, looks);
    assertTrue(all.segments() > 500);
    double tone = 20 * Math.log10(0.5);
    double[] mean = new double[layout.points()];
    all.powerInto(mean);
    // A quarter of the time: 6.02 dB less on average.
    assertEquals(db(mean, layout), tone - 6.02, 0.1);
    assertEquals(db(looks.stack().power(0), layout), tone, 0.1, "highest hold");
    assertTrue(db(looks.stack().power(1), layout) < -80, "lowest hold");
    assertTrue(db(looks.stack().power(2), layout) < -80, "the newest, without the tone");
    assertEquals(db(looks.stack().power(3), layout), tone - 6.02, 0.5, "average of the looks");
    // The tone ended 0.4 s ago: a meter of 160 ms has fallen far by then.
    assertTrue(db(looks.stack().power(4), layout) < tone - 10, "CISPR average");
    assertEquals(looks.stack().taken(0), SAMPLES / (1 << 16));
  }

  /** Nothing asked for, nothing computed. */
  @Test
  public void withoutRowsNothingIsTaken() {
    SpectrumSettings s =
        new SpectrumSettings(0, 800e3, 2e3, Window.HANN, Detector.RMS, 100, 0, 1e5);
    SpectrumLayout layout = SpectrumLayout.plan(RATE, 0, 800e3, 2e3, Window.HANN);
    RecordLooks looks = new RecordLooks(List.of(), layout, s, 20e6, List.of());
    RecordSpectrum.estimate(source(record()), layout, s, looks);
    assertEquals(looks.stack().rows().size(), 0);
  }

  /**
   * A meter that has not settled reads low, and that is said; one that goes on watching settles.
   */
  @Test
  public void aMeterWatchesUntilItHasSettled() {
    int piece = (int) (0.12 * RATE);
    float[] iq = new float[2 * piece];
    for (int i = 0; i < piece; i++) {
      iq[2 * i] = 0.1f; // -20 dB at 0 Hz
    }
    SpectrumSettings s = new SpectrumSettings(0, 800e3, 2e3, Window.HANN, Detector.RMS, 50, 0, 1e5);
    SpectrumLayout layout = SpectrumLayout.plan(RATE, 0, 800e3, 2e3, Window.HANN);
    RecordLooks looks =
        new RecordLooks(List.of(TraceRow.of(TraceMode.QUASI_PEAK, 1)), layout, s, 100e6, List.of());
    looks.take(new double[layout.points()], iq, piece);
    int middle = (int) Math.round(-layout.offsetHz(0) / layout.stepHz());
    double early = 10 * Math.log10(looks.stack().power(0)[middle]);
    assertTrue(early < -21, "read " + early);
    assertTrue(looks.unsettled().contains("0.12 s"), looks.unsettled());
    for (int i = 0; i < 9; i++) {
      looks.watch(iq, piece);
    }
    looks.watched();
    assertEquals(10 * Math.log10(looks.stack().power(0)[middle]), -20, 0.15);
    assertEquals(looks.unsettled(), "");
  }
}
