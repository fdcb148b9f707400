package rovnik.core.time;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * Finds what was there in spectra: points whose highest power chance would not give, that stand out
 * of their neighbours; then goes through the spectra again to see when.
 */
final class PresenceFinder {
  private static final int MOST = 20;

  /** Noise alone rises so high in one result of a thousand. */
  private static final double CHANCE = 1e-3;

  /** A point stands this far over the lowest between it and a higher one: 6 dB. */
  private static final double STANDS_OUT = 4;

  /** It is there while it is no farther below its highest: 6 dB. */
  private static final double THERE = 0.25;

  private final FrameSpectra spectra;
  private final float[] highest;
  private final double threshold;

  /**
   * @param highest power of each point
   * @param noise mean power of noise
   */
  PresenceFinder(FrameSpectra spectra, float[] highest, double noise) {
    this.spectra = spectra;
    this.highest = highest;
    this.threshold = noise * Math.log((double) highest.length * spectra.frames() / CHANCE);
  }

  /** The strongest first. */
  List<Presence> find() {
    List<Integer> found = new ArrayList<>();
    for (int i = 0; i < highest.length; i++) {
      if (highest[i] > threshold && standsOut(i, -1) && standsOut(i, 1)) {
        found.add(i);
      }
    }
    found.sort(Comparator.comparingDouble(i -> -highest[i]));
    return when(found.stream().limit(MOST).mapToInt(i -> i).toArray());
  }

  private boolean standsOut(int point, int step) {
    float low = highest[point];
    for (int i = point + step; i >= 0 && i < highest.length; i += step) {
      if (highest[i] > highest[point] || highest[i] == highest[point] && step < 0) {
        return highest[point] > STANDS_OUT * low;
      }
      low = Math.min(low, highest[i]);
    }
    return true;
  }

  private List<Presence> when(int[] points) {
    if (points.length == 0) {
      return List.of();
    }
    int[] frames = new int[points.length];
    int[] runs = new int[points.length];
    int[] run = new int[points.length];
    int[] longest = new int[points.length];
    spectra.each(
        (frame, power) -> {
          for (int p = 0; p < points.length; p++) {
            if (power[points[p]] >= THERE * highest[points[p]]) {
              frames[p]++;
              run[p]++;
              runs[p] += run[p] == 1 ? 1 : 0;
              longest[p] = Math.max(longest[p], run[p]);
            } else {
              run[p] = 0;
            }
          }
        });
    List<Presence> out = new ArrayList<>();
    for (int p = 0; p < points.length; p++) {
      out.add(new Presence(points[p], highest[points[p]], frames[p], runs[p], longest[p]));
    }
    return out;
  }
}
