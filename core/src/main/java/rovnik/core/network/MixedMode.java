package rovnik.core.network;

import rovnik.core.Refusal;

/**
 * A four-port as two balanced ports: differential and common mode (D. E. Bockelman and W. R.
 * Eisenstadt, "Combined differential and common-mode scattering parameters", IEEE Trans. MTT 43,
 * 1995, from memory). The rows of the result are d1, d2, c1, c2.
 */
public final class MixedMode {
  private MixedMode() {}

  /** Names of the rows. */
  public static final String[] MODES = {"d1", "d2", "c1", "c2"};

  /**
   * @param pairs the ports of balanced port 1, then of 2; {1, 3, 2, 4} or {1, 2, 3, 4} are usual
   */
  public static NetworkData of(NetworkData n, int... pairs) {
    if (n.ports() != 4 || pairs.length != 4) {
      throw new Refusal("mixedMode", "Mixed mode is made of a network of four ports.");
    }
    boolean[] seen = new boolean[5];
    for (int p : pairs) {
      if (p < 1 || p > 4 || seen[p]) {
        throw new Refusal("mixedMode", "Name each of the ports 1 to 4 once, such as 13-24.");
      }
      seen[p] = true;
    }
    double z0 = n.referenceOhm()[0];
    for (double z : n.referenceOhm()) {
      if (z != z0) {
        throw new Refusal("z0", "Mixed mode needs one reference impedance for all ports.");
      }
    }
    double h = Math.sqrt(0.5);
    double[][] m = new double[4][4];
    for (int balanced = 0; balanced < 2; balanced++) {
      int plus = pairs[2 * balanced] - 1;
      int minus = pairs[2 * balanced + 1] - 1;
      m[balanced][plus] = h;
      m[balanced][minus] = -h;
      m[2 + balanced][plus] = h;
      m[2 + balanced][minus] = h;
    }
    double[] out = new double[n.s().length];
    for (int p = 0; p < n.points(); p++) {
      for (int r = 0; r < 4; r++) {
        for (int c = 0; c < 4; c++) {
          double re = 0;
          double im = 0;
          for (int i = 0; i < 4; i++) {
            for (int k = 0; k < 4; k++) {
              double weight = m[r][i] * m[c][k]; // the matrix is orthogonal
              re += weight * n.re(p, i + 1, k + 1);
              im += weight * n.im(p, i + 1, k + 1);
            }
          }
          int at = n.at(p, r + 1, c + 1);
          out[at] = re;
          out[at + 1] = im;
        }
      }
    }
    return new NetworkData(4, new double[] {2 * z0, 2 * z0, z0 / 2, z0 / 2}, n.frequencyHz(), out);
  }
}
