package rovnik.core.signal;

import rovnik.core.Refusal;

/**
 * What one channel of an oscilloscope took.
 *
 * @param volts at its input, of what its probe touches. The array is shared, not copied: whoever
 *     made the record must not write to it until the reader is done.
 * @param sampleRateHz samples per second
 * @param startSeconds when its first sample was taken, on the clock of what was taken beside it
 */
public record VoltageRecord(float[] volts, double sampleRateHz, double startSeconds) {
  public VoltageRecord {
    if (!(sampleRateHz > 0) || Double.isInfinite(sampleRateHz)) {
      throw new Refusal(
          "sampleRateHz",
          "The sample rate must be more than 0 Hz; it is " + sampleRateHz + ". Correct it.");
    }
  }

  public double endSeconds() {
    return startSeconds + volts.length / sampleRateHz;
  }
}
