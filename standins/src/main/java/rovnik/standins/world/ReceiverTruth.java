package rovnik.standins.world;

/**
 * What a receiver really is.
 *
 * @param bits of its converter, as far as they tell anything
 * @param rateHz of its converter; records are decimated from it
 * @param halvings most of them
 * @param fullScaleDbm tone of full scale at the port, without attenuation
 * @param noiseFigureDb without attenuation
 * @param iip3Dbm at the port, without attenuation
 */
public record ReceiverTruth(
    int bits,
    double rateHz,
    int halvings,
    double fullScaleDbm,
    double noiseFigureDb,
    double iip3Dbm) {
  public static final ReceiverTruth USUAL =
      new ReceiverTruth(
          Truth.ADC_BITS,
          Truth.ADC_RATE_HZ,
          16,
          Truth.RECEIVER_FULL_SCALE_DBM,
          Truth.RECEIVER_NOISE_FIGURE_DB,
          Truth.RECEIVER_IIP3_DBM);

  /** Ten times as wide, at a price: eight effective bits, more noise, and it bends earlier. */
  public static final ReceiverTruth FAST = new ReceiverTruth(8, 1.024e9, 20, -10, 24, 14);

  /** Between the two: wide enough for 320 MHz, with twelve bits. */
  public static final ReceiverTruth WIDE = new ReceiverTruth(12, 400e6, 18, -4, 20, 24);

  /** Level of a full-scale tone at the port. */
  public double fullScaleDbm(double attenuationDb) {
    return fullScaleDbm + attenuationDb;
  }

  public double slowestHz() {
    return rateHz / (1 << halvings);
  }

  /** The rate that it really takes. */
  public double nearestRate(double wantedHz) {
    double k = Math.rint(Math.log(rateHz / wantedHz) / Math.log(2));
    return rateHz / Math.pow(2, Math.max(0, Math.min(halvings, k)));
  }
}
