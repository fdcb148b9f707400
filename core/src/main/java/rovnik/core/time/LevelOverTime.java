package rovnik.core.time;

import java.util.Arrays;

/**
 * Power over the newest stretch of samples that go on, in cells that each keep their highest,
 * lowest and mean: what is drawn of it hides no peak. Cells without samples have none of them.
 */
final class LevelOverTime {
  private long cellSamples;
  private final long longest;
  private long begins = -1;
  private long newest;

  /** The powers themselves, where cells are shorter than a block; else without any. */
  private final float[] raw;

  private long next = -1;
  private long[] number;
  private float[] highest;
  private float[] lowest;
  private double[] sum;
  private long[] count;

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
    boolean each = wanted < PowerBlocks.TOGETHER;
    // Whole blocks belong to one cell, unless a cell is shorter than a block.
    long blocks = 1;
    while (blocks * PowerBlocks.TOGETHER < wanted) {
      blocks *= 2;
    }
    this.longest = each ? (long) wanted : blocks * PowerBlocks.TOGETHER;
    this.cellSamples = each || further > 0 ? longest : PowerBlocks.TOGETHER;
    int cells = each ? 0 : 2 + (int) Math.ceil((samples + further) / longest);
    this.raw = new float[each ? (int) Math.ceil(samples + further + 2 * cellSamples) : 0];
    Arrays.fill(raw, Float.NaN);
    this.number = new long[cells];
    this.highest = new float[cells];
    this.lowest = new float[cells];
    this.sum = new double[cells];
    this.count = new long[cells];
    Arrays.fill(number, -1);
  }

  /**
   * Takes powers.
   *
   * @param first sample of them
   */
  void take(PowerBlocks blocks, long first) {
    if (cellSamples >= PowerBlocks.TOGETHER) {
      for (int b = 0, from = 0; from < blocks.count(); b++, from += PowerBlocks.TOGETHER) {
        int samples = Math.min(PowerBlocks.TOGETHER, blocks.count() - from);
        begins = begins < 0 ? first : begins;
        while (cellSamples < longest && (first + from - begins) / cellSamples + 2 > number.length) {
          pair();
        }
        long n = (first + from) / cellSamples;
        int at = (int) (n % number.length);
        add(n, at, blocks.highest(b), blocks.lowest(b), blocks.sum(b), samples);
      }
    } else {
      each(blocks.power(), blocks.count(), first);
    }
  }

  /** As it is: cells that are shorter than a block are made when they are asked for. */
  private void each(float[] power, int samples, long first) {
    if (next >= 0 && first > next) {
      long missing = Math.min(raw.length, first - next);
      for (long i = first - missing; i < first; i++) {
        raw[(int) (i % raw.length)] = Float.NaN;
      }
    }
    int from = Math.max(0, samples - raw.length);
    while (from < samples) {
      int at = (int) ((first + from) % raw.length);
      int now = Math.min(samples - from, raw.length - at);
      System.arraycopy(power, from, raw, at, now);
      from += now;
    }
    next = first + samples;
  }

  private Stretch fromEach(double from, double to) {
    long first = (long) Math.floor(Math.max(0, from) / cellSamples);
    long end = Math.max(first + 1, (long) Math.ceil(to / cellSamples));
    int cells = (int) (end - first);
    double[] high = new double[cells];
    double[] low = new double[cells];
    double[] mean = new double[cells];
    for (int i = 0; i < cells; i++) {
      high[i] = Double.NaN;
      low[i] = Double.NaN;
      double all = 0;
      int there = 0;
      for (long n = (first + i) * cellSamples; n < (first + i + 1) * cellSamples; n++) {
        float p = n >= next || n < next - raw.length ? Float.NaN : raw[(int) (n % raw.length)];
        if (!Float.isNaN(p)) {
          high[i] = there == 0 ? p : Math.max(high[i], p);
          low[i] = there == 0 ? p : Math.min(low[i], p);
          all += p;
          there++;
        }
      }
      mean[i] = all / there;
    }
    return new Stretch(first * cellSamples, cellSamples, high, low, mean);
  }

  /** Two cells become one: it begins with short ones, and ends with those of the whole length. */
  private void pair() {
    LevelOverTime old = new LevelOverTime(this);
    cellSamples *= 2;
    number = new long[number.length];
    Arrays.fill(number, -1);
    highest = new float[number.length];
    lowest = new float[number.length];
    sum = new double[number.length];
    count = new long[number.length];
    for (int i = 0; i < number.length; i++) {
      if (old.number[i] >= 0) {
        long n = old.number[i] / 2;
        int at = (int) (n % number.length);
        add(n, at, old.highest[i], old.lowest[i], old.sum[i], old.count[i]);
      }
    }
  }

  private LevelOverTime(LevelOverTime like) {
    longest = like.longest;
    raw = like.raw;
    number = like.number;
    highest = like.highest;
    lowest = like.lowest;
    sum = like.sum;
    count = like.count;
  }

  private void add(long n, int at, float high, float low, double all, long samples) {
    newest = n;
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

  /** True if nothing from a sample on is forgotten. */
  boolean holds(double sample) {
    return raw.length > 0
        ? sample >= next - raw.length
        : sample / cellSamples >= newest - number.length + 1;
  }

  /** What is known of the cells from one sample to another. */
  Stretch between(double from, double to) {
    if (raw.length > 0) {
      return fromEach(from, to);
    }
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
