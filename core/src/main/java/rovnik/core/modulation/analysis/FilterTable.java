package rovnik.core.modulation.analysis;

import java.util.ArrayDeque;
import java.util.Deque;
import rovnik.core.modulation.PulseShape;

/**
 * Responses of filters at even steps of frequency. One look after the other asks for the same ones,
 * so the newest few are kept.
 */
final class FilterTable {
  private static final int KEPT = 6;

  private record Key(PulseShape shape, double step, int count) {}

  private record Made(Key key, float[] response) {}

  private static final Deque<Made> NEWEST = new ArrayDeque<>();

  private FilterTable() {}

  /**
   * Amplitude response from 0 Hz on.
   *
   * @param step in symbol rates
   * @return shared by all who ask: not to be changed
   */
  static float[] of(PulseShape shape, double step, int count) {
    Key key = new Key(shape, step, count);
    synchronized (NEWEST) {
      for (Made m : NEWEST) {
        if (m.key.equals(key)) {
          return m.response;
        }
      }
    }
    float[] response = new float[count];
    for (int k = 0; k < count; k++) {
      response[k] = (float) shape.response(k * step);
    }
    synchronized (NEWEST) {
      NEWEST.addFirst(new Made(key, response));
      if (NEWEST.size() > KEPT) {
        NEWEST.removeLast();
      }
    }
    return response;
  }
}
