/**
 * Carriers with data: what they are (descriptions), how they are made (waveforms), and how good
 * they are (symbols, error vector, bits). Making and analysing meet in the description alone:
 * neither calls the other.
 */
package rovnik.core.modulation;
