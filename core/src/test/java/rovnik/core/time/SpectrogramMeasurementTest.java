package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.Digesting;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.MeasurementContext;

/** Signals that are at one place at a time, and long records in parts. */
public class SpectrogramMeasurementTest {
  private static final double RATE = 1e6;
  private static final double CENTRE = 100e6;

  private static SpectrogramSettings settings(int rows) {
    return new SpectrogramSettings(0, 0, 10e3, Window.HANN, 50, 3600, 0, rows);
  }

  /** A sweep of 1 MHz/s from -200 kHz on, with one short line at 0.31 s. */
  private static IqRecord sweep(double seconds) {
    int n = (int) Math.round(seconds * RATE);
    Random random = new Random(2);
    float[] iq = new float[2 * n];
    for (int i = 0; i < n; i++) {
      double t = i / RATE;
      double angle = 2 * Math.PI * (-200e3 * t + 1e6 * t * t / 2);
      boolean there = t > 0.31 && t < 0.3105;
      double line = 2 * Math.PI * 350e3 * t;
      iq[2 * i] =
          (float)
              (0.1 * Math.cos(angle)
                  + (there ? 0.5 * Math.cos(line) : 0)
                  + 1e-4 * random.nextGaussian());
      iq[2 * i + 1] =
          (float)
              (0.1 * Math.sin(angle)
                  + (there ? 0.5 * Math.sin(line) : 0)
                  + 1e-4 * random.nextGaussian());
    }
    return new IqRecord(iq, RATE, CENTRE, Double.NaN, false);
  }

  private static float cell(Series s, double hz, double seconds) {
    Values.Matrix m = (Values.Matrix) s.values();
    int x = (int) Math.round((hz - s.x().start()) / s.x().step());
    int r = (int) Math.round((seconds - m.rows().start()) / m.rows().step());
    return m.z()[x * m.rows().points() + r];
  }

  private static double value(Outcome o, String id) {
    return o.reading(id).orElseThrow().value();
  }

  @Test
  public void theSweepIsWhereItIsAtItsTime() {
    Outcome o = new SpectrogramMeasurement(settings(400)).of(sweep(0.4), MeasurementContext.BARE);
    Series s = o.series("spectrogram").orElseThrow();
    int rows = ((Values.Matrix) s.values()).rows().points();
    assertTrue(rows > 200 && rows <= 400, rows + " rows");
    for (double t = 0.02; t < 0.38; t += 0.017) {
      double hz = CENTRE - 200e3 + 1e6 * t;
      assertEquals(cell(s, hz, t), -20, 1.5, "at " + t);
      assertTrue(cell(s, hz + 60e3, t) < -60, "beside it at " + t);
    }
    assertEquals(value(o, "highestLevel"), 20 * Math.log10(0.5), 0.5);
    assertEquals(value(o, "highestFrequency"), CENTRE + 350e3, 10e3);
    assertEquals(value(o, "highestAt"), 0.31025, 5e-4);
    assertEquals(value(o, "spanPower"), 10 * Math.log10(0.01 + 0.25 * 0.0005 / 0.4), 0.1);
    Series power = o.series("power").orElseThrow();
    assertEquals(power.valueAt(0.2), -20, 0.3);
    assertTrue(power.valueAt(0.3102) > -13, "the line over time");
  }

  /** However long: rows become twice as long, and keep the shortest line. */
  @Test
  public void aLongRecordInPartsIsTheSame() {
    IqRecord whole = sweep(0.4);
    Outcome once = new SpectrogramMeasurement(settings(50)).of(whole, MeasurementContext.BARE);
    RecordMeasurement.Gathering parts = new SpectrogramMeasurement(settings(50)).gathering();
    Outcome o = null;
    int from = 0;
    for (int n : new int[] {100_000, 70_000, 1_000, 129_000, 100_000}) {
      float[] iq = new float[2 * n];
      System.arraycopy(whole.iq(), 2 * from, iq, 0, iq.length);
      o =
          parts.add(
              new IqRecord(iq, RATE, CENTRE, Double.NaN, false, from / RATE),
              MeasurementContext.BARE);
      from += n;
    }
    Series a = once.series("spectrogram").orElseThrow();
    Series b = o.series("spectrogram").orElseThrow();
    int rows = ((Values.Matrix) b.values()).rows().points();
    assertEquals(rows, ((Values.Matrix) a.values()).rows().points());
    assertTrue(rows > 25 && rows <= 50, rows + " rows");
    assertEquals(cell(b, CENTRE + 350e3, 0.3102), cell(a, CENTRE + 350e3, 0.3102), 0.5);
    assertEquals(cell(b, CENTRE + 350e3, 0.3102), 20 * Math.log10(0.5), 0.5);
    assertEquals(value(o, "spanPower"), value(once, "spanPower"), 0.05);
    // Another look begins anew.
    Outcome again = parts.add(whole, MeasurementContext.BARE);
    assertEquals(value(again, "spanPower"), value(once, "spanPower"), 1e-9);
    assertEquals(again.summary(), once.summary());
  }

  private static SpectrogramSettings stretch(int rows, double from, double seconds, double rbw) {
    return new SpectrogramSettings(0, 0, rbw, Window.HANN, 50, seconds, from, rows);
  }

  /** As the server does: parts from the first one on, each with what lies beyond it. */
  private static Outcome digested(SpectrogramSettings s, IqRecord whole, int first, int samples) {
    SpectrogramMeasurement m = new SpectrogramMeasurement(s);
    IqRecord nothing = whole.cut(first / RATE, 1 / RATE);
    IqRecord like =
        new IqRecord(new float[0], RATE, nothing.centreHz(), Double.NaN, false, first / RATE);
    Digesting of = m.digesting(like, MeasurementContext.BARE, samples).orElseThrow();
    long part = of.partSamples();
    long last = (first + samples - 1) / part;
    for (long p = first / part; p <= last; p++) {
      int from = (int) (p * part);
      int to = (int) Math.min(whole.sampleCount(), from + part + of.beyondSamples());
      float[] iq = java.util.Arrays.copyOfRange(whole.iq(), 2 * from, 2 * to);
      of.take(of.of(new IqRecord(iq, RATE, CENTRE, Double.NaN, false, from / RATE)), p == last);
    }
    IqRecord end =
        new IqRecord(new float[0], RATE, CENTRE, Double.NaN, false, (first + samples) / RATE);
    return of.gathering().add(end, MeasurementContext.BARE);
  }

  /** Steps of a tone from row to row, with one short line; whole, and any stretch of it. */
  @Test
  public void digestsTellTheSameAsAllSamples() {
    int n = 5_000_000;
    Random random = new Random(4);
    float[] iq = new float[2 * n];
    for (int i = 0; i < n; i++) {
      double hz = -400e3 + 50e3 * (i / 300_000);
      double a = 0.1;
      if (i >= 3_456_000 && i < 3_456_500) {
        hz = 450e3;
        a = 0.5;
      }
      double angle = 2 * Math.PI * (hz * (i / RATE) - Math.floor(hz * (i / RATE)));
      iq[2 * i] = (float) (a * Math.cos(angle) + 1e-3 * random.nextGaussian());
      iq[2 * i + 1] = (float) (a * Math.sin(angle) + 1e-3 * random.nextGaussian());
    }
    IqRecord whole = new IqRecord(iq, RATE, CENTRE, Double.NaN, false);
    for (int[] zoom : new int[][] {{0, n}, {1_234_567, 2_500_000}, {2_900_000, 1_700_001}}) {
      SpectrogramSettings s = stretch(50, zoom[0] / RATE, zoom[1] / RATE, 10e3);
      Outcome quick = digested(s, whole, zoom[0], zoom[1]);
      float[] part = java.util.Arrays.copyOfRange(iq, 2 * zoom[0], 2 * (zoom[0] + zoom[1]));
      Outcome all =
          new SpectrogramMeasurement(s)
              .of(
                  new IqRecord(part, RATE, CENTRE, Double.NaN, false, zoom[0] / RATE),
                  MeasurementContext.BARE);
      assertEquals(value(quick, "highestLevel"), value(all, "highestLevel"), 0.03);
      assertEquals(value(quick, "highestFrequency"), CENTRE + 450e3, 10e3);
      assertEquals(value(quick, "highestAt"), 3.45625, 0.005);
      assertEquals(value(quick, "spanPower"), value(all, "spanPower"), 0.1);
      Series q = quick.series("spectrogram").orElseThrow();
      int rows = ((Values.Matrix) q.values()).rows().points();
      assertTrue(rows > 25 && rows <= 50, rows + " rows");
      double begins = ((Values.Matrix) q.values()).rows().start();
      assertEquals(begins, zoom[0] / RATE, 2.1 * zoom[1] / RATE / rows);
      for (int k = 1; k * 300_000 < n; k++) {
        double t = k * 0.3 + 0.15;
        if (t > zoom[0] / RATE + 0.1 && t < (zoom[0] + zoom[1]) / RATE - 0.1) {
          double hz = CENTRE - 400e3 + 50e3 * k;
          assertEquals(cell(q, hz, t), -20, 0.3, "at " + t);
          boolean keyed = Math.abs(t - 3.45625) < 0.2; // its edges are everywhere
          assertTrue(keyed || cell(q, hz + 100e3, t) < -50, "beside it at " + t);
        }
      }
      assertEquals(cell(q, CENTRE + 450e3, 3.45625), 20 * Math.log10(0.5), 0.5);
      Series a = all.series("mean").orElseThrow();
      Series b = quick.series("mean").orElseThrow();
      for (int k = 3; k < 14; k++) {
        double hz = CENTRE - 400e3 + 50e3 * k;
        if (k * 0.3 > zoom[0] / RATE + 0.3 && k * 0.3 < (zoom[0] + zoom[1]) / RATE - 0.6) {
          assertEquals(b.valueAt(hz), a.valueAt(hz), 0.3);
        }
      }
    }
    // What is short is read as it is; so is what has windows too long for digests.
    SpectrogramMeasurement shorter = new SpectrogramMeasurement(stretch(400, 0, 1, 10e3));
    assertTrue(shorter.digesting(whole, MeasurementContext.BARE, 1_000_000).isEmpty());
    SpectrogramMeasurement finer = new SpectrogramMeasurement(stretch(50, 0, 5, 50));
    assertTrue(finer.digesting(whole, MeasurementContext.BARE, n).isEmpty());
  }

  @Test
  public void whatCannotBeIsRefusedWithTheField() {
    refused("rows", () -> settings(5));
    refused("overlapPercent", () -> new SpectrogramSettings(0, 0, 1, Window.HANN, 99, 1, 0, 50));
    refused("seconds", () -> new SpectrogramSettings(0, 0, 1, Window.HANN, 50, 4000, 0, 50));
    refused(
        "rbwHz",
        () ->
            new SpectrogramMeasurement(
                    new SpectrogramSettings(0, 0, 100, Window.HANN, 50, 1, 0, 2000))
                .of(sweep(0.4), MeasurementContext.BARE));
    refused(
        "startSeconds",
        () ->
            new SpectrogramMeasurement(
                    new SpectrogramSettings(0, 0, 10e3, Window.HANN, 50, 1, 0.3999, 50))
                .of(sweep(0.4), MeasurementContext.BARE));
  }

  private static void refused(String field, Runnable what) {
    Refusal r = expectThrows(Refusal.class, what::run);
    assertEquals(r.field(), field, r.getMessage());
  }
}
