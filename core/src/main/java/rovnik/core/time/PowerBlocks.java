package rovnik.core.time;

/** Powers of a piece of samples, with the highest, lowest and sum of each few of them. */
final class PowerBlocks {
  static final int TOGETHER = TriggerSearch.TOGETHER;

  private final float[] power;
  private final float[] highest;
  private final float[] lowest;
  private final float[] sum;
  private int count;

  PowerBlocks(int most) {
    power = new float[most];
    int blocks = (most + TOGETHER - 1) / TOGETHER;
    highest = new float[blocks];
    lowest = new float[blocks];
    sum = new float[blocks];
  }

  int most() {
    return power.length;
  }

  float[] power() {
    return power;
  }

  int count() {
    return count;
  }

  float highest(int block) {
    return highest[block];
  }

  float lowest(int block) {
    return lowest[block];
  }

  float sum(int block) {
    return sum[block];
  }

  /** Of samples that lie one after the other, I and Q in turns. */
  void of(float[] iq, int from, int samples) {
    for (int i = 0, at = 2 * from; i < samples; i++, at += 2) {
      power[i] = iq[at] * iq[at] + iq[at + 1] * iq[at + 1];
    }
    gather(samples);
  }

  /** Of samples in two arrays. */
  void of(float[] re, float[] im, int from, int samples) {
    for (int i = 0; i < samples; i++) {
      power[i] = re[from + i] * re[from + i] + im[from + i] * im[from + i];
    }
    gather(samples);
  }

  private void gather(int samples) {
    count = samples;
    for (int b = 0, from = 0; from < samples; b++, from += TOGETHER) {
      int to = Math.min(samples, from + TOGETHER);
      float high = power[from];
      float low = high;
      float all = 0;
      for (int i = from; i < to; i++) {
        high = Math.max(high, power[i]);
        low = Math.min(low, power[i]);
        all += power[i];
      }
      highest[b] = high;
      lowest[b] = low;
      sum[b] = all;
    }
  }
}
