package rovnik.core.modulation;

import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import rovnik.core.Refusal;

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

  /**
   * The same with white noise added.
   *
   * @param dB power of the signal over that of noise within a band of {@code bandHz}
   */
  public Waveform withNoise(double dB, double bandHz, long seed) {
    if (!(dB >= -50 && dB <= 150)) {
      throw new Refusal("noise", "Signal over noise is -50 to 150 dB, such as 20.");
    }
    double sigma = Math.sqrt(Math.pow(10, -dB / 10) * sampleRateHz / bandHz / 2);
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
    float[] out = new float[iq.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = iq[i] + (float) (sigma * random.nextGaussian());
    }
    return new Waveform(out, sampleRateHz, seamless, note);
  }
}
