package rovnik.instruments.network;

import rovnik.core.Refusal;
import rovnik.core.network.Residuals;
import rovnik.core.network.SweepSettings;
import rovnik.core.units.Frequency;
import rovnik.instruments.dialect.Dialect;

/**
 * What a network analyzer can do, from its dialect.
 *
 * @param overloadDbm level at a receiving port from which its readings bend
 * @param damageDbm level at a port that destroys it
 * @param raw errors without a calibration
 * @param calibrated errors left by a fresh full calibration
 * @param freshSeconds how long a calibration holds
 */
public record NetworkCapabilities(
    double lowestHz,
    double highestHz,
    int mostPoints,
    double lowestPowerDbm,
    double highestPowerDbm,
    double narrowestHz,
    double widestHz,
    double overloadDbm,
    double damageDbm,
    Residuals raw,
    Residuals calibrated,
    double freshSeconds) {

  public static NetworkCapabilities of(Dialect d) {
    return new NetworkCapabilities(
        d.fact("lowestHz"),
        d.fact("highestHz"),
        (int) d.fact("mostPoints"),
        d.fact("lowestPowerDbm"),
        d.fact("highestPowerDbm"),
        d.fact("narrowestHz"),
        d.fact("widestHz"),
        d.fact("overloadDbm"),
        d.fact("damageDbm"),
        Residuals.ofDb(
            d.fact("rawDirectivityDb"),
            d.fact("rawMatchDb"),
            d.fact("rawTrackingDb"),
            d.fact("rawMatchDb"),
            d.fact("floorDb")),
        Residuals.ofDb(
            d.fact("directivityDb"),
            d.fact("matchDb"),
            d.fact("trackingDb"),
            d.fact("matchDb"),
            d.fact("floorDb")),
        d.fact("freshMinutes") * 60);
  }

  /** Refuses what this analyzer cannot be set to. */
  public void check(SweepSettings s) {
    if (s.lowestHz() < lowestHz || s.highestHz() > highestHz) {
      throw new Refusal(
          "startHz",
          "The analyzer sweeps from "
              + Frequency.ofHertz(lowestHz)
              + " to "
              + Frequency.ofHertz(highestHz)
              + ".");
    }
    if (s.frequencies().length > mostPoints) {
      throw new Refusal("points", "The analyzer has at most " + mostPoints + " points.");
    }
    if (s.bandwidthHz() < narrowestHz || s.bandwidthHz() > widestHz) {
      throw new Refusal(
          "bandwidthHz",
          "The analyzer has IF bandwidths from "
              + Frequency.ofHertz(narrowestHz)
              + " to "
              + Frequency.ofHertz(widestHz)
              + ".");
    }
    if (s.powerDbm() < lowestPowerDbm || s.powerDbm() > highestPowerDbm) {
      throw new Refusal(
          "powerDbm",
          "The port power lies between "
              + lowestPowerDbm
              + " and "
              + highestPowerDbm
              + " dBm on this analyzer.");
    }
  }
}
