package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** A carrier that is keyed at known instants, in noise, cut into pieces in many ways. */
public class TriggerMeasurementTest {
  static final double RATE = 1e6;

  /** Times at which the carrier comes and goes, in turns. */
  static float[] keyed(double seconds, double[] times, double noise, Random random) {
    int n = (int) Math.round(seconds * RATE);
    float[] iq = new float[2 * n];
    int at = 0;
    for (int i = 0; i < n; i++) {
      while (at < times.length && i / RATE >= times[at]) {
        at++;
      }
      double v = at % 2 == 1 ? 0.1 : 0;
      double angle = 2 * Math.PI * 20e3 * i / RATE;
      iq[2 * i] = (float) (v * Math.cos(angle) + noise * random.nextGaussian());
      iq[2 * i + 1] = (float) (v * Math.sin(angle) + noise * random.nextGaussian());
    }
    return iq;
  }

  static IqRecord piece(float[] iq, int from, int to) {
    float[] part = java.util.Arrays.copyOfRange(iq, 2 * from, 2 * to);
    return new IqRecord(part, RATE, 100e6, Double.NaN, false, from / RATE);
  }

  /** Settings that a test changes. */
  static final class Wanted {
    double centreHz;
    double bandHz;
    TriggerSettings.By by = TriggerSettings.By.RISES;
    double levelDb = -26;
    double least;
    double most = Double.POSITIVE_INFINITY;
    double pause;
    double holdOff;
    double before = 1e-3;
    double after = 2e-3;
    TriggerMask mask = TriggerMask.NONE;
    IntervalPattern pattern = IntervalPattern.ANY;

    TriggerMeasurement measurement() {
      return new TriggerMeasurement(
          new TriggerSettings(
              centreHz, bandHz, 10, 0, by, levelDb, least, most, pause, holdOff, before, after,
              mask, pattern));
    }

    /** The same samples cut anywhere. */
    Outcome inPieces(float[] iq, Random random) {
      RecordMeasurement.Gathering g = measurement().gathering();
      int samples = iq.length / 2;
      int at = 0;
      while (at < 0.9 * samples) {
        int to = Math.min(samples - 1, at + (at == 0 ? 9000 : 64) + random.nextInt(9000));
        g.take(piece(iq, at, to), MeasurementContext.BARE);
        at = to;
      }
      return g.add(piece(iq, at, samples), MeasurementContext.BARE);
    }

    Outcome of(float[] iq) {
      return measurement().of(piece(iq, 0, iq.length / 2), MeasurementContext.BARE);
    }
  }

  static double[] column(Outcome o, int column) {
    return o.table("triggers")
        .map(t -> t.rows().stream().mapToDouble(r -> r.cells().get(column).value()).toArray())
        .orElse(new double[0]);
  }

  static double reading(Outcome o, String id) {
    return o.reading(id).orElseThrow().value();
  }

  private static final double[] THREE = {0.0102, 0.0142, 0.05, 0.0508, 0.08003, 0.09};

  @Test
  public void eachRiseCountsOnce() {
    Outcome o = new Wanted().of(keyed(0.1, THREE, 1e-3, new Random(1)));
    assertEquals(reading(o, "triggers"), 3.0);
    double[] at = column(o, 1);
    double[] stays = column(o, 3);
    assertEquals(column(o, 2)[0], 0.08003 - 0.05, 2e-6);
    assertTrue(Double.isNaN(column(o, 2)[2]));
    for (int i = 0; i < 3; i++) {
      int k = 2 - i; // the newest first
      assertEquals(at[i], THREE[2 * k], 1e-6);
      assertEquals(stays[i], THREE[2 * k + 1] - THREE[2 * k], 1.5e-6);
      assertEquals(column(o, 4)[i], -20, 0.5);
    }
    assertEquals(reading(o, "seen"), 100.0, 1e-9);
    assertTrue(
        o.summary().startsWith("3 triggers in 100 ms: the power rises over -26.0 dBFS."),
        o.summary());
  }

  /** A band around the carrier delays nothing: what its filter takes is known. */
  @Test
  public void inABandTheInstantStays() {
    Wanted w = new Wanted();
    w.bandHz = 100e3;
    Outcome o = w.of(keyed(0.1, THREE, 1e-3, new Random(2)));
    double[] at = column(o, 1);
    assertEquals(at.length, 3);
    for (int i = 0; i < 3; i++) {
      // At half the amplitude the filter's step has its middle: there the carrier came.
      assertEquals(at[i], THREE[4 - 2 * i], 2e-6);
    }
  }

  @Test
  public void lengthsAreHeldAgainstWhatIsAskedFor() {
    float[] iq = keyed(0.1, THREE, 1e-3, new Random(3));
    Wanted longer = new Wanted();
    longer.least = 2e-3;
    Outcome o = longer.of(iq);
    assertEquals(reading(o, "triggers"), 2.0);
    assertEquals(reading(o, "otherLength"), 1.0);
    Wanted shorter = new Wanted();
    shorter.most = 2e-3;
    assertEquals(column(shorter.of(iq), 1), new double[] {0.05}, 1e-6);
    Wanted between = new Wanted();
    between.least = 2e-3;
    between.most = 5e-3;
    assertEquals(column(between.of(iq), 1), new double[] {0.0102}, 1e-6);
    Wanted never = new Wanted();
    never.least = 20e-3;
    String said = never.of(iq).summary();
    assertTrue(said.contains("3 times the power crossed") && said.contains("but never for 20 ms"));
  }

  @Test
  public void fallsAreTheOtherSide() {
    Wanted w = new Wanted();
    w.by = TriggerSettings.By.FALLS;
    Outcome o = w.of(keyed(0.1, THREE, 1e-3, new Random(4)));
    // Before the first rise it was never seen above: nothing fell there.
    assertEquals(column(o, 1), new double[] {0.09, 0.0508, 0.0142}, 1e-6);
    assertTrue(Double.isNaN(column(o, 3)[0]), "the last one goes on");
    assertEquals(column(o, 3)[1], 0.08003 - 0.0508, 2e-6);
  }

  @Test
  public void holdOffCountsWhatItHoldsBack() {
    Wanted w = new Wanted();
    w.holdOff = 0.05;
    Outcome o = w.of(keyed(0.1, THREE, 1e-3, new Random(5)));
    assertEquals(column(o, 1), new double[] {0.08003, 0.0102}, 1e-6);
    assertEquals(reading(o, "heldBack"), 1.0);
  }

  @Test
  public void pausesThatAreShortDoNotEndIt() {
    double[] times = {0.01, 0.012, 0.0121, 0.014, 0.0145, 0.016};
    float[] iq = keyed(0.03, times, 1e-3, new Random(6));
    Wanted w = new Wanted();
    w.pause = 0.3e-3;
    Outcome o = w.of(iq);
    assertEquals(column(o, 1), new double[] {0.0145, 0.01}, 1e-6);
    assertEquals(column(o, 3)[1], 0.004, 2e-6);
  }

  @Test
  public void whatDoesNotComeIsExplained() {
    float[] iq = keyed(0.1, THREE, 1e-3, new Random(7));
    Wanted high = new Wanted();
    high.levelDb = -10;
    String below = high.of(iq).summary();
    assertTrue(below.startsWith("Nothing came in 100 ms: the highest power was -19."), below);
    assertTrue(below.contains("below the level of -10.0 dBFS"), below);
    Wanted low = new Wanted();
    low.levelDb = -120;
    String never = low.of(iq).summary();
    assertTrue(never.startsWith("The power is never below the level of -120.0 dBFS"), never);
    Wanted noisy = new Wanted();
    noisy.levelDb = -53; // the noise has -57 dBFS
    String noise = noisy.of(iq).summary();
    assertTrue(noise.contains("as short as noise is; raise it"), noise);
    assertFalse(new Wanted().of(iq).summary().contains("noise"));
    Wanted none = new Wanted();
    none.by = TriggerSettings.By.NONE;
    assertEquals(none.of(iq).summary(), "No trigger is set: the level is watched.");
  }

  @DataProvider
  public Object[][] bands() {
    return new Object[][] {{0.0}, {100e3}, {7e3}};
  }

  /** Random keying, cut anywhere: the same is found as in one piece. */
  @Test(dataProvider = "bands")
  public void cutsDoNotShow(double bandHz) {
    for (int seed = 0; seed < 20; seed++) {
      Random random = new Random(100 + seed);
      List<Double> times = new ArrayList<>();
      double t = 2e-3;
      while (t < 0.09) {
        t += 0.3e-3 + 4e-3 * random.nextDouble();
        times.add(t);
      }
      float[] iq = keyed(0.1, times.stream().mapToDouble(x -> x).toArray(), 1e-3, new Random(seed));
      Wanted w = new Wanted();
      w.bandHz = bandHz;
      w.centreHz = 100.02e6;
      w.least = 0.2e-3;
      w.pause = 20e-6;
      w.holdOff = 5e-3;
      Outcome whole = w.of(iq);
      Outcome cut = w.inPieces(iq, random);
      assertTrue(column(whole, 1).length > 3);
      assertEquals(column(cut, 1), column(whole, 1), 1e-9);
      assertEquals(column(cut, 3), column(whole, 3), 1e-9);
      assertEquals(reading(cut, "heldBack"), reading(whole, "heldBack"));
    }
  }

  /** Samples that are missing: the gap is told, and nothing is found at its seam. */
  @Test
  public void gapsInventNothing() {
    for (int seed = 0; seed < 200; seed++) {
      Random random = new Random(seed);
      // On from 20 ms on; what is lost lies around that, or while it is on, or before.
      double on = 0.02;
      float[] iq = keyed(0.1, new double[] {on, 0.07}, 1e-3, random);
      int from = 5000 + random.nextInt(50_000);
      int to = from + 64 + random.nextInt(15_000);
      Wanted w = new Wanted();
      w.least = 1e-3;
      RecordMeasurement.Gathering g = w.measurement().gathering();
      g.take(piece(iq, 0, from), MeasurementContext.BARE);
      Outcome o = g.add(piece(iq, to, 100_000), MeasurementContext.BARE);
      boolean seen = from / RATE > on + 1e-3 || to / RATE < on;
      double[] found = column(o, 1);
      assertEquals(found.length, seen ? 1 : 0, seed + ": " + from + " to " + to);
      if (seen) {
        assertEquals(found[0], on, 1e-6);
      }
      double share = 100 * (1 - (to - from) / 100e3);
      assertEquals(reading(o, "seen"), share, 1e-6);
      assertTrue(o.summary().contains("1 gap: "), o.summary());
    }
  }

  /** A strong carrier beside the band rings in its filter where samples begin or are missing. */
  @Test
  public void seamsDoNotRing() {
    float[] iq = new float[200_000];
    for (int i = 0; i < 100_000; i++) {
      iq[2 * i] = 0.5f;
    }
    Wanted w = new Wanted();
    w.centreHz = 100.2e6;
    w.bandHz = 50e3;
    w.levelDb = -70;
    RecordMeasurement.Gathering g = w.measurement().gathering();
    g.take(piece(iq, 0, 30_123), MeasurementContext.BARE);
    g.take(piece(iq, 31_000, 60_000), MeasurementContext.BARE);
    Outcome o = g.add(piece(iq, 77_777, 100_000), MeasurementContext.BARE);
    assertEquals(column(o, 1).length, 0, o.summary());
    double rings = 2 * 2 * 13.34 / 50e3; // on both sides of two gaps
    double lost = (31_000 - 30_123 + 77_777 - 60_000) / RATE;
    assertEquals(reading(o, "seen"), 100 * (1 - (lost + rings) / 0.1), 0.04); // whole samples
    assertTrue(reading(o, "highest") < -95, "" + reading(o, "highest"));
  }

  /** What belongs to a trigger is worth keeping once its end was seen, and never before. */
  @Test
  public void keepsWhatIsAroundIt() {
    float[] iq = keyed(0.1, THREE, 1e-3, new Random(8));
    RecordMeasurement.Gathering g = new Wanted().measurement().gathering();
    g.take(piece(iq, 0, 11_000), MeasurementContext.BARE);
    assertTrue(g.toKeep().isEmpty(), "0.8 ms after it");
    Outcome o = g.more(piece(iq, 11_000, 60_000), MeasurementContext.BARE);
    List<RecordMeasurement.Kept> kept = g.toKeep();
    assertEquals(kept.size(), 2);
    assertEquals(kept.get(0).fromSeconds(), 0.0092, 1e-6);
    assertEquals(kept.get(0).atSeconds(), 0.0102, 1e-6);
    assertEquals(kept.get(0).toSeconds(), 0.0122, 1e-6);
    assertEquals(kept.get(1).name(), "trigger 2");
    assertTrue(g.toKeep().isEmpty(), "asked for already");
    var around = o.series("trigger").orElseThrow();
    assertEquals(around.x().first(), -1e-3, 2e-5);
    assertEquals(around.x().last(), 2e-3, 2e-5);
    assertTrue(around.valueAt(-0.5e-3) < -45 && around.valueAt(0.4e-3) > -21);
  }

  /** Watched for 10 s, but 0.1 s long: it is drawn as finely as so short a record allows. */
  @Test
  public void aShortRecordIsDrawnFinely() {
    Outcome o = new Wanted().of(keyed(0.1, new double[] {0.0995}, 1e-3, new Random(9)));
    var level = o.series("level").orElseThrow();
    assertTrue(level.x().points() > 300, "" + level.x().points());
    assertTrue(level.valueAt(0.099) < -45 && level.valueAt(0.0998) > -21);
    assertEquals(column(o, 4)[0], -20, 0.5, "the highest of what goes on");
    // What comes after the record is not there; what is, is shown.
    assertTrue(o.series("trigger").orElseThrow().valueAt(0.2e-3) > -21);
  }

  /** Highest and lowest of a cell are those of its samples, however cells were joined. */
  @Test
  public void cellsKeepTheirPeaks() {
    Random random = new Random(10);
    LevelOverTime level = new LevelOverTime(50_000, 100, 0);
    PowerBlocks blocks = new PowerBlocks(4096);
    float[] truth = new float[120_000];
    int at = 0;
    while (at < truth.length) {
      int n = Math.min(truth.length - at, 64 * (1 + random.nextInt(60)));
      float[] iq = new float[2 * n];
      for (int i = 0; i < n; i++) {
        iq[2 * i] = random.nextFloat();
        truth[at + i] = iq[2 * i] * iq[2 * i];
      }
      blocks.of(iq, 0, n);
      level.take(blocks, at);
      at += n;
      LevelOverTime.Stretch s = level.between(Math.max(0, at - 40_000), at);
      for (int c = 0; c < s.highest().length; c++) {
        double high = 0;
        double low = 1;
        double sum = 0;
        int from = (int) (s.first() + c * s.cellSamples());
        int to = (int) Math.min(at, from + s.cellSamples());
        for (int i = from; i < to; i++) {
          high = Math.max(high, truth[i]);
          low = Math.min(low, truth[i]);
          sum += truth[i] / (to - from);
        }
        assertEquals(s.highest()[c], high, 0);
        assertEquals(s.lowest()[c], low, 0);
        assertEquals(s.mean()[c], sum, 1e-5);
      }
    }
  }

  /** What belongs to it would begin before the record does; short and long, drawn in both ways. */
  @Test
  public void aTriggerNearTheBeginningIsShown() {
    for (double before : new double[] {5e-3, 5}) {
      Wanted w = new Wanted();
      w.before = before;
      w.after = 5e-3;
      float[] iq = keyed(0.1, new double[] {0.002}, 1e-3, new Random(11));
      RecordMeasurement.Gathering g = w.measurement().gathering();
      g.take(piece(iq, 0, 3000), MeasurementContext.BARE);
      Outcome o = g.more(piece(iq, 3000, 50_000), MeasurementContext.BARE);
      var around = o.series("trigger").orElseThrow();
      assertEquals(around.x().last(), 5e-3, 0.02 * (before + 5e-3));
      assertEquals(g.toKeep().get(0).fromSeconds(), 0.0, 1e-9);
    }
  }

  @Test
  public void badSettingsAreRefused() {
    Wanted w = new Wanted();
    w.before = 8;
    w.after = 8;
    assertEquals(expectThrows(Refusal.class, w::measurement).field(), "beforeSeconds");
    Wanted swapped = new Wanted();
    swapped.least = 2;
    swapped.most = 1;
    assertEquals(expectThrows(Refusal.class, swapped::measurement).field(), "mostSeconds");
    Wanted level = new Wanted();
    level.levelDb = Double.NaN;
    assertEquals(expectThrows(Refusal.class, level::measurement).field(), "levelDb");
  }
}
