package rovnik.server.bench;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.instruments.InstrumentKind;

/** A kind of instrument that can be added, with the dialects that there are for it. */
@Schema(name = "InstrumentKind")
public record KindDto(InstrumentKind kind, String label, List<DialectDto> dialects) {
  /** A dialect. */
  @Schema(name = "Dialect")
  public record DialectDto(String id, String label) {}
}
