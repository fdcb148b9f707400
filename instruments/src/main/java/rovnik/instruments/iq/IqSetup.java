package rovnik.instruments.iq;

/**
 * What an IQ receiver is told.
 *
 * @param centreHz tuned frequency at its port
 * @param sampleRateHz complex samples a second
 * @param samples in one record
 * @param attenuationDb of its input attenuator
 */
public record IqSetup(double centreHz, double sampleRateHz, int samples, double attenuationDb) {}
