package rovnik.core.signal;

import java.lang.ref.SoftReference;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Transforms that a thread has made and may use again: making one takes longer than using it.
 * Memory that is needed elsewhere is given back.
 */
public final class Transforms {
  private static final int MOST = 12;

  private static final ThreadLocal<Map<Integer, SoftReference<ComplexFft>>> MADE =
      ThreadLocal.withInitial(
          () ->
              new LinkedHashMap<>(16, 0.75f, true) {
                @Override
                protected boolean removeEldestEntry(
                    Map.Entry<Integer, SoftReference<ComplexFft>> eldest) {
                  return size() > MOST;
                }
              });

  private Transforms() {}

  /**
   * The calling thread's transform of a length.
   *
   * @param length at least 2; a power of two is fastest
   */
  public static ComplexFft ofLength(int length) {
    Map<Integer, SoftReference<ComplexFft>> made = MADE.get();
    SoftReference<ComplexFft> known = made.get(length);
    ComplexFft fft = known == null ? null : known.get();
    if (fft == null) {
      fft = ComplexFft.of(length);
      made.put(length, new SoftReference<>(fft));
    }
    return fft;
  }
}
