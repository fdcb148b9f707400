package rovnik.server.results;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.limits.Verdict;
import rovnik.core.result.ResultTable;

/** A table of results as sent and stored. */
@Schema(name = "ResultTable")
public record TableDto(String id, String title, List<ColumnDto> columns, List<RowDto> rows) {
  @Schema(name = "ResultColumn")
  public record ColumnDto(String label, String unit) {}

  /** One row with its verdict, NONE where nothing is judged. */
  @Schema(name = "ResultRow")
  public record RowDto(List<CellDto> cells, Verdict verdict) {}

  /** A number, or a word where it is null. */
  @Schema(name = "ResultCell")
  public record CellDto(@Nullable Double value, String text) {}

  /** Back to the core's table, as for a comparison of kept runs. */
  public ResultTable toCore() {
    return new ResultTable(
        id,
        title,
        columns.stream().map(c -> new ResultTable.Column(c.label(), c.unit())).toList(),
        rows.stream()
            .map(
                r ->
                    new ResultTable.Row(
                        r.cells().stream()
                            .map(c -> new ResultTable.Cell(Nulls.orNan(c.value()), c.text()))
                            .toList(),
                        r.verdict()))
            .toList());
  }

  public static TableDto of(ResultTable t) {
    return new TableDto(
        t.id(),
        t.title(),
        t.columns().stream().map(c -> new ColumnDto(c.label(), c.unit())).toList(),
        t.rows().stream()
            .map(
                r ->
                    new RowDto(
                        r.cells().stream()
                            .map(c -> new CellDto(Nulls.orNull(c.value()), c.text()))
                            .toList(),
                        r.verdict()))
            .toList());
  }
}
