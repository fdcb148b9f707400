/**
 * How good a carrier with data is: from samples of unknown timing, phase and frequency to symbols,
 * error vector, causes and bits. Nothing here makes a waveform.
 */
package rovnik.core.modulation.analysis;
