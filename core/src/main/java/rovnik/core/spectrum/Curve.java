package rovnik.core.spectrum;

/**
 * A curve of its own points, such as a limit line or phase noise.
 *
 * @param id stable key
 * @param label as shown
 * @param x rising
 * @param y as many
 * @param xUnit "Hz" or another
 * @param yUnit "dBm" or another
 */
public record Curve(String id, String label, double[] x, double[] y, String xUnit, String yUnit) {}
