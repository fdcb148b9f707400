package rovnik.core.signal;

/** Four sums at once, which do not wait for each other. */
final class PlainProducts extends Products {
  @Override
  double of(double[] x, int xAt, double[] y, int yAt, int length) {
    double a = 0;
    double b = 0;
    double c = 0;
    double d = 0;
    int k = 0;
    for (; k + 3 < length; k += 4) {
      a += x[xAt + k] * y[yAt + k];
      b += x[xAt + k + 1] * y[yAt + k + 1];
      c += x[xAt + k + 2] * y[yAt + k + 2];
      d += x[xAt + k + 3] * y[yAt + k + 3];
    }
    for (; k < length; k++) {
      a += x[xAt + k] * y[yAt + k];
    }
    return a + b + (c + d);
  }
}
