package rovnik.core.time;

import java.util.Arrays;

/**
 * Power over the newest stretch of samples that go on, in cells that each keep their highest,
 * lowest and mean: what is drawn of it hides no peak. Cells without samples have none of them.
 */
final class LevelOverTime {
  private final long cellSamples;
  private final long[] number;
  private final float[] highest;
  private final float[] lowest;
  private final double[] sum;
  private final long[] count;

  /**
   * Cells of a stretch.
   *
   * @param highest power of each cell; NaN where no sample is
   */
  record Stretch(long first, long cellSamples, double[] highest, double[] lowest, double[] mean) {}

  /**
   * @param samples that are drawn
   * @param most cells that they are drawn in
   * @param further samples that are kept besides
   */
  LevelOverTime(double samples, int most, double further) {
    double wanted = Math.max(1, Math.ceil(samples / most));
    // Whole blocks belong to one cell, unless a cell is shorter than a block.
    this.cellSamples =
        wanted < PowerBlocks.TOGETHER
            ? (long) wanted
            : (long) Math.ceil(wanted / PowerBlocks.TOGETHER) * PowerBlocks.TOGETHER;
    int cells = 2 + (int) Math.ceil((samples + further) / cellSamples);
    this.number = new long[cells];
    this.highest = new float[cells];
    this.lowest = new float[cells];
    this.sum = new double[cells];
    this.count = new long[cells];
    Arrays.fill(number, -1);
  }

  long cellSamples() {
    return cellSamples;
  }

  /**
   * Takes powers.
   *
   * @param first sample of them
   */
  void take(PowerBlocks blocks, long first) {
    boolean whole = cellSamples >= PowerBlocks.TOGETHER;
    for (int b = 0, from = 0; from < blocks.count(); b++, from += PowerBlocks.TOGETHER) {
      int to = Math.min(blocks.count(), from + PowerBlocks.TOGETHER);
      if (whole) {
        add(first + from, blocks.highest(b), blocks.lowest(b), blocks.sum(b), to - from);
      } else {
        for (int i = from; i < to; i++) {
          float p = blocks.power()[i];
          add(first + i, p, p, p, 1);
        }
      }
    }
  }

  private void add(long sample, float high, float low, double all, int samples) {
    long n = sample / cellSamples;
    int at = (int) (n % number.length);
    if (number[at] != n) {
      number[at] = n;
      highest[at] = high;
      lowest[at] = low;
      sum[at] = all;
      count[at] = samples;
      return;
    }
    highest[at] = Math.max(highest[at], high);
    lowest[at] = Math.min(lowest[at], low);
    sum[at] += all;
    count[at] += samples;
  }

  /** What is known of the cells from one sample to another. */
  Stretch between(double from, double to) {
    long first = (long) Math.floor(Math.max(0, from) / cellSamples);
    long last = Math.max(first, (long) Math.ceil(to / cellSamples) - 1);
    int cells = (int) Math.min(number.length, last - first + 1);
    double[] high = new double[cells];
    double[] low = new double[cells];
    double[] mean = new double[cells];
    for (int i = 0; i < cells; i++) {
      long n = first + i;
      int at = (int) (n % number.length);
      boolean there = number[at] == n;
      high[i] = there ? highest[at] : Double.NaN;
      low[i] = there ? lowest[at] : Double.NaN;
      mean[i] = there ? sum[at] / count[at] : Double.NaN;
    }
    return new Stretch(first * cellSamples, cellSamples, high, low, mean);
  }
}
