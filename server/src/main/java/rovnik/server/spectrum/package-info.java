/**
 * Spectra as a measurement: engines for one record, a scan and a swept analyzer, guided work,
 * recordings. {@code SpectrumKind} offers it to the rest of the server.
 */
package rovnik.server.spectrum;
