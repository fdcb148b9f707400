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
  private final float[] factor;
  private final short[] kept;
  private final double threshold;

  /**
   * @param highest power of each point
   * @param factor of each point's power, for its row
   * @param kept rows of the points of all spectra, one spectrum after the other; empty if they were
   *     too many to be kept, so that the spectra are made once more
   * @param noise mean power of noise
   */
  PresenceFinder(
      FrameSpectra spectra, float[] highest, float[] factor, short[] kept, double noise) {
    this.spectra = spectra;
    this.highest = highest;
    this.factor = factor;
    this.kept = kept;
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
    Runs runs = new Runs(points.length);
    if (kept.length > 0) {
      int[] least = new int[points.length];
      for (int p = 0; p < points.length; p++) {
        least[p] = LevelDensity.row((float) (THERE * highest[points[p]] * factor[points[p]]));
      }
      for (int frame = 0; frame < spectra.frames(); frame++) {
        int at = frame * highest.length;
        for (int p = 0; p < points.length; p++) {
          runs.next(p, kept[at + points[p]] >= least[p]);
        }
      }
    } else {
      spectra.each(
          (frame, power) -> {
            for (int p = 0; p < points.length; p++) {
              runs.next(p, power[points[p]] >= THERE * highest[points[p]]);
            }
          });
    }
    List<Presence> out = new ArrayList<>();
    for (int p = 0; p < points.length; p++) {
      out.add(
          new Presence(
              points[p], highest[points[p]], runs.frames[p], runs.runs[p], runs.longest[p]));
    }
    return out;
  }

  /** Counts stretches in which something is there. */
  private static final class Runs {
    final int[] frames;
    final int[] runs;
    final int[] longest;
    private final int[] run;

    Runs(int things) {
      frames = new int[things];
      runs = new int[things];
      longest = new int[things];
      run = new int[things];
    }

    void next(int thing, boolean there) {
      if (there) {
        frames[thing]++;
        run[thing]++;
        runs[thing] += run[thing] == 1 ? 1 : 0;
        longest[thing] = Math.max(longest[thing], run[thing]);
      } else {
        run[thing] = 0;
      }
    }
  }
}
