package rovnik.core.network;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.hipparchus.complex.Complex;
import org.testng.annotations.Test;
import rovnik.core.Refusal;

/** What is put on can be taken off, and identities of lines and references. */
public class NetworkChangeTest {
  private static NetworkData random(long seed, int points) {
    Random random = new Random(seed);
    double[] f = new double[points];
    double[] s = new double[8 * points];
    for (int i = 0; i < points; i++) {
      f[i] = 1e6 * (i + 1);
      for (int k = 0; k < 8; k++) {
        s[8 * i + k] = 0.6 * random.nextGaussian();
      }
    }
    return new NetworkData(2, new double[] {50, 50}, f, s);
  }

  private static double farthest(NetworkData a, NetworkData b) {
    double most = 0;
    for (int i = 0; i < a.s().length; i++) {
      most = Math.max(most, Math.abs(a.s()[i] - b.s()[i]) / (1 + Math.abs(a.s()[i])));
    }
    return most;
  }

  @Test
  public void takingOffUndoesPuttingOn() {
    for (int seed = 0; seed < 200; seed++) {
      NetworkData part = random(3 * seed, 5);
      NetworkData dut = random(3 * seed + 1, 5);
      NetworkData last = random(3 * seed + 2, 5);
      NetworkData all = NetworkChange.cascade(NetworkChange.cascade(part, dut), last);
      NetworkData back = NetworkChange.withoutLast(NetworkChange.withoutFirst(all, part), last);
      // Random parts may be nearly singular: the error is judged against what they amplify.
      assertTrue(farthest(dut, back) < 1e-9, "seed " + seed + ": " + farthest(dut, back));
    }
    NetworkData tame = pad(10);
    NetworkData dut = random(99, 3);
    NetworkData there = NetworkChange.cascade(tame, dut);
    assertTrue(farthest(dut, NetworkChange.withoutFirst(there, tame)) < 1e-12);
  }

  /** A matched pad of so many dB. */
  private static NetworkData pad(double db) {
    double t = Math.pow(10, -db / 20);
    double[] s = new double[24];
    for (int i = 0; i < 3; i++) {
      s[8 * i + 2] = t;
      s[8 * i + 4] = t;
    }
    return new NetworkData(2, new double[] {50, 50}, new double[] {1e6, 2e6, 3e6}, s);
  }

  /** Common practice: a 10 dB and a 20 dB pad make 30 dB. */
  @Test
  public void padsAddUp() {
    NetworkData both = NetworkChange.cascade(pad(10), pad(20));
    assertEquals(both.magnitudeDb(1, 2, 1), -30, 1e-9);
  }

  /** 25 ohm seen in 75 ohm: (25 - 75) / (25 + 75) = -1/2; and back nothing is lost. */
  @Test
  public void renormalisingChangesTheReferenceAlone() {
    NetworkData one =
        new NetworkData(1, new double[] {50}, new double[] {1e6}, new double[] {-1.0 / 3, 0});
    assertEquals(NetworkChange.renormalised(one, 75).re(0, 1, 1), -0.5, 1e-12);
    NetworkData two = random(5, 20);
    NetworkData back = NetworkChange.renormalised(NetworkChange.renormalised(two, 75, 110), 50, 50);
    assertTrue(farthest(two, back) < 1e-11);
  }

  /** The impedance matrix does not know of references: through it the same must come out. */
  @Test
  public void renormalisingAgreesWithTheImpedanceMatrix() {
    NetworkData n = random(8, 1);
    Complex[] s = new Complex[4];
    for (int k = 0; k < 4; k++) {
      s[k] = new Complex(n.s()[2 * k], n.s()[2 * k + 1]);
    }
    // Z = z0 (1 - S)^-1 (1 + S) for equal references.
    Complex a = Complex.ONE.subtract(s[0]);
    Complex d = Complex.ONE.subtract(s[3]);
    Complex det = a.multiply(d).subtract(s[1].multiply(s[2]));
    Complex[] inverse = {d.divide(det), s[1].divide(det), s[2].divide(det), a.divide(det)};
    Complex[] plus = {s[0].add(1), s[1], s[2], s[3].add(1)};
    double[] z = new double[8];
    for (int r = 0; r < 2; r++) {
      for (int c = 0; c < 2; c++) {
        Complex v = inverse[2 * r].multiply(plus[c]).add(inverse[2 * r + 1].multiply(plus[2 + c]));
        z[2 * (2 * r + c)] = 50 * v.getReal();
        z[2 * (2 * r + c) + 1] = 50 * v.getImaginary();
      }
    }
    NetworkConversion.toS(NetworkConversion.Kind.Z, z, new double[] {75, 110});
    NetworkData direct = NetworkChange.renormalised(n, 75, 110);
    for (int k = 0; k < 8; k++) {
      assertEquals(direct.s()[k], z[k], 1e-10, "number " + k);
    }
  }

  /** A short behind 2 ns of line with 0.5 dB at 1 GHz: the extension brings it back to -1. */
  @Test
  public void theExtensionIsFoundFromAShort() {
    int points = 401;
    double[] f = new double[points];
    double[] s = new double[2 * points];
    for (int i = 0; i < points; i++) {
      f[i] = 10e6 + 5e6 * i;
      double m = Math.pow(10, -2 * 0.5 * Math.sqrt(f[i] / 1e9) / 20);
      double angle = -4 * Math.PI * f[i] * 2e-9;
      s[2 * i] = -m * Math.cos(angle);
      s[2 * i + 1] = -m * Math.sin(angle);
    }
    NetworkData n = new NetworkData(1, new double[] {50}, f, s);
    NetworkChange.Extension found = NetworkChange.extensionOf(n, 1);
    assertEquals(found.delaySeconds(), 2e-9, 1e-15);
    assertEquals(found.lossDb(), 0.5, 1e-9);
    NetworkData moved = NetworkChange.extended(n, found);
    for (int i = 0; i < points; i += 50) {
      assertEquals(moved.re(i, 1, 1), -1, 1e-6);
      assertEquals(moved.im(i, 1, 1), 0, 1e-6);
    }
  }

  /** Twice as fine a grid of a smooth part, used on the coarse one. */
  @Test
  public void aPartIsInterpolatedButNeverStretched() {
    NetworkData coarse =
        new NetworkData(
            2,
            new double[] {50, 50},
            new double[] {1e6, 3e6},
            new double[] {0, 0, 0.5, 0, 0.5, 0, 0, 0, 0.2, 0, 0.7, 0, 0.7, 0, 0, 0});
    NetworkData two = NetworkChange.on(coarse, pad(3));
    assertEquals(two.re(1, 2, 1), 0.6, 1e-12);
    NetworkData wide =
        new NetworkData(2, new double[] {50, 50}, new double[] {1e6, 4e6}, new double[16]);
    assertEquals(expectThrows(Refusal.class, () -> NetworkChange.on(coarse, wide)).field(), "part");
  }
}
