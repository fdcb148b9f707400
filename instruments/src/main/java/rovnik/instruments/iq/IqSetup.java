package rovnik.instruments.iq;

/**
 * What an IQ receiver is told.
 *
 * @param centreHz tuned frequency at its port
 * @param sampleRateHz complex samples a second
 * @param samples in one record
 * @param attenuationDb of its input attenuator
 * @param secondAttenuationDb of the second input's, NaN if that is not used
 */
public record IqSetup(
    double centreHz,
    double sampleRateHz,
    int samples,
    double attenuationDb,
    double secondAttenuationDb) {

  /** The first input alone. */
  public IqSetup(double centreHz, double sampleRateHz, int samples, double attenuationDb) {
    this(centreHz, sampleRateHz, samples, attenuationDb, Double.NaN);
  }

  /** True if the second input takes its record at the same time. */
  public boolean second() {
    return !Double.isNaN(secondAttenuationDb);
  }

  public IqSetup withSecond(double dB) {
    return new IqSetup(centreHz, sampleRateHz, samples, attenuationDb, dB);
  }
}
