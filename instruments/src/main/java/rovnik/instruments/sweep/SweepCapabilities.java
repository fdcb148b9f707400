package rovnik.instruments.sweep;

import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.instruments.dialect.Dialect;

/**
 * What a swept analyzer can do, from its dialect.
 *
 * @param highestAtZeroDbm highest linear level at the port without attenuation
 * @param noiseOverRbw noise bandwidth of its filters over their 3-dB width
 */
public record SweepCapabilities(
    double lowestHz,
    double highestHz,
    double finestRbwHz,
    double coarsestRbwHz,
    int mostPoints,
    double highestAtZeroDbm,
    double highestAttenuationDb,
    double attenuationStepDb,
    double noiseOverRbw,
    InstrumentAccuracy accuracy) {

  public static SweepCapabilities of(Dialect d) {
    return new SweepCapabilities(
        d.fact("lowestHz"),
        d.fact("highestHz"),
        d.fact("finestRbwHz"),
        d.fact("coarsestRbwHz"),
        (int) d.fact("mostPoints"),
        d.fact("highestAtZeroDbm"),
        d.fact("highestAttenuationDb"),
        d.fact("attenuationStepDb"),
        d.fact("noiseOverRbw"),
        d.accuracy());
  }

  /** Smallest attenuation at which a level is still linear. */
  public double attenuationFor(double levelDbm) {
    double wanted =
        Math.ceil((levelDbm - highestAtZeroDbm) / attenuationStepDb - 1e-9) * attenuationStepDb;
    return Math.max(0, Math.min(highestAttenuationDb, wanted));
  }
}
