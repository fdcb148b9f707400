package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.MeasurementContext;

/** What is said of the strongest line of many spectra holds as often as it claims. */
public class HighestLineTest {
  private static final double RATE = 1e6;
  private static final int TRIALS = 200;

  @DataProvider
  public Object[][] windows() {
    return new Object[][] {{Window.HANN}, {Window.BLACKMAN_HARRIS}};
  }

  /**
   * A tone anywhere between points, in noise, there for all of the time or for a part of it: k = 2
   * holds at least 95 of 100 times, and the claim is not three times as wide as it need be.
   */
  @Test(dataProvider = "windows")
  public void levelAndPlaceAreWithinTheirUncertainty(Window window) {
    Random random = new Random(11);
    for (boolean rows : new boolean[] {false, true}) {
      int level = 0;
      int place = 0;
      double levelSquares = 0;
      double placeSquares = 0;
      for (int k = 0; k < TRIALS; k++) {
        double rbw = 1e4 + 1e4 * random.nextDouble();
        double hz = 2e5 * (2 * random.nextDouble() - 1);
        double db = -60 + 50 * random.nextDouble();
        // 15 to 50 dB over the noise of a point.
        double sigma = Math.pow(10, (db - 15 - 35 * random.nextDouble()) / 20) * 4;
        Outcome o = measure(rows, window, rbw, record(random, hz, db, sigma));
        Reading l = o.reading("highestLevel").orElseThrow();
        Reading f = o.reading("highestFrequency").orElseThrow();
        double levelOff = (l.value() - db) / l.uncertainty();
        double placeOff = (f.value() - (1e8 + hz)) / f.uncertainty();
        level += Math.abs(levelOff) <= 1 ? 1 : 0;
        place += Math.abs(placeOff) <= 1 ? 1 : 0;
        levelSquares += levelOff * levelOff / TRIALS;
        placeSquares += placeOff * placeOff / TRIALS;
      }
      assertTrue(level >= 0.95 * TRIALS, level + " of " + TRIALS + " levels, rows " + rows);
      assertTrue(place >= 0.95 * TRIALS, place + " of " + TRIALS + " places, rows " + rows);
      // Of a claim that is just right the mean square is 1/4.
      assertTrue(levelSquares > 0.03, "levels: " + levelSquares);
      // A place must hold for lines that come and go many times as well.
      assertTrue(placeSquares > 0.004, "places: " + placeSquares);
    }
  }

  /** Without noise the window's shape alone tells: to a hundredth of a dB at the worst place. */
  @Test
  public void halfWayBetweenPointsNothingIsLost() {
    for (double part = 0; part <= 1; part += 0.125) {
      Outcome o =
          measure(false, Window.HANN, 2e4, record(new Random(3), part * RATE / 128, -20, 1e-7));
      assertEquals(o.reading("highestLevel").orElseThrow().value(), -20, 0.01, "part " + part);
      assertEquals(
          o.reading("highestFrequency").orElseThrow().value(),
          1e8 + part * RATE / 128,
          20,
          "part " + part);
    }
  }

  private static Outcome measure(boolean rows, Window window, double rbw, IqRecord r) {
    RecordMeasurement m =
        rows
            ? new SpectrogramMeasurement(new SpectrogramSettings(0, 0, rbw, window, 50, 1, 0, 100))
            : new DensityMeasurement(new DensitySettings(0, 0, rbw, window, 50, 1, 0, 0));
    return m.of(r, MeasurementContext.BARE);
  }

  private static IqRecord record(Random random, double hz, double db, double sigma) {
    int n = 20_000;
    double a = Math.pow(10, db / 20);
    int ends = random.nextBoolean() ? n : n / 2;
    double phase = 2 * Math.PI * random.nextDouble();
    float[] iq = new float[2 * n];
    for (int i = 0; i < n; i++) {
      double angle = phase + 2 * Math.PI * hz * i / RATE;
      iq[2 * i] = (float) ((i < ends ? a * Math.cos(angle) : 0) + sigma * random.nextGaussian());
      iq[2 * i + 1] =
          (float) ((i < ends ? a * Math.sin(angle) : 0) + sigma * random.nextGaussian());
    }
    return new IqRecord(iq, RATE, 1e8, Double.NaN, false);
  }
}
