package rovnik.core.spectrum;

import java.util.List;
import java.util.stream.IntStream;
import rovnik.core.Refusal;
import rovnik.core.signal.SampleSource;

/** The spectrum of a recording, read in blocks so that it never has to fit in memory. */
public final class RecordSpectrum {
  private static final int BLOCK_SAMPLES = 1 << 16;

  /** Fewer segments are not worth a core of their own. */
  private static final int LEAST_SEGMENTS = 64;

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

  /** A recording that can be read from any sample on; what it opens is closed if it can be. */
  public interface Opener {
    SampleSource openAt(long sample);
  }

  /**
   * The same on several cores: the recording is cut where segments begin, and what the parts
   * gathered is added up in their order. Gives the same as one core, but for rounding.
   *
   * @param samples in the recording
   * @param parts 1 or more
   */
  public static SpectrumEstimator estimate(
      Opener opener, long samples, SpectrumLayout layout, SpectrumSettings settings, int parts) {
    long there = (samples - layout.windowLength()) / layout.hop() + 1;
    long segments = Math.min(settings.averages(), Math.max(1, there));
    int used = (int) Math.max(1, Math.min(parts, segments / LEAST_SEGMENTS));
    List<SpectrumEstimator> gathered =
        IntStream.range(0, used)
            .parallel()
            .mapToObj(
                k -> {
                  long from = segments * k / used;
                  long to = segments * (k + 1) / used;
                  return part(opener, layout, settings, from, (int) (to - from));
                })
            .toList();
    SpectrumEstimator all = gathered.get(0);
    gathered.subList(1, used).forEach(all::merge);
    return all;
  }

  private static SpectrumEstimator part(
      Opener opener, SpectrumLayout layout, SpectrumSettings settings, long from, int segments) {
    long first = from * layout.hop();
    SampleSource source = opener.openAt(first);
    try {
      return estimate(source, layout, settings.detector(), segments, first, (iq, n) -> {});
    } finally {
      if (source instanceof AutoCloseable open) {
        close(open);
      }
    }
  }

  private static void close(AutoCloseable open) {
    try {
      open.close();
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
  }

  /** The same, with somebody who looks at the samples on their way. */
  public static SpectrumEstimator estimate(
      SampleSource source, SpectrumLayout layout, SpectrumSettings settings, Listener listener) {
    return estimate(source, layout, settings.detector(), settings.averages(), 0, listener);
  }

  private static SpectrumEstimator estimate(
      SampleSource source,
      SpectrumLayout layout,
      Detector detector,
      int segments,
      long first,
      Listener listener) {
    SpectrumEstimator estimator = new SpectrumEstimator(layout, detector);
    float[] block = new float[2 * BLOCK_SAMPLES];
    long left = layout.samplesFor(segments);
    long position = first;
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
