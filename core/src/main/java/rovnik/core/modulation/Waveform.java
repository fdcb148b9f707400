package rovnik.core.modulation;

/**
 * Samples ready to be sent.
 *
 * @param iq interleaved, of mean power 1
 * @param sampleRateHz that they are meant for
 * @param seamless true if its end goes on with its beginning
 * @param note what must be said of it, "" for nothing
 */
public record Waveform(float[] iq, double sampleRateHz, boolean seamless, String note) {
  public int samples() {
    return iq.length / 2;
  }

  public double seconds() {
    return samples() / sampleRateHz;
  }

  /** Highest over mean power, dB. */
  public double crestDb() {
    double most = 0;
    double sum = 0;
    for (int i = 0; i < iq.length; i += 2) {
      double p = iq[i] * iq[i] + iq[i + 1] * iq[i + 1];
      most = Math.max(most, p);
      sum += p;
    }
    return 10 * Math.log10(most * samples() / sum);
  }
}
