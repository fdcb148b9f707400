package rovnik.server.bench;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.instruments.InstrumentKind;

/**
 * Who answers at an address.
 *
 * @param identity its answer to *IDN?
 * @param name to call it by, from that answer
 * @param kind what it probably is, null if no dialect knows it
 * @param dialect that knows it, null if none does
 */
@Schema(name = "FoundInstrument")
public record FoundDto(
    String identity, String name, @Nullable InstrumentKind kind, @Nullable String dialect) {}
