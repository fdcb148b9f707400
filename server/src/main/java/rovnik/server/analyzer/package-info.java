/**
 * A live network analyzer as a measurement: sweeps, calibration, levels at its ports, what is kept
 * of them. {@code NetworkKind} offers it to the rest of the server.
 */
package rovnik.server.analyzer;
