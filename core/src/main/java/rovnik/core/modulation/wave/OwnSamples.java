package rovnik.core.modulation.wave;

import rovnik.core.Refusal;
import rovnik.core.units.Frequency;

/**
 * Samples as they are, from a file.
 *
 * @param iq interleaved, not copied
 * @param rateHz that they were taken or made at
 * @param name as shown
 */
public record OwnSamples(float[] iq, double rateHz, String name) implements WavePart {
  @Override
  public String words() {
    return name;
  }

  @Override
  public double reachHz() {
    return 0;
  }

  /** Nothing says that its end goes on with its beginning. */
  @Override
  public Period period(double sampleRateHz) {
    return Period.NONE;
  }

  @Override
  public double[] make(int samples, double sampleRateHz) {
    if (Math.abs(sampleRateHz / rateHz - 1) > 1e-9) {
      throw new Refusal(
          "sampleRateHz",
          name
              + " was taken at "
              + Frequency.ofHertz(rateHz)
              + "; make the waveform at that sample rate.");
    }
    double[] out = new double[2 * samples];
    for (int i = 0; i < out.length; i++) {
      out[i] = iq[i % iq.length];
    }
    return Tones.unit(out);
  }
}
