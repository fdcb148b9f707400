package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.core.limits.Verdict;
import rovnik.core.spectrum.ResultTable;

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
  public record CellDto(Double value, String text) {}

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
                            .map(
                                c ->
                                    new CellDto(
                                        Double.isFinite(c.value()) ? c.value() : null, c.text()))
                            .toList(),
                        r.verdict()))
            .toList());
  }
}
