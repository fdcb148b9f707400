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
}
