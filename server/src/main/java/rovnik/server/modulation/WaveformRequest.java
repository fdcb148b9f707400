package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What to make: one carrier with data, or several parts.
 *
 * @param kind "single-carrier" with a carrier, "sum" with parts; null for what is given
 * @param carrier what it is, of "single-carrier"
 * @param parts of "sum"
 * @param sampleRateHz null for four samples a symbol, or four times what the parts need
 * @param symbols of a single carrier, at least; as many more as it takes to repeat without a seam
 * @param seconds of parts, at least; null for 10,000 samples
 * @param centreHz where it is meant to be sent, null for 0
 * @param ebN0Db energy of a bit over the density of white noise that is added, null for none
 * @param carrierToNoiseDb power over that of noise within the band of the samples, null for none
 * @param name null for its description
 */
@Schema(name = "WaveformRequest")
record WaveformRequest(
    @Nullable String kind,
    @Nullable CarrierDto carrier,
    @Nullable List<WaveformPartDto> parts,
    @Nullable Double sampleRateHz,
    @Nullable Integer symbols,
    @Nullable Double seconds,
    @Nullable Double centreHz,
    @Nullable Double ebN0Db,
    @Nullable Double carrierToNoiseDb,
    @Nullable String name) {}
