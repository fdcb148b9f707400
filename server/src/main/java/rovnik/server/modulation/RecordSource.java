package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;

/**
 * What a source of carriers can show.
 *
 * @param widestHz widest band that it sees at once
 * @param live false for a recording, in which a place can be chosen
 */
@Schema(name = "RecordSource")
record RecordSource(double widestHz, boolean live) {}
