package rovnik.server.networks;

import io.swagger.v3.oas.annotations.media.Schema;

/**
 * A Touchstone file that was opened, without its data.
 *
 * @param version of the format as written, "1" or "2.0"
 * @param comments of the file, a line each
 */
@Schema(name = "NetworkSummary")
public record NetworkDto(
    long id,
    String name,
    int ports,
    int points,
    double startHz,
    double stopHz,
    String version,
    String comments) {}
