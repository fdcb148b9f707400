package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.Series;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.MeasurementContext;

/** Signals whose amplitude, frequency and phase at each instant are known in closed form. */
public class AmplitudeMeasurementTest {
  private static final double RATE = 4e6;
  private static final double CENTRE = 212e6;

  /** Amplitude and phase of a signal at an instant. */
  private interface Signal {
    /**
     * @return amplitude, then phase in radians
     */
    double[] at(double seconds);
  }

  private static IqRecord record(double seconds, double noise, long seed, Signal signal) {
    int n = (int) Math.round(seconds * RATE);
    Random random = new Random(seed);
    float[] iq = new float[2 * n];
    for (int i = 0; i < n; i++) {
      double[] v = signal.at(i / RATE);
      iq[2 * i] = (float) (v[0] * Math.cos(v[1]) + noise * random.nextGaussian());
      iq[2 * i + 1] = (float) (v[0] * Math.sin(v[1]) + noise * random.nextGaussian());
    }
    return new IqRecord(iq, RATE, CENTRE, Double.NaN, false);
  }

  private static AmplitudeSettings settings(double bandHz, double instant, double stretch) {
    return new AmplitudeSettings(0, bandHz, 1, 0, instant, stretch, Window.HANN);
  }

  private static Outcome measure(AmplitudeSettings s, IqRecord r) {
    return new AmplitudeMeasurement(s).of(r, MeasurementContext.BARE);
  }

  private static Reading reading(Outcome o, String id) {
    return o.reading(id).orElseThrow(() -> new AssertionError(id + ": " + o.summary()));
  }

  private static double value(Outcome o, String id) {
    return reading(o, id).value();
  }

  private static double at(Outcome o, String id, double seconds) {
    return o.series(id).orElseThrow().valueAt(seconds);
  }

  private static Signal tone(double amplitude, double hz) {
    return t -> new double[] {amplitude, 2 * Math.PI * hz * t};
  }

  /** Bursts of 14 us every 3.1 ms, 30 kHz off the middle. */
  private static Signal bursts(double amplitude) {
    return t -> {
      double into = (t - 0.4e-3) % 3.1e-3;
      return new double[] {into >= 0 && into < 14e-6 ? amplitude : 0, 2 * Math.PI * 30e3 * t + 0.3};
    };
  }

  /** The stretch finds the burst by itself; over time and over frequency it has one level. */
  @Test(dataProvider = "bands")
  public void levelOfABurstByTimeAndBySpectrumAgree(double bandHz) {
    Outcome o = measure(settings(bandHz, Double.NaN, 0), record(0.02, 1e-4, 1, bursts(0.1)));
    assertEquals(value(o, "stretchLevel"), -20, 0.1, o.summary());
    assertEquals(value(o, "stretchSpectrum"), value(o, "stretchLevel"), 0.1, o.summary());
    assertEquals(value(o, "lineLevel"), -20, 0.1, o.summary());
    assertEquals(value(o, "lineFrequency"), CENTRE + 30e3, 400, o.summary());
    assertEquals(value(o, "meanLevel"), -20 + 10 * Math.log10(7 * 14e-6 / 0.02), 0.2);
    double into = (value(o, "highestAt") - 0.4e-3) % 3.1e-3;
    assertTrue(into > 0 && into < 14e-6, "highest " + into + " s into its burst");
    double rbw = Window.HANN.figures().width3dbBins() / 14e-6;
    assertEquals(o.series("spectrum").orElseThrow().fact("RBW"), rbw, 0.1 * rbw);
  }

  @DataProvider
  public Object[][] bands() {
    return new Object[][] {{0.0}, {2e6}};
  }

  @Test
  public void amplitudeModulationInClosedForm() {
    Signal am = t -> new double[] {0.2 * (1 + 0.5 * Math.cos(2 * Math.PI * 200 * t)), 1e5 * t};
    Outcome o = measure(settings(100e3, Double.NaN, 0), record(0.1, 1e-5, 2, am));
    double carrier = 20 * Math.log10(0.2);
    assertEquals(value(o, "highestLevel"), carrier + 20 * Math.log10(1.5), 0.01);
    assertEquals(value(o, "meanLevel"), carrier + 10 * Math.log10(1 + 0.25 / 2), 0.01);
    assertEquals(value(o, "crest"), value(o, "highestLevel") - value(o, "meanLevel"), 1e-9);
    assertEquals(at(o, "amplitude", 0.0525), carrier + 20 * Math.log10(0.5), 0.05);
    assertEquals(at(o, "mean", 0.05), carrier + 20 * Math.log10(1.5), 0.01);
  }

  /** FM of 20 kHz deviation at 500 Hz: the frequency at each instant is its message. */
  @Test
  public void frequencyOverTimeIsTheMessage() {
    Signal fm =
        t -> new double[] {0.3, 2 * Math.PI * 100e3 * t + 40 * Math.sin(2 * Math.PI * 500 * t)};
    Outcome o = measure(settings(600e3, Double.NaN, 0), record(0.02, 1e-5, 3, fm));
    for (double t = 0.003; t < 0.017; t += 0.00037) {
      double truth = 100e3 + 20e3 * Math.cos(2 * Math.PI * 500 * t);
      assertEquals(at(o, "frequency", t), truth, 30, "at " + t);
    }
    assertEquals(at(o, "lowest", 0.01), 20 * Math.log10(0.3), 0.01);
  }

  /** A phase that jumps by a quarter of a turn, and 2 kHz of it, over a carrier 50 kHz aside. */
  @Test
  public void phaseOverTimeShowsAJump() {
    Signal jump = t -> new double[] {0.3, 2 * Math.PI * 50e3 * t + (t > 0.01 ? Math.PI / 2 : 0)};
    Outcome o = measure(settings(200e3, 0.005, 1e-3), record(0.02, 1e-5, 4, jump));
    assertEquals(at(o, "phase", 0.006), 0, 3);
    double turned = at(o, "phase", 0.0105) - at(o, "phase", 0.0095);
    assertEquals(turned, 90, 3);
  }

  /** Between bursts there is noise, whose frequency and phase say nothing and are not drawn. */
  @Test
  public void noiseHasNoFrequency() {
    Outcome o = measure(settings(2e6, Double.NaN, 0), record(0.02, 1e-3, 5, bursts(0.1)));
    Series frequency = o.series("frequency").orElseThrow();
    int known = 0;
    for (int i = 0; i < frequency.x().points(); i++) {
      double hz = frequency.y()[i];
      if (!Double.isNaN(hz)) {
        double into = (frequency.x().at(i) - 0.4e-3 + 20e-6) % 3.1e-3;
        assertTrue(into < 60e-6, "frequency where no burst is, at " + frequency.x().at(i));
        known++;
      }
    }
    assertTrue(known >= 7, known + " steps");
  }

  /** One tone at first, another later: the spectrum at an instant has the one of that instant. */
  @Test
  public void spectrumOfTheInstantThatIsChosen() {
    Signal two = t -> new double[] {0.1, 2 * Math.PI * (t < 0.01 ? 100e3 : -200e3) * t};
    IqRecord r = record(0.02, 1e-4, 6, two);
    Outcome first = measure(settings(0, 0.004, 1e-3), r);
    Outcome later = measure(settings(0, 0.016, 1e-3), r);
    assertEquals(value(first, "lineFrequency"), CENTRE + 100e3, 5);
    assertEquals(value(later, "lineFrequency"), CENTRE - 200e3, 5);
    double rbw = Window.HANN.figures().width3dbBins() / 1e-3;
    assertEquals(first.series("spectrum").orElseThrow().fact("RBW"), rbw, 0.01 * rbw);
    assertEquals(first.table(Outcome.LINES).orElseThrow().rows().size(), 1);
    double[] edges = first.series("from-dBFS").orElseThrow().x().own();
    assertEquals(edges[0], 0.0035, 1e-6);
    assertEquals(first.series("to-deg").orElseThrow().x().own()[0], 0.0045, 1e-6);
    Series spectrum = first.series("spectrum").orElseThrow();
    int point = (int) Math.rint((CENTRE + 100e3 - spectrum.x().start()) / spectrum.x().step());
    assertEquals(spectrum.y()[point], -20, 0.1);
    assertEquals(spectrum.fact("of"), 1e-3, 1e-6);
  }

  /** One sample in 80,000 is drawn. */
  @Test
  public void theHighestIsNeverThinnedAway() {
    IqRecord r = record(0.02, 1e-5, 7, tone(0.01, 0));
    r.iq()[2 * 54321] = 0.5f;
    Outcome o = measure(settings(0, 0.001, 1e-4), r);
    double most = Double.NEGATIVE_INFINITY;
    for (double y : o.series("amplitude").orElseThrow().y()) {
      most = Math.max(most, y);
    }
    assertEquals(most, 20 * Math.log10(0.5), 0.01);
    assertEquals(value(o, "highestAt"), 54321 / RATE, 1e-9);
    assertTrue(o.series("amplitude").orElseThrow().x().points() <= 2000);
  }

  /** A stretch of a recording keeps the recording's time. */
  @Test
  public void timeIsThatOfTheRecording() {
    IqRecord whole = record(0.02, 1e-4, 8, bursts(0.1));
    float[] part = new float[2 * 20_000];
    System.arraycopy(whole.iq(), 2 * 40_000, part, 0, part.length);
    IqRecord later = new IqRecord(part, RATE, CENTRE, Double.NaN, false, 0.01);
    AmplitudeSettings s = new AmplitudeSettings(0, 0, 0.004, 0.0105, Double.NaN, 0, Window.HANN);
    Outcome of = measure(s, later);
    Outcome ofWhole = measure(s, whole);
    assertEquals(value(of, "highestAt"), value(ofWhole, "highestAt"), 1e-9);
    assertEquals(value(of, "meanLevel"), value(ofWhole, "meanLevel"), 1e-9);
    assertEquals(at(of, "amplitude", 0.0128), at(ofWhole, "amplitude", 0.0128), 1e-6);
  }

  /** What is claimed of a tone's frequency and level holds, and is not needlessly wide. */
  @Test
  public void truthLiesInsideAsOftenAsClaimed() {
    int trials = 300;
    int frequency = 0;
    int level = 0;
    double ratio = 0;
    Random random = new Random(11);
    for (int k = 0; k < trials; k++) {
      double hz = 300e3 * random.nextDouble() - 150e3;
      double amplitude = 0.02 + 0.05 * random.nextDouble();
      double stretch = 2e-4 + 1e-3 * random.nextDouble();
      IqRecord r = record(0.004, 0.01, 100 + k, tone(amplitude, hz));
      Outcome o = measure(settings(0, 0.002, stretch), r);
      Reading f = reading(o, "lineFrequency");
      Reading l = reading(o, "lineLevel");
      double off = Math.abs(f.value() - CENTRE - hz);
      frequency += off <= f.uncertainty() ? 1 : 0;
      ratio += off * off / f.uncertainty() / f.uncertainty() * 4 / trials;
      level += Math.abs(l.value() - 20 * Math.log10(amplitude)) <= l.uncertainty() ? 1 : 0;
    }
    assertTrue(frequency >= 0.93 * trials, frequency + " frequencies inside");
    assertTrue(level >= 0.93 * trials, level + " levels inside");
    assertTrue(ratio > 0.4 && ratio < 1.4, "error over stated, squared: " + ratio);
  }

  @Test
  public void whatCannotBeIsRefusedWithTheField() {
    IqRecord r = record(0.02, 1e-4, 9, tone(0.1, 0));
    refused("instantSeconds", () -> measure(settings(0, 0.03, 0), r));
    refused("stretchSeconds", () -> measure(settings(0, 0.01, 1e-6), r));
    refused("stretchSeconds", () -> settings(0, 0.01, 2));
    refused("bandHz", () -> settings(5, 0.01, 0));
    refused("bandHz", () -> measure(settings(8e6, 0.01, 0), r));
    refused(
        "startSeconds",
        () -> measure(new AmplitudeSettings(0, 0, 1, 0.5, Double.NaN, 0, Window.HANN), r));
    refused(
        "centreHz",
        () -> measure(new AmplitudeSettings(1e9, 1e5, 1, 0, Double.NaN, 0, Window.HANN), r));
    refused("seconds", () -> new AmplitudeSettings(0, 0, 0, 0, Double.NaN, 0, Window.HANN));
  }

  private static void refused(String field, Runnable what) {
    Refusal r = expectThrows(Refusal.class, what::run);
    assertEquals(r.field(), field, r.getMessage());
    assertFalse(r.getMessage().isBlank());
  }
}
