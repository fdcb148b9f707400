package rovnik.core.modulation.ofdm;

import rovnik.core.spectrum.SpectrumLayout;

/**
 * What a tone whose value is another one in each symbol shows at a distance, in a window of a
 * spectrum: the expectation of a periodogram is the transform of the product of both
 * autocorrelations, a triangle as long as the symbol and that of the window (P. D. Welch, IEEE
 * Trans. AU-15, 1967).
 */
final class ToneDensity {
  /** Of an integral over a symbol, and of the window. */
  private static final int STEPS = 128;

  private static final int WINDOW = 256;

  /** So many tones to each side add up: beyond is less than a percent. */
  private static final int NEAR = 16;

  /** Places between two tones at which it is looked. */
  private static final int PLACES = 4;

  /** Power at the distance of so many places, of a tone of power 1. */
  private final double[] at;

  private ToneDensity(double[] at) {
    this.at = at;
  }

  /**
   * @param rateHz of the transform
   * @param layout of the spectrum
   */
  static ToneDensity of(FramePlan plan, double rateHz, SpectrumLayout layout) {
    double rate = ChannelSamples.TIMES * rateHz;
    double spacing = rate / plan.transform();
    double symbol = symbol(plan) / rate;
    double window = layout.windowLength() / layout.sampleRateHz();
    double longest = Math.min(symbol, window);
    double[] w = layout.window().samples(WINDOW);
    double gain = 0;
    for (double v : w) {
      gain += v / WINDOW;
    }
    double[] at = new double[NEAR * PLACES + 1];
    for (int i = 0; i < STEPS; i++) {
      double tau = (i + 0.5) * longest / STEPS;
      double weight = 2 * (1 - tau / symbol) * overlap(w, tau / window) * longest / STEPS / window;
      weight /= gain * gain;
      // Cosines of multiples of an angle, each from the two before.
      double cos = Math.cos(2 * Math.PI * spacing / PLACES * tau);
      double before = cos;
      double now = 1;
      for (int d = 0; d < at.length; d++) {
        at[d] += weight * now;
        double next = 2 * cos * now - before;
        before = now;
        now = next;
      }
    }
    return new ToneDensity(at);
  }

  /** Samples of a symbol with its guard. */
  private static double symbol(FramePlan plan) {
    int n = plan.data().size();
    return n > 1
        ? plan.data().get(1).at() - plan.data().get(0).at()
        : Math.min(
            1.25 * plan.transform(),
            plan.data().get(0).at() - plan.trainingEnd() + plan.transform());
  }

  /** Of a window with itself, moved by a share of its length. */
  private static double overlap(double[] w, double share) {
    double by = share * w.length;
    int whole = (int) by;
    double part = by - whole;
    double sum = 0;
    for (int i = 0; i + whole < w.length; i++) {
      double next = i + whole + 1 < w.length ? w[i + whole + 1] : 0;
      sum += w[i] * (w[i + whole] + part * (next - w[i + whole]));
    }
    return sum / w.length;
  }

  /** The highest power of all places, of tones of such powers. */
  double highest(int[] tones, double[] power) {
    double highest = 0;
    for (int k = 0; k < tones.length; k++) {
      for (int place = 0; place < PLACES; place++) {
        highest = Math.max(highest, at(tones, power, k, place));
      }
    }
    return highest;
  }

  private double at(int[] tones, double[] power, int k, int place) {
    double sum = 0;
    for (int side : new int[] {-1, 1}) {
      for (int j = side < 0 ? k : k + 1; j >= 0 && j < tones.length; j += side) {
        int away = Math.abs((tones[j] - tones[k]) * PLACES - place);
        if (away >= at.length) {
          break;
        }
        sum += power[j] * at[away];
      }
    }
    return sum;
  }
}
