package rovnik.core.time;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;

/**
 * Follows hops through the slots of one look after the other: what rises over the noise in a
 * channel's width goes on while it is seen within half a channel of where it was.
 */
final class HopTracker {
  /** Standard deviations of noise over its mean, where chance does not come. */
  private static final double SURE = 8;

  /** A hop rises by this at least: 3 dB. */
  private static final double LEAST_RISE = 2;

  /** Beside a stronger one it stands out by this of what lies between: 6 dB. */
  private static final double STANDS_OUT = 4;

  /** It is gone after so many slots without it. */
  private static final double GONE_SLOTS = 2.5;

  /** An edge is spread over so many slots beyond the first that is seen. */
  private static final int EDGE_SLOTS = 3;

  /** Two at a time are so many channels apart at least; one narrow signal fills half a channel. */
  private static final double APART = 0.6;

  private final double leastSeconds;
  private final double channelHz;
  private final double overNoise;
  private final List<Hop> found = new ArrayList<>();
  private final List<Track> active = new ArrayList<>();

  /** One that goes on. */
  private static final class Track {
    double startSeconds;
    boolean begun;
    double hz;
    double weight;
    double power;
    int slots;
    double lastSeconds;

    /** Nearest point to the middle of its power. */
    int point(double firstHz, double stepHz) {
      return (int) Math.rint((hz / weight - firstHz) / stepHz);
    }
  }

  /**
   * @param overNoise power over that of noise at which a hop begins; NaN for as far as chance does
   *     not come
   */
  HopTracker(double leastSeconds, double channelHz, double overNoise) {
    this.leastSeconds = leastSeconds;
    this.channelHz = channelHz;
    this.overNoise = overNoise;
  }

  List<Hop> found() {
    return found;
  }

  /**
   * Goes through the slots of a stretch.
   *
   * @param look number of the look
   * @param startSeconds of its first sample, in the look
   * @param goesOn whether it goes on where the stretch before ended
   * @param firstHz of the first point, from the centre of the record
   * @param stepHz from point to point
   * @param independent points of a channel's width
   */
  void take(
      SlotPowers p,
      int look,
      double startSeconds,
      boolean goesOn,
      double firstHz,
      double stepHz,
      double independent) {
    if (!goesOn) {
      finish(look - 1);
    }
    double noise = p.noise();
    double rise =
        Double.isNaN(overNoise)
            ? Math.max(LEAST_RISE, 1 + SURE * p.noiseScatter(independent))
            : overNoise;
    int near = Math.max(1, (int) Math.round(APART * channelHz / stepHz));
    for (int slot = 0; slot < p.slots; slot++) {
      double t = startSeconds + p.firstSeconds + slot * p.slotSeconds;
      for (int top : tops(p, slot, noise * rise, near)) {
        double at = p.middle(slot, top, noise);
        double hz = firstHz + at * stepHz;
        double power = Math.max(0, p.channel(slot, top, noise));
        Track track = at(hz);
        if (track == null) {
          track = new Track();
          track.begun = slot > 0 || goesOn;
          track.startSeconds = t;
          active.add(track);
        }
        track.hz += power * hz;
        track.weight += power;
        track.power += power;
        track.slots++;
        track.lastSeconds = t + p.slotSeconds;
      }
      end(p, look, t + p.slotSeconds, noise, startSeconds + p.firstSeconds, firstHz, stepHz);
    }
  }

  /** Ends what goes on: the look is over. */
  void finish(int look) {
    for (Track t : active) {
      if (t.lastSeconds - t.startSeconds >= leastSeconds) {
        add(look, t, t.startSeconds, t.lastSeconds, t.power / t.slots, false);
      }
    }
    active.clear();
  }

  private Track at(double hz) {
    for (Track t : active) {
      if (Math.abs(t.hz / t.weight - hz) < channelHz / 2) {
        return t;
      }
    }
    return null;
  }

  private void end(
      SlotPowers p,
      int look,
      double now,
      double noise,
      double firstSeconds,
      double firstHz,
      double stepHz) {
    for (Iterator<Track> i = active.iterator(); i.hasNext(); ) {
      Track t = i.next();
      if (now - t.lastSeconds < GONE_SLOTS * p.slotSeconds) {
        continue;
      }
      i.remove();
      if (t.lastSeconds - t.startSeconds < leastSeconds) {
        continue;
      }
      int first = (int) Math.rint((t.startSeconds - firstSeconds) / p.slotSeconds);
      int last = (int) Math.rint((t.lastSeconds - firstSeconds) / p.slotSeconds) - 1;
      int point = t.point(firstHz, stepHz);
      double mean = steady(p, t, point, Math.max(0, first), last, noise);
      double start = first < EDGE_SLOTS ? t.startSeconds : edge(p, first, -1, point, mean, noise);
      double end =
          last + EDGE_SLOTS >= p.slots
              ? t.lastSeconds
              : edge(p, last, 1, point, mean, noise) + p.slotSeconds;
      start = first < EDGE_SLOTS ? start : firstSeconds + start;
      end = last + EDGE_SLOTS >= p.slots ? end : firstSeconds + end;
      add(look, t, start, end, mean, t.begun);
    }
  }

  /** Mean power without the slots at both ends, which it fills in part. */
  private static double steady(
      SlotPowers p, Track t, int point, int first, int last, double noise) {
    double sum = 0;
    int count = 0;
    for (int slot = first + 2; slot <= Math.min(last - 2, p.slots - 1); slot++) {
      sum += p.channel(slot, point, noise);
      count++;
    }
    return count > 0 ? sum / count : t.power / t.slots;
  }

  /**
   * Where the power begins or ends, from the first slot on: slots around the edge hold so much of
   * it as they are filled.
   *
   * @param step -1 for a beginning, 1 for an end
   * @return seconds from the first slot to where the outermost slot begins that is filled
   */
  private static double edge(
      SlotPowers p, int slot, int step, int point, double mean, double noise) {
    int inside = slot - 2 * step;
    double filled = 0;
    double before = Double.POSITIVE_INFINITY;
    for (int k = 0; k < EDGE_SLOTS + 2; k++) {
      int at = inside + k * step;
      if (at < 0 || at >= p.slots) {
        break;
      }
      double share = p.channel(at, point, noise) / mean;
      // Farther out there is less of it; more is another one.
      if (k > 2 && share > before + 0.2) {
        break;
      }
      filled += share;
      before = share;
    }
    return (inside + step * (filled - 1)) * p.slotSeconds;
  }

  private void add(int look, Track t, double start, double end, double power, boolean whole) {
    found.add(new Hop(look, start, end, t.hz / t.weight, power, whole));
  }

  /** Points of a slot that stand out, at some distance from each other, the strongest first. */
  private static int[] tops(SlotPowers p, int slot, double threshold, int near) {
    int at = slot * p.points;
    List<Integer> tops = new ArrayList<>();
    int i = 0;
    while (i < p.points) {
      if (p.band[at + i] < threshold) {
        i++;
        continue;
      }
      int best = i;
      for (int k = Math.max(0, i - near); k <= Math.min(p.points - 1, i + near); k++) {
        best = p.band[at + k] > p.band[at + best] ? k : best;
      }
      if (best == i && standsOut(p, at, i)) {
        tops.add(plateau(p, at, i, near));
        i += near;
      } else {
        i++;
      }
    }
    return tops.stream().mapToInt(Integer::intValue).toArray();
  }

  /** Middle of the points that have nearly the same: a narrow signal is in many widths at once. */
  private static int plateau(SlotPowers p, int at, int top, int near) {
    float least = 0.8f * p.band[at + top];
    int low = top;
    int high = top;
    while (low > 0 && top - low < near && p.band[at + low - 1] >= least) {
      low--;
    }
    while (high < p.points - 1 && high - top < near && p.band[at + high + 1] >= least) {
      high++;
    }
    return (low + high) / 2;
  }

  private static boolean standsOut(SlotPowers p, int at, int top) {
    float own = p.band[at + top];
    for (int step = -1; step <= 1; step += 2) {
      float low = own;
      for (int i = top + step; i >= 0 && i < p.points; i += step) {
        if (p.band[at + i] > own) {
          if (own < STANDS_OUT * low) {
            return false;
          }
          break;
        }
        low = Math.min(low, p.band[at + i]);
      }
    }
    return true;
  }

  static double median(double[] x) {
    double[] sorted = x.clone();
    Arrays.sort(sorted);
    int n = sorted.length;
    return n == 0 ? Double.NaN : (sorted[(n - 1) / 2] + sorted[n / 2]) / 2;
  }
}
