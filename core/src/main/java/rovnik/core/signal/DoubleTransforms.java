package rovnik.core.signal;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jtransforms.fft.DoubleFFT_1D;

/**
 * The library's transforms of doubles, each length's factors reckoned once: they cost as much as a
 * transform.
 */
public final class DoubleTransforms {
  /** Longer ones are used too seldom to hold their memory. */
  private static final int LONGEST_KEPT = 1 << 19;

  private static final Map<Integer, DoubleFFT_1D> KEPT = new ConcurrentHashMap<>();

  static {
    LibraryFft.oneThread();
  }

  private DoubleTransforms() {}

  /** A transform of any length, for one use. */
  public static DoubleFFT_1D once(int length) {
    return new DoubleFFT_1D(length);
  }

  /**
   * A transform that several threads may use at once.
   *
   * @param length a power of two: others keep scratch space of their own
   */
  public static DoubleFFT_1D of(int length) {
    if (Integer.bitCount(length) != 1) {
      throw new IllegalArgumentException("length must be a power of two");
    }
    return length > LONGEST_KEPT
        ? new DoubleFFT_1D(length)
        : KEPT.computeIfAbsent(length, DoubleFFT_1D::new);
  }
}
