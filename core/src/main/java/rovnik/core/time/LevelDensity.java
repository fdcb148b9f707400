package rovnik.core.time;

import java.util.Arrays;

/**
 * How often each point of a spectrum had which level. Levels are told from the bits of a number's
 * exponent and the first of its mantissa, which is quicker than a logarithm: to 0.02 dB.
 */
final class LevelDensity {
  static final int ROWS = 400;
  static final double CELL_DB = 0.5;

  /** Spectra that are counted at once. */
  private static final int TOGETHER = 32;

  /** Share of all levels that the lowest row may stand for. */
  private static final double RARELY = 1e-3;

  private static final int SHIFT = 15;

  /** Row of each number by its upper bits. */
  private static final short[] ROW = rows();

  private static final int MANTISSA = 10;
  private static final int MANTISSAS = 1 << MANTISSA;
  private static final float EXPONENT_DB = (float) (10 * Math.log10(2));

  /** Of each beginning of a mantissa, in its middle. */
  private static final float[] MANTISSA_DB = new float[MANTISSAS];

  static {
    for (int i = 0; i < MANTISSAS; i++) {
      MANTISSA_DB[i] = (float) (10 * Math.log10(1 + (i + 0.5) / MANTISSAS));
    }
  }

  /** Level of the lowest row's lower edge, dB of a power of 1. */
  static final double LOWEST_DB = 10 - ROWS * CELL_DB;

  private final int points;
  private final float[] share;
  private double all;

  /** Rows of spectra that are not counted yet, one spectrum after the other. */
  private final short[] waiting;

  private final float[] weights = new float[TOGETHER];
  private int held;

  LevelDensity(int points) {
    this.points = points;
    this.share = new float[points * ROWS];
    this.waiting = new short[points * TOGETHER];
  }

  private static short[] rows() {
    short[] out = new short[1 << (31 - SHIFT)];
    for (int i = 0; i < out.length; i++) {
      // The middle of all numbers that begin with these bits.
      float value = Float.intBitsToFloat((i << SHIFT) + (1 << (SHIFT - 1)));
      double row = (10 * Math.log10(value) - (10 - ROWS * CELL_DB)) / CELL_DB;
      out[i] = (short) Math.max(0, Math.min(ROWS - 1.0, Double.isNaN(row) ? 0 : Math.floor(row)));
    }
    return out;
  }

  static int row(float power) {
    return ROW[Float.floatToRawIntBits(power) >>> SHIFT & ROW.length - 1];
  }

  /** dB of a power, to 0.004 dB; what is 0 is far down. */
  static float fastDb(float power) {
    int bits = Float.floatToRawIntBits(power);
    return EXPONENT_DB * ((bits >>> 23) - 127)
        + MANTISSA_DB[bits >>> 23 - MANTISSA & MANTISSAS - 1];
  }

  /** Middle of a row, dB of a power of 1. */
  static double levelDb(int row) {
    return LOWEST_DB + (row + 0.5) * CELL_DB;
  }

  /**
   * Counts a spectrum.
   *
   * @param factor of each point's power
   * @param rows of all points are written here from a place on, as far as it reaches
   */
  void add(float[] power, float[] factor, float weight, short[] rows, int from) {
    int first = held * points;
    for (int i = 0; i < points; i++) {
      waiting[first + i] = (short) row(power[i] * factor[i]);
    }
    int kept = Math.max(0, Math.min(points, rows.length - from));
    System.arraycopy(waiting, first, rows, Math.min(from, rows.length), kept);
    weights[held++] = weight;
    if (held == TOGETHER) {
      count();
    }
    all += weight;
  }

  /**
   * Counts the spectra that wait, point after point: the rows of one point lie near to each other
   * in memory, those of all points do not.
   */
  private void count() {
    int spectra = held;
    if (spectra == 0) {
      return;
    }
    held = 0;
    for (int i = 0, at = 0; i < points; i++, at += ROWS) {
      for (int s = 0, w = i; s < spectra; s++, w += points) {
        share[at + waiting[w]] += weights[s];
      }
    }
  }

  /** Row below which so little of all was that no row of its own is spent on it. */
  int floor() {
    count();
    double left = RARELY * all * points;
    for (int r = 0; r < ROWS - 1; r++) {
      for (int i = 0; i < points; i++) {
        left -= share[i * ROWS + r];
      }
      if (left < 0) {
        return r;
      }
    }
    return ROWS - 1;
  }

  /** Highest row that anything was in. */
  int highest() {
    count();
    int high = 0;
    for (int i = 0; i < points; i++) {
      for (int r = ROWS - 1; r > high; r--) {
        high = share[i * ROWS + r] > 0 ? r : high;
      }
    }
    return high;
  }

  /**
   * Shares of time in percent, point after point, of rows from one to another; the lowest also has
   * what lies below it.
   */
  float[] percent(int low, int high) {
    count();
    int rows = high - low + 1;
    float[] out = new float[points * rows];
    float scale = (float) (100 / Math.max(1e-300, all));
    for (int i = 0; i < points; i++) {
      for (int r = 0; r < rows; r++) {
        out[i * rows + r] = scale * share[i * ROWS + low + r];
      }
      for (int r = 0; r < low; r++) {
        out[i * rows] += scale * share[i * ROWS + r];
      }
    }
    return out;
  }

  /** Level that a point stays below for a share of the time, dB. */
  double quantileDb(int point, double of) {
    count();
    double left = of * all;
    int row = 0;
    while (row < ROWS - 1 && (left -= share[point * ROWS + row]) > 0) {
      row++;
    }
    return levelDb(row);
  }

  /** Median over all points of the level that each is below for half of the time. */
  double usualDb() {
    double[] medians = new double[points];
    for (int i = 0; i < points; i++) {
      medians[i] = quantileDb(i, 0.5);
    }
    Arrays.sort(medians);
    return medians[points / 2];
  }
}
