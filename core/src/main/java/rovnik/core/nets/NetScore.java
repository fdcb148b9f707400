package rovnik.core.nets;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.hipparchus.special.Gamma;

/**
 * How a net's events go with the beginnings of bursts.
 *
 * <p>The score is the correlation of the two as trains of instants: pairs at one lag, over the root
 * of bursts times events (1 if each has its partner). A lag counts if that many pairs within its
 * window are less likely than one in a million by chance: the upper tail of a Poisson distribution,
 * times the windows that were tried. The clocks of the two instruments may run apart: windows lean
 * by as much as these may, and the lag is that at the trigger, where both are known to agree.
 *
 * @param event which of the net's events goes best with the bursts
 * @param bursts that could have a partner
 * @param events that could have a partner
 * @param together pairs at this lag
 * @param lag from the event to the burst, seconds; NaN if there is no pair
 * @param lagStandard standard uncertainty of it as pairs scatter, seconds
 * @param drift by which lags grow with time, relative
 * @param driftStandard standard uncertainty of it, NaN where there are too few pairs
 * @param chance probability that chance alone gives as many
 */
record NetScore(
    Activity.Event event,
    int bursts,
    int events,
    int together,
    double lag,
    double lagStandard,
    double drift,
    double driftStandard,
    double chance,
    Relation relation) {
  /** More likely than this by chance is chance. */
  static final double CHANCE = 1e-6;

  /** Less than this share of a correlation is no relation: seven of ten on both sides. */
  static final double LEAST = 0.7;

  /** Nets that fire more often than this share of bursts cannot reach it, whatever their lags. */
  private static final double OFTENER = 1 / (LEAST * LEAST);

  /** A straight line through lags needs so many. */
  private static final int FOR_A_LINE = 4;

  /** More pairs than this are not sorted: a net that fires so often is no cause. */
  private static final int MOST_PAIRS = 200_000;

  /** One burst and one event, at a time within a look. */
  private record Pair(double lag, double at, int burst, int event) {}

  /** Share of bursts and events that are partners, 0 to 1. */
  double score() {
    return bursts == 0 || events == 0 ? 0 : together / Math.sqrt((double) bursts * events);
  }

  /** Bursts without an event of the net. */
  int burstsWithout() {
    return bursts - together;
  }

  /** Events of the net without a burst. */
  int eventsWithout() {
    return events - together;
  }

  /**
   * Of all looks at one net.
   *
   * @param togetherSeconds lags may differ by this much to each side
   * @param coincidentSeconds what comes within this may be the cause
   * @param clocksRelative how far clocks may run apart
   */
  static NetScore of(
      List<NetLook> looks,
      double restSeconds,
      double togetherSeconds,
      double coincidentSeconds,
      double clocksRelative) {
    Search search = new Search(looks, restSeconds, togetherSeconds, clocksRelative);
    NetScore best = none(looks);
    for (Activity.Event e : Activity.Event.values()) {
      NetScore s = search.of(e);
      best = best == null || better(s, best, togetherSeconds) ? s : best;
    }
    return best.judged(coincidentSeconds);
  }

  private static NetScore none(List<NetLook> looks) {
    boolean still = looks.stream().noneMatch(l -> l.net().moves());
    return still
        ? new NetScore(
            Activity.Event.RISING,
            looks.stream().mapToInt(l -> l.bursts().length).sum(),
            0,
            0,
            Double.NaN,
            Double.NaN,
            Double.NaN,
            Double.NaN,
            1,
            Relation.NO_EDGES)
        : null;
  }

  /** The higher score; of those alike, what comes before the burst and nearer to it. */
  private static boolean better(NetScore a, NetScore b, double togetherSeconds) {
    if (Math.abs(a.score() - b.score()) > 0.05) {
      return a.score() > b.score();
    }
    return !Double.isNaN(a.lag)
        && (Double.isNaN(b.lag) || cost(a.lag, togetherSeconds) < cost(b.lag, togetherSeconds));
  }

  private static double cost(double lag, double slack) {
    return lag < -slack ? 2 * -lag : Math.abs(lag);
  }

  private NetScore judged(double coincidentSeconds) {
    if (relation == Relation.NO_EDGES) {
      return this;
    }
    Relation is;
    if (score() < LEAST) {
      is = bursts < FOR_A_LINE ? Relation.OPEN : Relation.UNRELATED;
    } else if (chance > CHANCE) {
      is = Relation.OPEN;
    } else {
      is = Math.abs(lag) <= coincidentSeconds ? Relation.COINCIDENT : Relation.IN_STEP;
    }
    return new NetScore(
        event, bursts, events, together, lag, lagStandard, drift, driftStandard, chance, is);
  }

  /** Looks for the lag that most pairs have. */
  private static final class Search {
    private final List<NetLook> looks;
    private final double restSeconds;
    private final double together;
    private final double furthest;
    private final double[] leans;
    private final double seconds;

    Search(List<NetLook> looks, double restSeconds, double together, double clocksRelative) {
      this.looks = looks;
      this.restSeconds = restSeconds;
      this.together = together;
      double longest = looks.stream().mapToDouble(NetLook::seconds).max().orElse(0);
      this.seconds = looks.stream().mapToDouble(NetLook::seconds).sum();
      this.furthest = Math.max(4 * together, medianInterval(longest) / 2);
      int steps = (int) Math.ceil(clocksRelative * longest / together);
      this.leans =
          IntStream.rangeClosed(-steps, steps)
              .mapToDouble(k -> steps == 0 ? 0 : k * clocksRelative / steps)
              .toArray();
    }

    private double medianInterval(double longest) {
      double[] all =
          looks.stream()
              .flatMapToDouble(
                  l ->
                      IntStream.range(1, l.bursts().length)
                          .mapToDouble(i -> l.bursts()[i] - l.bursts()[i - 1]))
              .sorted()
              .toArray();
      return all.length == 0 ? longest / 4 : all[all.length / 2];
    }

    NetScore of(Activity.Event event) {
      Pair[] pairs = pairs(event);
      int[] here = countAt(event, 0);
      if (pairs.length == 0 || here[1] > OFTENER * here[0] + 2) {
        int most = pairs.length > MOST_PAIRS ? 0 : window(pairs, 0).length;
        return new NetScore(
            event,
            here[0],
            here[1],
            Math.min(most, here[0]),
            Double.NaN,
            Double.NaN,
            Double.NaN,
            Double.NaN,
            1,
            Relation.UNRELATED);
      }
      Pair[] best = {};
      for (double lean : leans) {
        Pair[] found = window(pairs, lean);
        boolean more = found.length > best.length;
        boolean closer =
            found.length == best.length && new Line(found).scatter() < new Line(best).scatter();
        best = more || closer ? found : best;
      }
      Line line = new Line(best);
      Pair[] near = along(pairs, line);
      if (near.length >= best.length) {
        best = near;
        line = new Line(best);
      }
      int[] could = countAt(event, line.lag());
      int m = Math.min(best.length, Math.min(could[0], could[1]));
      double mean = (double) here[0] * here[1] / seconds * 2 * together;
      double windows =
          Math.max(1, furthest / together) * leans.length * Activity.Event.values().length;
      double chance = m == 0 ? 1 : Math.min(1, windows * Gamma.regularizedGammaP(m, mean));
      return new NetScore(
          event,
          could[0],
          could[1],
          m,
          line.lag(),
          line.lagStandard(),
          line.drift(),
          line.driftStandard(),
          chance,
          Relation.UNRELATED);
    }

    /** All pairs that are not farther apart than half the way to the next burst. */
    private Pair[] pairs(Activity.Event event) {
      List<Pair> out = new ArrayList<>();
      int burst = 0;
      int before = 0;
      for (NetLook l : looks) {
        double[] at = l.net().at(event);
        int from = 0;
        for (double b : l.bursts()) {
          while (from < at.length && at[from] < b - furthest) {
            from++;
          }
          for (int i = from; i < at.length && at[i] <= b + furthest; i++) {
            out.add(new Pair(b - at[i], b, burst, before + i));
          }
          burst++;
        }
        before += at.length;
      }
      return out.toArray(Pair[]::new);
    }

    /** Bursts and events whose partner at a lag would lie where it could be seen. */
    private int[] countAt(Activity.Event event, double lag) {
      int[] out = new int[2];
      for (NetLook l : looks) {
        double from = Math.max(l.fromSeconds(), l.net().fromSeconds() + restSeconds);
        double to = Math.min(l.toSeconds(), l.net().toSeconds() - restSeconds);
        for (double b : l.bursts()) {
          out[0] += b - lag >= from && b - lag <= to ? 1 : 0;
        }
        for (double e : l.net().at(event)) {
          out[1] +=
              e >= from && e <= to && e + lag >= l.fromSeconds() && e + lag <= l.toSeconds()
                  ? 1
                  : 0;
        }
      }
      return out;
    }

    /** The most pairs whose lags differ no further, each burst and each event once. */
    private Pair[] window(Pair[] pairs, double lean) {
      Pair[] sorted = pairs.clone();
      Arrays.sort(
          sorted, (a, b) -> Double.compare(a.lag() - lean * a.at(), b.lag() - lean * b.at()));
      int bestFrom = 0;
      int bestTo = 0;
      int from = 0;
      for (int to = 1; to <= sorted.length; to++) {
        Pair last = sorted[to - 1];
        while (last.lag() - lean * last.at() - (sorted[from].lag() - lean * sorted[from].at())
            > 2 * together) {
          from++;
        }
        if (to - from > bestTo - bestFrom) {
          bestFrom = from;
          bestTo = to;
        }
      }
      return once(Arrays.copyOfRange(sorted, bestFrom, bestTo), Double.NaN, lean);
    }

    /** Pairs along a line, each burst and each event once: the nearest. */
    private Pair[] along(Pair[] pairs, Line line) {
      Pair[] near =
          Arrays.stream(pairs)
              .filter(p -> Math.abs(p.lag() - line.at(p.at())) <= together)
              .toArray(Pair[]::new);
      return once(near, line.lag(), line.drift());
    }

    private static Pair[] once(Pair[] pairs, double lag, double lean) {
      double middle =
          !Double.isNaN(lag)
              ? lag
              : Arrays.stream(pairs).mapToDouble(p -> p.lag() - lean * p.at()).average().orElse(0);
      Map<Integer, Pair> ofBurst = new HashMap<>();
      for (Pair p : pairs) {
        ofBurst.merge(p.burst(), p, (a, b) -> off(a, middle, lean) <= off(b, middle, lean) ? a : b);
      }
      Map<Integer, Pair> ofEvent = new HashMap<>();
      for (Pair p : ofBurst.values()) {
        ofEvent.merge(p.event(), p, (a, b) -> off(a, middle, lean) <= off(b, middle, lean) ? a : b);
      }
      return ofEvent.values().toArray(Pair[]::new);
    }

    private static double off(Pair p, double middle, double lean) {
      return Math.abs(p.lag() - lean * p.at() - middle);
    }
  }

  /** A straight line through lags over time, by least squares; too few have one without slope. */
  private static final class Line {
    private final double lag;
    private final double drift;
    private final double scatter;
    private final double lagStandard;
    private final double driftStandard;

    Line(Pair[] pairs) {
      int n = pairs.length;
      double mean = Arrays.stream(pairs).mapToDouble(Pair::lag).average().orElse(Double.NaN);
      double middle = Arrays.stream(pairs).mapToDouble(Pair::at).average().orElse(0);
      double moment = 0;
      double square = 0;
      for (Pair p : pairs) {
        moment += (p.at() - middle) * (p.lag() - mean);
        square += (p.at() - middle) * (p.at() - middle);
      }
      boolean leans = n >= FOR_A_LINE && square > 0;
      drift = leans ? moment / square : 0;
      lag = mean - drift * middle;
      double rest = 0;
      for (Pair p : pairs) {
        double off = p.lag() - at(p.at());
        rest += off * off;
      }
      int free = n - (leans ? 2 : 1);
      // Of few the scatter is not known well (JCGM 101:2008, 6.4.9.4).
      double few = free > 2 ? Math.sqrt(free / (free - 2.0)) : 3;
      scatter = free > 0 ? few * Math.sqrt(rest / free) : Double.POSITIVE_INFINITY;
      driftStandard = leans ? scatter / Math.sqrt(square) : Double.NaN;
      lagStandard =
          n == 0
              ? Double.NaN
              : scatter * Math.sqrt(1.0 / n + (leans ? middle * middle / square : 0));
    }

    double at(double seconds) {
      return lag + drift * seconds;
    }

    double lag() {
      return lag;
    }

    double drift() {
      return drift;
    }

    double scatter() {
      return scatter;
    }

    double lagStandard() {
      return lagStandard;
    }

    double driftStandard() {
      return driftStandard;
    }
  }
}
