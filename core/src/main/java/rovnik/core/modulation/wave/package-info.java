/**
 * Signals that are put together of parts: tones, pulses, noise, modulated carriers, data, samples
 * of one's own.
 */
package rovnik.core.modulation.wave;
