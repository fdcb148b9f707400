package rovnik.core.spectrum;

import java.util.List;
import rovnik.core.result.Reading;

/**
 * A spectrum with all that was read from it, referred to the reading plane.
 *
 * @param trace the curve
 * @param peaks lines, strongest first
 * @param readings numbers, the one being judged first
 */
public record SpectrumResult(Trace trace, List<Peak> peaks, List<Reading> readings) {}
