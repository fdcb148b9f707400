package rovnik.core.signal;

/** Reads two signals at even places between their samples, as {@link SincSampler} does at one. */
abstract class SincRow {
  /** Weights in single precision, in rows of {@link #WIDTH}; what is beyond the taps is 0. */
  static final int WIDTH = 16;

  private static final SincRow FASTEST =
      ComplexFft.vectors() && VectorSincRow.fits() ? new VectorSincRow() : new PlainSincRow();

  static SincRow fastest() {
    return FASTEST;
  }

  /** See {@link SincSampler#row}. */
  abstract void read(
      float[] x, float[] y, int samples, double first, double step, double[] outX, double[] outY);

  /** Between the samples that there are; of no number at all this is the beginning. */
  static double clamped(double at, double last) {
    return at > SincSampler.REACH ? Math.min(last, at) : SincSampler.REACH;
  }

  static double last(int samples) {
    return samples - SincSampler.REACH - 1.0;
  }
}
