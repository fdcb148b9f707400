package rovnik.core.spectrum;

import rovnik.core.Refusal;
import rovnik.core.signal.SampleSource;

/** The spectrum of a recording, read in blocks so that it never has to fit in memory. */
public final class RecordSpectrum {
  private static final int BLOCK_SAMPLES = 1 << 16;

  private RecordSpectrum() {}

  /** Whoever looks at the samples as well. */
  public interface Listener {
    /** One block of contiguous samples; the array is used again afterwards. */
    void block(float[] iq, int samples);
  }

  /**
   * Plans a transform for a recording. An automatic RBW is made coarser if the record is too short
   * for span / 1000; a chosen one is refused.
   *
   * @param samples in the recording
   * @param centreHz of the recording
   */
  public static SpectrumLayout plan(
      long samples, double sampleRateHz, double centreHz, SpectrumSettings settings) {
    double offset = settings.centreHz() - centreHz;
    if (settings.fftLength() > 0) {
      if (settings.fftLength() > samples) {
        throw new Refusal(
            "fftLength",
            "The record has only "
                + samples
                + " samples. Choose a shorter transform, or 0 to let the RBW decide.");
      }
      return SpectrumLayout.ofLength(
          sampleRateHz, offset, settings.spanHz(), settings.window(), settings.fftLength());
    }
    double rbw = settings.effectiveRbwHz();
    double needed = settings.window().figures().width3dbBins() * sampleRateHz / rbw;
    if (needed > samples) {
      double finest = settings.window().figures().width3dbBins() * sampleRateHz / samples;
      if (settings.rbwHz() > 0) {
        throw new Refusal(
            "rbwHz",
            String.format(
                "The record of %d samples is too short for this RBW, which needs %.0f."
                    + " Choose an RBW of at least %.6g Hz.",
                samples, needed, finest));
      }
      if (samples < SpectrumLayout.SHORTEST_WINDOW) {
        throw new Refusal(
            "data",
            "The record has only "
                + samples
                + " samples; a spectrum needs at least "
                + SpectrumLayout.SHORTEST_WINDOW
                + ".");
      }
      return SpectrumLayout.ofLength(
          sampleRateHz, offset, settings.spanHz(), settings.window(), (int) samples);
    }
    return SpectrumLayout.plan(sampleRateHz, offset, settings.spanHz(), rbw, settings.window());
  }

  /**
   * Averages up to {@code settings.averages()} segments from where the source stands.
   *
   * @throws Refusal if a sample is not a number; the message says where
   */
  public static SpectrumEstimator estimate(
      SampleSource source, SpectrumLayout layout, SpectrumSettings settings) {
    return estimate(source, layout, settings, (iq, samples) -> {});
  }

  /** The same, with somebody who looks at the samples on their way. */
  public static SpectrumEstimator estimate(
      SampleSource source, SpectrumLayout layout, SpectrumSettings settings, Listener listener) {
    SpectrumEstimator estimator = new SpectrumEstimator(layout, settings.detector());
    float[] block = new float[2 * BLOCK_SAMPLES];
    long left = layout.samplesFor(settings.averages());
    long position = 0;
    while (left > 0) {
      int got = source.read(block, (int) Math.min(left, BLOCK_SAMPLES));
      if (got == 0) {
        break;
      }
      for (int i = 0; i < 2 * got; i++) {
        if (!Float.isFinite(block[i])) {
          throw new Refusal(
              "data",
              "Sample "
                  + (position + i / 2)
                  + " is not a finite number. Cut the recording before it, or repair it.");
        }
      }
      estimator.accumulate(block, 0, got);
      listener.block(block, got);
      left -= got;
      position += got;
    }
    return estimator;
  }
}
