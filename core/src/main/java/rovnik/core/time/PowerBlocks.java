package rovnik.core.time;

import rovnik.core.signal.Powers;

/** Powers of a piece of samples, with the highest, lowest and sum of each few of them. */
final class PowerBlocks {
  static final int TOGETHER = Powers.TOGETHER;

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
    Powers.fastest().of(iq, from, samples, power, highest, lowest, sum);
    count = samples;
  }

  /** Powers that are known. */
  void of(float[] powers, int count) {
    System.arraycopy(powers, 0, power, 0, count);
    Powers.blocks(power, count, highest, lowest, sum);
    this.count = count;
  }

  /** Of samples in two arrays. */
  void of(float[] re, float[] im, int from, int samples) {
    for (int i = 0; i < samples; i++) {
      power[i] = re[from + i] * re[from + i] + im[from + i] * im[from + i];
    }
    Powers.blocks(power, samples, highest, lowest, sum);
    count = samples;
  }
}
