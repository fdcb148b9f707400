package rovnik.core.network;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import org.hipparchus.complex.Complex;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;
import rovnik.core.network.MatchElement.Part;
import rovnik.core.network.MatchElement.Place;

/** Figures of parts against closed forms, handbook values and facts of the trade. */
public class PartFiguresTest {
  private static double[] grid(double from, double to, int n) {
    double[] f = new double[n];
    for (int i = 0; i < n; i++) {
      f[i] = from + i * (to - from) / (n - 1);
    }
    return f;
  }

  /** A part in series between 50 ohm ports: S21 = 2 Z0 / (Z + 2 Z0), S11 = Z / (Z + 2 Z0). */
  private static NetworkData series(double[] f, java.util.function.DoubleFunction<Complex> ohm) {
    double[] s = new double[8 * f.length];
    for (int p = 0; p < f.length; p++) {
      Complex z = ohm.apply(f[p]);
      put(s, 8 * p, z.divide(z.add(100)), new Complex(100).divide(z.add(100)));
    }
    return new NetworkData(2, new double[] {50, 50}, f, s);
  }

  private static void put(double[] s, int at, Complex back, Complex through) {
    Complex[] all = {back, through, through, back};
    for (int k = 0; k < 4; k++) {
      s[at + 2 * k] = all[k].getReal();
      s[at + 2 * k + 1] = all[k].getImaginary();
    }
  }

  private static NetworkData onePort(double[] f, Complex gamma) {
    double[] s = new double[2 * f.length];
    for (int p = 0; p < f.length; p++) {
      s[2 * p] = gamma.getReal();
      s[2 * p + 1] = gamma.getImaginary();
    }
    return new NetworkData(1, new double[] {50}, f, s);
  }

  /** Motional arm of 10 mH, 25.33 fF, 8 ohm: f0 = 10.0001 MHz, Q = w L / R; closed form. */
  @Test
  public void crystalIsReadFromItsTransmission() {
    double l = 10e-3;
    double c = 25.33e-15;
    double r = 8;
    double f0 = 1 / (2 * Math.PI * Math.sqrt(l * c));
    NetworkData n =
        series(
            grid(f0 - 2e3, f0 + 2e3, 801),
            f -> new Complex(r, 2 * Math.PI * f * l - 1 / (2 * Math.PI * f * c)));
    Resonance found = Resonance.of(n, Resonance.Connection.BETWEEN_PORTS, true, f0 - 2e3, f0 + 2e3);
    assertEquals(found.hertz(), f0, 0.01);
    assertEquals(found.ohm(), r, 1e-6);
    assertEquals(found.henry(), l, 1e-6 * l);
    assertEquals(found.farad(), c, 1e-6 * c);
    assertEquals(found.quality(), 2 * Math.PI * f0 * l / r, 0.1);
    Refusal none =
        expectThrows(
            Refusal.class,
            () -> Resonance.of(n, Resonance.Connection.BETWEEN_PORTS, true, f0 + 1e3, f0 + 2e3));
    assertEquals(none.field(), "resonance");
  }

  /** The scenario's coil: 27 nF, Q 35; a parallel circuit at port 1. */
  @Test
  public void coilIsReadFromItsReflection() {
    double c = 27e-9;
    double f0 = 172e3;
    double w0 = 2 * Math.PI * f0;
    double l = 1 / (w0 * w0 * c);
    double ohm = 35 * w0 * l;
    double[] f = grid(140e3, 210e3, 701);
    double[] s = new double[2 * f.length];
    for (int p = 0; p < f.length; p++) {
      double w = 2 * Math.PI * f[p];
      Complex y = new Complex(1 / ohm, w * c - 1 / (w * l));
      Complex g = Complex.ONE.subtract(y.multiply(50)).divide(Complex.ONE.add(y.multiply(50)));
      s[2 * p] = g.getReal();
      s[2 * p + 1] = g.getImaginary();
    }
    NetworkData n = new NetworkData(1, new double[] {50}, f, s);
    Resonance found = Resonance.of(n, Resonance.Connection.AT_PORT_1, false, 140e3, 210e3);
    assertEquals(found.hertz(), f0, 1);
    assertEquals(found.quality(), 35, 0.01);
    assertEquals(found.farad(), c, 1e-5 * c);
    assertEquals(found.henry(), l, 1e-5 * l);
    assertEquals(found.ohm(), ohm, 1e-4 * ohm);
  }

  /** Handbook L section: 25 to 50 ohm with j25 in series at the part, -j50 across. */
  @Test
  public void elementsMatchWhatTheyShould() {
    double[] f = {100e6};
    NetworkData load = onePort(f, new Complex(-1.0 / 3));
    double w = 2 * Math.PI * 100e6;
    NetworkData half = new MatchElement(Place.SERIES, Part.INDUCTOR, 25 / w).before(load);
    NetworkData matched = new MatchElement(Place.SHUNT, Part.CAPACITOR, 1 / (50 * w)).before(half);
    assertTrue(matched.magnitude(0, 1, 1) < 1e-12);
    // A quarter wave of the reference turns an open into a short.
    NetworkData open = onePort(f, Complex.ONE);
    NetworkData turned = new MatchElement(Place.SERIES, Part.LINE, 2.5e-9).before(open);
    assertEquals(turned.re(0, 1, 1), -1, 1e-12);
    // 50 ohm across 50 ohm is 25 ohm: -1/3 (identity in the table of checks).
    NetworkData across =
        new MatchElement(Place.SHUNT, Part.RESISTOR, 50).before(onePort(f, Complex.ZERO));
    assertEquals(across.re(0, 1, 1), -1.0 / 3, 1e-12);
    assertEquals(
        expectThrows(Refusal.class, () -> new MatchElement(Place.SERIES, Part.LINE, 0)).field(),
        "element");
  }

  /**
   * Four ports that are two lines side by side without coupling: the differential and the common
   * mode pass alike, nothing is converted (identity). A difference of length converts.
   */
  @Test
  public void mixedModeOfTwoLines() {
    double[] f = {1e9};
    for (double skew : new double[] {0, 0.3}) {
      double[] s = new double[32];
      pass(s, 1, 3, 1.1);
      pass(s, 2, 4, 1.1 + skew);
      NetworkData four = new NetworkData(4, new double[] {50, 50, 50, 50}, f, s);
      NetworkData m = MixedMode.of(four, 1, 2, 3, 4);
      assertEquals(m.referenceOhm(), new double[] {100, 100, 25, 25});
      assertEquals(m.magnitude(0, 2, 1), Math.cos(skew / 2), 1e-12, "differential");
      assertEquals(m.magnitude(0, 4, 3), Math.cos(skew / 2), 1e-12, "common");
      assertEquals(m.magnitude(0, 4, 1), Math.sin(skew / 2), 1e-12, "converted");
    }
    NetworkData two = series(f, x -> new Complex(10));
    assertEquals(
        expectThrows(Refusal.class, () -> MixedMode.of(two, 1, 3, 2, 4)).field(), "mixedMode");
  }

  private static void pass(double[] s, int a, int b, double angle) {
    for (int[] rc : new int[][] {{a, b}, {b, a}}) {
      int at = 2 * ((rc[0] - 1) * 4 + rc[1] - 1);
      s[at] = Math.cos(angle);
      s[at + 1] = -Math.sin(angle);
    }
  }

  /** 25 dB in a 50 ohm series fixture is 1.68 kohm (common practice). */
  @Test
  public void candidatesAreJudgedByTheirWorstPoint() {
    double[] f = grid(1e6, 30e6, 59);
    NetworkLimit enough =
        new NetworkLimit("", 2, 1, NetworkFormat.LOG_MAGNITUDE, true, 3e6, 30e6, -25, -25);
    NetworkData good = series(f, x -> new Complex(1690));
    NetworkData bad = series(f, x -> new Complex(1690 - (x > 20e6 ? 700 : 0)));
    assertEquals(enough.of(good, null, false).verdict(), Verdict.PASS);
    NetworkLimit.Outcome fails = enough.of(bad, null, false);
    assertEquals(fails.verdict(), Verdict.FAIL);
    assertEquals(fails.worst(), -20 * Math.log10((990 + 100) / 100.0), 1e-9);
    assertTrue(fails.atHz() > 20e6);
    Residuals trust = Residuals.ofDb(40, 40, 0.05, 40, 90);
    assertEquals(enough.of(good, trust, false).verdict(), Verdict.PASS_UNSURE, "too near to tell");
    assertEquals(enough.of(good, trust, true).verdict(), Verdict.INVALID);
    NetworkLimit far =
        new NetworkLimit("", 2, 1, NetworkFormat.LOG_MAGNITUDE, true, 1e9, 2e9, -25, -25);
    assertEquals(far.of(good, trust, false).verdict(), Verdict.INVALID);
    assertEquals(NetworkLimit.worst(List.of(enough.of(good, null, false), fails)), Verdict.FAIL);
    NetworkLimit slope =
        new NetworkLimit("s", 2, 1, NetworkFormat.LOG_MAGNITUDE, true, 1e6, 3e6, -10, -30);
    assertEquals(slope.valueAt(2e6), -20, 1e-12);
  }

  @Test
  public void aFixtureIsTrustedBetweenItsBounds() {
    double[] f = grid(3e6, 30e6, 28);
    NetworkData empty = series(f, x -> new Complex(0, -1 / (2 * Math.PI * x * 0.05e-12)));
    NetworkData shorted = series(f, x -> new Complex(0.5, 2 * Math.PI * x * 10e-9));
    // Sanity of a choke fixture, 3 to 30 MHz (common practice).
    assertEquals(FixtureWindow.trouble(empty, true), "");
    assertEquals(FixtureWindow.trouble(shorted, false), "");
    assertTrue(FixtureWindow.trouble(shorted, true).contains("still passes"));
    assertTrue(FixtureWindow.trouble(empty, false).contains("loses"));
    FixtureWindow w = new FixtureWindow(empty, shorted);
    FixtureWindow.Finding good = w.of(series(f, x -> new Complex(1000)));
    assertEquals(good.share(), 0.0);
    assertEquals(good.near(), List.of());
    assertEquals(w.of(series(f, x -> new Complex(300e3))).share(), 1.0);
    // A trap: its impedance comes too near to the empty fixture at 10 MHz and at 25 MHz alone.
    FixtureWindow.Finding trap =
        w.of(
            series(
                f,
                x ->
                    new Complex(
                        Math.abs(x - 10e6) < 1.5e6 || Math.abs(x - 25e6) < 0.5e6 ? 300e3 : 1000)));
    assertEquals(
        trap.near(),
        List.of(new FixtureWindow.Stretch(9e6, 11e6), new FixtureWindow.Stretch(25e6, 25e6)));
    assertEquals(trap.share(), 4.0 / 28, 1e-12);
    assertTrue(trap.doubts(10.4e6) && trap.doubts(25e6));
    assertFalse(trap.doubts(12e6) || trap.doubts(8.9e6));
  }

  /** 24 m at velocity factor 0.85 and 0.052 dB a metre; a line in closed form. */
  @Test
  public void cableOfKnownLength() {
    double[] f = grid(10e6, 500e6, 491);
    double[] s = new double[8 * f.length];
    for (int p = 0; p < f.length; p++) {
      double loss = 0.052 * 24 * Math.sqrt(f[p] / 255e6);
      double angle = -2 * Math.PI * f[p] * 24 / (0.85 * 299_792_458);
      Complex t = new Complex(0, angle).exp().multiply(Math.pow(10, -loss / 20));
      put(s, 8 * p, Complex.ZERO, t);
    }
    NetworkData n = new NetworkData(2, new double[] {50, 50}, f, s);
    CableFigures c = CableFigures.of(n, 24, 255e6);
    assertEquals(c.velocityFactor(), 0.85, 1e-9);
    assertEquals(c.lossDbPerMetre(), 0.052, 1e-9);
    assertEquals(expectThrows(Refusal.class, () -> CableFigures.of(n, 0, 1e6)).field(), "metres");
  }

  /** VSWR 1.5 on both sides: +0.341 / -0.355 dB; 16.25 dB is 97.6 % (tables of checks). */
  @Test
  public void mismatchFigures() {
    NetworkData n = onePort(new double[] {1e6}, new Complex(0.2));
    double unsure = value(NetworkFigures.of(n, 0, 2e6, 1.5, null), "mismatchUnsure1");
    assertEquals(unsure, 0.355, 0.0006);
    assertEquals(value(NetworkFigures.of(n, 0, 2e6), "mismatchLoss1"), 0.177, 0.0005);
    NetworkData whip = onePort(new double[] {1e6}, new Complex(Math.pow(10, -16.25 / 20)));
    assertEquals(value(NetworkFigures.of(whip, 0, 2e6), "accepted1"), 97.6, 0.05);
  }

  private static double value(List<NetworkFigures.Figure> all, String id) {
    return all.stream().filter(f -> f.id().equals(id)).findFirst().orElseThrow().value();
  }

  @Test
  public void memoryIsReckonedWith() {
    double[] f = grid(1e6, 2e6, 11);
    NetworkData a = series(f, x -> new Complex(100, 30));
    NetworkData b = series(f, x -> new Complex(50, -20));
    NetworkData ratio = NetworkMath.OVER.of(a, b);
    assertEquals(ratio.magnitudeDb(3, 2, 1), a.magnitudeDb(3, 2, 1) - b.magnitudeDb(3, 2, 1), 1e-9);
    NetworkData back = NetworkMath.TIMES.of(ratio, b);
    NetworkData sum = NetworkMath.PLUS.of(NetworkMath.MINUS.of(a, b), b);
    for (int i = 0; i < a.s().length; i++) {
      assertEquals(back.s()[i], a.s()[i], 1e-12);
      assertEquals(sum.s()[i], a.s()[i], 1e-12);
    }
  }
}
