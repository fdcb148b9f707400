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
  private final double[] logs;
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
    this.logs = new double[detector == Detector.LOG_AVERAGE ? points : 0];
  }

  /** Adds what an estimator holds and resets the estimator. */
  public void take(SpectrumEstimator estimator) {
    int segments = estimator.segments();
    estimator.powerInto(block);
    estimator.reset();
    take(block, segments);
  }

  /**
   * Adds one spectrum.
   *
   * @param power linear, not changed
   * @param segments that it is the average of
   */
  public void take(double[] power, int segments) {
    Slot newest = slots.peekLast();
    if (newest == null || newest.segments >= slotSegments) {
      newest = spare != null ? spare : new Slot(block.length);
      spare = null;
      newest.segments = 0;
      slots.addLast(newest);
    }
    merge(newest.power, newest.segments, held(power), segments);
    newest.segments += segments;
    held += segments;
    while (held - slots.peekFirst().segments >= wanted) {
      spare = slots.pollFirst();
      held -= spare.segments;
    }
  }

  /** Slots hold logarithms where those are averaged: the logarithm is taken once a spectrum. */
  private double[] held(double[] power) {
    if (detector != Detector.LOG_AVERAGE) {
      return power;
    }
    for (int i = 0; i < logs.length; i++) {
      logs[i] = Math.log(power[i]);
    }
    return logs;
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
    if (detector == Detector.LOG_AVERAGE) {
      for (int i = 0; i < logs.length; i++) {
        out[i] = Math.exp(out[i]);
      }
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
    switch (detector) {
      case PEAK -> {
        for (int i = 0; i < sum.length; i++) {
          sum[i] = Math.max(sum[i], more[i]);
        }
      }
      case MINIMUM -> {
        for (int i = 0; i < sum.length; i++) {
          sum[i] = Math.min(sum[i], more[i]);
        }
      }
      default -> {
        for (int i = 0; i < sum.length; i++) {
          sum[i] = a * sum[i] + b * more[i];
        }
      }
    }
  }
}
