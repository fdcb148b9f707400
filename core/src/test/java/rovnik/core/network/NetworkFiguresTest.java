package rovnik.core.network;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNull;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import org.hipparchus.complex.Complex;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.path.Gain;

public class NetworkFiguresTest {
  /** VSWR, return loss, mismatch loss: identities. */
  @DataProvider
  public Object[][] vswr() {
    return new Object[][] {{1.5, 13.98, 0.177}, {2, 9.54, 0.512}, {3, 6.02, 1.249}};
  }

  @Test(dataProvider = "vswr")
  public void vswrReturnLossAndMismatchLoss(double vswr, double returnLoss, double mismatch) {
    Reflection r = Reflection.ofVswr(vswr);
    assertEquals(r.returnLossDb(), returnLoss, 0.005);
    assertEquals(r.mismatchLossDb(), mismatch, 0.0005);
    assertEquals(Reflection.ofReturnLossDb(r.returnLossDb()).vswr(), vswr, 1e-9);
  }

  /** Return loss to power accepted: identity; agrees with common practice. */
  @DataProvider
  public Object[][] accepted() {
    return new Object[][] {
      {29.79, 99.9}, {31.36, 99.9}, {27.36, 99.8}, {22.97, 99.5}, {16.25, 97.6}, {20, 99.0}
    };
  }

  @Test(dataProvider = "accepted")
  public void powerAccepted(double returnLoss, double percent) {
    assertEquals(Reflection.ofReturnLossDb(returnLoss).acceptedShare() * 100, percent, 0.05);
  }

  @Test
  public void totalReflectionIsNoNumberToHideBehind() {
    assertEquals(new Reflection(1).vswr(), Double.POSITIVE_INFINITY);
    assertEquals(new Reflection(1.2).vswr(), Double.POSITIVE_INFINITY);
    assertTrue(new Reflection(1.2).returnLossDb() < 0);
    assertEquals(Reflection.ofReturnLossDb(16.25).vswr(), 1.36, 0.005);
    assertEquals(Reflection.ofReturnLossDb(29.79).vswr(), 1.07, 0.005);
  }

  private static Complex polar(double magnitude, double degrees) {
    double a = Math.toRadians(degrees);
    return new Complex(magnitude * Math.cos(a), magnitude * Math.sin(a));
  }

  /** Pozar, Microwave Engineering, transistor example, from memory; recomputed. */
  @Test
  public void potentiallyUnstableTransistor() {
    TwoPort t =
        new TwoPort(polar(.894, -60.6), polar(.020, 62.4), polar(3.122, 123.6), polar(.781, -27.6));
    assertEquals(t.rollettK(), 0.607, 0.001);
    assertEquals(t.delta().norm(), 0.696, 0.001);
    assertEquals(Math.toDegrees(t.delta().getArgument()), -83.1, 0.1);
    assertEquals(t.mu(), 0.863, 0.001);
    assertFalse(t.unconditionallyStable());
    assertEquals(t.loadCircle().centre().norm(), 1.363, 0.002);
    assertEquals(Math.toDegrees(t.loadCircle().centre().getArgument()), 46.7, 0.1);
    assertEquals(t.loadCircle().radius(), 0.500, 0.001);
    assertEquals(t.sourceCircle().centre().norm(), 1.132, 0.002);
    assertEquals(Math.toDegrees(t.sourceCircle().centre().getArgument()), 68.5, 0.1);
    assertEquals(t.sourceCircle().radius(), 0.199, 0.001);
    assertEquals(t.maximumGainDb(), 10 * Math.log10(3.122 / .020), 1e-9);
    expectThrows(Refusal.class, t::matchedSource);
  }

  /** The same book's second transistor, from memory; recomputed. */
  @Test
  public void stableTransistorHasAMatch() {
    TwoPort t = new TwoPort(polar(.72, -116), polar(.03, 57), polar(2.60, 76), polar(.73, -54));
    assertEquals(t.rollettK(), 1.195, 0.001);
    assertEquals(t.delta().norm(), 0.488, 0.001);
    assertEquals(Math.toDegrees(t.delta().getArgument()), -162.3, 0.1);
    assertEquals(t.maximumGainDb(), 16.71, 0.01);
    // Matched at both ends: what each port shows is the conjugate of what it sees.
    Complex source = t.matchedSource();
    Complex load = t.matchedLoad();
    Complex seenIn =
        t.s11()
            .add(
                t.s12()
                    .multiply(t.s21())
                    .multiply(load)
                    .divide(Complex.ONE.subtract(t.s22().multiply(load))));
    assertEquals(seenIn.subtract(source.conjugate()).norm(), 0, 1e-9);
    assertTrue(source.norm() < 1 && load.norm() < 1);
  }

  @Test
  public void aPadIsPassiveAndAnAmplifierIsNot() {
    TwoPort pad = new TwoPort(Complex.ZERO, polar(.3162, 0), polar(.3162, 0), Complex.ZERO);
    assertEquals(pad.largestPowerGain(), 0.1, 1e-4);
    TwoPort amplifier = new TwoPort(Complex.ZERO, Complex.ZERO, polar(10, 0), Complex.ZERO);
    assertEquals(amplifier.largestPowerGain(), 100, 1e-9);
    assertEquals(amplifier.maximumGainDb(), 20, 1e-9);
  }

  /** A slope in dB is two rows; a notch in it stays. */
  @Test
  public void gainTableKeepsWhatMattersOfALongFile() {
    int points = 20_001;
    double[] f = new double[points];
    double[] s = new double[8 * points];
    for (int i = 0; i < points; i++) {
      f[i] = 1e6 + i * 1e5;
      double db = -1 - 2.0 * i / (points - 1) - (i == 12_345 ? 30 : 0);
      s[8 * i + 4] = Math.pow(10, db / 20);
    }
    NetworkData n = new NetworkData(2, new double[] {50, 50}, f, s);
    Gain.Table g = n.gain(1, 2, 0.001);
    assertTrue(g.frequencyHz().length <= 6, "rows: " + g.frequencyHz().length);
    for (int i = 0; i < points; i += 5) {
      assertEquals(g.dbAt(f[i]), n.magnitudeDb(i, 2, 1), 0.0011);
    }
    expectThrows(Refusal.class, () -> n.gain(2, 1, 0.001)); // S12 is zero
    expectThrows(Refusal.class, () -> n.gain(1, 3, 0.001));
  }

  /**
   * A single resonator in closed form: S21 = 1 / (1 + j Q (f/f0 - f0/f)); 3 dB down at a width of
   * f0 / Q (identity). Its edges at 60 and 6 dB follow from the same formula.
   */
  @Test
  public void aResonatorHasItsQuality() {
    int points = 4001;
    double[] f = new double[points];
    double[] s = new double[8 * points];
    for (int i = 0; i < points; i++) {
      f[i] = 50e6 + 25e3 * i;
      double x = 50 * (f[i] / 100e6 - 100e6 / f[i]);
      s[8 * i + 4] = 1 / (1 + x * x);
      s[8 * i + 5] = -x / (1 + x * x);
      s[8 * i + 2] = s[8 * i + 4];
      s[8 * i + 3] = s[8 * i + 5];
    }
    NetworkData n = new NetworkData(2, new double[] {50, 50}, f, s);
    PassBand three = PassBand.of(n, 2, 1, 3.0103);
    assertEquals(three.widthHz(), 2e6, 2e3);
    assertEquals(three.quality(), 50, 0.1);
    // x^2 = 10^(6/10) - 1 = 2.981: width f0 x / Q.
    assertEquals(PassBand.of(n, 2, 1, 6).widthHz(), 100e6 * Math.sqrt(2.98107) / 50, 4e3);
    assertNull(PassBand.of(n, 2, 1, 60), "it does not fall that far in this file");
    assertEquals(figure(n, "quality"), 50, 0.3);
    assertEquals(figure(n, "centre"), 100e6, 20e3);
  }

  /** Common practice: S21 of -25 dB in a series fixture of 50 ohm is 1.68 kohm. */
  @Test
  public void aChokeInSeries() {
    double t = Math.pow(10, -25 / 20.0);
    NetworkData n =
        new NetworkData(
            2,
            new double[] {50, 50},
            new double[] {1e6, 2e6},
            new double[] {1 - t, 0, t, 0, t, 0, 1 - t, 0, 1 - t, 0, t, 0, t, 0, 1 - t, 0});
    assertEquals(figure(n, "seriesImpedance"), 1678, 1);
    assertEquals(figure(n, "ripple"), 0, 1e-9);
    assertEquals(figure(n, "delay"), 0, 1e-15);
  }

  private static double figure(NetworkData n, String id) {
    return NetworkFigures.of(n, 0, 1e12).stream()
        .filter(f -> f.id().equals(id))
        .findFirst()
        .orElseThrow()
        .value();
  }
}
