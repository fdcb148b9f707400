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

  /** Where each shown point lies in the transform's order. */
  private final int[] places;

  /** Averages: of all bins in the transform's order for RMS, else of the shown points. */
  private final double[] sum;

  /** Powers in the transform's order: of the newest few segments for RMS, else of the newest. */
  private final float[] newest;

  private int newestSegments;
  private int pendingSamples;
  private int segments;

  public SpectrumEstimator(SpectrumLayout layout, Detector detector) {
    this.layout = layout;
    this.detector = detector;
    int n = layout.fftLength();
    this.fft = ComplexFft.of(n);
    int length = layout.windowLength();
    // Scaled so that a tone of amplitude 1 has power 1: divide by the window's sum.
    double scale = 1 / (layout.window().figures().coherentGain() * length);
    double[] w = layout.window().samples(length);
    this.window = new float[n];
    for (int i = 0; i < length; i++) {
      window[i] = (float) (w[i] * scale);
    }
    this.pending = new float[2 * length];
    this.places = new int[layout.points()];
    for (int i = 0; i < places.length; i++) {
      places[i] = fft.placeOf(Math.floorMod(layout.firstBin() + i, n));
    }
    this.sum = new double[detector == Detector.RMS ? n : places.length];
    this.newest = new float[n];
    reset();
  }

  public SpectrumLayout layout() {
    return layout;
  }

  /** Forgets all samples and spectra. */
  public void reset() {
    pendingSamples = 0;
    segments = 0;
    newestSegments = 0;
    Arrays.fill(newest, 0);
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
    for (int i = 0; i < places.length; i++) {
      out[i] =
          switch (detector) {
            case RMS -> sum[places[i]] / segments;
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
    segments++;
    if (detector == Detector.RMS) {
      fft.addPower(iq, at, window, newest);
      if (++newestSegments == SPILL_AFTER) {
        spill();
      }
      return;
    }
    Arrays.fill(newest, 0);
    fft.addPower(iq, at, window, newest);
    for (int i = 0; i < places.length; i++) {
      float power = newest[places[i]];
      switch (detector) {
        case PEAK -> sum[i] = Math.max(sum[i], power);
        case MINIMUM -> sum[i] = Math.min(sum[i], power);
        case LOG_AVERAGE -> sum[i] += Math.log(Math.max(power, 1e-30f));
        default -> sum[i] = power;
      }
    }
  }

  /** The strongest lines beside the shown points, as far as segments are not forgotten. */
  public List<OutsideLine> outside() {
    int n = layout.fftLength();
    int hidden = n - places.length;
    if (segments == 0 || hidden <= 0) {
      return List.of();
    }
    spill();
    int first = Math.floorMod(layout.firstBin() + places.length, n);
    int[] strongest = new int[MOST_OUTSIDE];
    int found = 0;
    double before = power(first + n - 1);
    double here = power(first);
    for (int i = 0; i < hidden; i++) {
      double after = power(first + i + 1);
      if (here >= after && here > before) {
        int at = found;
        while (at > 0 && power(strongest[at - 1]) < here) {
          at--;
        }
        if (at < MOST_OUTSIDE) {
          int kept = Math.min(found, MOST_OUTSIDE - 1);
          System.arraycopy(strongest, at, strongest, at + 1, kept - at);
          strongest[at] = (first + i) % n;
          found = kept + 1;
        }
      }
      before = here;
      here = after;
    }
    List<OutsideLine> lines = new ArrayList<>();
    for (int i = 0; i < found; i++) {
      lines.add(outside(strongest[i]));
    }
    return lines;
  }

  /** Power of a bin, counted round. */
  private double power(int bin) {
    int place = fft.placeOf(bin % layout.fftLength());
    return detector == Detector.RMS ? sum[place] / segments : newest[place];
  }

  private OutsideLine outside(int bin) {
    int n = layout.fftLength();
    float[] level = new float[2 * AROUND + 1];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) Decibels.fromPowerRatio(power(bin + n - AROUND + i) + 1e-30);
    }
    ToneInterpolator tone = ToneInterpolator.of(layout);
    double offset = tone.offsetPoints(level, AROUND);
    int signed = bin < n / 2 ? bin : bin - n;
    return new OutsideLine(
        signed - layout.firstBin() + offset,
        Decibels.toPowerRatio(level[AROUND] + tone.lossDb(offset)));
  }

  private void spill() {
    if (detector == Detector.RMS && newestSegments > 0) {
      newestSegments = 0;
      for (int i = 0; i < sum.length; i++) {
        sum[i] += newest[i];
        newest[i] = 0;
      }
    }
  }
}
