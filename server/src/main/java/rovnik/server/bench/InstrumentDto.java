package rovnik.server.bench;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.instruments.InstrumentKind;

/**
 * An instrument as shown at the Bench.
 *
 * @param message why it is lost or in error, "" if all is well
 * @param identity its answer to *IDN?, "" before the first connection
 * @param source state of a source, null for others or while unknown
 * @param attenuationDb of a switched pad, null for others or while unknown
 */
@Schema(name = "Instrument")
public record InstrumentDto(
    long id,
    String name,
    InstrumentKind kind,
    String kindLabel,
    String host,
    int port,
    String dialect,
    ConnectionState state,
    String message,
    String identity,
    SourceDto source,
    Double attenuationDb) {

  /** What a source is doing. */
  @Schema(name = "SourceState")
  public record SourceDto(
      boolean on, boolean modulated, boolean driveHigh, double frequencyHz, double levelDbm) {}
}
