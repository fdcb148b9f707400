package rovnik.server.live;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.core.spectrum.Curve;
import rovnik.server.spectrum.ReadingDto;
import rovnik.server.spectrum.TableDto;

/**
 * What guided work found, as sent.
 *
 * @param id grows with every finding of a source
 * @param logarithmic whether the x axis of the curves is
 */
@Schema(name = "Finding")
record FindingDto(
    long id,
    String kind,
    String title,
    String summary,
    List<Curve> curves,
    boolean logarithmic,
    List<TableDto> tables,
    List<ReadingDto> readings) {
  static FindingDto of(long id, Finding f) {
    return new FindingDto(
        id,
        f.kind(),
        f.title(),
        f.summary(),
        f.curves(),
        f.logarithmic(),
        f.tables().stream().map(TableDto::of).toList(),
        f.readings().stream().map(ReadingDto::of).toList());
  }
}
