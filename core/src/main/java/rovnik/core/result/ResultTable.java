package rovnik.core.result;

import java.util.List;
import rovnik.core.limits.Verdict;

/**
 * A table of results, ready to be shown or written.
 *
 * @param id stable key, such as "mask"
 * @param columns heads with units
 * @param rows as long as the columns each
 */
public record ResultTable(String id, String title, List<Column> columns, List<Row> rows) {
  /**
   * One column.
   *
   * @param unit of its numbers, "" for words
   */
  public record Column(String label, String unit) {}

  /**
   * One row.
   *
   * @param cells numbers or words
   * @param verdict NONE where nothing is judged
   */
  public record Row(List<Cell> cells, Verdict verdict) {}

  /**
   * One cell.
   *
   * @param value NaN for words and for what could not be read
   * @param text "" for numbers
   */
  public record Cell(double value, String text) {
    public static Cell of(double value) {
      return new Cell(value, "");
    }

    public static Cell of(String text) {
      return new Cell(Double.NaN, text);
    }
  }
}
