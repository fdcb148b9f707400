package rovnik.core.modulation.analog;

/**
 * What a tone with its harmonics and the noise around it is worth.
 *
 * @param sinadDb all of it over all but the tone
 * @param sinadStandardDb how that scatters
 * @param distortion rms of the harmonics over that of the tone
 * @param distortionStandard how that scatters
 * @param rateStandardHz how the frequency of the tone scatters
 */
public record ToneFigures(
    double sinadDb,
    double sinadStandardDb,
    double distortion,
    double distortionStandard,
    double rateStandardHz) {

  /**
   * @param independent values of the signal that tell of one another nothing
   * @param seconds that it lasts
   */
  public static ToneFigures of(SineFit tone, double independent, double seconds) {
    double amount = tone.amplitude()[0];
    double rest = Math.sqrt(tone.restPower());
    double each = rest * Math.sqrt(2 / independent);
    double bad = tone.harmonicPower() + tone.restPower();
    double all = amount * amount / 2 + bad;
    double noiseShare = tone.restPower() / Math.max(bad, 1e-300);
    return new ToneFigures(
        10 * Math.log10(all / Math.max(bad, 1e-300)),
        10 / Math.log(10) * noiseShare * Math.sqrt(2 / independent),
        Math.sqrt(2 * tone.harmonicPower()) / amount,
        each / amount,
        // Cramer and Rao's bound for the frequency of a sine in white noise.
        Math.sqrt(24) / (2 * Math.PI) * rest / amount / Math.sqrt(independent) / seconds);
  }
}
