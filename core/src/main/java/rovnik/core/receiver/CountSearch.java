package rovnik.core.receiver;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import rovnik.core.Refusal;

/**
 * Seeks the level at which a share of bits or packets is wrong. First it goes down in wide steps
 * until errors come. From there on the curve is taken to have the shape of the theory, moved along
 * the level and a little stretched; both are fitted to all counts (Bayes, on a grid), and the next
 * look is where a second of it narrows the answer most.
 */
public final class CountSearch implements LevelSearch {
  private static final double WIDE_DB = 4;
  private static final double COARSE_SECONDS = 0.2;
  private static final int ENOUGH = 10;

  /** With fewer looks at errors it cannot be told whether they follow the curve. */
  private static final int LEAST_LOOKS = 5;

  /** Standard deviation of the logarithm of the stretch, before anything is known. */
  private static final double STRETCH = 0.2;

  private static final int STRETCHES = 21;
  private static final double DEEPEST_DB = 3;
  private static final double HIGHEST_DB = 1.5;
  private static final double GRID_DB = 0.25;

  /** What going to another level costs, seconds. */
  private static final double CHANGE_SECONDS = 0.2;

  private static final double LONGEST_SECONDS = 5;
  private static final double TABLE_DB = 30;
  private static final double TABLE_STEP_DB = 0.01;

  /** Counts that are so many of their own scatters off the curve do not follow it. */
  private static final double NO_CURVE = 5;

  private record Seen(double dbm, long tried, long wrong) {}

  private final ErrorTheory theory;
  private final int packetBits;
  private final double target;
  private final double perSecond;
  private final double lowestDbm;
  private final double highestDbm;
  private final double wantedDb;
  private final double targetEbN0Db;

  private final List<Seen> seen = new ArrayList<>();
  private double level;
  private double good = Double.NaN;
  private double bad = Double.NaN;
  private double roughDbm = Double.NaN;
  private LevelEstimate estimate = LevelEstimate.NONE;
  private double stretch = 1;
  private final double[] logWrong;
  private final double[] logRight;

  /**
   * @param packetBits 1 to look at bits, else the bits of a packet
   * @param target share of them that is wrong
   * @param bitRate bits a second
   * @param startDbm a level at which it surely works
   * @param wantedDb done when the answer is known to plus or minus this (k = 2)
   */
  public CountSearch(
      ErrorTheory theory,
      int packetBits,
      double target,
      double bitRate,
      double startDbm,
      double lowestDbm,
      double highestDbm,
      double wantedDb) {
    if (!(wantedDb >= 0.02 && wantedDb <= 3)) {
      throw new Refusal("wantedDb", "It is sought to plus or minus 0.02 to 3 dB.");
    }
    this.theory = theory;
    this.packetBits = packetBits;
    this.target = target;
    this.perSecond = bitRate / packetBits;
    this.lowestDbm = lowestDbm;
    this.highestDbm = highestDbm;
    this.wantedDb = wantedDb;
    this.level = Math.max(lowestDbm, Math.min(highestDbm, startDbm));
    double bitRatio = packetBits == 1 ? target : -Math.expm1(Math.log1p(-target) / packetBits);
    this.targetEbN0Db = theory.ebN0Db(bitRatio);
    int places = (int) Math.round(2 * TABLE_DB / TABLE_STEP_DB) + 1;
    logWrong = new double[places];
    logRight = new double[places];
    for (int i = 0; i < places; i++) {
      double p = exact(i * TABLE_STEP_DB - TABLE_DB);
      logWrong[i] = Math.log(p);
      logRight[i] = Math.log1p(-p);
    }
  }

  /** Share that is wrong so far above the target's level. */
  private double share(double aboveDb, double stretched) {
    return Math.exp(read(logWrong, stretched * aboveDb));
  }

  private double exact(double aboveDb) {
    double p = theory.ratio(targetEbN0Db + aboveDb);
    double q = packetBits == 1 ? p : -Math.expm1(packetBits * Math.log1p(-p));
    return Math.max(1e-15, Math.min(1 - 1e-9, q));
  }

  /** A table of a curve over the distance from the target's level, read between its places. */
  private static double read(double[] table, double aboveDb) {
    double at = Math.max(0, Math.min(table.length - 2.001, (aboveDb + TABLE_DB) / TABLE_STEP_DB));
    int i = (int) at;
    return table[i] + (at - i) * (table[i + 1] - table[i]);
  }

  @Override
  public Optional<Step> next() {
    if (Double.isNaN(roughDbm)) {
      return Optional.of(new Step(level, COARSE_SECONDS));
    }
    boolean judged = seen.stream().filter(s -> s.wrong() >= ENOUGH).count() >= LEAST_LOOKS;
    if (judged && 2 * estimate.standardDb() <= wantedDb && around()) {
      return Optional.empty();
    }
    return Optional.of(best());
  }

  /** Errors enough were seen near the target itself: the stretch is not all that says where. */
  private boolean around() {
    double[] near = near();
    return near[0] >= ENOUGH || near[1] * target > 3 * ENOUGH;
  }

  private double[] near() {
    double wrong = 0;
    double tried = 0;
    for (Seen s : seen) {
      if (Math.abs(s.dbm() - estimate.dbm()) < 2) {
        wrong += s.wrong();
        tried += s.tried();
      }
    }
    return new double[] {wrong, tried};
  }

  @Override
  public void add(double dbm, Quality q) {
    long tried = packetBits == 1 ? q.bits() : q.packets();
    long wrong = packetBits == 1 ? q.errors() : q.wrongPackets();
    if (tried > 0) {
      seen.add(new Seen(dbm, tried, wrong));
    }
    if (Double.isNaN(roughDbm)) {
      rough(dbm, tried, wrong);
    } else if (tried == 0) {
      bad = Double.isNaN(bad) ? dbm : Math.max(bad, dbm);
    }
    if (!Double.isNaN(roughDbm)) {
      refit();
    }
  }

  /** Down until errors come, up where there are too many, halfway between where both are known. */
  private void rough(double dbm, long tried, long wrong) {
    double share = tried == 0 ? 1 : (double) wrong / tried;
    if (wrong >= ENOUGH && share < (packetBits == 1 ? 0.15 : 0.98)) {
      double bits = packetBits == 1 ? share : -Math.expm1(Math.log1p(-share) / packetBits);
      roughDbm = dbm + targetEbN0Db - theory.ebN0Db(bits);
      if (Math.abs(roughDbm - dbm) < 2 * WIDE_DB) {
        return;
      }
      roughDbm = Double.NaN; // a floor of errors, not the edge
    }
    if (share > target && wrong >= ENOUGH || tried == 0) {
      bad = Double.isNaN(bad) ? dbm : Math.max(bad, dbm);
      if (dbm >= highestDbm - 1e-6) {
        throw new Refusal(
            "fromDbm",
            String.format(
                Locale.ROOT,
                "Even at %.1f dBm it is not good enough. See that the generator sends what the"
                    + " receiver expects, on its frequency.",
                dbm));
      }
    } else {
      good = Double.isNaN(good) ? dbm : Math.min(good, dbm);
      if (dbm <= lowestDbm + 1e-6) {
        throw new Refusal(
            "fromDbm",
            String.format(
                Locale.ROOT,
                "Even at %.1f dBm, the lowest level there is, it is good. Add a pad to the path.",
                dbm));
      }
    }
    if (Double.isNaN(bad)) {
      level = Math.max(lowestDbm, dbm - WIDE_DB);
    } else if (Double.isNaN(good) || good <= bad) {
      level = Math.min(highestDbm, bad + 2 * WIDE_DB);
    } else {
      level = (good + bad) / 2;
      if (good - bad < 0.1) {
        throw new Refusal(
            "fromDbm",
            String.format(
                Locale.ROOT,
                "It falls from good to nothing between %.2f and %.2f dBm: no error ratio lies"
                    + " between.",
                good,
                bad));
      }
    }
  }

  private void refit() {
    double center = estimate.known() ? estimate.dbm() : roughDbm;
    double half = estimate.known() ? Math.max(0.05, 6 * estimate.standardDb()) : 4;
    for (int pass = 0; pass < 3; pass++) {
      posterior(center, half);
      center = estimate.dbm();
      half = Math.max(0.02, 6 * estimate.standardDb());
    }
  }

  /** Mean and standard deviation of the level, over a grid of levels and stretches. */
  private void posterior(double center, double half) {
    int levels = 81;
    double[][] log = new double[levels][STRETCHES];
    double most = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < levels; i++) {
      double s = center - half + 2 * half * i / (levels - 1);
      for (int k = 0; k < STRETCHES; k++) {
        double z = 3.0 * (2.0 * k / (STRETCHES - 1) - 1);
        double b = Math.exp(STRETCH * z);
        double sum = -z * z / 2;
        for (Seen d : seen) {
          double x = b * (d.dbm() - s);
          sum += d.wrong() * read(logWrong, x) + (d.tried() - d.wrong()) * read(logRight, x);
        }
        log[i][k] = sum;
        most = Math.max(most, sum);
      }
    }
    double all = 0;
    double first = 0;
    double second = 0;
    double stretches = 0;
    for (int i = 0; i < levels; i++) {
      double s = 2 * half * i / (levels - 1) - half;
      for (int k = 0; k < STRETCHES; k++) {
        double w = Math.exp(log[i][k] - most);
        all += w;
        first += w * s;
        second += w * s * s;
        stretches += w * Math.exp(STRETCH * 3 * (2.0 * k / (STRETCHES - 1) - 1));
      }
    }
    double mean = first / all;
    double variance =
        Math.max(second / all - mean * mean, Math.pow(2 * half / (levels - 1), 2) / 4);
    stretch = stretches / all;
    estimate = new LevelEstimate(center + mean, Math.sqrt(variance) * misfit(center + mean));
  }

  /** The curve may not have the theory's shape: what is left over says by how much. */
  private double misfit(double dbm) {
    double chi = 0;
    int n = 0;
    for (Seen d : seen) {
      double p = share(d.dbm() - dbm, stretch);
      double expected = d.tried() * p;
      if (expected > 5) {
        chi += (d.wrong() - expected) * (d.wrong() - expected) / (expected * (1 - p));
        n++;
      }
    }
    double off = n >= LEAST_LOOKS ? Math.sqrt(Math.max(1, chi / (n - 2))) : 1;
    if (off > NO_CURVE) {
      throw new Refusal(
          "target",
          "Errors do not fall with the level as noise would have them fall: something else makes"
              + " them too. Choose a higher error ratio, or look at the levels one by one.");
    }
    return off;
  }

  /** Information on level and stretch: the sums of all looks so far. */
  private double[] information() {
    double[] sum = {0, 0, 1 / (STRETCH * STRETCH)};
    for (Seen d : seen) {
      addTo(sum, d.dbm(), d.tried());
    }
    return sum;
  }

  private void addTo(double[] sum, double dbm, double tried) {
    double above = dbm - estimate.dbm();
    double p = share(above, stretch);
    double step = 0.02;
    double slope = (share(above + step, stretch) - share(above - step, stretch)) / (2 * step);
    double byLevel = -slope;
    double byStretch = slope * above / 1.0;
    double weight = tried / (p * (1 - p));
    sum[0] += weight * byLevel * byLevel;
    sum[1] += weight * byLevel * byStretch;
    sum[2] += weight * byStretch * byStretch;
  }

  private static double variance(double[] i) {
    double det = i[0] * i[2] - i[1] * i[1];
    return det > 0 ? i[2] / det : Double.POSITIVE_INFINITY;
  }

  private Step best() {
    Step best = null;
    double least = Double.POSITIVE_INFINITY;
    double[] now = information();
    for (double away = -DEEPEST_DB; away <= HIGHEST_DB; away += GRID_DB) {
      double at = Math.rint((estimate.dbm() + away) * 100) / 100;
      double p = share(at - estimate.dbm(), stretch);
      if (at < lowestDbm
          || at > highestDbm
          || p > (packetBits == 1 ? 0.1 : 0.9)
          || at <= bad && !Double.isNaN(bad)) {
        continue;
      }
      double seconds =
          Math.max(0.3, Math.min(LONGEST_SECONDS, 200 / Math.max(1e-12, p * perSecond)));
      double[] then = now.clone();
      addTo(then, at, seconds * perSecond);
      // What a second of it narrows the answer by.
      double gain = (1 / variance(then) - 1 / variance(now)) / (seconds + CHANGE_SECONDS);
      if (-gain < least) {
        least = -gain;
        best = new Step(at, seconds);
      }
    }
    if (!around()) {
      double seconds = Math.max(0.3, Math.min(LONGEST_SECONDS, 100 / (target * perSecond)));
      double at = Math.max(lowestDbm, Math.min(highestDbm, estimate.dbm()));
      return new Step(Math.rint(at * 100) / 100, seconds);
    }
    return best == null
        ? new Step(Math.max(lowestDbm, Math.min(highestDbm, estimate.dbm())), LONGEST_SECONDS)
        : best;
  }

  @Override
  public DoubleUnaryOperator fit() {
    double at = estimate.dbm();
    double by = stretch;
    return estimate.known() ? dbm -> share(dbm - at, by) : null;
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
    double[] now = information();
    double wanted = 4 / (wantedDb * wantedDb);
    double missing = wanted - 1 / (estimate.standardDb() * estimate.standardDb());
    double[] then = now.clone();
    Step s = best();
    addTo(then, s.dbm(), s.seconds() * perSecond);
    double each = 1 / variance(then) - 1 / variance(now);
    return missing <= 0 ? 0 : missing / each * (s.seconds() + CHANGE_SECONDS);
  }
}
