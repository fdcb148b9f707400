package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Reading;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;

/** How good a packet is, and all that were found: errors of tones, with their limits. */
final class EvmReadings {
  static final String OTHERWISE = "not as the standard measures it";

  /** Few turns and tones: squares of them lie far off more often than a normal number does. */
  private static final double LONGER_TAIL = 1.1;

  private final OfdmSettings settings;
  private final MeasurementContext context;
  private final PlaneReadings maker;
  private final List<OfdmPacket> packets;
  private final OfdmPacket p;
  private final FramePlan plan;
  private final List<PacketUser> users;
  private final PlanCounts counts;
  private final List<String> own;

  /** Of the error of points that are anywhere in their cells. */
  private static final double WRONG_FROM = 0.75;

  /** An error of the receiver, over all there is, beside which nothing is said of the rest. */
  private static final double LARGEST_SHARE = 0.95;

  /**
   * @param packets that were found
   * @param p the one that is shown
   * @param users of that, if there are several
   * @param counts of its plan
   * @param own marks of its readings
   */
  EvmReadings(
      OfdmSettings settings,
      MeasurementContext context,
      PlaneReadings maker,
      List<OfdmPacket> packets,
      OfdmPacket p,
      List<PacketUser> users,
      PlanCounts counts,
      List<String> own) {
    this.settings = settings;
    this.context = context;
    this.maker = maker;
    this.packets = packets;
    this.p = p;
    this.plan = p.plan();
    this.users = users;
    this.counts = counts;
    this.own = own;
  }

  /** Of the packet that is shown. */
  void ofOne(List<Reading> out) {
    double all = p.evm(OfdmPacket.Which.ALL);
    double scatter = relativeScatter(p, counts.used());
    out.add(
        maker.reading(
            "evm",
            "EVM",
            100 * all,
            "%",
            new UncertaintyBudget().normal("noise", 100 * all * scatter),
            Limit.NONE,
            own));
    out.add(
        maker.reading(
            "evmDb",
            "Relative constellation error" + (p.coding() == null ? "" : ", " + p.coding().label()),
            OfdmOutcome.db(all),
            "dB",
            evmBudget(p),
            new Limit(Double.NaN, limitDb(p)),
            own));
    for (OfdmPacket.Which which : List.of(OfdmPacket.Which.DATA, OfdmPacket.Which.PILOTS)) {
      boolean data = which == OfdmPacket.Which.DATA;
      double tones = data ? counts.data() : counts.known();
      if (tones == 0) {
        continue;
      }
      double value = 100 * p.evm(which);
      out.add(
          maker.reading(
              data ? "evmData" : "evmPilots",
              data
                  ? "EVM of the data"
                  : p.said() == null ? "EVM of pilots and known tones" : "EVM of the pilots",
              value,
              "%",
              new UncertaintyBudget().normal("noise", value * relativeScatter(p, tones)),
              Limit.NONE,
              own));
    }
    double without = 100 * all * Math.sqrt(1 - estimateShare());
    out.add(
        maker.reading(
            "evmWithout",
            "EVM without what its own estimates add",
            without,
            "%",
            new UncertaintyBudget().normal("noise", without * scatter),
            Limit.NONE,
            own));
    double[] peak = peak();
    out.add(
        maker.reading(
            "evmPeak",
            String.format(
                Locale.ROOT,
                "Peak EVM, symbol %d, tone %s",
                (int) peak[1] + 1,
                String.valueOf((int) peak[2]).replace('-', '\u2212')),
            100 * peak[0],
            "%",
            new UncertaintyBudget()
                .normal("own estimates", 100 * all * Math.sqrt(Math.abs(estimateShare()) / 2)),
            Limit.NONE,
            own));
  }

  /** How far all tones are within the limits of flatness, where a standard has some. */
  void flatness(List<Reading> out) {
    Flatness flat = Flatness.of(p);
    if (flat.high() == null) {
      return;
    }
    double all = p.evm(OfdmPacket.Which.ALL);
    double own = all * all * (1 - estimateShare());
    double[] noise = ToneChannel.noiseOf(plan);
    for (int k = 0; k < noise.length; k++) {
      noise[k] *= own;
    }
    Flatness.Worst worst = flat.worst(noise);
    out.add(
        maker.reading(
            "flatnessMargin",
            "Flatness, worst at tone " + String.valueOf(worst.tone()).replace('-', '\u2212'),
            worst.marginDb(),
            "dB",
            new UncertaintyBudget().normal("noise", worst.scatterDb()),
            new Limit(0, Double.NaN),
            this.own));
  }

  /** Of each user, where there are several; each has a limit of its own. */
  void ofUsers(List<Reading> out) {
    for (PacketUser u : users) {
      if (users.size() > 1 && u.read(p)) {
        out.add(
            maker.reading(
                "evmUser" + u.key(),
                "Error of " + u.name() + (u.coding() == null ? "" : ", " + u.coding().label()),
                OfdmOutcome.db(u.evm(p)),
                "dB",
                evmBudget(u),
                limit(u),
                own));
      }
    }
  }

  private UncertaintyBudget evmBudget(PacketUser u) {
    double tones = u.values(p) / p.symbols();
    return new UncertaintyBudget().normal("noise", 20 / Math.log(10) * relativeScatter(p, tones));
  }

  private Limit limit(PacketUser u) {
    return new Limit(Double.NaN, u.coding() == null ? limitDb(p) : u.coding().errorLimitDb());
  }

  /** As the reading of that user would be judged. */
  Verdict verdict(PacketUser u) {
    return u.read(p) ? limit(u).judge(judged(p, u.evm(p)), evmBudget(u).expanded()) : Verdict.NONE;
  }

  /** The error in dB if it can be judged. */
  private double judged(OfdmPacket x, double evm) {
    boolean trusted = context.marks().isEmpty() && settings.asTheStandard() && x.check().isEmpty();
    return trusted ? OfdmOutcome.db(evm) : Double.NaN;
  }

  /** Of all packets that have data, where there are several. */
  void ofAll(List<Reading> out) {
    List<OfdmPacket> whole = packets.stream().filter(OfdmPacket::whole).toList();
    if (whole.size() < 2) {
      return;
    }
    double squares = 0;
    OfdmPacket worst = whole.get(0);
    for (OfdmPacket x : whole) {
      double evm = x.evm(OfdmPacket.Which.ALL);
      squares += evm * evm / whole.size();
      worst = evm > worst.evm(OfdmPacket.Which.ALL) ? x : worst;
    }
    List<String> marks = new ArrayList<>(context.marks());
    if (!settings.asTheStandard()) {
      marks.add(OTHERWISE);
    }
    double rms = 100 * Math.sqrt(squares);
    double scatter = relativeScatter(p, counts.used());
    out.add(
        maker.reading(
            "evmOfAll",
            "EVM of " + whole.size() + " packets",
            rms,
            "%",
            new UncertaintyBudget().normal("noise", rms * scatter / Math.sqrt(whole.size())),
            Limit.NONE,
            marks));
    double most = 100 * worst.evm(OfdmPacket.Which.ALL);
    out.add(
        maker.reading(
            "evmWorst",
            "EVM of the worst, packet " + (packets.indexOf(worst) + 1),
            most,
            "%",
            new UncertaintyBudget().normal("noise", most * scatter),
            Limit.NONE,
            marks));
  }

  /**
   * Standard deviation of an error vector over itself, if it is noise: single values are
   * independent; what the training adds is the same in all symbols, what the pilots add in all
   * tones of a symbol.
   */
  private double relativeScatter(OfdmPacket of, double tones) {
    double symbols = of.symbols();
    double own = 1 / (tones * symbols);
    boolean training = settings.estimate() == OfdmSettings.Estimate.TRAINING;
    double share = training ? counts.channel() : 0;
    double channel = share * share / tones / counts.independence();
    double turn = settings.trackPhase() ? 1.0 / (2 * counts.turning()) : 0;
    double turns = 2 * turn * turn * (1 / symbols + share * share);
    double all = (1 + share) * (1 + turn);
    return LONGER_TAIL * 0.5 * Math.sqrt(own + channel + turns) / all;
  }

  /**
   * Of the square of the error, if it is noise, what comes of its own estimates. Two symbols of
   * training add half of their noise; data that are used besides take of it what they are part of.
   * Pilots that turn a symbol see one part of noise as its phase, of two that each has; all others
   * then have that too.
   */
  private double estimateShare() {
    boolean training = settings.estimate() == OfdmSettings.Estimate.TRAINING;
    double channel =
        training ? 1 + counts.channel() : 1 - 1.0 / (p.symbols() + plan.training().size());
    // What turns by the mean of its own noise is nearer to where it should be, the others farther.
    double share =
        settings.trackPhase()
            ? (counts.power() - 2 * counts.turning()) / (2 * counts.turning()) / counts.used()
            : 0;
    return 1 - 1 / (channel * (1 + share));
  }

  /**
   * By how much the error would be smaller at most without what the receiver may have by itself, if
   * its data sheet says: two errors of different causes add by their squares. Nothing where that
   * alone may be as large.
   */
  void ofReceiver(List<Reading> out) {
    double all = p.evm(OfdmPacket.Which.ALL);
    double floor = Math.pow(10, context.accuracy().errorFloorDb() / 20);
    if (!(floor < LARGEST_SHARE * all)) {
      return;
    }
    double left = 1 - floor * floor / all / all;
    // The error is uncertain by so much, and with it what is left of it.
    double relative = relativeScatter(p, counts.used());
    out.add(
        maker.reading(
            "receiverShare",
            "The receiver may have added",
            -10 * Math.log10(left),
            "dB",
            new UncertaintyBudget()
                .normal("noise", 20 / Math.log(10) * relative * (1 - left) / left),
            Limit.NONE,
            own));
  }

  /** What is to be said of the receiver, "" if it is known to be better. */
  String ofReceiver() {
    double floor = Math.pow(10, context.accuracy().errorFloorDb() / 20);
    return floor >= LARGEST_SHARE * p.evm(OfdmPacket.Which.ALL)
        ? ", all of which may be the receiver's"
        : "";
  }

  /**
   * What is to be said where points are so far off that many are taken for others, "" elsewhere:
   * the error of those seems smaller than it is. In a square cell it is the root of a sixth of its
   * side at most, if it is anywhere alike; from three quarters of that on one in fifty is wrong.
   */
  String takenForOthers() {
    double most = 0;
    double power = 1e-300;
    for (SymbolPlan s : plan.data()) {
      for (int k = 0; k < plan.tones().length; k++) {
        if (s.roles()[k] == SymbolPlan.Role.DATA) {
          double side = s.points()[k].leastStep();
          most += s.power(k) * side * side / 6;
          power += s.power(k);
        }
      }
    }
    double evm = p.evm(OfdmPacket.Which.DATA);
    if (!(evm > WRONG_FROM * Math.sqrt(most / power))) {
      return "";
    }
    return counts.known() == 0
        ? ", but more in truth: points are taken for others"
        : String.format(
            Locale.ROOT,
            ", but more in truth: points are taken for others, the pilots have %.2f %%",
            100 * p.evm(OfdmPacket.Which.PILOTS));
  }

  private double[] peak() {
    double[] out = {0, 0, 0};
    for (int s = 0; s < p.symbols(); s++) {
      for (int k = 0; k < plan.tones().length; k++) {
        SymbolPlan symbol = plan.data().get(s);
        double e = symbol.used(k) ? Math.sqrt(p.error(s, k) / symbol.power(k)) : 0;
        if (e > out[0]) {
          out = new double[] {e, s, plan.tones()[k]};
        }
      }
    }
    return out;
  }

  /** As the reading of that packet would be judged. */
  Verdict verdict(OfdmPacket x) {
    if (x == p && x.said() != null && !x.said().users().isEmpty()) {
      return Verdict.worst(users.stream().map(this::verdict).toList());
    }
    double db = judged(x, x.evm(OfdmPacket.Which.ALL));
    return new Limit(Double.NaN, limitDb(x)).judge(db, evmBudget(x).expanded());
  }

  /** Of the standard by rate, or of the description; not a number for none. */
  private double limitDb(OfdmPacket x) {
    if (x.coding() != null) {
      return x.coding().errorLimitDb();
    }
    Double percent = settings.described().map(OfdmDescription::evmLimitPercent).orElse(null);
    return percent == null ? Double.NaN : OfdmOutcome.db(percent / 100);
  }

  private UncertaintyBudget evmBudget(OfdmPacket x) {
    return new UncertaintyBudget()
        .normal("noise", 20 / Math.log(10) * relativeScatter(x, counts.used()));
  }
}
