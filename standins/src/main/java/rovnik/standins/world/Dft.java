package rovnik.standins.world;

/** Fourier transforms of any length: radix 2, and Bluestein's way for the others. */
final class Dft {
  private Dft() {}

  /** Forward transform in place; interleaved, n complex numbers, not scaled. */
  static void forward(double[] x, int n) {
    if (Integer.bitCount(n) == 1) {
      radixTwo(x, n);
      return;
    }
    int m = Integer.highestOneBit(2 * n - 1) << 1;
    double[] a = new double[2 * m];
    double[] b = new double[2 * m];
    double[] chirp = new double[2 * n];
    for (int k = 0; k < n; k++) {
      double angle = -Math.PI * ((long) k * k % (2L * n)) / n;
      double c = Math.cos(angle);
      double s = Math.sin(angle);
      chirp[2 * k] = c;
      chirp[2 * k + 1] = s;
      a[2 * k] = x[2 * k] * c - x[2 * k + 1] * s;
      a[2 * k + 1] = x[2 * k] * s + x[2 * k + 1] * c;
      int mirror = k == 0 ? 0 : m - k;
      b[2 * k] = c;
      b[2 * k + 1] = -s;
      b[2 * mirror] = c;
      b[2 * mirror + 1] = -s;
    }
    radixTwo(a, m);
    radixTwo(b, m);
    for (int k = 0; k < m; k++) {
      double re = a[2 * k] * b[2 * k] - a[2 * k + 1] * b[2 * k + 1];
      double im = a[2 * k] * b[2 * k + 1] + a[2 * k + 1] * b[2 * k];
      a[2 * k] = re;
      a[2 * k + 1] = -im; // the inverse is a forward transform of the conjugate
    }
    radixTwo(a, m);
    for (int k = 0; k < n; k++) {
      double re = a[2 * k] / m;
      double im = -a[2 * k + 1] / m;
      x[2 * k] = re * chirp[2 * k] - im * chirp[2 * k + 1];
      x[2 * k + 1] = re * chirp[2 * k + 1] + im * chirp[2 * k];
    }
  }

  private static void radixTwo(double[] x, int n) {
    int bits = Integer.numberOfTrailingZeros(n);
    for (int i = 0; i < n; i++) {
      int j = bits == 0 ? 0 : Integer.reverse(i) >>> 32 - bits;
      if (j > i) {
        for (int part = 0; part < 2; part++) {
          double t = x[2 * i + part];
          x[2 * i + part] = x[2 * j + part];
          x[2 * j + part] = t;
        }
      }
    }
    double[] turn = new double[n];
    for (int i = 0; i < n / 2; i++) {
      turn[2 * i] = Math.cos(-2 * Math.PI * i / n);
      turn[2 * i + 1] = Math.sin(-2 * Math.PI * i / n);
    }
    for (int half = 1; half < n; half *= 2) {
      int step = n / (2 * half);
      for (int from = 0; from < n; from += 2 * half) {
        for (int i = 0; i < half; i++) {
          int u = 2 * (from + i);
          int v = u + 2 * half;
          double c = turn[2 * i * step];
          double s = turn[2 * i * step + 1];
          double re = x[v] * c - x[v + 1] * s;
          double im = x[v] * s + x[v + 1] * c;
          x[v] = x[u] - re;
          x[v + 1] = x[u + 1] - im;
          x[u] += re;
          x[u + 1] += im;
        }
      }
    }
  }
}
