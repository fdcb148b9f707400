package rovnik.core.signal;

/** Forward transform X[k] = sum x[n] exp(-j 2 pi k n / N) of complex data, not scaled. */
public interface ComplexFft {
  /**
   * Transforms in place, natural order in and out.
   *
   * @param re real parts, as many as the transform is long; overwritten
   * @param im imaginary parts; overwritten
   */
  void forward(float[] re, float[] im);

  /**
   * Transforms interleaved samples times a window, and adds the power of each bin at its place.
   *
   * @param iq interleaved samples, not changed; where they end there are zeros
   * @param at first complex sample
   * @param window as long as the transform
   * @param sum as long as the transform, in its own order
   */
  void addPower(float[] iq, int at, float[] window, float[] sum);

  /** Where the power of a bin lies. */
  int placeOf(int bin);

  /** The machine's vectors are at hand. */
  static boolean vectors() {
    return ModuleLayer.boot().findModule("jdk.incubator.vector").isPresent();
  }

  /**
   * The fastest transform that this machine has. Not thread-safe: one thread, one transform.
   *
   * @param length at least 2; a power of two is fastest
   */
  static ComplexFft of(int length) {
    return vectors() && Integer.bitCount(length) == 1 && length >= VectorFft.SHORTEST
        ? new VectorFft(length)
        : new LibraryFft(length);
  }
}
