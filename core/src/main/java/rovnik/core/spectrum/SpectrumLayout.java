package rovnik.core.spectrum;

import rovnik.core.Refusal;
import rovnik.core.signal.Window;
import rovnik.core.units.Frequency;

/**
 * How a record is cut and transformed to give a wanted RBW over a wanted span.
 *
 * <p>The window is as long as the RBW needs: L = w3 fs / RBW, with w3 the window's 3-dB width in
 * bins. The transform is the next power of two, zero-padded, so that the RBW is the one asked for
 * and not the nearest power of two. Segments overlap by half.
 *
 * @param sampleRateHz of the record
 * @param window window function
 * @param windowLength samples in one segment
 * @param fftLength transform length, a power of two, at least windowLength
 * @param firstBin signed index of the first shown bin, 0 is the record's centre
 * @param points number of shown bins
 */
public record SpectrumLayout(
    double sampleRateHz, Window window, int windowLength, int fftLength, int firstBin, int points) {

  /** Shorter windows no longer follow the long-window figures. */
  public static final int SHORTEST_WINDOW = 64;

  public static final int LONGEST_FFT = 1 << 22;

  /**
   * Plans the transform for a span that lies {@code offsetHz} from the centre of the record.
   *
   * @throws Refusal if the span leaves the record's band, or the RBW cannot be made from it
   */
  public static SpectrumLayout plan(
      double sampleRateHz, double offsetHz, double spanHz, double rbwHz, Window window) {
    double half = sampleRateHz / 2;
    double slack = sampleRateHz * 1e-9;
    if (offsetHz - spanHz / 2 < -half - slack || offsetHz + spanHz / 2 > half + slack) {
      throw new Refusal(
          "spanHz",
          "The span reaches outside the recorded band, which is "
              + Frequency.ofHertz(sampleRateHz)
              + " wide. Choose a smaller span or a centre nearer to the middle of the record.");
    }
    double exactLength = window.figures().width3dbBins() * sampleRateHz / rbwHz;
    if (exactLength < SHORTEST_WINDOW - 0.5) {
      throw new Refusal(
          "rbwHz",
          "An RBW of "
              + Frequency.ofHertz(rbwHz)
              + " is too coarse for this span; the coarsest here is "
              + Frequency.ofHertz(
                  Math.floor(window.figures().width3dbBins() * sampleRateHz / SHORTEST_WINDOW))
              + ".");
    }
    if (exactLength > LONGEST_FFT) {
      throw new Refusal(
          "rbwHz",
          "An RBW of "
              + Frequency.ofHertz(rbwHz)
              + " needs a record of more than "
              + LONGEST_FFT
              + " samples at this span. Narrow the span or take an RBW of at least "
              + Frequency.ofHertz(
                  Math.ceil(window.figures().width3dbBins() * sampleRateHz / LONGEST_FFT))
              + ".");
    }
    return ofLength(sampleRateHz, offsetHz, spanHz, window, (int) Math.round(exactLength));
  }

  /** As {@link #plan}, with the window's length in samples instead of an RBW. */
  public static SpectrumLayout ofLength(
      double sampleRateHz, double offsetHz, double spanHz, Window window, int windowLength) {
    int fftLength = Math.max(2, Integer.highestOneBit(windowLength - 1) << 1);
    double step = sampleRateHz / fftLength;
    int first = (int) Math.max(-fftLength / 2, Math.ceil((offsetHz - spanHz / 2) / step - 1e-6));
    int last = (int) Math.min(fftLength / 2 - 1, Math.floor((offsetHz + spanHz / 2) / step + 1e-6));
    return new SpectrumLayout(
        sampleRateHz, window, windowLength, fftLength, first, Math.max(1, last - first + 1));
  }

  /** Distance of two points. */
  public double stepHz() {
    return sampleRateHz / fftLength;
  }

  /** The RBW that results: 3-dB width of the resolution filter. */
  public double rbwHz() {
    return window.figures().width3dbBins() * sampleRateHz / windowLength;
  }

  /** Equivalent noise bandwidth of one point. */
  public double enbwHz() {
    return window.figures().enbwBins() * sampleRateHz / windowLength;
  }

  /** Samples from one segment to the next: half the window. */
  public int hop() {
    return Math.max(1, windowLength / 2);
  }

  /** Samples that {@code segments} half-overlapped segments take. */
  public long samplesFor(int segments) {
    return windowLength + (segments - 1L) * hop();
  }

  /** Offset of a shown point from the record's centre. */
  public double offsetHz(int point) {
    return (firstBin + point) * stepHz();
  }
}
