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

  /** At the end of a look it is gone after so many. */
  private static final double ENDED_SLOTS = 1.5;

  /** An edge is spread over so many slots beyond the first that is seen. */
  private static final int EDGE_SLOTS = 3;

  /** Two at a time are so many channels apart at least; one narrow signal fills half a channel. */
  private static final double APART = 0.6;

  private final double leastSeconds;
  private final double channelHz;
  private final double overNoise;
  private final List<Hop> found = new ArrayList<>();
  private final List<Track> active = new ArrayList<>();
  private Stretch newest;

  /**
   * Slots that go on in each other.
   *
   * @param firstSeconds where the first begins, in the look
   * @param noise in a channel's width, of full scale
   * @param firstHz of the first point, from the centre of the record
   * @param stepHz from point to point
   */
  private record Stretch(
      SlotPowers powers, double firstSeconds, double noise, double firstHz, double stepHz) {
    double seconds(double slot) {
      return firstSeconds + slot * powers.slotSeconds;
    }

    int slot(double seconds) {
      return (int) Math.rint((seconds - firstSeconds) / powers.slotSeconds);
    }
  }

  /**
   * Power of the slots around an edge, from inside to outside: it tells how far they are filled.
   *
   * @param insideSeconds where the first of them begins
   */
  private record Edge(double insideSeconds, double slotSeconds, double[] power) {
    /** Slots inside of the first that is seen, which are filled. */
    static final int INSIDE = 2;

    /**
     * @param slot first or last that is seen
     * @param step -1 for a beginning, 1 for an end
     */
    static Edge of(Stretch in, int slot, int step, int point) {
      SlotPowers p = in.powers();
      double[] power = new double[INSIDE + EDGE_SLOTS];
      for (int k = 0; k < power.length; k++) {
        int at = slot + (k - INSIDE) * step;
        power[k] = at < 0 || at >= p.slots ? Double.NaN : p.channel(at, point, in.noise());
      }
      return new Edge(in.seconds(slot - INSIDE * step), p.slotSeconds, power);
    }

    /** Slots that it fills, from the innermost on, where a full one has this power. */
    private double filled(double full) {
      double sum = 0;
      double before = Double.POSITIVE_INFINITY;
      for (int k = 0; k < power.length; k++) {
        // In the stretch before or to come: it is there, or nothing is known.
        double share = !Double.isNaN(power[k]) ? power[k] / full : k < INSIDE ? 1 : 0;
        // Farther out there is less of it; more is another one.
        if (k > INSIDE && share > before + 0.2) {
          break;
        }
        sum += share;
        before = share;
      }
      return sum;
    }

    double beginning(double full) {
      return insideSeconds - (filled(full) - 1) * slotSeconds;
    }

    double end(double full) {
      return insideSeconds + filled(full) * slotSeconds;
    }
  }

  /** One that goes on. */
  private static final class Track {
    double startSeconds;
    boolean begun;

    /** How its beginning is filled, kept until its power is known; null before. */
    Edge start;

    double hz;
    double weight;
    double power;
    int slots;
    double lastSeconds;

    /** Where it began, finer than a slot; what was there from the first one on has no start. */
    double beginning(double full) {
      return begun ? start.beginning(full) : startSeconds;
    }

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
    Stretch in = new Stretch(p, startSeconds + p.firstSeconds, noise, firstHz, stepHz);
    newest = in;
    for (int slot = 0; slot < p.slots; slot++) {
      double t = in.seconds(slot);
      for (int top : tops(p, slot, noise * rise, near)) {
        double at = p.middle(slot, top, noise);
        double hz = firstHz + at * stepHz;
        double power = Math.max(0, p.channel(slot, top, noise));
        Track track = at(hz);
        if (track == null) {
          track = new Track();
          // Between two stretches a part of a slot is not seen: it may have begun there.
          track.begun = slot > 0;
          track.startSeconds = t;
          active.add(track);
        }
        track.hz += power * hz;
        track.weight += power;
        track.power += power;
        track.slots++;
        track.lastSeconds = t + p.slotSeconds;
      }
      end(in, look, slot + 1, GONE_SLOTS);
    }
    // Where it began is in these slots, and not in those to come.
    active.forEach(x -> start(in, x));
  }

  /** Ends what goes on: the look is over. */
  void finish(int look) {
    if (newest != null) {
      end(newest, look, newest.powers().slots, ENDED_SLOTS);
    }
    for (Track t : active) {
      if (t.lastSeconds - t.startSeconds >= leastSeconds) {
        double mean = steady(newest, t, t.point(newest.firstHz(), newest.stepHz()));
        add(look, t, t.beginning(mean), t.lastSeconds, mean, false);
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

  /** Takes those as ended that were not seen for some slots before this one. */
  private void end(Stretch in, int look, int slot, double gone) {
    SlotPowers p = in.powers();
    for (Iterator<Track> i = active.iterator(); i.hasNext(); ) {
      Track t = i.next();
      if (in.seconds(slot) - t.lastSeconds < gone * p.slotSeconds) {
        continue;
      }
      i.remove();
      if (t.lastSeconds - t.startSeconds < leastSeconds) {
        continue;
      }
      start(in, t);
      int point = t.point(in.firstHz(), in.stepHz());
      double mean = steady(in, t, point);
      Edge end = Edge.of(in, in.slot(t.lastSeconds) - 1, 1, point);
      boolean seenToEnd = t.lastSeconds > in.firstSeconds();
      add(look, t, t.beginning(mean), end.end(mean), mean, t.begun && seenToEnd);
    }
  }

  /** Keeps how its beginning is filled, once. */
  private static void start(Stretch in, Track t) {
    if (t.start == null) {
      t.start = Edge.of(in, in.slot(t.startSeconds), -1, t.point(in.firstHz(), in.stepHz()));
    }
  }

  /** Mean power without the slots at both ends, which it fills in part. */
  private static double steady(Stretch in, Track t, int point) {
    SlotPowers p = in.powers();
    int first = Math.max(0, in.slot(t.startSeconds));
    int last = in.slot(t.lastSeconds) - 1;
    double sum = 0;
    int count = 0;
    for (int slot = first + 2; slot <= Math.min(last - 2, p.slots - 1); slot++) {
      sum += p.channel(slot, point, in.noise());
      count++;
    }
    return count > 0 ? sum / count : t.power / t.slots;
  }

  private void add(int look, Track t, double start, double end, double power, boolean whole) {
    found.add(new Hop(look, start, end, t.hz / t.weight, power, t.begun, whole));
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
