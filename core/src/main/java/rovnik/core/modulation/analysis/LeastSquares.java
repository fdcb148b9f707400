package rovnik.core.modulation.analysis;

import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.CholeskyDecomposition;
import org.hipparchus.linear.RealMatrix;

/** A few factors of columns that come row by row, by normal equations. */
final class LeastSquares {
  private static final double SLIGHT = 1e-12;

  private final int columns;
  private final double[][] normal;
  private final double[] right;
  private double all;
  private long rows;

  LeastSquares(int columns) {
    this.columns = columns;
    this.normal = new double[columns][columns];
    this.right = new double[columns];
  }

  /**
   * Sums that were made otherwise.
   *
   * @param normal sums of products of two columns
   * @param right of a column and the values
   * @param all of the values' squares
   */
  LeastSquares(double[][] normal, double[] right, double all, long rows) {
    this.columns = right.length;
    this.normal = normal;
    this.right = right;
    this.all = all;
    this.rows = rows;
  }

  void add(double[] row, double value) {
    for (int a = 0; a < columns; a++) {
      for (int b = 0; b <= a; b++) {
        normal[a][b] += row[a] * row[b];
      }
      right[a] += row[a] * value;
    }
    all += value * value;
    rows++;
  }

  /**
   * Factors and their standard deviations as if the errors of all rows were independent.
   *
   * @param left mean square that is left of a row
   */
  record Solution(double[] factor, double[] standard, double left) {}

  Solution solve() {
    // Columns of one size, so that none of them drowns in the slight weight of the diagonal.
    double[] size = new double[columns];
    for (int a = 0; a < columns; a++) {
      size[a] = Math.sqrt(Math.max(normal[a][a], 1e-300));
    }
    double[][] scaled = new double[columns][columns];
    double[] r = new double[columns];
    for (int a = 0; a < columns; a++) {
      for (int b = 0; b <= a; b++) {
        scaled[a][b] = normal[a][b] / size[a] / size[b];
        scaled[b][a] = scaled[a][b];
      }
      scaled[a][a] = 1 + SLIGHT;
      r[a] = right[a] / size[a];
    }
    RealMatrix inverse =
        new CholeskyDecomposition(new Array2DRowRealMatrix(scaled, false), 1e-9, 0)
            .getSolver()
            .getInverse();
    double[] factor = inverse.operate(r);
    double explained = 0;
    for (int a = 0; a < columns; a++) {
      explained += factor[a] * r[a];
    }
    double left = Math.max(0, all - explained) / rows;
    double freedom = Math.max(1, rows - columns) / (double) rows;
    double[] standard = new double[columns];
    for (int a = 0; a < columns; a++) {
      standard[a] = Math.sqrt(inverse.getEntry(a, a) * left / freedom) / size[a];
      factor[a] /= size[a];
    }
    return new Solution(factor, standard, left);
  }
}
