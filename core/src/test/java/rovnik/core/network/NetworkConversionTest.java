package rovnik.core.network;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.hipparchus.complex.Complex;
import org.hipparchus.complex.ComplexField;
import org.hipparchus.linear.Array2DRowFieldMatrix;
import org.hipparchus.linear.FieldLUDecomposition;
import org.hipparchus.linear.FieldMatrix;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.network.NetworkConversion.Kind;

/** Against Hipparchus' complex matrices, by the textbook definitions of waves and matrices. */
public class NetworkConversionTest {
  @DataProvider
  public Object[][] cases() {
    return new Object[][] {
      {1, false}, {1, true}, {2, false}, {2, true}, {3, true}, {4, false}, {5, true}, {8, true}
    };
  }

  private static double[] references(int ports, boolean mixed) {
    double[] z0 = new double[ports];
    for (int i = 0; i < ports; i++) {
      z0[i] = mixed ? 25 + 20 * i : 50;
    }
    return z0;
  }

  private static FieldMatrix<Complex> random(int n, long seed, double scale) {
    Random random = new Random(seed);
    Complex[][] m = new Complex[n][n];
    for (Complex[] row : m) {
      for (int c = 0; c < n; c++) {
        row[c] = new Complex(scale * random.nextGaussian(), scale * random.nextGaussian());
      }
    }
    return new Array2DRowFieldMatrix<>(ComplexField.getInstance(), m);
  }

  private static double[] flat(FieldMatrix<Complex> m) {
    int n = m.getRowDimension();
    double[] f = new double[2 * n * n];
    for (int r = 0; r < n; r++) {
      for (int c = 0; c < n; c++) {
        f[2 * (r * n + c)] = m.getEntry(r, c).getReal();
        f[2 * (r * n + c) + 1] = m.getEntry(r, c).getImaginary();
      }
    }
    return f;
  }

  private static FieldMatrix<Complex> inverse(FieldMatrix<Complex> m) {
    return new FieldLUDecomposition<>(m).getSolver().getInverse();
  }

  private static FieldMatrix<Complex> diagonal(double[] z0, double power) {
    int n = z0.length;
    Complex[][] m = new Complex[n][n];
    for (int r = 0; r < n; r++) {
      for (int c = 0; c < n; c++) {
        m[r][c] = r == c ? new Complex(Math.pow(z0[r], power)) : Complex.ZERO;
      }
    }
    return new Array2DRowFieldMatrix<>(ComplexField.getInstance(), m);
  }

  /** S = F (Z - G) (Z + G)^-1 F^-1 with G = diag(z0), F = G^-1/2 (Kurokawa's waves). */
  @Test(dataProvider = "cases")
  public void impedancesByTheDefinition(int ports, boolean mixed) {
    double[] z0 = references(ports, mixed);
    FieldMatrix<Complex> z = random(ports, ports * 7L, 60);
    FieldMatrix<Complex> g = diagonal(z0, 1);
    FieldMatrix<Complex> f = diagonal(z0, -0.5);
    FieldMatrix<Complex> s =
        f.multiply(z.subtract(g)).multiply(inverse(z.add(g))).multiply(inverse(f));
    double[] ours = flat(z);
    NetworkConversion.toS(Kind.Z, ours, z0);
    close(ours, flat(s));
  }

  /** Y is the inverse of Z: both must become the same S-parameters. */
  @Test(dataProvider = "cases")
  public void admittancesAreInverseImpedances(int ports, boolean mixed) {
    double[] z0 = references(ports, mixed);
    FieldMatrix<Complex> z = random(ports, ports * 13L, 60);
    double[] fromZ = flat(z);
    NetworkConversion.toS(Kind.Z, fromZ, z0);
    double[] fromY = flat(inverse(z));
    NetworkConversion.toS(Kind.Y, fromY, z0);
    close(fromY, fromZ);
  }

  private static void close(double[] a, double[] b) {
    for (int i = 0; i < a.length; i++) {
      assertEquals(a[i], b[i], 1e-9 * Math.max(1, Math.abs(b[i])));
    }
  }

  /** H and G from Z by their definitions; all three must agree, also with unlike references. */
  @Test(dataProvider = "cases")
  public void hybridsAgreeWithImpedances(int seed, boolean mixed) {
    double[] z0 = references(2, mixed);
    FieldMatrix<Complex> z = random(2, seed * 31L, 60);
    Complex z11 = z.getEntry(0, 0);
    Complex z12 = z.getEntry(0, 1);
    Complex z21 = z.getEntry(1, 0);
    Complex z22 = z.getEntry(1, 1);
    Complex det = z11.multiply(z22).subtract(z12.multiply(z21));
    double[] h =
        numbers(det.divide(z22), z12.divide(z22), z21.negate().divide(z22), z22.reciprocal());
    double[] g =
        numbers(z11.reciprocal(), z12.negate().divide(z11), z21.divide(z11), det.divide(z11));
    double[] expected = flat(z);
    NetworkConversion.toS(Kind.Z, expected, z0);
    NetworkConversion.toS(Kind.H, h, z0);
    NetworkConversion.toS(Kind.G, g, z0);
    close(h, expected);
    close(g, expected);
  }

  private static double[] numbers(Complex... values) {
    double[] n = new double[2 * values.length];
    for (int i = 0; i < values.length; i++) {
      n[2 * i] = values[i].getReal();
      n[2 * i + 1] = values[i].getImaginary();
    }
    return n;
  }

  /** Two 50 ohm lines in parallel after a 50 ohm plane: 25 ohm, reflection -1/3 (identity). */
  @Test
  public void knownOnePorts() {
    for (double[] row : new double[][] {{25, -1 / 3.0}, {50, 0}, {100, 1 / 3.0}, {0, -1}}) {
      double[] m = {row[0], 0};
      NetworkConversion.toS(Kind.Z, m, new double[] {50});
      assertEquals(m[0], row[1], 1e-12);
      assertEquals(m[1], 0, 1e-12);
    }
    double[] open = {0, 0};
    NetworkConversion.toS(Kind.Y, open, new double[] {50});
    assertEquals(open[0], 1, 1e-12);
  }

  /** Power waves of a passive network never give out more than they take. */
  @Test
  public void resistorsStayPassive() {
    Random random = new Random(2);
    for (int i = 0; i < 200; i++) {
      // A tee of positive resistors.
      double a = 100 * random.nextDouble();
      double b = 100 * random.nextDouble();
      double c = 100 * random.nextDouble();
      double[] m = {a + c, 0, c, 0, c, 0, b + c, 0};
      NetworkConversion.toS(Kind.Z, m, new double[] {50, 75});
      NetworkData n = new NetworkData(2, new double[] {50, 75}, new double[] {1e6}, m);
      TwoPort t = TwoPort.of(n, 0);
      assertTrue(t.largestPowerGain() <= 1 + 1e-12);
      assertEquals(t.s12().subtract(t.s21()).norm(), 0, 1e-12);
      assertTrue(t.mu() >= 1 - 1e-9);
    }
  }

  @Test
  public void whatHasNoScatteringMatrixIsRefused() {
    double[] minus = {-50, 0};
    assertThrows(Refusal.class, () -> NetworkConversion.toS(Kind.Z, minus, new double[] {50}));
    double[] three = new double[18];
    assertThrows(
        Refusal.class, () -> NetworkConversion.toS(Kind.H, three, new double[] {50, 50, 50}));
  }

  @Test
  public void networksThatCannotBeAreRefused() {
    double[] z0 = {50};
    double[] f = {1e6, 2e6};
    double[] s = {0, 0, 0, 0};
    assertThrows(Refusal.class, () -> new NetworkData(0, z0, f, s));
    assertThrows(Refusal.class, () -> new NetworkData(1, new double[] {0}, f, s));
    assertThrows(Refusal.class, () -> new NetworkData(1, z0, new double[] {2e6, 1e6}, s));
    assertThrows(Refusal.class, () -> new NetworkData(1, z0, f, new double[3]));
    assertEquals(NetworkData.name(2, 1), "S21");
    assertEquals(NetworkData.name(10, 1), "S10,1");
    NetworkData n = new NetworkData(1, z0, f, s);
    assertThrows(Refusal.class, () -> TwoPort.of(n, 0));
    assertEquals(NetworkFigures.of(n, 0, 1e9).get(1).value(), 1, 1e-12); // a match has VSWR 1
    assertThrows(Refusal.class, () -> NetworkFigures.of(n, 3e6, 4e6));
  }
}
