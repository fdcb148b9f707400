package rovnik.core.spectrum;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import rovnik.core.units.Decibels;

/**
 * Finds the lines of a trace: local maxima above a threshold that stand out from the lowest point
 * on both sides by an excursion. One pass over the trace.
 *
 * @param thresholdDb lowest level that counts, in the trace's unit
 * @param excursionDb how far the trace must fall on both sides, positive dB
 * @param most how many lines to return
 */
public record PeakSearch(double thresholdDb, double excursionDb, int most) {

  /** How far above the median of the trace a line must stand to be found by default. */
  public static final double DEFAULT_ABOVE_MEDIAN_DB = 12;

  public static final double DEFAULT_EXCURSION_DB = 6;

  /**
   * Lines, strongest first. Side lobes that the window itself makes beside stronger lines are left
   * out: a candidate must stand above the sum of their envelopes.
   */
  public List<Peak> find(Trace trace, ToneInterpolator interpolator) {
    return find(trace, interpolator, List.of());
  }

  /**
   * The same with lines beside the trace, whose skirts and side lobes reach in.
   *
   * @param outside at the trace's plane
   */
  public List<Peak> find(Trace trace, ToneInterpolator interpolator, List<Peak> outside) {
    int[] tops = tops(trace.level());
    List<Peak> candidates = new ArrayList<>();
    for (int top : strongest(tops, trace.level())) {
      double offset = interpolator.offsetPoints(trace.level(), top);
      candidates.add(
          new Peak(
              trace.startHz() + (top + offset) * trace.stepHz(),
              trace.level()[top] + interpolator.lossDb(offset)));
    }
    candidates.sort(Comparator.comparingDouble(Peak::level).reversed());
    List<Peak> peaks = new ArrayList<>();
    for (Peak candidate : candidates) {
      if (peaks.size() == most) {
        break;
      }
      double leakage = leakageDb(candidate, peaks, outside, trace, interpolator);
      if (candidate.level() > leakage + interpolator.leakageMarginDb()
          && beyond(candidate.level(), leakage) >= thresholdDb) {
        peaks.add(candidate);
      }
    }
    return List.copyOf(peaks);
  }

  /** Highest level that the window's side lobes of the stronger lines can reach here. */
  private static double leakageDb(
      Peak candidate,
      List<Peak> stronger,
      List<Peak> outside,
      Trace trace,
      ToneInterpolator interpolator) {
    double amplitude = 0;
    for (Peak line : outside) {
      double points = Math.abs(candidate.frequencyHz() - line.frequencyHz()) / trace.stepHz();
      amplitude += Math.pow(10, line.level() / 20) * interpolator.reachesTo(points);
    }
    for (Peak line : stronger) {
      double points = Math.abs(candidate.frequencyHz() - line.frequencyHz()) / trace.stepHz();
      amplitude += Math.pow(10, line.level() / 20) * interpolator.sideLobeEnvelope(points);
    }
    return 20 * Math.log10(amplitude);
  }

  /** What a line has beyond the leakage at its place: that much must stand above the noise. */
  private static double beyond(double level, double leakage) {
    return level
        + Decibels.fromPowerRatio(Math.max(1e-9, 1 - Decibels.toPowerRatio(leakage - level)));
  }

  /** The highest of the tops: enough to fill the table after side lobes are left out. */
  private int[] strongest(int[] tops, float[] level) {
    int enough = 4 * most;
    if (tops.length <= enough) {
      return tops;
    }
    float[] levels = new float[tops.length];
    for (int i = 0; i < tops.length; i++) {
      levels[i] = level[tops[i]];
    }
    Arrays.sort(levels);
    float wall = levels[tops.length - enough];
    return Arrays.stream(tops).filter(t -> level[t] >= wall).toArray();
  }

  /** Indices of the highest points of all lines, in order of frequency. */
  int[] tops(float[] level) {
    int[] tops = new int[64];
    int count = 0;
    float excursion = (float) excursionDb;
    float valley = Float.NEGATIVE_INFINITY; // a line may begin at the edge of the trace
    int top = -1;
    float highest = 0;
    for (int i = 0; i < level.length; i++) {
      float v = level[i];
      if (top < 0) {
        if (v >= valley + excursion) {
          top = i;
          highest = v;
        } else {
          valley = Math.min(valley, v);
        }
      } else if (v > highest) {
        top = i;
        highest = v;
      } else if (v <= highest - excursion) {
        if (highest >= thresholdDb) {
          if (count == tops.length) {
            tops = Arrays.copyOf(tops, 2 * count);
          }
          tops[count++] = top;
        }
        top = -1;
        valley = v;
      }
    }
    if (top >= 0 && highest >= thresholdDb) {
      tops = Arrays.copyOf(tops, count + 1);
      tops[count++] = top;
    }
    return Arrays.copyOf(tops, count);
  }

  /** Median of the levels: the noise floor of a trace that is mostly noise. */
  public static double median(float[] levelDb) {
    return LevelHistogram.median(levelDb);
  }
}
