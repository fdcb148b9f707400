package rovnik.core.signal;

import java.util.Arrays;
import java.util.function.DoubleUnaryOperator;

/**
 * The spectrum of a stretch of samples, from which a band is found and taken: shifted to 0 Hz,
 * filtered, and at a rate that suits it.
 */
public final class BandTaker {
  /** Steps of a search within one width. */
  private static final int STEPS = 32;

  private final float[] re;
  private final float[] im;
  private final int samples;
  private final double rateHz;
  private final double binHz;

  /** What was taken: samples at a rate of their own, and what they were shifted by. */
  public record Band(float[] re, float[] im, double rateHz, double offsetHz, int samples) {}

  /**
   * @param iq interleaved
   * @param from first sample that counts
   */
  public BandTaker(float[] iq, int from, int samples, double rateHz) {
    int length = Math.max(64, Integer.highestOneBit(2 * samples - 1));
    this.re = new float[length];
    this.im = new float[length];
    this.samples = samples;
    this.rateHz = rateHz;
    this.binHz = rateHz / length;
    for (int i = 0; i < samples; i++) {
      re[i] = iq[2 * (from + i)];
      im[i] = iq[2 * (from + i) + 1];
    }
    Transforms.ofLength(length).forward(re, im);
  }

  /**
   * Where the spectrum fits a shape best, by correlation over frequency.
   *
   * @param shape power over frequency from its middle, the same on both sides
   * @param halfHz how far it reaches to each side
   * @param stepHz of the search; a bin at least
   * @param nearHz where it is looked for, from the centre
   * @param reachHz how far to each side
   */
  public double bestMatchHz(
      DoubleUnaryOperator shape, double halfHz, double stepHz, double nearHz, double reachHz) {
    double step = Math.max(stepHz, binHz);
    int cells = (int) Math.floor(rateHz / 2 / step);
    double[] power = new double[2 * cells + 1];
    int length = re.length;
    for (int k = 0; k < length; k++) {
      double hz = (k <= length / 2 ? k : k - length) * binHz;
      int cell = (int) Math.rint(hz / step) + cells;
      if (cell >= 0 && cell < power.length) {
        power[cell] += re[k] * (double) re[k] + im[k] * (double) im[k];
      }
    }
    int half = (int) Math.ceil(halfHz / step);
    double[] weight = new double[2 * half + 1];
    for (int i = -half; i <= half; i++) {
      weight[i + half] = shape.applyAsDouble(i * step);
    }
    int first = (int) Math.ceil((nearHz - reachHz) / step);
    int last = (int) Math.floor((nearHz + reachHz) / step);
    double[] match = new double[Math.max(1, last - first + 1)];
    int best = 0;
    for (int at = first; at <= last; at++) {
      double sum = 0;
      for (int i = -half; i <= half; i++) {
        int cell = at + i + cells;
        if (cell >= 0 && cell < power.length) {
          sum += power[cell] * weight[i + half];
        }
      }
      match[at - first] = sum;
      if (sum > match[best]) {
        best = at - first;
      }
    }
    double fine = 0;
    if (best > 0 && best < match.length - 1) {
      double curve = match[best - 1] - 2 * match[best] + match[best + 1];
      fine = curve < 0 ? (match[best - 1] - match[best + 1]) / 2 / curve : 0;
    }
    return (first + best + fine) * step;
  }

  /** Samples a second of the record. */
  public double rateHz() {
    return rateHz;
  }

  /** Power within a width around an offset, of all samples' mean. */
  public double powerAround(double offsetHz, double widthHz) {
    int length = re.length;
    double sum = 0;
    int half = (int) Math.rint(widthHz / 2 / binHz);
    int centre = (int) Math.rint(offsetHz / binHz);
    for (int k = centre - half; k <= centre + half; k++) {
      int i = Math.floorMod(k, length);
      sum += re[i] * (double) re[i] + im[i] * (double) im[i];
    }
    return sum / length / samples;
  }

  /**
   * Takes a band.
   *
   * @param offsetHz of its middle; the shift is to the next bin, and told
   * @param halfHz how far it reaches to each side
   * @param leastRateHz of the samples that come out
   * @param response over frequency from the middle, the same on both sides
   */
  public Band take(
      double offsetHz, double halfHz, double leastRateHz, DoubleUnaryOperator response) {
    float[] h = new float[bins(halfHz, leastRateHz)];
    for (int k = 0; k < h.length; k++) {
      h[k] = (float) response.applyAsDouble(k * binHz);
    }
    return take(offsetHz, leastRateHz, h);
  }

  /** Bins from the middle of such a band on, to its end. */
  public int bins(double halfHz, double leastRateHz) {
    return 1 + (int) Math.min(Math.floor(halfHz / binHz), length(leastRateHz) / 2.0 - 1);
  }

  /** From one bin of the spectrum to the next. */
  public double binHz() {
    return binHz;
  }

  private int length(double leastRateHz) {
    int length = 64;
    while (length * binHz < leastRateHz) {
      length *= 2;
    }
    return length;
  }

  /**
   * Takes a band.
   *
   * @param offsetHz of its middle; the shift is to the next bin, and told
   * @param leastRateHz of the samples that come out
   * @param response at each bin from the middle on, as many as {@link #bins} says
   */
  public Band take(double offsetHz, double leastRateHz, float[] response) {
    int length = length(leastRateHz);
    float[] outRe = new float[length];
    float[] outIm = new float[length];
    int centre = (int) Math.rint(offsetHz / binHz);
    int all = re.length;
    int down = Math.min(response.length - 1, all / 2 + centre);
    int up = Math.min(response.length - 1, all / 2 - 1 - centre);
    float scale = 1f / all;
    // The inverse is a forward transform with the parts exchanged, before and after.
    for (int k = Math.max(0, -all / 2 - centre); k <= up; k++) {
      float h = scale * response[k];
      int from = centre + k & (all - 1);
      outRe[k] = h * im[from];
      outIm[k] = h * re[from];
    }
    for (int k = Math.max(1, centre - all / 2 + 1); k <= down; k++) {
      float h = scale * response[k];
      int from = centre - k & (all - 1);
      outRe[length - k] = h * im[from];
      outIm[length - k] = h * re[from];
    }
    Transforms.ofLength(length).forward(outRe, outIm);
    double outRate = length * binHz;
    int count = (int) Math.floor(samples / rateHz * outRate);
    return new Band(outIm, outRe, outRate, centre * binHz, Math.min(count, length));
  }

  /**
   * Where most of the power lies: the middle of power within a width, about where a window of that
   * width holds the most of it.
   *
   * @param nearHz where it is looked for, from the centre
   * @param reachHz how far to each side
   */
  public double middleOfPowerHz(double widthHz, double nearHz, double reachHz) {
    double stepHz = Math.max(widthHz / STEPS, binHz);
    int half = (int) Math.rint(widthHz / 2 / stepHz);
    int side = (int) Math.ceil(reachHz / stepHz) + half;
    double[] power = new double[2 * side + 1];
    for (int k = -re.length / 2; k < re.length / 2; k++) {
      int cell = (int) Math.rint((k * binHz - nearHz) / stepHz) + side;
      if (cell >= 0 && cell < power.length) {
        int i = Math.floorMod(k, re.length);
        power[cell] += re[i] * (double) re[i] + im[i] * (double) im[i];
      }
    }
    double[] sorted = power.clone();
    Arrays.sort(sorted);
    double floor = sorted[sorted.length / 10];
    double sum = 0;
    for (int i = 0; i < 2 * half; i++) {
      sum += power[i];
    }
    int best = half;
    double most = -1;
    for (int at = half; at + half < power.length; at++) {
      sum += power[at + half];
      if (sum > most) {
        most = sum;
        best = at;
      }
      sum -= power[at - half];
    }
    double weight = 0;
    double moment = 0;
    for (int i = best - half; i <= best + half; i++) {
      double p = Math.max(0, power[i] - floor);
      weight += p;
      moment += p * (i - side);
    }
    return nearHz + (weight > 0 ? moment / weight * stepHz : 0);
  }

  /** Spectrum in as many cells as asked for, dB of the whole power, lowest frequency first. */
  public double[] spectrumDb(int cells) {
    double[] out = new double[cells];
    int length = re.length;
    for (int cell = 0; cell < cells; cell++) {
      // The first bins of this cell and of the next; the length is a power of two.
      int from = (int) ((long) cell * length / cells);
      int to = (int) ((cell + 1L) * length / cells);
      double sum = 0;
      for (int i = from; i < to; i++) {
        int k = i + length / 2 & length - 1;
        sum += re[k] * (double) re[k] + im[k] * (double) im[k];
      }
      out[cell] = sum;
    }
    double total = Arrays.stream(out).sum();
    return Arrays.stream(out).map(p -> 10 * Math.log10(p / total + 1e-30)).toArray();
  }
}
