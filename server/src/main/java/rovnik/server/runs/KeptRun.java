package rovnik.server.runs;

import rovnik.core.result.Outcome;

/**
 * A kept run, as later work reads it.
 *
 * @param source what it was measured with
 */
public record KeptRun(String name, String source, Outcome outcome) {}
