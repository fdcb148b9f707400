package rovnik.core.spectrum;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.signal.ComplexFft;
import rovnik.core.units.Decibels;

/**
 * Streaming overlapped spectrum estimator (Welch's method of averaged modified periodograms, IEEE
 * Trans. AU-15, 1967).
 *
 * <p>Feed samples in pieces of any size with {@link #accumulate}; read the averaged power with
 * {@link #powerInto}. A tone of amplitude 1.0 on a bin gives power 1.0; divide by the layout's ENBW
 * for a density. Not thread-safe: one estimator, one thread. No object is allocated per segment.
 */
public final class SpectrumEstimator {
  private static final int SPILL_AFTER = 32;

  /** The strongest lines outside are enough: the others' side lobes lie below theirs. */
  private static final int MOST_OUTSIDE = 4;

  /** Points to each side from which a line's place is told. */
  private static final int AROUND = 8;

  private final SpectrumLayout layout;
  private final Detector detector;
  private final ComplexFft fft;
  private final float[] window;
  private final float[] pending;
  private final float[] re;
  private final float[] im;
  private final double[] sum;

  /** Powers of the newest few segments; spilled into sum before float digits run out. */
  private final float[] partial;

  private int partialSegments;
  private int pendingSamples;
  private int segments;
  private boolean transformed; // re and im hold the newest segment

  public SpectrumEstimator(SpectrumLayout layout, Detector detector) {
    this.layout = layout;
    this.detector = detector;
    this.fft = ComplexFft.of(layout.fftLength());
    int length = layout.windowLength();
    // Scaled so that a tone of amplitude 1 has power 1: divide by the window's sum.
    double scale = 1 / (layout.window().figures().coherentGain() * length);
    double[] w = layout.window().samples(length);
    this.window = new float[length];
    for (int i = 0; i < length; i++) {
      window[i] = (float) (w[i] * scale);
    }
    this.pending = new float[2 * length];
    this.re = new float[layout.fftLength()];
    this.im = new float[layout.fftLength()];
    this.sum = new double[layout.points()];
    this.partial = new float[layout.points()];
    reset();
  }

  public SpectrumLayout layout() {
    return layout;
  }

  /** Forgets all samples and spectra. */
  public void reset() {
    pendingSamples = 0;
    segments = 0;
    partialSegments = 0;
    Arrays.fill(partial, 0);
    Arrays.fill(sum, detector == Detector.MINIMUM ? Double.POSITIVE_INFINITY : 0);
  }

  /** Drops samples that wait for the rest of their segment: the next block is not contiguous. */
  public void breakRecord() {
    pendingSamples = 0;
  }

  /** Number of segments in the average so far. */
  public int segments() {
    return segments;
  }

  /**
   * Adds contiguous samples.
   *
   * @param iq interleaved samples, not changed
   * @param from first complex sample
   * @param count number of complex samples
   */
  public void accumulate(float[] iq, int from, int count) {
    int length = layout.windowLength();
    int hop = layout.hop();
    int at = from;
    int end = from + count;
    // Segments that begin in samples kept from the call before.
    while (pendingSamples > 0) {
      int need = length - pendingSamples;
      if (end - at < need) {
        System.arraycopy(iq, 2 * at, pending, 2 * pendingSamples, 2 * (end - at));
        pendingSamples += end - at;
        return;
      }
      System.arraycopy(iq, 2 * at, pending, 2 * pendingSamples, 2 * need);
      segment(pending, 0);
      int left = length - hop;
      if (at + need - from >= left) {
        // All of the next segment's kept part lies in this call's array: leave the copy.
        at = at + need - left;
        pendingSamples = 0;
      } else {
        System.arraycopy(pending, 2 * hop, pending, 0, 2 * left);
        pendingSamples = left;
        at += need;
      }
    }
    while (end - at >= length) {
      segment(iq, at);
      at += hop;
    }
    pendingSamples = end - at;
    System.arraycopy(iq, 2 * at, pending, 0, 2 * pendingSamples);
  }

  /**
   * Writes the power of each shown point, linear, 1.0 for a full-scale tone.
   *
   * @param out at least {@code layout().points()} long
   * @throws Refusal if there was not yet one whole segment
   */
  public void powerInto(double[] out) {
    if (segments == 0) {
      throw new Refusal(
          "rbwHz",
          "The record is too short for this RBW: it needs "
              + layout.windowLength()
              + " samples. Choose a coarser RBW or a longer record.");
    }
    spill();
    for (int i = 0; i < sum.length; i++) {
      out[i] =
          switch (detector) {
            case RMS -> sum[i] / segments;
            case LOG_AVERAGE -> Math.exp(sum[i] / segments);
            default -> sum[i];
          };
    }
  }

  /** Takes over what another one with the same layout and detector has gathered after this one. */
  void merge(SpectrumEstimator later) {
    spill();
    later.spill();
    for (int i = 0; i < sum.length; i++) {
      sum[i] =
          switch (detector) {
            case RMS, LOG_AVERAGE -> sum[i] + later.sum[i];
            case PEAK -> Math.max(sum[i], later.sum[i]);
            case MINIMUM -> Math.min(sum[i], later.sum[i]);
            case SAMPLE -> later.segments > 0 ? later.sum[i] : sum[i];
          };
    }
    segments += later.segments;
  }

  private void segment(float[] iq, int at) {
    fft.forwardWindowed(iq, at, window, re, im);
    int n = layout.fftLength();
    int start = Math.floorMod(layout.firstBin(), n);
    int firstRun = Math.min(sum.length, n - start);
    fold(start, 0, firstRun);
    fold(0, firstRun, sum.length - firstRun);
    segments++;
    transformed = true;
    if (++partialSegments == SPILL_AFTER) {
      spill();
    }
  }

  /** The strongest lines that the newest segment has beside the shown points. */
  public List<OutsideLine> outside() {
    int n = layout.fftLength();
    int hidden = n - sum.length;
    if (!transformed || hidden <= 0) {
      return List.of();
    }
    int first = Math.floorMod(layout.firstBin() + sum.length, n);
    int[] strongest = new int[MOST_OUTSIDE];
    int found = 0;
    for (int i = 0; i < hidden; i++) {
      int bin = (first + i) % n;
      float here = power(bin);
      if (here < power((bin + 1) % n) || here <= power((bin + n - 1) % n)) {
        continue;
      }
      int at = Math.min(found, MOST_OUTSIDE);
      while (at > 0 && power(strongest[at - 1]) < here) {
        at--;
      }
      if (at < MOST_OUTSIDE) {
        System.arraycopy(strongest, at, strongest, at + 1, Math.min(found, MOST_OUTSIDE - 1) - at);
        strongest[at] = bin;
        found = Math.min(found + 1, MOST_OUTSIDE);
      }
    }
    List<OutsideLine> lines = new ArrayList<>();
    for (int i = 0; i < found; i++) {
      lines.add(outside(strongest[i]));
    }
    return lines;
  }

  private OutsideLine outside(int bin) {
    int n = layout.fftLength();
    float[] level = new float[2 * AROUND + 1];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) Decibels.fromPowerRatio(power(Math.floorMod(bin - AROUND + i, n)) + 1e-30);
    }
    ToneInterpolator tone = ToneInterpolator.of(layout);
    double offset = tone.offsetPoints(level, AROUND);
    int signed = bin < n / 2 ? bin : bin - n;
    return new OutsideLine(
        signed - layout.firstBin() + offset,
        Decibels.toPowerRatio(level[AROUND] + tone.lossDb(offset)));
  }

  private void spill() {
    partialSegments = 0;
    if (detector == Detector.RMS) {
      for (int i = 0; i < sum.length; i++) {
        sum[i] += partial[i];
        partial[i] = 0;
      }
    }
  }

  private void fold(int bin, int point, int count) {
    double[] s = sum;
    switch (detector) {
      case RMS -> fft.addPower(re, im, bin, partial, point, count);
      case PEAK -> {
        for (int i = 0; i < count; i++) {
          s[point + i] = Math.max(s[point + i], power(bin + i));
        }
      }
      case MINIMUM -> {
        for (int i = 0; i < count; i++) {
          s[point + i] = Math.min(s[point + i], power(bin + i));
        }
      }
      case SAMPLE -> {
        for (int i = 0; i < count; i++) {
          s[point + i] = power(bin + i);
        }
      }
      case LOG_AVERAGE -> {
        for (int i = 0; i < count; i++) {
          s[point + i] += Math.log(Math.max(power(bin + i), 1e-30f));
        }
      }
    }
  }

  private float power(int bin) {
    return re[bin] * re[bin] + im[bin] * im[bin];
  }
}
