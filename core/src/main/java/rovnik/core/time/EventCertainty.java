package rovnik.core.time;

import rovnik.core.signal.Window;

/**
 * What is certain to be seen by spectra one after the other, without gaps between their samples.
 *
 * <p>A spectrum shows an event at its full level if the event is there for all of its window. One
 * that lasts a window and a step from one window to the next holds a whole window wherever it
 * begins. A shorter one is there for a part of the window only: a tone then reads lower by the
 * share of the window's sum that it covers, in the window that covers it best.
 */
public final class EventCertainty {
  private final double sampleRateHz;
  private final int length;
  private final int hop;

  /** Sum of the window before each sample, of its whole sum. */
  private final double[] before;

  /**
   * @param length of the window, in samples
   * @param hop samples from the beginning of one to that of the next, at most the length
   */
  public EventCertainty(double sampleRateHz, Window window, int length, int hop) {
    this.sampleRateHz = sampleRateHz;
    this.length = length;
    this.hop = hop;
    this.before = new double[length + 1];
    double[] w = window.samples(length);
    for (int n = 0; n < length; n++) {
      before[n + 1] = before[n] + w[n];
    }
    for (int n = 0; n <= length; n++) {
      before[n] /= before[length];
    }
  }

  /** The shortest event that is caught at its full level wherever it begins. */
  public double fullSeconds() {
    return (length + hop) / sampleRateHz;
  }

  /**
   * How far an event may read below its level, where it begins worst; infinite if it may be missed.
   */
  public double lossDb(double seconds) {
    int samples = (int) Math.floor(seconds * sampleRateHz);
    if (samples >= length + hop - 1) {
      return 0;
    }
    double worst = Double.POSITIVE_INFINITY;
    for (int start = 0; start < hop; start++) {
      worst = Math.min(worst, best(start, samples));
    }
    return worst > 0 ? -20 * Math.log10(worst) : Double.POSITIVE_INFINITY;
  }

  /** What the best of all windows covers of an event that begins so many samples after one does. */
  private double best(int start, int samples) {
    double most = 0;
    int first = -(int) Math.ceil((double) length / hop);
    for (int k = first; k * hop < start + samples; k++) {
      int from = Math.max(0, Math.min(length, start - k * hop));
      int to = Math.max(0, Math.min(length, start - k * hop + samples));
      most = Math.max(most, before[to] - before[from]);
    }
    return most;
  }

  /**
   * The shortest event that never reads lower than by so much.
   *
   * @param lossDb more than 0
   */
  public double secondsAt(double lossDb) {
    int low = 0;
    int high = length + hop;
    while (high - low > 1) {
      int middle = (low + high) / 2;
      if (lossDb(middle / sampleRateHz) <= lossDb) {
        high = middle;
      } else {
        low = middle;
      }
    }
    return high / sampleRateHz;
  }
}
