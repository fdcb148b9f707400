package rovnik.standins.rf;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.standins.world.Truth;

/** The parts obey physics, and are what the harbour's truth says. */
public class PartsTest {
  private static final double[] HERTZ = {150e3, 1.8e6, 30e6, 160e6, 430e6, 458.5e6, 500e6, 3e9};
  private final Parts parts = new Parts();

  private static double db(Complex c) {
    return 20 * Math.log10(c.norm());
  }

  @DataProvider
  public Object[][] passive() {
    return parts.names().stream()
        .filter(n -> !n.equals(Parts.PREAMPLIFIER))
        .map(n -> new Object[] {n})
        .toArray(Object[][]::new);
  }

  /** Reciprocal, and no more power comes out than goes in, at either connector. */
  @Test(dataProvider = "passive")
  public void passivePartsGiveNothing(String name) {
    for (double hz : HERTZ) {
      Scatter s = parts.at(name, hz);
      assertEquals(s.s12().re(), s.s21().re(), 1e-9, name);
      assertEquals(s.s12().im(), s.s21().im(), 1e-9, name);
      double in1 = Math.pow(s.s11().norm(), 2) + Math.pow(s.s21().norm(), 2);
      double in2 = Math.pow(s.s22().norm(), 2) + Math.pow(s.s12().norm(), 2);
      // The leak beside the filter adds 6e-7 to what it reflects.
      assertTrue(in1 <= 1 + 1e-6 && in2 <= 1 + 1e-6, name + " at " + hz);
    }
  }

  /** 10 dB pad in 50 ohm: T of 25.97 and 35.14 ohm (handbook formula); the stand-in's is near. */
  @Test
  public void padsLoseWhatTheySay() {
    for (double hz : HERTZ) {
      assertEquals(db(Parts.pad(hz, 10).s21()), -10.06, 0.06);
      assertEquals(db(Parts.pad(hz, 20).s21()), -20.05, 0.1);
      assertTrue(db(Parts.pad(hz, 10).s11()) < -40);
    }
  }

  @Test
  public void standardsReflectAsTheyShould() {
    for (double hz : HERTZ) {
      assertTrue(Parts.open(hz).norm() > 0.97 && Parts.shorted(hz).norm() > 0.97);
      assertTrue(db(Parts.load(hz)) < -45, "load at " + hz);
    }
    assertTrue(Parts.open(1e6).re() > 0.99);
    assertTrue(Parts.shorted(1e6).re() < -0.99);
  }

  @Test
  public void filterChokesAndWhipAreInTheirBounds() {
    assertEquals(db(parts.at("Cavity filter", 458.5e6).s21()), -1.1, 0.15);
    assertEquals(db(parts.at("Cavity filter", 440e6).s21()), -62, 1.5);
    for (double hz = 1.6e6; hz <= 30e6; hz *= 1.1) {
      double a = db(parts.at("Choke A", hz).s21());
      double b = db(parts.at("Choke B", hz).s21());
      assertTrue(a > -19.6 && a < -12.6, "choke A " + a + " dB at " + hz);
      assertTrue(b > -39.6 && b < -28.6, "choke B " + b + " dB at " + hz);
    }
    for (double hz = 156e6; hz <= 164e6; hz += 0.5e6) {
      assertTrue(db(parts.at("Mast whip", hz).s11()) < -16, "whip at " + hz);
    }
    assertTrue(db(parts.at("Mast whip", 130e6).s11()) > -6, "outside it reflects");
  }

  /** Common practice for a choke's fixture, 3 to 30 MHz: empty below -46 dB, shorted above -0.7. */
  @Test
  public void fixtureIsGoodEnough() {
    for (double hz = 3e6; hz <= 30e6; hz += 1e6) {
      assertTrue(db(parts.at("Fixture empty", hz).s21()) < -46);
      assertTrue(db(parts.at("Fixture shorted", hz).s21()) > -0.7);
    }
  }

  /** 1 dB of compression at +14 dBm out, and none to speak of 15 dB below. */
  @Test
  public void preamplifierCompressesAndBreaks() {
    PartBench bench = new PartBench();
    bench.plug(Parts.PREAMPLIFIER);
    assertTrue(bench.dcAtPort());
    bench.plugAt2("Pad 20 dB with dc block");
    assertFalse(bench.dcAtPort());
    bench.plugAt2("None");
    double small = db(bench.at(458e6, -40).s21());
    assertEquals(small, Truth.PREAMP_GAIN_DB, 0.01);
    double hot = db(bench.at(458e6, Truth.PREAMP_P1DB_DBM - Truth.PREAMP_GAIN_DB + 1).s21());
    assertEquals(hot, small - 1, 0.01);
    assertTrue(db(bench.at(458e6, 11).s21()) < -5, "destroyed");
    assertTrue(db(bench.at(458e6, -40).s21()) < -5, "and it stays so");
    bench.plug(Parts.PREAMPLIFIER);
    assertEquals(db(bench.at(458e6, -40).s21()), small, 1e-9, "a new one from the drawer");
  }

  /** What the receivers see of a through is not 1: the test set's errors are there, and drift. */
  @Test
  public void testSetSpoilsAndDrifts() {
    TestSet.Seen cold = TestSet.look(Scatter.THROUGH, 1e9, 0);
    TestSet.Seen warm = TestSet.look(Scatter.THROUGH, 1e9, 7200);
    assertTrue(Math.abs(db(cold.m21())) > 0.5);
    assertTrue(db(cold.m11()) > -30);
    double moved =
        Math.toDegrees(Math.atan2(warm.m21().im(), warm.m21().re()))
            - Math.toDegrees(Math.atan2(cold.m21().im(), cold.m21().re()));
    assertTrue(Math.abs(moved) > 0.05 && Math.abs(moved) < 3, "drift " + moved);
    double[] hz = {1e9};
    PartSweep sweep = new PartSweep(new PartBench(), 3);
    double mean = 0;
    double square = 0;
    for (int i = 0; i < 400; i++) {
      double v = sweep.sweep(hz, -40, 100e3)[4];
      mean += v / 400;
      square += v * v / 400;
    }
    // -128 dBm/Hz in 100 kHz against -40 dBm: -38 dB, half of it in the real part.
    double sigma = Math.sqrt(square - mean * mean);
    assertEquals(20 * Math.log10(sigma), -41, 1.2);
  }

  /** A crushed spot of 38 ohm: its first edge reflects (38 - 50) / (38 + 50). */
  @Test
  public void feederHasItsSpot() {
    double largest = 0;
    for (double hz = 10e6; hz < 1e9; hz += 1e6) {
      largest = Math.max(largest, parts.at("Feeder", hz).s11().norm());
    }
    // Two edges of -0.136 and +0.136 add where the spot is a quarter wave, less the way there.
    assertTrue(largest > 0.15 && largest < 2 * 0.1364, "reflects " + largest);
    double loss = -db(parts.at("Feeder", 458e6).s21());
    assertEquals(loss, 24 * Truth.FEEDER_DB_PER_METRE, 0.35);
  }
}
