package rovnik.core.signal;

import java.util.Arrays;

/** Forward transform X[k] = sum x[n] exp(-j 2 pi k n / N) of split complex data, not scaled. */
public interface ComplexFft {
  /**
   * Transforms in place, natural order in and out.
   *
   * @param re real parts, at least the transform's length; overwritten
   * @param im imaginary parts; overwritten
   */
  void forward(float[] re, float[] im);

  /**
   * Transforms interleaved samples times a window; where the window has ended there are zeros.
   *
   * @param iq interleaved samples, not changed
   * @param at first complex sample
   * @param window no longer than the transform
   * @param re receives the real parts, as long as the transform
   * @param im receives the imaginary parts
   */
  default void forwardWindowed(float[] iq, int at, float[] window, float[] re, float[] im) {
    int length = window.length;
    for (int i = 0, a = 2 * at; i < length; i++, a += 2) {
      re[i] = iq[a] * window[i];
      im[i] = iq[a + 1] * window[i];
    }
    Arrays.fill(re, length, re.length, 0f);
    Arrays.fill(im, length, im.length, 0f);
    forward(re, im);
  }

  /**
   * Adds re^2 + im^2 of {@code count} points from {@code from} on to {@code sum}, from {@code to}
   * on.
   */
  default void addPower(float[] re, float[] im, int from, float[] sum, int to, int count) {
    for (int i = 0; i < count; i++) {
      sum[to + i] += re[from + i] * re[from + i] + im[from + i] * im[from + i];
    }
  }

  /**
   * The fastest transform that this machine has. Not thread-safe: one thread, one transform.
   *
   * @param length a power of two, at least 2
   */
  static ComplexFft of(int length) {
    boolean vectors = ModuleLayer.boot().findModule("jdk.incubator.vector").isPresent();
    return vectors && length >= VectorFft.SHORTEST ? new VectorFft(length) : new LibraryFft(length);
  }
}
