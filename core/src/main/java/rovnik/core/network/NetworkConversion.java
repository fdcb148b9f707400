package rovnik.core.network;

import org.ejml.data.ZMatrixRMaj;
import org.ejml.dense.row.CommonOps_ZDRM;
import rovnik.core.Refusal;

/**
 * Other parameter kinds to S-parameters, for real reference impedances (Frickey, IEEE Trans. MTT
 * 42, 1994; power waves and travelling waves agree for real references).
 */
public final class NetworkConversion {
  private NetworkConversion() {}

  /** Which parameters a matrix holds. */
  public enum Kind {
    S,
    Y,
    Z,
    H,
    G
  }

  /**
   * Turns one matrix in place into S-parameters.
   *
   * @param matrix row after row, real and imaginary part in turns; in ohm and siemens
   * @param referenceOhm of each port
   * @throws Refusal if no S-parameters exist, or a hybrid kind is not a two-port
   */
  public static void toS(Kind kind, double[] matrix, double[] referenceOhm) {
    int n = referenceOhm.length;
    switch (kind) {
      case S -> {}
      case Z -> fromZ(matrix, referenceOhm, n);
      case Y -> fromY(matrix, referenceOhm, n);
      default -> fromHybrid(kind, matrix, referenceOhm, n);
    }
  }

  /** S = (z - 1)(z + 1)^-1 with z = F Z F, F = 1 / sqrt(z0). */
  private static void fromZ(double[] m, double[] z0, int n) {
    scale(m, z0, n, -0.5);
    quotient(m, n, 1);
  }

  /** S = (1 - y)(1 + y)^-1 with y = F^-1 Y F^-1. */
  private static void fromY(double[] m, double[] z0, int n) {
    scale(m, z0, n, 0.5);
    quotient(m, n, -1);
  }

  private static void scale(double[] m, double[] z0, int n, double power) {
    for (int r = 0; r < n; r++) {
      for (int c = 0; c < n; c++) {
        double f = Math.pow(z0[r] * z0[c], power);
        m[2 * (r * n + c)] *= f;
        m[2 * (r * n + c) + 1] *= f;
      }
    }
  }

  /** sign (m - 1)(m + 1)^-1. */
  private static void quotient(double[] m, int n, int sign) {
    ZMatrixRMaj above = new ZMatrixRMaj(n, n);
    ZMatrixRMaj below = new ZMatrixRMaj(n, n);
    System.arraycopy(m, 0, above.data, 0, m.length);
    System.arraycopy(m, 0, below.data, 0, m.length);
    for (int i = 0; i < n; i++) {
      above.data[2 * (i * n + i)] -= 1;
      below.data[2 * (i * n + i)] += 1;
    }
    if (!CommonOps_ZDRM.invert(below)) {
      throw none();
    }
    ZMatrixRMaj product = new ZMatrixRMaj(n, n);
    CommonOps_ZDRM.mult(above, below, product);
    for (int i = 0; i < m.length; i++) {
      m[i] = sign * product.data[i];
      if (!Double.isFinite(m[i])) {
        throw none();
      }
    }
  }

  /** H or G to Z would fail where Z does not exist; the waves are solved for directly. */
  private static void fromHybrid(Kind kind, double[] m, double[] z0, int n) {
    if (n != 2) {
      throw new Refusal("file", kind + " parameters exist for two-ports only.");
    }
    // H: v1 = h11 i1 + h12 v2, i2 = h21 i1 + h22 v2. G: i1 = g11 v1 + g12 i2, v2 = g21 v1 + g22 i2.
    // With v = sqrt(z0)(a + b), i = (a - b)/sqrt(z0) both are P b = Q a.
    double r1 = Math.sqrt(z0[0]);
    double r2 = Math.sqrt(z0[1]);
    double[] x = {r1, r2}; // scale of the quantity on the left
    double[] y = {1 / r1, 1 / r2};
    boolean h = kind == Kind.H;
    // Left quantities: H (v1, i2), G (i1, v2); right ones: H (i1, v2), G (v1, i2).
    double[] left = h ? new double[] {x[0], y[1]} : new double[] {y[0], x[1]};
    double[] leftSign = h ? new double[] {1, -1} : new double[] {-1, 1};
    double[] right = h ? new double[] {y[0], x[1]} : new double[] {x[0], y[1]};
    double[] rightSign = h ? new double[] {-1, 1} : new double[] {1, -1};
    ZMatrixRMaj p = new ZMatrixRMaj(2, 2);
    ZMatrixRMaj q = new ZMatrixRMaj(2, 2);
    for (int r = 0; r < 2; r++) {
      for (int c = 0; c < 2; c++) {
        int i = 2 * (2 * r + c);
        double own = r == c ? left[r] : 0;
        p.data[i] = own * leftSign[r] - m[i] * right[c] * rightSign[c];
        p.data[i + 1] = -m[i + 1] * right[c] * rightSign[c];
        q.data[i] = m[i] * right[c] - own;
        q.data[i + 1] = m[i + 1] * right[c];
      }
    }
    if (!CommonOps_ZDRM.invert(p)) {
      throw none();
    }
    ZMatrixRMaj s = new ZMatrixRMaj(2, 2);
    CommonOps_ZDRM.mult(p, q, s);
    System.arraycopy(s.data, 0, m, 0, m.length);
    for (double v : m) {
      if (!Double.isFinite(v)) {
        throw none();
      }
    }
  }

  private static Refusal none() {
    return new Refusal("file", "These parameters have no S-parameters: the matrix is singular.");
  }
}
