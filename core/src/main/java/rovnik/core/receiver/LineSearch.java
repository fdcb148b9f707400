package rovnik.core.receiver;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.hipparchus.distribution.continuous.TDistribution;
import rovnik.core.Refusal;
import rovnik.core.modulation.analysis.BitErrorRatio;

/**
 * Seeks the level at which a quality is a stated one: in wide steps until it is passed, halfway
 * between, then to both sides of the place, where a straight line is fitted. Levels are those of
 * the wanted signal, which make it better, or of another that disturbs, which make it worse.
 */
public final class LineSearch implements LevelSearch {
  private static final double WIDE_DB = 6;
  private static final double CLOSE_DB = 1.6;

  /** Looks are so far to either side. */
  private static final double ASIDE_DB = 0.6;

  /** And only those so near are taken for a straight line. */
  private static final double NEAR_DB = 1.3;

  private static final int LEAST = 6;

  /** Quality rises by this at least with each dB. */
  private static final double LEAST_SLOPE = 0.1;

  /** Places rise as the quality does; they are levels, or levels of what disturbs turned over. */
  private record Seen(double place, double value) {}

  private final Criterion criterion;
  private final double target;
  private final int sign;
  private final double lowest;
  private final double highest;
  private final double wantedDb;
  private final double seconds;
  private final List<Seen> seen = new ArrayList<>();
  private double place;
  private double good = Double.NaN;
  private double bad = Double.NaN;
  private boolean close;
  private int turn;
  private LevelEstimate estimate = LevelEstimate.NONE;

  /**
   * @param seconds of one look
   * @param startDbm a level at which it is surely good
   * @param wantedDb done when the answer is known to plus or minus this (k = 2)
   * @param disturbs true if the level is that of a signal that disturbs
   */
  public LineSearch(
      Criterion criterion,
      double seconds,
      double startDbm,
      double lowestDbm,
      double highestDbm,
      double wantedDb,
      boolean disturbs) {
    if (!(wantedDb >= 0.02 && wantedDb <= 3)) {
      throw new Refusal("wantedDb", "It is sought to plus or minus 0.02 to 3 dB.");
    }
    this.criterion = criterion;
    this.target = criterion.targetValue();
    this.sign = disturbs ? -1 : 1;
    this.seconds = seconds;
    this.lowest = disturbs ? -highestDbm : lowestDbm;
    this.highest = disturbs ? -lowestDbm : highestDbm;
    this.wantedDb = wantedDb;
    this.place = Math.max(lowest, Math.min(highest, sign * startDbm));
  }

  @Override
  public Optional<Step> next() {
    if (!close) {
      return Optional.of(new Step(sign * place, seconds));
    }
    if (estimate.known() && 2 * estimate.standardDb() <= wantedDb) {
      return Optional.empty();
    }
    double at = middle() + ((turn & 1) == 0 ? ASIDE_DB : -ASIDE_DB);
    return Optional.of(
        new Step(sign * Math.rint(100 * Math.max(lowest, Math.min(highest, at))) / 100, seconds));
  }

  private double middle() {
    return estimate.known() ? sign * estimate.dbm() : (good + bad) / 2;
  }

  @Override
  public void add(double dbm, Quality q) {
    double value = criterion.valueOf(q);
    double at = sign * dbm;
    seen.add(new Seen(at, value));
    if (close) {
      turn++;
      refit();
      return;
    }
    boolean enough = value >= target;
    if (enough) {
      good = Double.isNaN(good) ? at : Math.min(good, at);
    } else {
      bad = Double.isNaN(bad) ? at : Math.max(bad, at);
    }
    refuseEnds(dbm, enough, q);
    if (Double.isNaN(bad)) {
      place = Math.max(lowest, at - WIDE_DB);
    } else if (Double.isNaN(good) || good <= bad) {
      place = Math.min(highest, bad + WIDE_DB);
    } else {
      place = (good + bad) / 2;
      close = good - bad <= CLOSE_DB;
    }
  }

  private void refuseEnds(double dbm, boolean enough, Quality q) {
    boolean lowEnd = enough && sign * dbm <= lowest + 1e-6;
    boolean highEnd = !enough && sign * dbm >= highest - 1e-6;
    if (!lowEnd && !highEnd) {
      return;
    }
    String so = String.format(Locale.ROOT, "Even at %.1f dBm ", dbm) + criterion.seen(q);
    String advice =
        sign < 0
            ? lowEnd
                ? ", and the other generator goes no higher here. It is better than can be told."
                : ", and the other generator goes no lower here. Raise the wanted signal."
            : lowEnd
                ? ", and the generator goes no lower here. Add a pad."
                : ". See that the generator sends what the receiver expects, on its frequency, and"
                    + " that no squelch mutes it.";
    throw new Refusal("fromDbm", so + advice);
  }

  private void refit() {
    double middle = middle();
    List<Seen> near = seen.stream().filter(s -> Math.abs(s.place() - middle) < NEAR_DB).toList();
    int n = near.size();
    if (n < LEAST) {
      return;
    }
    double x = near.stream().mapToDouble(Seen::place).average().orElse(0);
    double y = near.stream().mapToDouble(Seen::value).average().orElse(0);
    double xx = near.stream().mapToDouble(s -> (s.place() - x) * (s.place() - x)).sum();
    double xy = near.stream().mapToDouble(s -> (s.place() - x) * (s.value() - y)).sum();
    double slope = xy / xx;
    if (!(slope > LEAST_SLOPE)) {
      return; // nothing but chance so far
    }
    double at = x + (target - y) / slope;
    double left =
        near.stream().mapToDouble(s -> Math.pow(s.value() - y - slope * (s.place() - x), 2)).sum();
    double standard =
        Math.sqrt(left / (n - 2)) / slope * Math.sqrt(1.0 / n + (at - x) * (at - x) / xx);
    // Few looks say little about their own scatter.
    double t =
        new TDistribution(n - 2.0).inverseCumulativeProbability((1 + BitErrorRatio.CONFIDENCE) / 2)
            / 2;
    estimate = new LevelEstimate(sign * at, t * standard);
  }

  @Override
  public LevelEstimate estimate() {
    return estimate;
  }

  @Override
  public double secondsLeft() {
    if (!estimate.known()) {
      return Double.NaN;
    }
    double share = 2 * estimate.standardDb() / wantedDb;
    long looks = seen.size();
    return Math.max(0, (share * share - 1) * looks * seconds);
  }
}
