package rovnik.instruments.scope;

import rovnik.core.Refusal;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;
import rovnik.instruments.dialect.Dialect;

/**
 * What an oscilloscope can do, from its dialect.
 *
 * @param channels how many
 * @param fastestRateHz highest sample rate; others are this / 2^k
 * @param rateHalvings largest k
 * @param mostSamples of a channel
 * @param widestVolts widest range, peak to peak
 * @param triggerDelaySeconds from the external trigger to its first sample, with the usual cable
 * @param triggerDelayHalfWidth how far that may be off
 * @param triggerOutDelaySeconds from an edge at a probe to its trigger output, with the usual cable
 * @param triggerOutDelayHalfWidth how far that may be off
 * @param clockRelative how far its clock may be off
 */
public record ScopeCapabilities(
    int channels,
    double fastestRateHz,
    int rateHalvings,
    int mostSamples,
    double widestVolts,
    double triggerDelaySeconds,
    double triggerDelayHalfWidth,
    double triggerOutDelaySeconds,
    double triggerOutDelayHalfWidth,
    double clockRelative) {
  public static ScopeCapabilities of(Dialect d) {
    return new ScopeCapabilities(
        (int) d.fact("channels"),
        d.fact("fastestRateHz"),
        (int) d.fact("rateHalvings"),
        (int) d.fact("mostSamples"),
        d.fact("widestVolts"),
        d.fact("triggerDelaySeconds"),
        d.fact("triggerDelayHalfWidth"),
        d.fact("triggerOutDelaySeconds"),
        d.fact("triggerOutDelayHalfWidth"),
        d.fact("clockAccuracy"));
  }

  /**
   * The fastest that it can take for so long.
   *
   * @throws Refusal if its memory is too small for that
   */
  public ScopeSetup lasting(double seconds) {
    double rate = fastestRateHz;
    for (int k = 0; k <= rateHalvings; k++) {
      double samples = Math.ceil(seconds * rate);
      if (samples <= mostSamples) {
        return new ScopeSetup(rate, (int) samples);
      }
      rate /= 2;
    }
    throw new Refusal(
        "seconds",
        "The oscilloscope takes at most "
            + Seconds.words(mostSamples / (2 * rate))
            + ", at its slowest rate of "
            + Frequency.ofHertz(2 * rate)
            + ". Look for shorter.");
  }
}
