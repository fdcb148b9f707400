package rovnik.core.listening;

import java.util.Arrays;

/** Numbers that come one after the other; the oldest may be forgotten. */
final class Growing {
  private float[] values = new float[1024];
  private int kept;

  /** How many were forgotten. */
  private long gone;

  void add(float value) {
    if (kept == values.length) {
      values = Arrays.copyOf(values, 2 * kept);
    }
    values[kept++] = value;
  }

  /** How many came, with those that are forgotten. */
  int size() {
    return (int) (gone + kept);
  }

  /** The same for what goes on for days. */
  long count() {
    return gone + kept;
  }

  float at(long index) {
    return values[(int) (index - gone)];
  }

  /** Those before an index are not asked for any more. */
  void forget(long before) {
    int drop = (int) Math.min(kept, before - gone);
    if (drop > values.length / 2) {
      System.arraycopy(values, drop, values, 0, kept - drop);
      kept -= drop;
      gone += drop;
    }
  }

  /** All that there are, which are forgotten by this. */
  float[] taken() {
    float[] out = Arrays.copyOf(values, kept);
    kept = 0;
    return out;
  }

  double most() {
    double most = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < kept; i++) {
      most = Math.max(most, values[i]);
    }
    return most;
  }

  double least() {
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < kept; i++) {
      least = Math.min(least, values[i]);
    }
    return least;
  }
}
