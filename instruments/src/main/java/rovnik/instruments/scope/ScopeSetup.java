package rovnik.instruments.scope;

/**
 * What an oscilloscope takes.
 *
 * @param samples of each channel
 */
public record ScopeSetup(double sampleRateHz, int samples) {}
