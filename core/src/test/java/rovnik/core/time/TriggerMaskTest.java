package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;
import static rovnik.core.time.TriggerMeasurementTest.RATE;
import static rovnik.core.time.TriggerMeasurementTest.column;
import static rovnik.core.time.TriggerMeasurementTest.piece;
import static rovnik.core.time.TriggerMeasurementTest.reading;

import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.result.Series;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.time.TriggerMask.Point;
import rovnik.core.time.TriggerMeasurementTest.Wanted;

/** Spectra that are held against a mask, in records whose lines come and go as told. */
public class TriggerMaskTest {
  private static final double CENTRE = 100e6;

  /** High in the middle, 30 dB lower beside it. */
  private static final List<Point> HAT =
      List.of(
          new Point(CENTRE - 300e3, -50),
          new Point(CENTRE - 50e3, -50),
          new Point(CENTRE - 50e3, -10),
          new Point(CENTRE + 50e3, -10),
          new Point(CENTRE + 50e3, -50),
          new Point(CENTRE + 300e3, -50));

  private static Wanted hat(double rbwHz) {
    Wanted w = new Wanted();
    w.by = TriggerSettings.By.MASK;
    w.mask = new TriggerMask(HAT, rbwHz);
    return w;
  }

  private static float[] noise(double seconds, Random random) {
    float[] iq = new float[2 * (int) Math.round(seconds * RATE)];
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) (1e-5 * random.nextGaussian());
    }
    return iq;
  }

  private static void line(float[] iq, double hz, double levelDb, double from, double to) {
    double a = Math.pow(10, levelDb / 20);
    int first = (int) Math.ceil(from * RATE);
    for (int n = first; n < Math.min(iq.length / 2, to * RATE); n++) {
      double angle = 2 * Math.PI * hz * n / RATE + 1;
      iq[2 * n] += (float) (a * Math.cos(angle));
      iq[2 * n + 1] += (float) (a * Math.sin(angle));
    }
  }

  /** A strong carrier under the high part, weak lines that come beside it over the low part. */
  @Test
  public void onlyWhatIsOverTheMaskCounts() {
    float[] iq = noise(0.2, new Random(1));
    line(iq, 20e3, -20, 0, 1);
    line(iq, -200e3, -45, 0.05, 0.06);
    line(iq, 100e3, -51, 0.08, 0.09); // 1 dB below
    line(iq, 250e3, -40, 0.12, 0.1305);
    Outcome o = hat(5e3).of(iq);
    assertEquals(reading(o, "triggers"), 2.0);
    double window = 1.9 * RATE / 5e3 / RATE; // samples of the window, as time
    assertEquals(column(o, 1), new double[] {0.12, 0.05}, window / 2);
    assertEquals(column(o, 3), new double[] {0.0105, 0.01}, window);
    assertEquals(column(o, 4), new double[] {10, 5}, 0.3);
    assertEquals(column(o, 5), new double[] {CENTRE + 250e3, CENTRE - 200e3}, 2e3);
    assertTrue(
        o.summary().startsWith("2 triggers in 200 ms: the spectrum rises over the mask."),
        o.summary());
    assertEquals(reading(o, "highest"), 10, 0.3);
    // The last one over it is drawn, with the mask and the highest of all.
    Series last = o.series("over-mask").orElseThrow();
    assertEquals(last.valueAt(CENTRE + 250e3), -40, 0.8);
    assertTrue(last.valueAt(CENTRE - 200e3) < -80);
    assertEquals(o.series("spectrum").orElseThrow().valueAt(CENTRE - 200e3), -45, 0.8);
    assertEquals(o.series("mask").orElseThrow().role(), Series.Role.LIMIT);
    assertEquals(o.series("level").orElseThrow().unit(), "dB");
    // It ends where the mask ends.
    assertEquals(last.x().first(), CENTRE - 300e3, 2e3);
    assertEquals(last.x().last(), CENTRE + 300e3, 2e3);
  }

  /** What lasts a window and a step is caught at its full level, wherever it begins. */
  @Test
  public void whatIsLongEnoughIsCertain() {
    double full = reading(hat(5e3).of(noise(0.05, new Random(2))), "fullLevel");
    for (int seed = 0; seed < 200; seed++) {
      Random random = new Random(seed);
      float[] iq = noise(0.02, random);
      double from = 5e-3 + 5e-3 * random.nextDouble();
      line(iq, 150e3, -40, from, from + full + 1 / RATE);
      Outcome o = hat(5e3).of(iq);
      assertEquals(column(o, 1).length, 1, "seed " + seed);
      // Between two points of the spectrum it reads up to 0.6 dB low, as any line does.
      assertEquals(column(o, 4)[0], 10, 0.65);
      assertEquals(column(o, 1)[0], from, full / 2);
    }
  }

  /**
   * The window of the spectra by its published sum of cosines, and a transform by its definition.
   */
  @Test
  public void spectraAreThoseOfTheDefinition() {
    Random random = new Random(3);
    int samples = 512;
    float[] iq = new float[2 * samples];
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) random.nextGaussian() * 0.1f;
    }
    Wanted w = hat(RATE / samples * 1.9);
    Outcome o = w.of(iq);
    Series spectrum = o.series("spectrum").orElseThrow();
    double fullSeconds = reading(o, "fullLevel");
    int length = (int) Math.round(fullSeconds * RATE / 1.5);
    int hop = (int) Math.round(fullSeconds * RATE) - length;
    // Harris, Proceedings of the IEEE 66 (1978), table 1: four terms, 92 dB.
    double[] a = {0.35875, 0.48829, 0.14128, 0.01168};
    for (int i = 5; i < spectrum.x().points(); i += 37) {
      double hz = spectrum.x().at(i) - CENTRE;
      double most = 0;
      for (int first = 0; first + length <= samples; first += hop) {
        double re = 0;
        double im = 0;
        double gain = 0;
        for (int n = 0; n < length; n++) {
          double x = 2 * Math.PI * n / length;
          double v = a[0] - a[1] * Math.cos(x) + a[2] * Math.cos(2 * x) - a[3] * Math.cos(3 * x);
          double angle = -2 * Math.PI * hz / RATE * n;
          gain += v;
          double c = Math.cos(angle);
          double s = Math.sin(angle);
          re += v * (iq[2 * (first + n)] * c - iq[2 * (first + n) + 1] * s);
          im += v * (iq[2 * (first + n)] * s + iq[2 * (first + n) + 1] * c);
        }
        most = Math.max(most, (re * re + im * im) / (gain * gain));
      }
      assertEquals(spectrum.valueAt(spectrum.x().at(i)), 10 * Math.log10(most), 1e-2);
    }
  }

  @Test
  public void cutsDoNotShowAndGapsInventNothing() {
    for (int seed = 0; seed < 30; seed++) {
      Random random = new Random(seed);
      float[] iq = noise(0.1, random);
      line(iq, 20e3, -20, 0, 1);
      double t = 5e-3;
      while (t < 0.09) {
        line(iq, 500e3 * (random.nextDouble() - 0.5), -30, t, t + 1e-3);
        t += 1e-3 + 5e-3 * random.nextDouble();
      }
      Outcome whole = hat(10e3).of(iq);
      Outcome cut = hat(10e3).inPieces(iq, random);
      assertEquals(column(cut, 1), column(whole, 1), 1e-9);
      assertEquals(column(cut, 5), column(whole, 5), 1e-3);
    }
    // A line that was there before the gap and after it did not come.
    float[] steady = noise(0.1, new Random(9));
    line(steady, -150e3, -30, 0, 1);
    RecordMeasurement.Gathering g = hat(10e3).measurement().gathering();
    g.take(piece(steady, 0, 31_111), MeasurementContext.BARE);
    Outcome o = g.add(piece(steady, 40_000, 100_000), MeasurementContext.BARE);
    assertEquals(reading(o, "triggers"), 0.0);
    assertTrue(o.summary().startsWith("The spectrum is never below the mask"), o.summary());
    assertTrue(reading(o, "seen") < 91.2);
  }

  /** Without points the trigger level is one all over the band. */
  @Test
  public void noPointsAreTheLevelAllOver() {
    float[] iq = noise(0.05, new Random(6));
    line(iq, 150e3, -37, 0.01, 0.02);
    line(iq, -150e3, -37, 0.03, 0.04);
    Wanted w = new Wanted();
    w.by = TriggerSettings.By.MASK;
    w.levelDb = -40;
    assertEquals(column(w.of(iq), 4), new double[] {3, 3}, 0.8);
    w.centreHz = CENTRE + 150e3;
    w.bandHz = 100e3;
    Outcome o = w.of(iq);
    assertEquals(column(o, 5), new double[] {CENTRE + 150e3}, 1e3);
    assertEquals(o.series("mask").orElseThrow().x().first(), CENTRE + 100e3, 1e-3);
  }

  @Test
  public void whatDoesNotComeIsExplained() {
    float[] iq = noise(0.05, new Random(4));
    line(iq, 150e3, -57, 0.01, 0.02);
    Outcome o = hat(5e3).of(iq);
    assertTrue(
        o.summary().startsWith("Nothing came in 50 ms: the spectrum stayed 7."), o.summary());
    assertFalse(o.series("over-mask").isPresent());
    String early = hat(30).of(iq).summary();
    assertTrue(early.startsWith("No spectrum is complete yet: one takes 6"), early);
  }

  @Test
  public void masksThatMeanNothingAreRefused() {
    assertEquals(refused(List.of(new Point(1e8, -50))).field(), "mask");
    assertEquals(refused(List.of(new Point(2e8, -50), new Point(1e8, -50))).field(), "mask");
    assertEquals(refused(List.of(new Point(1e8, -50), new Point(1e8, -60))).field(), "mask");
    assertEquals(
        refused(List.of(new Point(1e8, Double.NaN), new Point(1.1e8, -60))).field(), "mask");
    Wanted wide = hat(0);
    wide.mask = new TriggerMask(List.of(new Point(CENTRE - 2e5, 0), new Point(CENTRE + 6e5, 0)), 0);
    Refusal outside = expectThrows(Refusal.class, () -> wide.of(noise(0.05, new Random(7))));
    assertTrue(outside.getMessage().contains("beyond what the record holds"));
    Wanted narrow = hat(0);
    narrow.centreHz = CENTRE;
    narrow.bandHz = 400e3;
    Refusal beyond = expectThrows(Refusal.class, narrow::measurement);
    assertTrue(beyond.getMessage().contains("beyond the band"), beyond.getMessage());
    assertEquals(
        expectThrows(Refusal.class, () -> hat(300e3).of(noise(0.05, new Random(5)))).field(),
        "rbwHz");
  }

  private static Refusal refused(List<Point> points) {
    Wanted w = new Wanted();
    w.by = TriggerSettings.By.MASK;
    return expectThrows(
        Refusal.class,
        () -> {
          w.mask = new TriggerMask(points, 0);
          w.measurement();
        });
  }
}
