package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.result.Outcome;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.MeasurementContext;

/** Records whose shares of time are known because they were put in. */
public class DensityMeasurementTest {
  private static final double RATE = 1e6;
  private static final double CENTRE = 100e6;

  private static DensitySettings settings(double rbwHz, double overlap, double decay) {
    return new DensitySettings(0, 0, rbwHz, Window.HANN, overlap, 1, 0, decay);
  }

  /** Whether a tone of some amplitude is there at a sample. */
  private interface There {
    double amplitude(double seconds);
  }

  private static IqRecord record(double seconds, double offsetHz, double noise, There there) {
    int n = (int) Math.round(seconds * RATE);
    Random random = new Random(5);
    float[] iq = new float[2 * n];
    for (int i = 0; i < n; i++) {
      double a = there.amplitude(i / RATE);
      double angle = 2 * Math.PI * offsetHz * i / RATE;
      iq[2 * i] = (float) (a * Math.cos(angle) + noise * random.nextGaussian());
      iq[2 * i + 1] = (float) (a * Math.sin(angle) + noise * random.nextGaussian());
    }
    return new IqRecord(iq, RATE, CENTRE, Double.NaN, false);
  }

  private static Outcome measure(DensitySettings s, IqRecord r) {
    return new DensityMeasurement(s).of(r, MeasurementContext.BARE);
  }

  private static double value(Outcome o, String id) {
    return o.reading(id).orElseThrow(() -> new AssertionError(o.summary())).value();
  }

  private static Series series(Outcome o, String id) {
    return o.series(id).orElseThrow();
  }

  private static double cell(Series s, double hz, double row) {
    Values.Matrix m = (Values.Matrix) s.values();
    int x = (int) Math.round((hz - s.x().start()) / s.x().step());
    int r = (int) Math.round((row - m.rows().start()) / m.rows().step());
    return r < 0 || r >= m.rows().points() ? 0 : m.z()[x * m.rows().points() + r];
  }

  @Test
  public void noiseIsSpreadAsExponentialPowersAre() {
    Outcome o = measure(settings(10e3, 0, 0), record(0.2, 0, 0.01, t -> 0));
    Series density = series(o, "density");
    Values.Matrix m = (Values.Matrix) density.values();
    int rows = m.rows().points();
    int frames = (int) density.fact("spectra");
    // Mean power of white noise in one point: its variance times the ENBW over the rate.
    double length = Window.HANN.figures().width3dbBins() * RATE / 10e3;
    double mean = 2 * 0.01 * 0.01 * Window.HANN.figures().enbwBins() / Math.round(length);
    double[] below = new double[rows + 1];
    int points = density.x().points();
    for (int p = 0; p < points; p++) {
      double sum = 0;
      for (int r = 0; r < rows; r++) {
        double share = m.z()[p * rows + r];
        sum += share;
        below[r + 1] += share / points / 100;
      }
      assertEquals(sum, 100, 0.01, "all of the time at point " + p);
    }
    double cumulative = 0;
    for (int r = 0; r < rows; r++) {
      cumulative += below[r + 1];
      double edgeDb = m.rows().at(r) + m.rows().step() / 2;
      double truth = 1 - Math.exp(-Math.pow(10, edgeDb / 10) / mean);
      // Neighbouring points share 2/3 of their noise, so there are fewer independent ones.
      double independent = frames * points / 3.0;
      double bound = 5 * Math.sqrt(truth * (1 - truth) / independent) + 0.003;
      assertEquals(cumulative, truth, bound, edgeDb + " dB");
    }
    assertTrue(o.table("there").orElseThrow().rows().isEmpty(), o.summary());
  }

  @Test
  public void aToneIsThereForItsShareOfTheTime() {
    // On for 3 ms of every 10.
    IqRecord r = record(0.5, 125e3, 1e-4, t -> t % 10e-3 < 3e-3 ? 0.1 : 0);
    Outcome o = measure(settings(20e3, 75, 0), r);
    Series density = series(o, "density");
    assertEquals(value(o, "highestLevel"), -20, 0.15);
    assertEquals(value(o, "highestFrequency"), CENTRE + 125e3, density.x().step());
    assertEquals(value(o, "share"), 30, 1);
    double share = 0;
    for (double db = -21; db <= -19.4; db += 0.5) {
      share += cell(density, CENTRE + 125e3, db + 0.25);
    }
    // A window at an edge is half full: of 72 us in each of two, 144 us of 10 ms.
    assertEquals(share, 30, 1.5);
    assertEquals(o.table("there").orElseThrow().rows().get(0).cells().get(4).value(), 50, 0);
    assertEquals(
        o.table("there").orElseThrow().rows().get(0).cells().get(5).value(), 3e-3, 0.05e-3);
  }

  @Test
  public void theHistoryHasEventsAtTheirTimes() {
    IqRecord r = record(0.8, -203.125e3, 1e-4, t -> Math.abs(t - 0.3) < 0.5e-3 ? 0.2 : 0);
    Outcome o = measure(settings(20e3, 50, 0), r);
    Series history = series(o, "history");
    Values.Matrix m = (Values.Matrix) history.values();
    assertTrue(m.rows().points() <= 400);
    // Rows stand for stretches; the highest of each is kept, so 1 ms of 800 is not lost.
    assertEquals(cell(history, CENTRE - 203.125e3, 0.3), -13.98, 0.2);
    assertTrue(cell(history, CENTRE - 203.125e3, 0.31) < -60);
    // A window that the event ends in has a step, which is seen a little everywhere.
    assertTrue(cell(history, CENTRE + 203.125e3, 0.3) < -40);
    assertEquals(m.rows().last(), 0.8, 0.005);
  }

  /** 14 us at a window of 144 us: always seen, at a level that is marked as too low. */
  @Test
  public void aShortEventIsMarked() {
    IqRecord r = record(0.1, 0, 1e-5, t -> t % 3.1e-3 < 14e-6 ? 0.1 : 0);
    Outcome o = measure(settings(10e3, 90, 0), r);
    assertTrue(
        o.reading("highestLevel").orElseThrow().marks().get(0).startsWith("so short"),
        o.reading("highestLevel").orElseThrow().marks().toString());
    double loss = -20 - value(o, "highestLevel");
    double stated = new EventCertainty(RATE, Window.HANN, 144, 14).lossDb(14e-6);
    assertTrue(loss > 10 && loss < stated + 0.2, loss + " of " + stated);
    // With a window that is shorter than the event it is there in full.
    Outcome wide =
        measure(settings(22e3, 90, 0), record(0.1, 0, 1e-5, t -> t % 3.1e-3 < 80e-6 ? 0.1 : 0));
    assertEquals(value(wide, "highestLevel"), -20, 0.05);
    assertTrue(wide.reading("highestLevel").orElseThrow().marks().isEmpty(), wide.summary());
  }

  @Test
  public void whatIsLongAgoCountsLessWithADecay() {
    IqRecord r = record(0.4, 93.75e3, 1e-4, t -> t < 0.2 ? 0.1 : 0);
    double all = near(measure(settings(20e3, 50, 0), r));
    double less = near(measure(settings(20e3, 50, 0.05), r));
    assertEquals(all, 50, 1);
    // exp(-0.2/0.05) of all weights lies before the middle.
    assertEquals(less, 100 * Math.exp(-4), 0.3);
  }

  /** Share of the time within a row of -20 dB at the tone. */
  private static double near(Outcome o) {
    double sum = 0;
    for (double db = -20.5; db < -19.4; db += 0.5) {
      sum += cell(series(o, "density"), CENTRE + 93.75e3, db + 0.25);
    }
    return sum;
  }

  @Test
  public void tracesAreTheEndsAndTheMean() {
    IqRecord r = record(0.2, 0, 1e-4, t -> t % 2e-3 < 1e-3 ? 0.1 : 0);
    Outcome o = measure(settings(20e3, 50, 0), r);
    int middle = series(o, "mean").x().points() / 2;
    assertEquals(series(o, "highest").y()[middle], -20, 0.1);
    assertEquals(series(o, "mean").y()[middle], -23, 0.3);
    assertTrue(series(o, "lowest").y()[middle] < -60);
  }

  /** Left to itself the RBW follows the span, and where time is short the time. */
  @Test
  public void aShortRecordHasSomeSpectra() {
    Outcome enough = measure(settings(0, 50, 0), record(0.05, 0, 1e-4, t -> 0.1));
    assertEquals(series(enough, "density").fact("RBW"), RATE / 500, RATE / 5000);
    Outcome little = measure(settings(0, 50, 0), record(0.003, 0, 1e-4, t -> 0.1));
    // A Hann window of this RBW lasts 1.44 / RBW: there are 16 of them in 3 ms.
    assertEquals(series(little, "density").fact("RBW"), 16 * 1.44 / 0.003, 300);
    assertEquals(value(little, "highestLevel"), -20, 0.1);
    assertEquals(
        expectThrows(
                Refusal.class, () -> measure(settings(0, 50, 0), record(1e-4, 0, 1e-4, t -> 0.1)))
            .field(),
        "startSeconds");
  }

  @Test
  public void whatCannotBeDoneIsSaid() {
    IqRecord r = record(0.01, 0, 1e-4, t -> 0.1);
    assertEquals(
        expectThrows(Refusal.class, () -> measure(settings(1e3, 50, 0), r)).field(),
        "startSeconds");
    assertEquals(expectThrows(Refusal.class, () -> settings(1e3, 99, 0)).field(), "overlapPercent");
    assertEquals(expectThrows(Refusal.class, () -> settings(-1, 50, 0)).field(), "rbwHz");
    DensitySettings outside = new DensitySettings(200e6, 1e5, 0, Window.HANN, 50, 1, 0, 0);
    assertEquals(expectThrows(Refusal.class, () -> measure(outside, r)).field(), "centreHz");
    DensitySettings wide = new DensitySettings(0, 5e6, 0, Window.HANN, 50, 1, 0, 0);
    assertTrue(expectThrows(Refusal.class, () -> measure(wide, r)).getMessage().contains("span"));
  }
}
