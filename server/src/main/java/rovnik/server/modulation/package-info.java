/** Carriers with data: descriptions, waveforms made from them, and what is measured of them. */
@org.jspecify.annotations.NullMarked
package rovnik.server.modulation;
