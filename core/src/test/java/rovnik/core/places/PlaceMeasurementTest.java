package rovnik.core.places;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Levels by place, of bursts and of steady lines whose levels are known. */
public class PlaceMeasurementTest {
  private static final double RATE = 4e6;

  /**
   * @param length of a burst every 3.1 ms; 1 for a line that is always there
   */
  private static IqRecord record(double dbfs, double length, long seed) {
    int n = (int) (0.05 * RATE);
    Random random = new Random(seed);
    float[] iq = new float[2 * n];
    double amplitude = Math.pow(10, dbfs / 20);
    for (int i = 0; i < n; i++) {
      double t = i / RATE;
      double a = (t + 2e-3) % 3.1e-3 < length ? amplitude : 0;
      iq[2 * i] = (float) (a * Math.cos(0.1 * i) + 1e-4 * random.nextGaussian());
      iq[2 * i + 1] = (float) (a * Math.sin(0.1 * i) + 1e-4 * random.nextGaussian());
    }
    return new IqRecord(iq, RATE, 212e6, Double.NaN, false);
  }

  private static PlaceSettings at(String place, String state) {
    return new PlaceSettings(212e6, 1e6, 0.05, place, 0.02, 0.03, state, 1);
  }

  private static RecordMeasurement.Gathering next(
      RecordMeasurement.Gathering before, PlaceSettings s) {
    PlaceMeasurement m = new PlaceMeasurement(s);
    return before == null ? m.gathering() : m.gathering(before);
  }

  private static double value(Outcome o, String id) {
    return o.reading(id).orElseThrow(() -> new AssertionError(id + ": " + o.summary())).value();
  }

  private static double cell(Outcome o, int row, int column) {
    return o.table("places").orElseThrow().rows().get(row).cells().get(column).value();
  }

  private static String name(Outcome o, int row) {
    return o.table("places").orElseThrow().rows().get(row).cells().get(0).text();
  }

  @DataProvider
  Object[][] lengths() {
    return new Object[][] {{20e-6}, {300e-6}, {1.0}};
  }

  /** Whether it comes and goes or not, it is the level while it is there that counts. */
  @Test(dataProvider = "lengths")
  public void theLevelIsThatWhileItIsThere(double length) {
    Outcome o =
        new PlaceMeasurement(at("regulator", "before"))
            .of(record(-47, length, 1), MeasurementContext.BARE);
    assertEquals(value(o, "placeLevel"), -47, 0.3, o.summary());
    assertEquals(o.summary().contains("while it is there"), length < 1, o.summary());
  }

  @Test
  public void placesAreRankedAndTwoStatesComparedSideBySide() {
    RecordMeasurement.Gathering g = null;
    Outcome o = null;
    double[] levels = {-53, -47, -60};
    String[] names = {"flash", "regulator", "display"};
    for (int i = 0; i < 3; i++) {
      g = next(g, at(names[i], "before"));
      for (int look = 0; look < 4; look++) {
        o = g.add(record(levels[i], 20e-6, 10 * i + look), MeasurementContext.BARE);
      }
    }
    assertEquals(name(o, 0), "regulator");
    assertEquals(name(o, 2), "display");
    assertEquals(value(o, "overStrongest"), -13, 0.2);
    assertTrue(o.summary().contains("13.0 dB below regulator, the strongest of 3"), o.summary());
    assertTrue(o.series("map").isPresent() && o.series("across").isPresent());
    g = next(g, at("regulator", "with shield"));
    o = g.add(record(-59, 20e-6, 99), MeasurementContext.BARE);
    assertEquals(value(o, "change"), -12, 0.3);
    assertTrue(o.summary().contains("12.0 dB less than before"), o.summary());
    assertEquals(cell(o, 0, 1), -47, 0.3);
    assertEquals(cell(o, 0, 2), -59, 0.3);
    assertEquals(cell(o, 0, 3), -12, 0.3);
    // What was not looked at since is still there, and says so.
    assertEquals(o.table("places").orElseThrow().rows().size(), 3);
    assertTrue(Double.isNaN(cell(o, 1, 2)));
    // Looked at again, a place is begun anew.
    g = next(g, at("regulator", "before"));
    o = g.add(record(-40, 20e-6, 100), MeasurementContext.BARE);
    assertEquals(value(o, "placeLevel"), -40, 0.3);
    // Another map is empty.
    PlaceSettings other = new PlaceSettings(212e6, 1e6, 0.05, "flash", 0, 0, "before", 2);
    o = next(g, other).add(record(-40, 20e-6, 101), MeasurementContext.BARE);
    assertEquals(o.table("places").orElseThrow().rows().size(), 1);
  }

  @Test
  public void theChangeIsAsUncertainAsItsLooksScatter() {
    RecordMeasurement.Gathering g = next(null, at("a", "before"));
    Random random = new Random(7);
    for (int k = 0; k < 12; k++) {
      g.add(record(-50 + random.nextGaussian(), 20e-6, k), MeasurementContext.BARE);
    }
    g = next(g, at("a", "after"));
    Outcome o = null;
    for (int k = 0; k < 12; k++) {
      o = g.add(record(-56 + random.nextGaussian(), 20e-6, 50 + k), MeasurementContext.BARE);
    }
    double u = o.reading("change").orElseThrow().uncertainty();
    // Of twelve values that scatter by 1 dB each: 2 sqrt(2 / 12), and a little as few are not many.
    assertEquals(u, 2 * Math.sqrt(2.0 / 12), 0.35);
    assertEquals(value(o, "change"), -6, 1.5 * u);
  }

  @Test
  public void whatCannotBeIsRefused() {
    expectThrows(Refusal.class, () -> at(" ", "before"));
    expectThrows(Refusal.class, () -> at("a", ""));
    expectThrows(Refusal.class, () -> new PlaceSettings(212e6, 1e6, 0.05, "a", -1, 0, "before", 1));
    expectThrows(Refusal.class, () -> new PlaceSettings(0, 1e6, 0.05, "a", 0, 0, "before", 1));
    expectThrows(
        Refusal.class,
        () -> new PlaceMeasurement(new PlaceSettings(212e6, 1, 0.05, "a", 0, 0, "b", 1)));
  }
}
