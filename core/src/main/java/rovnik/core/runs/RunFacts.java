package rovnik.core.runs;

import java.util.List;
import java.util.Map;
import rovnik.core.limits.Reading;
import rovnik.core.path.SignalPath;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;

/**
 * What two runs are compared by.
 *
 * @param settings of the acquisition
 * @param path null for a recording without one
 * @param conditions further facts by name, such as the state of the sources and the receiver's
 *     attenuation
 * @param trace main trace
 * @param peaks its lines
 * @param readings its numbers
 */
public record RunFacts(
    SpectrumSettings settings,
    SignalPath path,
    Map<String, String> conditions,
    Trace trace,
    List<Peak> peaks,
    List<Reading> readings) {}
