package rovnik.core.spectrum;

import rovnik.core.Refusal;
import rovnik.core.signal.Window;
import rovnik.core.units.Frequency;

/**
 * What the user asks of a spectrum, in terms of the reading plane.
 *
 * @param centreHz middle of the span
 * @param spanHz width shown
 * @param rbwHz 3-dB width of the resolution filter, or 0 for automatic (span / 1000)
 * @param window window function
 * @param detector how averages are formed
 * @param averages number of segments in one average, 1 to 1,000,000
 * @param referenceLevelDbm highest level expected at the reading plane; sets the receiver's
 *     attenuation
 * @param channelWidthHz width over which channel power is summed
 * @param fftLength points of one transform, 1,024 to 524,288 and a power of two, which then decides
 *     the RBW; 0 to let the RBW decide
 * @param lines what counts as a line
 */
public record SpectrumSettings(
    double centreHz,
    double spanHz,
    double rbwHz,
    Window window,
    Detector detector,
    int averages,
    double referenceLevelDbm,
    double channelWidthHz,
    int fftLength,
    LineSearch lines) {

  /** Automatic RBW is the span divided by this (common practice: 50 MHz gives 50 kHz). */
  public static final double AUTO_RBW_SHARE = 1000;

  public static final int MOST_AVERAGES = 1_000_000;

  public static final int SHORTEST_FFT = 1 << 10;
  public static final int LONGEST_FFT = 1 << 19;

  /** With an RBW that decides the length of the transform. */
  public SpectrumSettings(
      double centreHz,
      double spanHz,
      double rbwHz,
      Window window,
      Detector detector,
      int averages,
      double referenceLevelDbm,
      double channelWidthHz) {
    this(
        centreHz,
        spanHz,
        rbwHz,
        window,
        detector,
        averages,
        referenceLevelDbm,
        channelWidthHz,
        0,
        LineSearch.AUTO);
  }

  public SpectrumSettings {
    Refusal.finite("centreHz", centreHz);
    Refusal.finite("referenceLevelDbm", referenceLevelDbm);
    if (!(spanHz > 0) || Double.isInfinite(spanHz)) {
      throw new Refusal("spanHz", "The span must be more than 0 Hz. Enter a width such as 200k.");
    }
    if (!(rbwHz >= 0) || Double.isInfinite(rbwHz)) {
      throw new Refusal("rbwHz", "The RBW must be 0 (automatic) or a positive width such as 1k.");
    }
    if (rbwHz > spanHz) {
      throw new Refusal(
          "rbwHz",
          "The RBW of "
              + Frequency.ofHertz(rbwHz)
              + " is wider than the span of "
              + Frequency.ofHertz(spanHz)
              + ". Choose a smaller RBW, a wider span, or automatic RBW.");
    }
    if (window == null) {
      throw new Refusal("window", "Choose a window, for example HANN.");
    }
    if (detector == null) {
      throw new Refusal("detector", "Choose a detector, for example RMS.");
    }
    if (averages < 1 || averages > MOST_AVERAGES) {
      throw new Refusal(
          "averages", "Averages must be 1 to " + MOST_AVERAGES + "; it is " + averages + ".");
    }
    if (!(channelWidthHz > 0) || Double.isInfinite(channelWidthHz)) {
      throw new Refusal("channelWidthHz", "The channel width must be more than 0 Hz, such as 75k.");
    }
    if (lines == null) {
      throw new Refusal("lines", "Say what counts as a line.");
    }
    boolean length =
        fftLength >= SHORTEST_FFT && fftLength <= LONGEST_FFT && Integer.bitCount(fftLength) == 1;
    if (fftLength != 0 && !length) {
      throw new Refusal(
          "fftLength",
          "The transform has 1024 to 524288 points, a power of two; or 0 to let the RBW decide.");
    }
  }

  /** The RBW to use: the one asked for, or span / 1000. */
  public double effectiveRbwHz() {
    return rbwHz > 0 ? rbwHz : spanHz / AUTO_RBW_SHARE;
  }

  public SpectrumSettings withCentre(double newCentreHz) {
    return with(newCentreHz, spanHz, rbwHz, referenceLevelDbm);
  }

  /** The same with another framing, RBW and reference level. */
  public SpectrumSettings with(
      double newCentreHz, double newSpanHz, double newRbwHz, double newReferenceDbm) {
    return new SpectrumSettings(
        newCentreHz,
        newSpanHz,
        newRbwHz,
        window,
        detector,
        averages,
        newReferenceDbm,
        channelWidthHz,
        fftLength,
        lines);
  }
}
