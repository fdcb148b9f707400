package rovnik.core.spectrum;

import java.util.ArrayDeque;
import java.util.Deque;
import rovnik.core.Refusal;

/**
 * The average over the newest segments of a live view. Blocks of spectra go in; what comes out is
 * formed from at least the wanted number of segments, or all there are. Memory is bounded: however
 * many averages are wanted, at most {@value #MOST_SLOTS} + 1 spectra are held, and they are reused.
 */
public final class RollingSpectrum {
  static final int MOST_SLOTS = 64;

  private static final class Slot {
    private final double[] power;
    private int segments;

    Slot(int points) {
      power = new double[points];
    }
  }

  private final Detector detector;
  private final int wanted;
  private final int slotSegments;
  private final double[] block;
  private final Deque<Slot> slots = new ArrayDeque<>();
  private Slot spare;
  private int held;

  /**
   * @param points of a spectrum
   * @param wanted number of segments in the average
   */
  public RollingSpectrum(Detector detector, int points, int wanted) {
    this.detector = detector;
    this.wanted = wanted;
    this.slotSegments = (wanted + MOST_SLOTS - 1) / MOST_SLOTS;
    this.block = new double[points];
  }

  /** Adds what an estimator holds and resets the estimator. */
  public void take(SpectrumEstimator estimator) {
    int segments = estimator.segments();
    estimator.powerInto(block);
    estimator.reset();
    Slot newest = slots.peekLast();
    if (newest == null || newest.segments >= slotSegments) {
      newest = spare != null ? spare : new Slot(block.length);
      spare = null;
      newest.segments = 0;
      slots.addLast(newest);
    }
    merge(newest.power, newest.segments, block, segments);
    newest.segments += segments;
    held += segments;
    while (held - slots.peekFirst().segments >= wanted) {
      spare = slots.pollFirst();
      held -= spare.segments;
    }
  }

  /** Number of segments in the average. */
  public int segments() {
    return detector == Detector.SAMPLE ? 1 : held;
  }

  /**
   * Writes the average.
   *
   * @param out one value a point, overwritten
   */
  public void powerInto(double[] out) {
    if (slots.isEmpty()) {
      throw new Refusal("averages", "There is no spectrum yet.");
    }
    int done = 0;
    for (Slot slot : slots) {
      merge(out, done, slot.power, slot.segments);
      done += slot.segments;
    }
  }

  /** Merges {@code more} (of m segments) into {@code sum} (of n segments). */
  private void merge(double[] sum, int n, double[] more, int m) {
    if (n == 0 || detector == Detector.SAMPLE) {
      System.arraycopy(more, 0, sum, 0, sum.length);
      return;
    }
    double a = (double) n / (n + m);
    double b = (double) m / (n + m);
    for (int i = 0; i < sum.length; i++) {
      sum[i] =
          switch (detector) {
            case RMS -> a * sum[i] + b * more[i];
            case LOG_AVERAGE -> Math.exp(a * Math.log(sum[i]) + b * Math.log(more[i]));
            case PEAK -> Math.max(sum[i], more[i]);
            case MINIMUM -> Math.min(sum[i], more[i]);
            case SAMPLE -> more[i];
          };
    }
  }
}
