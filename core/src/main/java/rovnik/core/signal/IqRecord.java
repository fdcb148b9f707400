package rovnik.core.signal;

import rovnik.core.Refusal;

/**
 * One block of complex samples as an instrument or a file delivered it.
 *
 * @param iq interleaved I, Q; 1.0 is full scale. The array is shared, not copied: whoever made the
 *     record must not write to it until the reader is done.
 * @param sampleRateHz complex samples per second
 * @param centreHz frequency of sample phase zero, at the instrument's port
 * @param fullScaleDbm level at the instrument's port of a tone with amplitude 1.0, or NaN if the
 *     record is not calibrated (levels are then dBFS)
 * @param overload true if the instrument said, or the samples show, that its converter clipped
 * @param startSeconds where in a longer recording it begins
 * @param pulseSeconds when its trigger input rose, as that recording counts; null if nobody knows
 */
public record IqRecord(
    float[] iq,
    double sampleRateHz,
    double centreHz,
    double fullScaleDbm,
    boolean overload,
    double startSeconds,
    double[] pulseSeconds) {

  public IqRecord {
    if (!(sampleRateHz > 0) || Double.isInfinite(sampleRateHz)) {
      throw new Refusal(
          "sampleRateHz",
          "The sample rate must be more than 0 Hz; it is " + sampleRateHz + ". Correct it.");
    }
    Refusal.finite("centreHz", centreHz);
    if (iq.length % 2 != 0) {
      throw new Refusal("iq", "Interleaved IQ needs an even count of values; got " + iq.length);
    }
  }

  /** A record that is no part of a longer one. */
  public IqRecord(
      float[] iq, double sampleRateHz, double centreHz, double fullScaleDbm, boolean overload) {
    this(iq, sampleRateHz, centreHz, fullScaleDbm, overload, 0);
  }

  /** A part of a longer one, without a trigger input. */
  public IqRecord(
      float[] iq,
      double sampleRateHz,
      double centreHz,
      double fullScaleDbm,
      boolean overload,
      double startSeconds) {
    this(iq, sampleRateHz, centreHz, fullScaleDbm, overload, startSeconds, null);
  }

  public int sampleCount() {
    return iq.length / 2;
  }

  /** Where its last sample ends, in the recording that it is a part of. */
  public double endSeconds() {
    return startSeconds + sampleCount() / sampleRateHz;
  }

  /** Number of its sample at an instant of that recording; it may lie outside. */
  public int sampleAt(double seconds) {
    return (int) Math.rint((seconds - startSeconds) * sampleRateHz);
  }

  /**
   * A stretch of it as a record of its own, which begins at 0 s.
   *
   * @param fromSeconds as this one counts
   * @throws Refusal if it lies outside
   */
  public IqRecord cut(double fromSeconds, double seconds) {
    int from = sampleAt(fromSeconds);
    int samples = (int) Math.min(Math.rint(seconds * sampleRateHz), sampleCount() - (double) from);
    if (from < 0 || samples < 1) {
      throw new Refusal(
          "fromSeconds",
          "The record is " + sampleCount() / sampleRateHz + " s long; the stretch lies outside.");
    }
    return new IqRecord(
        java.util.Arrays.copyOfRange(iq, 2 * from, 2 * (from + samples)),
        sampleRateHz,
        centreHz,
        fullScaleDbm,
        overload);
  }

  /** The same samples, counted from another beginning. */
  public IqRecord since(double seconds) {
    double[] pulses = pulseSeconds == null ? null : pulseSeconds.clone();
    for (int i = 0; pulses != null && i < pulses.length; i++) {
      pulses[i] -= seconds;
    }
    return new IqRecord(
        iq, sampleRateHz, centreHz, fullScaleDbm, overload, startSeconds - seconds, pulses);
  }

  /** The same with samples of its own, which nobody else writes to. */
  public IqRecord copied() {
    return new IqRecord(
        iq.clone(), sampleRateHz, centreHz, fullScaleDbm, overload, startSeconds, pulseSeconds);
  }

  public boolean calibrated() {
    return !Double.isNaN(fullScaleDbm);
  }

  /** True if any sample is NaN or infinite. */
  public boolean hasBadSamples() {
    for (float v : iq) {
      if (!Float.isFinite(v)) {
        return true;
      }
    }
    return false;
  }
}
