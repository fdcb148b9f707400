package rovnik.core.listening;

import java.util.Arrays;

/** Numbers that come one after the other. */
final class Growing {
  private float[] values = new float[1024];
  private int size;

  void add(float value) {
    if (size == values.length) {
      values = Arrays.copyOf(values, 2 * size);
    }
    values[size++] = value;
  }

  int size() {
    return size;
  }

  float at(int index) {
    return values[index];
  }

  double most() {
    double most = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < size; i++) {
      most = Math.max(most, values[i]);
    }
    return most;
  }

  double least() {
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < size; i++) {
      least = Math.min(least, values[i]);
    }
    return least;
  }
}
