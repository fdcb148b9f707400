package rovnik.core.emission;

import rovnik.core.Refusal;
import rovnik.core.units.Decibels;

/**
 * Noise figure by the Y factor (Friis, Proc. IRE 32, 1944): F = ENR / (Y - 1) with the noise
 * source's cold state at 290 K.
 */
public final class NoiseFigure {
  private NoiseFigure() {}

  /**
   * What the noise source straight at a receiver has shown.
   *
   * @param hertz where
   * @param attenuationDb of the receiver
   * @param figureDb noise figure of the receiver
   * @param hotLessColdMilliwatts rise of the noise power, in the measured bandwidth
   * @param expandedDb expanded uncertainty of the figure
   */
  public record Receiver(
      double hertz,
      double attenuationDb,
      double figureDb,
      double hotLessColdMilliwatts,
      double bandwidthHz,
      double expandedDb) {}

  /** T0 of noise figures, kelvin. */
  public static final double STANDARD_KELVIN = 290;

  /**
   * Noise figure of what stands behind the noise source, in dB.
   *
   * @param hotDbm noise power with the source on
   * @param coldDbm noise power with the source off, in the same bandwidth
   * @param excessNoiseDb excess noise ratio of the source
   * @param coldKelvin temperature of the source when it is off
   * @throws Refusal if the hot power is not above the cold one
   */
  public static double byYFactor(
      double hotDbm, double coldDbm, double excessNoiseDb, double coldKelvin) {
    double y = Decibels.toPowerRatio(hotDbm - coldDbm);
    if (!(y > 1)) {
      throw new Refusal(
          "noiseFigure",
          "The noise does not rise when the noise source is on. Check that it is on and connected.");
    }
    double excess = Decibels.toPowerRatio(excessNoiseDb);
    double f = (excess - y * (coldKelvin / STANDARD_KELVIN - 1)) / (y - 1);
    if (!(f > 0)) {
      throw new Refusal(
          "noiseFigure",
          "The rise is larger than the excess noise ratio allows. Check the ratio of the source.");
    }
    return Decibels.fromPowerRatio(f);
  }

  /**
   * How far the noise figure moves for 1 dB of error in Y, dB/dB; for the uncertainty budget.
   *
   * @param yDb hot minus cold
   */
  public static double sensitivityToY(double yDb) {
    double y = Decibels.toPowerRatio(yDb);
    return y / (y - 1);
  }

  /** Noise figure of the first of two stages, all in dB (Friis). */
  public static double ofFirstStage(double both, double second, double firstGain) {
    double f =
        Decibels.toPowerRatio(both)
            - (Decibels.toPowerRatio(second) - 1) / Decibels.toPowerRatio(firstGain);
    if (!(f >= 1)) {
      throw new Refusal(
          "noiseFigure",
          "The second stage explains more than all of the noise. Check its figure and the gain.");
    }
    return Decibels.fromPowerRatio(f);
  }
}
