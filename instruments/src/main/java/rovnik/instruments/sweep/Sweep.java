package rovnik.instruments.sweep;

/**
 * One finished sweep.
 *
 * @param levelDbm at the port; the array is the caller's
 * @param rbwHz that the analyzer really took
 * @param sweepSeconds as it says
 * @param overload if it says so
 */
public record Sweep(
    double startHz,
    double stepHz,
    float[] levelDbm,
    double rbwHz,
    double sweepSeconds,
    boolean overload) {}
