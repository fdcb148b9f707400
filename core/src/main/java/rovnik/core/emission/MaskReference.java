package rovnik.core.emission;

/**
 * What the relative limits of a mask refer to.
 *
 * @param level in the unit of the trace
 * @param standardDb how well it is known
 * @param unit of a ratio to it: "dBc" over a carrier's power, "dBr" over the densest place
 * @param noise true if the signal is like noise, so that single places scatter
 */
public record MaskReference(double level, double standardDb, String unit, boolean noise) {}
