package rovnik.instruments.source;

import rovnik.instruments.dialect.Dialect;

/**
 * What a vector generator can do, from its data sheet.
 *
 * @param memorySamples samples that its memory holds
 * @param adjustmentHoldsShare how far from its frequency an adjustment holds, as a share of that
 * @param trimLeakage share of the rms voltage; each trim reaches so far to both sides
 * @param lowestOutputGainDb of each baseband output, 0 if it has none that can be set
 * @param longestDelaySeconds of each
 * @param widestOffsetVolts of each, to both sides
 */
public record GeneratorCapabilities(
    double lowestHz,
    double highestHz,
    long memorySamples,
    double slowestRateHz,
    double fastestRateHz,
    double widestShiftHz,
    double adjustmentHoldsShare,
    double trimGainDb,
    double trimQuadratureDegrees,
    double trimLeakage,
    double trimDelaySeconds,
    double lowestOutputGainDb,
    double longestDelaySeconds,
    double widestOffsetVolts) {

  public static GeneratorCapabilities of(Dialect d) {
    return new GeneratorCapabilities(
        d.fact("lowestHz"),
        d.fact("highestHz"),
        (long) d.fact("memorySamples"),
        d.fact("slowestRateHz"),
        d.fact("fastestRateHz"),
        d.fact("widestShiftHz"),
        d.fact("adjustmentHoldsShare"),
        d.fact("trimGainDb"),
        d.fact("trimQuadratureDegrees"),
        d.fact("trimLeakage"),
        d.fact("trimDelaySeconds"),
        d.facts().getOrDefault("lowestOutputGainDb", 0.0),
        d.facts().getOrDefault("longestDelaySeconds", 0.0),
        d.facts().getOrDefault("widestOffsetVolts", 0.0));
  }
}
