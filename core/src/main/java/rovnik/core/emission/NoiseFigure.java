package rovnik.core.emission;

import rovnik.core.Refusal;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Decibels;

/**
 * Noise figure by the Y factor (Friis, Proc. IRE 32, 1944): F = ENR / (Y - 1) with the noise
 * source's cold state at 290 K.
 */
public final class NoiseFigure {
  private NoiseFigure() {}

  /**
   * Noise of a source that was off and on, seen through whatever stands behind it.
   *
   * @param coldDbm power in the measured bandwidth with the source off
   * @param hotDbm the same with the source on
   * @param standardDb standard deviation of each
   */
  public record Noise(double coldDbm, double hotDbm, double standardDb) {
    /** Hot over cold. */
    public double yDb() {
      return hotDbm - coldDbm;
    }

    /** Hot less cold. */
    public double riseMilliwatts() {
      return Decibels.toPowerRatio(hotDbm) - Decibels.toPowerRatio(coldDbm);
    }

    /** Standard deviation of the rise, dB: large when the rise is small beside the noise itself. */
    public double riseStandardDb() {
      double y = Decibels.toPowerRatio(yDb());
      return standardDb * Math.hypot(y, 1) / (y - 1);
    }
  }

  /**
   * What the noise source straight at a receiver has shown.
   *
   * @param hertz where
   * @param attenuationDb of the receiver
   * @param bandwidthHz in which the noise was measured
   * @param figureDb noise figure of the receiver
   * @param noise that was seen
   */
  public record Receiver(
      double hertz, double attenuationDb, double bandwidthHz, double figureDb, Noise noise) {}

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

  /** Gain of what was put between the noise source and the receiver, dB. */
  public static double gainDb(Noise alone, Noise both) {
    return Decibels.fromPowerRatio(both.riseMilliwatts() / alone.riseMilliwatts());
  }

  /**
   * Standard uncertainty of the figure of a first stage, in dB, from the scatter of its powers and
   * from the receiver's linearity. With Friis' formula written in the powers themselves, F = ENR
   * (cold of both - cold alone) / (rise of both): the rise alone, though noisy, is not in it. The
   * label of the source enters once, as it stands.
   *
   * @param alone the receiver at the source
   * @param both the first stage between them
   * @param linearityDb standard uncertainty of a ratio of two levels
   */
  public static UncertaintyBudget ofFirstStage(Noise alone, Noise both, double linearityDb) {
    double cold = Decibels.toPowerRatio(both.coldDbm());
    double before = Decibels.toPowerRatio(alone.coldDbm());
    double hot = Decibels.toPowerRatio(both.hotDbm());
    double toBefore = before / (cold - before);
    double toHot = hot / (hot - cold);
    double toCold = cold / (cold - before) + cold / (hot - cold);
    return new UncertaintyBudget()
        .normal("linearity of the receiver", linearityDb * Math.hypot(toBefore, toHot))
        .normal("average alone", toBefore * alone.standardDb())
        .normal("average", both.standardDb() * Math.hypot(toCold, toHot));
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
