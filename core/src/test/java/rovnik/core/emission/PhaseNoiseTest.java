package rovnik.core.emission;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.spectrum.Trace;

public class PhaseNoiseTest {
  private static final double CARRIER_DBM = 27;

  /** Spectra of 1 kHz to 1 MHz reach with 1/200 of the reach as step. */
  private static List<Trace> spectra(DoubleUnaryOperator dbcPerHz, double spurHz, double spurDbc) {
    List<Trace> traces = new ArrayList<>();
    for (double reach : new double[] {1e3, 1e4, 1e5, 1e6}) {
      double step = reach / 200;
      Trace t =
          Made.noisy(
              -reach,
              step,
              401,
              100,
              f ->
                  Math.pow(
                      10,
                      (CARRIER_DBM + dbcPerHz.applyAsDouble(Math.max(Math.abs(f), step / 2)))
                          / 10));
      t.level()[200] = (float) CARRIER_DBM;
      int spur = (int) Math.round((spurHz + reach) / step);
      if (spur >= 0 && spur < t.points()) {
        t.level()[spur] = (float) (CARRIER_DBM + spurDbc);
      }
      traces.add(t);
    }
    return traces;
  }

  /** -88 dBc/Hz at 10 kHz falling 20 dB a decade, as invented for the buoy. */
  @Test
  public void aStraightFallIsReadWithinAThirdOfADecibel() {
    PhaseNoise n =
        PhaseNoise.of(spectra(f -> -88 - 20 * Math.log10(f / 1e4), 2e9, 0), 0, CARRIER_DBM);
    for (double f : new double[] {100, 300, 1e3, 3e3, 1e4, 3e4, 1e5, 3e5, 9e5}) {
      assertEquals(n.at(f), -88 - 20 * Math.log10(f / 1e4), 0.6, "at " + f);
    }
    assertEquals(n.spurs().size(), 0);
    assertTrue(Double.isNaN(n.at(1)));
    assertTrue(Double.isNaN(n.at(2e6)));
  }

  /** The integral of k/f^2 from a to b is k (1/a - 1/b); jitter and residual FM follow from it. */
  @Test
  public void jitterAndResidualFmFollowTheClosedForm() {
    PhaseNoise n =
        PhaseNoise.of(spectra(f -> -88 - 20 * Math.log10(f / 1e4), 2e9, 0), 0, CARRIER_DBM);
    double k = Math.pow(10, -8.8) * 1e8;
    double phase = Math.sqrt(2 * k * (1 / 1e3 - 1 / 1e5));
    assertEquals(n.phaseRadians(1e3, 1e5), phase, phase * 0.03);
    double jitter = phase / (2 * Math.PI * 458.525e6);
    assertEquals(n.jitterSeconds(1e3, 1e5, 458.525e6), jitter, jitter * 0.03);
    double fm = Math.sqrt(2 * k * (1e5 - 1e3));
    assertEquals(n.residualFmHz(1e3, 1e5), fm, fm * 0.03);
  }

  /** A line is marked and does not lift the curve. */
  @Test
  public void spursAreMarkedAndTakenOut() {
    PhaseNoise n = PhaseNoise.of(spectra(f -> -120, 4.2e4, -63), 0, CARRIER_DBM);
    assertEquals(n.spurs().size(), 1);
    assertEquals(n.spurs().get(0).offsetHz(), 4.2e4, 500);
    assertEquals(n.spurs().get(0).dbc(), -63, 0.01);
    assertEquals(n.at(4.2e4), -120, 0.6);
  }

  @Test
  public void aGapInTheOffsetsIsRefused() {
    List<Trace> all = spectra(f -> -120, 2e9, 0);
    assertThrows(Refusal.class, () -> PhaseNoise.of(List.of(), 0, 0));
    assertThrows(
        Refusal.class, () -> PhaseNoise.of(List.of(all.get(0), all.get(3)), 0, CARRIER_DBM));
  }

  /** The buoy's phase noise over a receiver's floor and a hump of the room's, in dBc/Hz. */
  private static List<Trace> looks(Random random, boolean carrier, double floorDbc) {
    List<Trace> traces = new ArrayList<>();
    for (double reach : new double[] {1e4, 1e5, 1e6}) {
      double step = reach / 500;
      traces.add(
          Made.noisy(
              random,
              -1.1 * reach,
              step,
              1101,
              95,
              f -> {
                double own =
                    carrier ? Math.pow(10, -8.8) * Math.pow(1e4 / Math.max(1, Math.abs(f)), 2) : 0;
                double hump = 2e-12 * Math.exp(-Math.pow((f - 4e5) / 5e4, 2));
                return Math.pow(10, CARRIER_DBM / 10) * (own + Math.pow(10, floorDbc / 10) + hump);
              }));
    }
    return traces;
  }

  /**
   * What is there without the carrier is taken off, and where it is most of all nothing is claimed;
   * the rest holds the truth as often as its uncertainty says. Closed forms of k / f^2 as above.
   */
  @Test
  public void floorAndRoomAreNotTheCarriers() {
    Random random = new Random(4);
    double k = Math.pow(10, -8.8) * 1e8;
    int trials = 200;
    int[] inside = new int[3];
    double fmError = 0;
    for (int t = 0; t < trials; t++) {
      PhaseNoise n =
          PhaseNoise.of(looks(random, true, -122.7), looks(random, false, -122.7), 0, CARRIER_DBM);
      double from = n.offsetHz()[0];
      double to = n.hiddenFromHz();
      assertTrue(to > 2e5 && to < 6e5, "hidden from " + to);
      assertTrue(n.hiddenAt(9e5));
      assertTrue(n.at(9e5) > -125, "an upper bound, not a guess below the floor");
      double jitter = Math.sqrt(2 * k * (1 / from - 1 / to));
      double fm = Math.sqrt(2 * k * (to - from));
      inside[0] += Math.abs(n.at(1e4) + 88) <= 2 * n.standardAt(1e4) ? 1 : 0;
      inside[1] +=
          Math.abs(n.phaseRadians(from, to) / jitter - 1) <= 2 * n.phaseShare(from, to) ? 1 : 0;
      inside[2] +=
          Math.abs(n.residualFmHz(from, to) / fm - 1) <= 2 * n.residualFmShare(from, to) ? 1 : 0;
      fmError = Math.max(fmError, Math.abs(n.residualFmHz(from, to) / fm - 1));
    }
    for (int i : inside) {
      assertTrue(i >= 0.92 * trials, java.util.Arrays.toString(inside));
    }
    assertTrue(fmError < 0.06, "worst residual FM is off by " + fmError);
  }

  /** Without a look at the floor, a curve that ends flat says itself where it is one. */
  @Test
  public void aFlatEndIsTakenForAFloor() {
    PhaseNoise n = PhaseNoise.of(looks(new Random(5), true, -122), 0, CARRIER_DBM);
    assertEquals(n.floorAt(1e5), -122, 1.6);
    assertTrue(n.hiddenFromHz() > 2e5 && n.hiddenFromHz() < 1e6);
    assertEquals(n.at(1e5), -108, 0.4);
    PhaseNoise falls =
        PhaseNoise.of(spectra(f -> -88 - 20 * Math.log10(f / 1e4), 2e9, 0), 0, CARRIER_DBM);
    assertEquals(falls.hiddenFromHz(), Double.POSITIVE_INFINITY);
  }
}
