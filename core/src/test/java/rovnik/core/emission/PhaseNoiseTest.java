package rovnik.core.emission;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
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
}
