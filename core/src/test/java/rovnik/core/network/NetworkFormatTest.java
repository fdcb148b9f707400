package rovnik.core.network;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.expectThrows;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;

/** Each view of an S-parameter against identities and closed forms. */
public class NetworkFormatTest {
  private static NetworkData one(double z0, double re, double im) {
    return new NetworkData(1, new double[] {z0}, new double[] {1e6}, new double[] {re, im});
  }

  /** gamma of a load: (Z - Z0) / (Z + Z0); 25 ohm is -1/3, 100 + j0 is 1/3 (identities). */
  @DataProvider
  public Object[][] values() {
    double third = 1.0 / 3;
    return new Object[][] {
      {NetworkFormat.RESISTANCE, -third, 0.0, 25.0},
      {NetworkFormat.RESISTANCE, third, 0.0, 100.0},
      {NetworkFormat.REACTANCE, 0.0, 1.0, 50.0},
      {NetworkFormat.REACTANCE, 0.0, -1.0, -50.0},
      {NetworkFormat.IMPEDANCE, 0.2, 0.4, 50 * Math.hypot(1, 1)},
      {NetworkFormat.VSWR, 0.2, 0.0, 1.5},
      {NetworkFormat.VSWR, 0.0, 0.5, 3.0},
      {NetworkFormat.RETURN_LOSS, 0.2, 0.0, 13.9794},
      {NetworkFormat.RETURN_LOSS, 0.0, 0.5, 6.0206},
      {NetworkFormat.LOG_MAGNITUDE, 0.5, 0.0, -6.0206},
      {NetworkFormat.LINEAR, 0.3, 0.4, 0.5},
      {NetworkFormat.PHASE, 0.0, -2.0, -90.0},
      {NetworkFormat.REAL, 0.3, 0.4, 0.3},
      {NetworkFormat.IMAGINARY, 0.3, 0.4, 0.4},
    };
  }

  @Test(dataProvider = "values")
  public void onePoint(NetworkFormat format, double re, double im, double expected) {
    assertEquals(format.of(one(50, re, im), 1, 1, 0)[0], expected, 1e-4);
  }

  /** A line of 10 ns: phase falls evenly, its delay is 10 ns at every aperture. */
  @Test
  public void aLineHasItsDelay() {
    int points = 201;
    double[] f = new double[points];
    double[] s = new double[8 * points];
    for (int i = 0; i < points; i++) {
      f[i] = 100e6 + 2e6 * i;
      double a = -2 * Math.PI * f[i] * 10e-9;
      s[8 * i + 4] = Math.cos(a);
      s[8 * i + 5] = Math.sin(a);
    }
    NetworkData n = new NetworkData(2, new double[] {50, 50}, f, s);
    for (double aperture : new double[] {0, 10e6, 100e6, 1e9}) {
      for (double v : NetworkFormat.GROUP_DELAY.of(n, 2, 1, aperture)) {
        assertEquals(v, 10e-9, 1e-15, "aperture " + aperture);
      }
    }
    double[] phase = NetworkFormat.UNWRAPPED_PHASE.of(n, 2, 1, 0);
    assertEquals(phase[200] - phase[0], -360 * 400e6 * 10e-9, 1e-6);
  }

  @Test
  public void smoothingIsARunningMean() {
    double[] y = {0, 0, 0, 9, 0, 0, 0, 0, 0, 0, 0, 0};
    double[] out = NetworkFormat.smoothed(y, 0.25);
    assertEquals(out[2], 3.0, 1e-12);
    assertEquals(out[3], 3.0, 1e-12);
    assertEquals(out[5], 0.0, 1e-12);
    assertEquals(NetworkFormat.smoothed(y, 0), y);
    assertEquals(
        expectThrows(Refusal.class, () -> NetworkFormat.smoothed(y, 0.5)).field(), "smoothing");
  }

  @Test
  public void whatDoesNotExistIsRefused() {
    NetworkData n = one(50, 0, 0);
    assertEquals(
        expectThrows(Refusal.class, () -> NetworkFormat.REAL.of(n, 2, 1, 0)).field(), "parameter");
    NetworkData two = new NetworkData(2, new double[] {50, 50}, new double[] {1e6}, new double[8]);
    assertEquals(
        expectThrows(Refusal.class, () -> NetworkFormat.VSWR.of(two, 2, 1, 0)).field(), "format");
    assertEquals(
        expectThrows(Refusal.class, () -> NetworkFormat.GROUP_DELAY.of(two, 2, 1, 0)).field(),
        "format");
  }
}
