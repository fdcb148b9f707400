package rovnik.core.time;

import rovnik.core.signal.Powers;

/**
 * Spectra under each other, thinned honestly: each row has the highest of the spectra it stands
 * for.
 */
final class History {
  static final int MOST_ROWS = 400;

  private final int points;
  private final int perRow;
  private final int rows;
  private final float[] highest;

  History(int points, int frames) {
    this.points = points;
    this.perRow = Math.max(1, (frames + MOST_ROWS - 1) / MOST_ROWS);
    this.rows = (frames + perRow - 1) / perRow;
    this.highest = new float[rows * points];
  }

  int rows() {
    return rows;
  }

  int perRow() {
    return perRow;
  }

  /** Takes a spectrum, whose powers also go into the sum and the lowest of their points. */
  void add(int frame, float[] power, float[] sum, float[] lowest) {
    Powers.fastest().gather(power, points, sum, lowest, highest, frame / perRow * points);
  }

  /** Highest power of each point of all. */
  float[] highest() {
    float[] out = new float[points];
    for (int r = 0; r < rows; r++) {
      for (int i = 0; i < points; i++) {
        out[i] = Math.max(out[i], highest[r * points + i]);
      }
    }
    return out;
  }

  /**
   * Levels, point after point.
   *
   * @param addDb to the level of each point
   */
  float[] levels(double[] addDb) {
    float[] out = new float[rows * points];
    for (int r = 0; r < rows; r++) {
      for (int i = 0; i < points; i++) {
        out[i * rows + r] =
            LevelDensity.fastDb(highest[r * points + i] + 1e-30f) + (float) addDb[i];
      }
    }
    return out;
  }
}
