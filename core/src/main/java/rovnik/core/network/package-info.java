/**
 * S-parameters: corrections, calibration and its errors, views, time domain, limits and figures.
 * Live sweeps and files are both {@code NetworkData} here.
 */
package rovnik.core.network;
