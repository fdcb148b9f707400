package rovnik.core.spectrum;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

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

  /** Noise may lift a side lobe by this. */
  private static final double LEAKAGE_MARGIN_DB = 1;

  /** A search whose threshold follows the noise floor of the trace. */
  public static PeakSearch aboveFloor(float[] levelDb, int most) {
    return new PeakSearch(median(levelDb) + DEFAULT_ABOVE_MEDIAN_DB, DEFAULT_EXCURSION_DB, most);
  }

  /**
   * Lines, strongest first. Side lobes that the window itself makes beside stronger lines are left
   * out: a candidate must stand above the sum of their envelopes.
   */
  public List<Peak> find(Trace trace, ToneInterpolator interpolator) {
    List<Peak> candidates = new ArrayList<>();
    for (int top : tops(trace.level())) {
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
      if (candidate.level() > leakageDb(candidate, peaks, trace, interpolator)) {
        peaks.add(candidate);
      }
    }
    return List.copyOf(peaks);
  }

  /** Highest level that the window's side lobes of the stronger lines can reach here. */
  private static double leakageDb(
      Peak candidate, List<Peak> stronger, Trace trace, ToneInterpolator interpolator) {
    double amplitude = 0;
    for (Peak line : stronger) {
      double points = Math.abs(candidate.frequencyHz() - line.frequencyHz()) / trace.stepHz();
      amplitude += Math.pow(10, line.level() / 20) * interpolator.sideLobeEnvelope(points);
    }
    return 20 * Math.log10(amplitude) + LEAKAGE_MARGIN_DB;
  }

  /** Indices of the highest points of all lines, in order of frequency. */
  List<Integer> tops(float[] level) {
    List<Integer> tops = new ArrayList<>();
    double valley = Double.NEGATIVE_INFINITY; // a line may begin at the edge of the trace
    int top = -1;
    for (int i = 0; i < level.length; i++) {
      if (top < 0) {
        if (level[i] >= valley + excursionDb) {
          top = i;
        } else {
          valley = Math.min(valley, level[i]);
        }
      } else if (level[i] > level[top]) {
        top = i;
      } else if (level[i] <= level[top] - excursionDb) {
        if (level[top] >= thresholdDb) {
          tops.add(top);
        }
        top = -1;
        valley = level[i];
      }
    }
    if (top >= 0 && level[top] >= thresholdDb) {
      tops.add(top);
    }
    return tops;
  }

  /** Median of the finite levels: the noise floor of a trace that is mostly noise. */
  public static double median(float[] levelDb) {
    float[] sorted = levelDb.clone();
    Arrays.sort(sorted);
    return sorted[sorted.length / 2];
  }
}
