package rovnik.instruments.iq;

import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.instruments.dialect.Dialect;

/**
 * What an IQ receiver can do, from its dialect.
 *
 * @param lowestHz lowest centre frequency
 * @param highestHz highest centre frequency
 * @param fastestRateHz highest sample rate; others are this / 2^k
 * @param rateHalvings largest k
 * @param usableShare flat part of a rate
 * @param mostSamples longest record
 * @param fullScaleAtZeroDbm full scale at the port without attenuation
 * @param highestAttenuationDb of its attenuator
 * @param attenuationStepDb of its attenuator
 * @param damageDbm level at the port that damages it
 * @param returnLossDb of its port
 * @param inputs that take their records at the same time, 1 or 2
 * @param fastestStreamHz highest sample rate without gaps, 0 if it takes single records only
 * @param accuracy level and frequency
 */
public record IqCapabilities(
    double lowestHz,
    double highestHz,
    double fastestRateHz,
    int rateHalvings,
    double usableShare,
    int mostSamples,
    double fullScaleAtZeroDbm,
    double highestAttenuationDb,
    double attenuationStepDb,
    double damageDbm,
    double returnLossDb,
    int inputs,
    double fastestStreamHz,
    InstrumentAccuracy accuracy) {

  public static IqCapabilities of(Dialect d) {
    return new IqCapabilities(
        d.fact("lowestHz"),
        d.fact("highestHz"),
        d.fact("fastestRateHz"),
        (int) d.fact("rateHalvings"),
        d.fact("usableShare"),
        (int) d.fact("mostSamples"),
        d.fact("fullScaleAtZeroDbm"),
        d.fact("highestAttenuationDb"),
        d.fact("attenuationStepDb"),
        d.fact("damageDbm"),
        d.fact("returnLossDb"),
        d.facts().getOrDefault("inputs", 1.0).intValue(),
        d.facts().getOrDefault("fastestStreamHz", 0.0),
        d.accuracy());
  }

  /** True if it delivers samples without gaps. */
  public boolean streams() {
    return fastestStreamHz > 0;
  }

  /** The same with the rates that it streams. */
  public IqCapabilities streaming() {
    int less = 0;
    while (less < rateHalvings && fastestRateHz / Math.pow(2, less) > fastestStreamHz) {
      less++;
    }
    return new IqCapabilities(
        lowestHz,
        highestHz,
        fastestRateHz / Math.pow(2, less),
        rateHalvings - less,
        usableShare,
        mostSamples,
        fullScaleAtZeroDbm,
        highestAttenuationDb,
        attenuationStepDb,
        damageDbm,
        returnLossDb,
        inputs,
        fastestStreamHz,
        accuracy);
  }

  /** Widest span in one record. */
  public double widestSpanHz() {
    return fastestRateHz * usableShare;
  }

  /** Smallest attenuation whose full scale is at least {@code levelDbm} at the port. */
  public double attenuationFor(double levelDbm) {
    double wanted =
        Math.ceil((levelDbm - fullScaleAtZeroDbm) / attenuationStepDb - 1e-9) * attenuationStepDb;
    return Math.max(0, Math.min(highestAttenuationDb, wanted));
  }

  /** Highest linear level at the port for an attenuation. */
  public double fullScaleDbm(double attenuationDb) {
    return fullScaleAtZeroDbm + attenuationDb;
  }
}
