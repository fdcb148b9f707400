package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;

/**
 * What a source of spectra can show.
 *
 * @param widestSpanHz widest span that it can show
 * @param widestAtOnceHz widest span of a single record; wider ones are stitched
 * @param levelUnit "dBm" or "dBFS"
 */
@Schema(name = "SpectrumFacts")
record SpectrumFacts(double widestSpanHz, double widestAtOnceHz, String levelUnit) {}
