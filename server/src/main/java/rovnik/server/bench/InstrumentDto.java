package rovnik.server.bench;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.instruments.InstrumentKind;

/**
 * An instrument as shown at the Bench.
 *
 * @param message why it is lost or in error, "" if all is well
 * @param identity its answer to *IDN?, "" before the first connection
 * @param source state of a source, null for others or while unknown
 * @param attenuationDb of a switched pad, null for others or while unknown
 * @param noise state of a noise source, null for others or while unknown
 * @param parts what is plugged, null for others or while unknown
 * @param inputs of a receiver, null for others
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
    Double attenuationDb,
    NoiseDto noise,
    PartsDto parts,
    Integer inputs) {

  /** A noise source: hot or cold, and the excess on its label. */
  @Schema(name = "NoiseState")
  public record NoiseDto(boolean hot, double excessNoiseDb) {}

  /** Parts at hand, and the one that is plugged in. */
  @Schema(name = "PluggedPart")
  public record PartsDto(List<String> names, String plugged) {}

  /** What a source is doing. */
  @Schema(name = "SourceState")
  public record SourceDto(
      boolean on, boolean modulated, boolean driveHigh, double frequencyHz, double levelDbm) {}
}
