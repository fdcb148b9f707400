package rovnik.core.runs;

import java.util.List;
import java.util.Map;
import rovnik.core.path.SignalPath;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;

/**
 * What two runs are compared by, whatever they measured.
 *
 * @param settings of the measurement, in words
 * @param path null for a recording without one
 * @param conditions further facts by name, such as the state of the sources
 * @param outcome what it led to
 */
public record RunFacts(
    List<Fact> settings, SignalPath path, Map<String, String> conditions, Outcome outcome) {}
