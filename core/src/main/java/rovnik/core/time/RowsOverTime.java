package rovnik.core.time;

/**
 * Spectra under each other for as long as they come: where the rows do not suffice, two become one,
 * which keeps the highest of both, and from then on each stands for twice as long.
 */
final class RowsOverTime {
  private final int points;
  private final int most;
  private final double firstSeconds;
  private double rowSeconds;
  private int rows;
  private final float[] highest;
  private final double[] power;
  private final long[] spectra;

  /**
   * @param most rows
   * @param firstSeconds where the first begins
   * @param rowSeconds of the first rows
   */
  RowsOverTime(int points, int most, double firstSeconds, double rowSeconds) {
    this.points = points;
    this.most = most;
    this.firstSeconds = firstSeconds;
    this.rowSeconds = rowSeconds;
    this.highest = new float[most * points];
    this.power = new double[most];
    this.spectra = new long[most];
  }

  /**
   * Takes one more spectrum, not before those that came.
   *
   * @param whole power of the span
   */
  void add(double seconds, float[] of, double whole) {
    add(seconds, of, whole, 1);
  }

  /**
   * Takes the highest of several spectra.
   *
   * @param whole sum of the powers of the span
   */
  void add(double seconds, float[] of, double whole, int count) {
    int row = (int) Math.max(0, Math.floor((seconds - firstSeconds) / rowSeconds + 1e-9));
    while (row >= most) {
      halve();
      row = (int) Math.floor((seconds - firstSeconds) / rowSeconds + 1e-9);
    }
    rows = Math.max(rows, row + 1);
    int at = row * points;
    for (int i = 0; i < points; i++) {
      highest[at + i] = Math.max(highest[at + i], of[i]);
    }
    power[row] += whole;
    spectra[row] += count;
  }

  private void halve() {
    int left = (rows + 1) / 2;
    for (int r = 0; r < left; r++) {
      boolean two = 2 * r + 1 < rows;
      for (int i = 0; i < points; i++) {
        float a = highest[2 * r * points + i];
        highest[r * points + i] = two ? Math.max(a, highest[(2 * r + 1) * points + i]) : a;
      }
      power[r] = power[2 * r] + (two ? power[2 * r + 1] : 0);
      spectra[r] = spectra[2 * r] + (two ? spectra[2 * r + 1] : 0);
    }
    java.util.Arrays.fill(highest, left * points, rows * points, 0);
    java.util.Arrays.fill(power, left, rows, 0);
    java.util.Arrays.fill(spectra, left, rows, 0);
    rows = left;
    rowSeconds *= 2;
  }

  int rows() {
    return rows;
  }

  double rowSeconds() {
    return rowSeconds;
  }

  /** Middle of a row. */
  double seconds(int row) {
    return firstSeconds + (row + 0.5) * rowSeconds;
  }

  float highest(int row, int point) {
    return highest[row * points + point];
  }

  /** Mean power of the span in a row; NaN where no spectrum fell into it. */
  double mean(int row) {
    return spectra[row] == 0 ? Double.NaN : power[row] / spectra[row];
  }
}
