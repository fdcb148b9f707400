package rovnik.core.receiver;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.hipparchus.distribution.continuous.TDistribution;
import rovnik.core.Refusal;
import rovnik.core.modulation.analysis.BitErrorRatio;

/**
 * Seeks the level at which SINAD is a stated one: down in wide steps, halfway between, then to both
 * sides of the place, where a straight line is fitted.
 */
public final class SinadSearch implements LevelSearch {
  private static final double WIDE_DB = 6;
  private static final double CLOSE_DB = 1.6;

  /** Looks are so far to either side. */
  private static final double ASIDE_DB = 0.6;

  /** And only those so near are taken for a straight line. */
  private static final double NEAR_DB = 1.3;

  private static final int LEAST = 6;

  /** SINAD rises by this at least with each dB. */
  private static final double LEAST_SLOPE = 0.1;

  private record Seen(double dbm, double sinadDb) {}

  private final double target;
  private final double lowestDbm;
  private final double highestDbm;
  private final double wantedDb;
  private final double seconds;
  private final List<Seen> seen = new ArrayList<>();
  private double level;
  private double good = Double.NaN;
  private double bad = Double.NaN;
  private boolean close;
  private int turn;
  private LevelEstimate estimate = LevelEstimate.NONE;

  /**
   * @param target SINAD in dB
   * @param seconds of one look
   * @param wantedDb done when the answer is known to plus or minus this (k = 2)
   */
  public SinadSearch(
      double target,
      double seconds,
      double startDbm,
      double lowestDbm,
      double highestDbm,
      double wantedDb) {
    if (!(target >= 3 && target <= 40)) {
      throw new Refusal("target", "SINAD to look for is 3 to 40 dB; 12 dB and 20 dB are common.");
    }
    if (!(wantedDb >= 0.02 && wantedDb <= 3)) {
      throw new Refusal("wantedDb", "It is sought to plus or minus 0.02 to 3 dB.");
    }
    this.target = target;
    this.seconds = seconds;
    this.lowestDbm = lowestDbm;
    this.highestDbm = highestDbm;
    this.wantedDb = wantedDb;
    this.level = Math.max(lowestDbm, Math.min(highestDbm, startDbm));
  }

  @Override
  public Optional<Step> next() {
    if (!close) {
      return Optional.of(new Step(level, seconds));
    }
    if (estimate.known() && 2 * estimate.standardDb() <= wantedDb) {
      return Optional.empty();
    }
    double middle = estimate.known() ? estimate.dbm() : (good + bad) / 2;
    double at = middle + ((turn & 1) == 0 ? ASIDE_DB : -ASIDE_DB);
    return Optional.of(
        new Step(Math.rint(100 * Math.max(lowestDbm, Math.min(highestDbm, at))) / 100, seconds));
  }

  @Override
  public void add(double dbm, Quality q) {
    double sinad = Double.isNaN(q.sinadDb()) ? 0 : q.sinadDb();
    seen.add(new Seen(dbm, sinad));
    if (close) {
      turn++;
      fit();
      return;
    }
    boolean enough = sinad >= target;
    if (enough) {
      good = Double.isNaN(good) ? dbm : Math.min(good, dbm);
    } else {
      bad = Double.isNaN(bad) ? dbm : Math.max(bad, dbm);
    }
    if (enough && dbm <= lowestDbm + 1e-6) {
      throw new Refusal(
          "fromDbm",
          String.format(
              Locale.ROOT,
              "Even at %.1f dBm, the lowest level there is, SINAD is %.1f dB. Add a pad.",
              dbm,
              sinad));
    }
    if (!enough && dbm >= highestDbm - 1e-6) {
      throw new Refusal(
          "fromDbm",
          String.format(
              Locale.ROOT,
              "Even at %.1f dBm SINAD is %.1f dB only. See that the generator sends a tone as the"
                  + " receiver expects it, on its frequency, and that no squelch mutes it.",
              dbm,
              sinad));
    }
    if (Double.isNaN(bad)) {
      level = Math.max(lowestDbm, dbm - WIDE_DB);
    } else if (Double.isNaN(good) || good <= bad) {
      level = Math.min(highestDbm, bad + WIDE_DB);
    } else {
      level = (good + bad) / 2;
      close = good - bad <= CLOSE_DB;
    }
  }

  private void fit() {
    double middle = estimate.known() ? estimate.dbm() : (good + bad) / 2;
    List<Seen> near = seen.stream().filter(s -> Math.abs(s.dbm() - middle) < NEAR_DB).toList();
    int n = near.size();
    if (n < LEAST) {
      return;
    }
    double x = near.stream().mapToDouble(Seen::dbm).average().orElse(0);
    double y = near.stream().mapToDouble(Seen::sinadDb).average().orElse(0);
    double xx = near.stream().mapToDouble(s -> (s.dbm() - x) * (s.dbm() - x)).sum();
    double xy = near.stream().mapToDouble(s -> (s.dbm() - x) * (s.sinadDb() - y)).sum();
    double slope = xy / xx;
    if (!(slope > LEAST_SLOPE)) {
      return; // nothing but chance so far
    }
    double at = x + (target - y) / slope;
    double left =
        near.stream().mapToDouble(s -> Math.pow(s.sinadDb() - y - slope * (s.dbm() - x), 2)).sum();
    double standard =
        Math.sqrt(left / (n - 2)) / slope * Math.sqrt(1.0 / n + (at - x) * (at - x) / xx);
    // Few looks say little about their own scatter.
    double t =
        new TDistribution(n - 2.0).inverseCumulativeProbability((1 + BitErrorRatio.CONFIDENCE) / 2)
            / 2;
    estimate = new LevelEstimate(at, t * standard);
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
