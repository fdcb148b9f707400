package rovnik.core.signal;

/** One place after the other. */
final class PlainSincRow extends SincRow {
  @Override
  void read(
      float[] x, float[] y, int samples, double first, double step, double[] outX, double[] outY) {
    double[] z = new double[2];
    double last = last(samples);
    for (int i = 0; i < outX.length; i++) {
      SincSampler.both(x, y, clamped(first + i * step, last), z);
      outX[i] = z[0];
      outY[i] = z[1];
    }
  }
}
