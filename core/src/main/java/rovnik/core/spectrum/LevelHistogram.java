package rovnik.core.spectrum;

/**
 * Median of a trace in one pass over it, to 0.005 dB (of a very long one every few levels are
 * enough: 65,536 of them settle the median of noise to 0.03 dB): levels are counted in cells of
 * 0.01 dB. A sort of half a million levels takes tens of milliseconds, this about one.
 */
final class LevelHistogram {
  private static final double LOWEST_DB = -350;
  private static final double CELL_DB = 0.01;
  private static final int MOST_LEVELS = 1 << 16;
  private static final int CELLS = 65_536; // up to +305 dB

  private LevelHistogram() {}

  static double median(float[] levelDb) {
    int[] count = new int[CELLS];
    int stride = Math.max(1, levelDb.length / MOST_LEVELS);
    int looked = 0;
    for (int i = 0; i < levelDb.length; i += stride) {
      int cell = (int) ((levelDb[i] - LOWEST_DB) / CELL_DB);
      count[cell < 0 ? 0 : Math.min(cell, CELLS - 1)]++;
      looked++;
    }
    int left = looked / 2 + 1;
    int cell = 0;
    while (left > count[cell]) {
      left -= count[cell++];
    }
    return LOWEST_DB + (cell + 0.5) * CELL_DB;
  }
}
