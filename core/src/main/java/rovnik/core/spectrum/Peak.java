package rovnik.core.spectrum;

/**
 * One line of a spectrum.
 *
 * @param frequencyHz interpolated frequency at the trace's plane
 * @param level interpolated level in the trace's unit
 */
public record Peak(double frequencyHz, double level) {}
