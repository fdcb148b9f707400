package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
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
