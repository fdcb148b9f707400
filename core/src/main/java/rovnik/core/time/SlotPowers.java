package rovnik.core.time;

import org.hipparchus.util.KthSelector;

/**
 * Power over time and frequency: spectra averaged over slots of time, and around each point over
 * half the width of a channel, so that neighbours are told apart.
 */
final class SlotPowers {
  private static final int MOST_SAMPLED = 100_000;

  final int slots;
  final int points;
  final double slotSeconds;

  /** Where the first slot begins, from the first sample of the stretch. */
  final double firstSeconds;

  /** Power within half a channel's width around each point, slot after slot, of full scale. */
  final float[] band;

  /** Power of each point, slot after slot. */
  final float[] point;

  /** Points to each side that half a channel's width takes. */
  final int half;

  private final int perSlot;
  private final double scale;

  /**
   * @param perSlot spectra that are averaged
   * @param half points to each side of a channel's middle, for half its width
   */
  SlotPowers(FrameSpectra spectra, int perSlot, int half) {
    this.perSlot = perSlot;
    this.points = spectra.layout().points();
    this.slots = spectra.frames() / perSlot;
    this.half = half;
    this.slotSeconds = perSlot * spectra.stepSeconds();
    this.firstSeconds = spectra.seconds(-0.5);
    this.point = new float[slots * points];
    this.band = new float[slots * points];
    float share = 1f / perSlot;
    spectra.each(
        (frame, power) -> {
          int slot = frame / perSlot;
          if (slot < slots) {
            int at = slot * points;
            for (int i = 0; i < points; i++) {
              point[at + i] += share * power[i];
            }
          }
        });
    // From power of a tone at a point to power of whatever is in between.
    this.scale = spectra.layout().stepHz() / spectra.layout().enbwHz();
    double[] before = new double[points + 1];
    for (int slot = 0; slot < slots; slot++) {
      int at = slot * points;
      for (int i = 0; i < points; i++) {
        before[i + 1] = before[i] + point[at + i];
      }
      for (int i = 0; i < points; i++) {
        int from = Math.max(0, i - half);
        int to = Math.min(points, i + half + 1);
        band[at + i] = (float) (scale * (before[to] - before[from]));
      }
    }
  }

  /** Power of noise in half a channel's width: what half of all lies below. */
  double noise() {
    int every = Math.max(1, band.length / MOST_SAMPLED);
    double[] some = new double[(band.length + every - 1) / every];
    for (int i = 0; i < some.length; i++) {
      some[i] = band[i * every];
    }
    return new KthSelector().select(some, null, some.length / 2);
  }

  /** Power in a channel's width around a point, without that of noise. */
  double channel(int slot, int at, double noise) {
    int from = Math.max(0, at - 2 * half);
    int to = Math.min(points - 1, at + 2 * half);
    double sum = 0;
    for (int i = from; i <= to; i++) {
      sum += point[slot * points + i];
    }
    return scale * sum - noise * (to - from + 1) / (2 * half + 1);
  }

  /** Standard deviation of noise in a channel's width, over its mean. */
  double noiseScatter(double independentPoints) {
    return 1 / Math.sqrt(Math.max(1, independentPoints) * Math.max(1, 0.75 * perSlot));
  }

  /** Middle of the power in a channel's width around a point, in points. */
  double middle(int slot, int at, double noise) {
    double noisePerPoint = noise / (2 * half + 1) / scale;
    double sum = 0;
    double moment = 0;
    for (int i = Math.max(0, at - 2 * half); i <= Math.min(points - 1, at + 2 * half); i++) {
      double p = Math.max(0, point[slot * points + i] - noisePerPoint);
      sum += p;
      moment += p * i;
    }
    return sum > 0 ? moment / sum : at;
  }
}
