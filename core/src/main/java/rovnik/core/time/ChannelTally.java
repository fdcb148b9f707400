package rovnik.core.time;

import java.util.Arrays;
import org.hipparchus.distribution.continuous.GammaDistribution;
import org.hipparchus.util.KthSelector;
import rovnik.core.spectrum.SpectrumLayout;

/**
 * Powers of channels over time: each in slots of it, of one look after the other. Powers are of
 * full scale.
 */
final class ChannelTally {
  static final int MOST_SLOTS = 400;

  /** Noise alone makes a used channel in one look of a thousand. */
  private static final double CHANCE = 1e-3;

  /** However long is averaged: what a strong neighbour leaves beside itself is no use. */
  private static final double LEAST_OVER = 4;

  /** What is so far below the strongest at the same time may be of that: 60 dB. */
  private static final double SHADOW = 1e-6;

  /** Of neighbouring windows that overlap by half, so many tell something of their own. */
  private static final double OWN_SHARE = 0.75;

  /** Points that hold nothing but noise are among the quietest of a look. */
  private static final double QUIET = 0.2;

  /** A fifth of all averages of many lie this many standard deviations below their mean. */
  private static final double QUIET_BELOW = 0.84;

  final int channels;
  final int own;

  /** Of all looks: mean of each channel, and of its slots in which it is used. */
  final double[] sum;

  final double[] sumUsed;
  final long[] used;
  final double[] highest;

  /** The same while the own one is used, but where it begins or ends; with squares. */
  final double[] sumWhile;

  final double[] squaresWhile;
  long slots;
  long slotsWhile;
  int looks;
  double seconds;

  /** Of the newest look: mean noise in a channel, what counts as used, powers slot after slot. */
  double noise;

  double threshold;
  float[] newest = new float[0];
  double slotSeconds;

  /** What is shorter is the click of another one that begins or ends, or chance. */
  double shortestUse;

  double firstSeconds;

  /** Independent values that a slot's power is the mean of. */
  double independent;

  private final double overNoise;

  /**
   * @param own place of the own channel among them
   * @param overNoise a used channel is so many times over the noise; NaN to find it
   */
  ChannelTally(int channels, int own, double overNoise) {
    this.channels = channels;
    this.own = own;
    this.overNoise = overNoise;
    this.sum = new double[channels];
    this.sumUsed = new double[channels];
    this.used = new long[channels];
    this.highest = new double[channels];
    this.sumWhile = new double[channels];
    this.squaresWhile = new double[channels];
  }

  /**
   * Takes one look more.
   *
   * @param first middle of the first channel, in points
   * @param step from one to the next, in points
   * @param width of each, in points
   */
  void take(FrameSpectra spectra, double first, double step, double width) {
    SpectrumLayout layout = spectra.layout();
    int perSlot = Math.max(1, (spectra.frames() + MOST_SLOTS - 1) / MOST_SLOTS);
    int count = spectra.frames() / perSlot;
    float[] power = new float[count * channels];
    double[] mean = new double[layout.points()];
    // From power of a tone at a point to power of whatever is in between.
    double scale = layout.stepHz() / layout.enbwHz();
    spectra.each(
        (frame, points) -> {
          for (int i = 0; i < points.length; i++) {
            mean[i] += points[i];
          }
          int slot = frame / perSlot;
          if (slot < count) {
            for (int c = 0; c < channels; c++) {
              double middle = first + c * step;
              power[slot * channels + c] +=
                  (float) (scale / perSlot * sum(points, middle - width / 2, middle + width / 2));
            }
          }
        });
    independent =
        Math.max(1, width * layout.stepHz() / layout.enbwHz()) * Math.max(1, OWN_SHARE * perSlot);
    noise = quiet(mean, spectra.frames()) * scale * width;
    threshold = noise * over(count);
    newest = power;
    slotSeconds = perSlot * spectra.stepSeconds();
    firstSeconds = spectra.seconds(-0.5);
    looks++;
    // A beginning, an end or a click is in two windows that overlap: two slots, or within one.
    int edges = perSlot == 1 ? 2 : 1;
    shortestUse = (edges + 1) * slotSeconds;
    add(power, count, edges);
  }

  /** Sum of what lies between two places, with shares of the points at its ends. */
  private static double sum(float[] points, double from, double to) {
    int a = (int) Math.max(0, Math.floor(from + 0.5));
    int b = (int) Math.min(points.length - 1, Math.floor(to + 0.5));
    double all = 0;
    for (int i = a; i <= b; i++) {
      double share = Math.min(to, i + 0.5) - Math.max(from, i - 0.5);
      all += Math.min(1, share) * points[i];
    }
    return all;
  }

  /** Mean power of noise at a point. */
  private static double quiet(double[] sums, int frames) {
    double[] sorted = Arrays.copyOf(sums, sums.length);
    double low = new KthSelector().select(sorted, null, (int) (QUIET * (sorted.length - 1)));
    double scatter = Math.min(0.5, QUIET_BELOW / Math.sqrt(Math.max(1, OWN_SHARE * frames)));
    return low / frames / (1 - scatter);
  }

  /** How far over the noise nothing comes by chance: powers of noise are Gamma distributed. */
  private double over(int count) {
    if (!Double.isNaN(overNoise)) {
      return overNoise;
    }
    double one = CHANCE / Math.max(1, (double) count * channels);
    double most = new GammaDistribution(independent, 1).inverseCumulativeProbability(1 - one);
    return Math.max(LEAST_OVER, most / independent);
  }

  private void add(float[] power, int count, int edges) {
    boolean[][] on = new boolean[channels][count];
    for (int slot = 0; slot < count; slot++) {
      int at = slot * channels;
      double least = threshold;
      for (int c = 0; c < channels; c++) {
        least = Math.max(least, SHADOW * power[at + c]);
      }
      slots++;
      for (int c = 0; c < channels; c++) {
        double p = power[at + c];
        sum[c] += p;
        highest[c] = Math.max(highest[c], p);
        on[c][slot] = p > least;
      }
    }
    for (int c = 0; c < channels; c++) {
      for (int from = 0; from < count; from++) {
        int to = from;
        while (to < count && on[c][to]) {
          to++;
        }
        if (to - from > edges) {
          use(power, c, from, to);
          if (c == own) {
            whileUsed(power, from + edges, to - edges);
          }
        }
        from = to;
      }
    }
  }

  private void use(float[] power, int channel, int from, int to) {
    used[channel] += to - from;
    for (int slot = from; slot < to; slot++) {
      sumUsed[channel] += power[slot * channels + channel];
    }
  }

  private void whileUsed(float[] power, int from, int to) {
    for (int slot = from; slot < to; slot++) {
      slotsWhile++;
      for (int c = 0; c < channels; c++) {
        double p = power[slot * channels + c];
        sumWhile[c] += p;
        squaresWhile[c] += p * p;
      }
    }
  }

  double mean(int channel) {
    return sum[channel] / slots;
  }

  /** NaN where it never is. */
  double meanUsed(int channel) {
    return sumUsed[channel] / used[channel];
  }

  double share(int channel) {
    return (double) used[channel] / slots;
  }

  /** While the own one is used; over all of the time if it never is. */
  double meanWhile(int channel) {
    return slotsWhile == 0 ? mean(channel) : sumWhile[channel] / slotsWhile;
  }

  /** Standard deviation of that, over it. */
  double scatterWhile(int channel) {
    if (slotsWhile < 2) {
      return 1 / Math.sqrt(independent);
    }
    double mean = meanWhile(channel);
    double variance = Math.max(0, squaresWhile[channel] / slotsWhile - mean * mean);
    return Math.sqrt(variance / (slotsWhile - 1)) / mean;
  }
}
