/**
 * OFDM: many tones at a time, each with data of its own. Packets of wireless LAN are found by their
 * preamble, decoded and measured tone by tone.
 */
package rovnik.core.modulation.ofdm;
