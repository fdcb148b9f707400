package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.Causes;
import rovnik.core.modulation.PowerStatistics;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;

/** Readings, curves and tables of the packets of a record; one of them in full. */
final class OfdmOutcome {
  /** IEEE 802.11-2020, 17.3.9.7.2: leakage over the whole power, dB. From memory. */
  private static final double LEAKAGE_LIMIT_DB = -15;

  /** Few turns and tones: squares of them lie far off more often than a normal number does. */
  private static final double LONGER_TAIL = 1.1;

  private static final String OTHERWISE = "not as the standard measures it";

  /** How much higher the curve through all samples may be than where it was looked at. */
  private static final double BETWEEN_SAMPLES_DB = 0.05;

  private final OfdmSettings settings;
  private final OfdmDescription.Frame frame;
  private final IqRecord record;
  private final MeasurementContext context;
  private final List<OfdmPacket> packets;
  private final OfdmPacket p;
  private final FramePlan plan;
  private final Counts counts;
  private final double startSeconds;

  /** Null if there are no data. */
  private final PacketPower power;

  /** Null if there are too few. */
  private final Causes causes;

  private final Optional<PacketSpectrum.Look> spectrum;
  private final CarrierReadings carrier;
  private final PlaneReadings maker;
  private final List<String> own;

  /**
   * @param frame that is described; null for packets that say what they are
   * @param packets that were found, in their order
   * @param samples of the channel in which they are
   * @param from first sample of the record that was searched
   */
  OfdmOutcome(
      OfdmSettings settings,
      OfdmDescription.Frame frame,
      IqRecord record,
      MeasurementContext context,
      List<OfdmPacket> packets,
      ChannelSamples samples,
      int from) {
    this.settings = settings;
    this.frame = frame;
    this.record = record;
    this.context = context;
    this.packets = packets;
    this.p = packets.get(settings.packet() - 1);
    this.plan = p.plan();
    this.counts = Counts.of(plan);
    this.startSeconds = from / record.sampleRateHz() + record.startSeconds();
    this.causes =
        p.whole()
            ? PacketCauses.of(
                p, settings, ChannelSamples.TIMES * settings.rateHz() / plan.transform())
            : null;
    this.power = p.whole() ? PacketPower.of(p, samples) : null;
    this.spectrum =
        p.whole()
            ? PacketSpectrum.of(settings, record, context, packets, p, from)
            : Optional.empty();
    this.carrier = new CarrierReadings(record, context, p.carrier());
    this.maker = carrier.maker();
    this.own = new ArrayList<>(context.marks());
    if (!p.check().isEmpty()) {
      own.add(p.check());
    }
    if (!settings.asTheStandard()) {
      own.add(OTHERWISE);
    }
  }

  Outcome outcome() {
    List<Series> series = new ArrayList<>();
    if (p.whole()) {
      series.addAll(new OfdmSeries(p, settings.rateHz()).series());
      series.add(power.spread().ccdf());
      series.add(PowerStatistics.ofNoise());
    }
    spectrum.ifPresent(s -> series.addAll(s.series()));
    List<ResultTable> tables =
        new ArrayList<>(
            new OfdmTables(settings, frame, carrier, packets, startSeconds, this::verdict)
                .tables());
    spectrum.ifPresent(s -> tables.addAll(s.emission().tables()));
    if (causes != null) {
      tables.add(0, causes.table(100 / Math.sqrt(counts.power() / counts.used())));
    }
    return new Outcome(
        OfdmMeasurement.KIND,
        OfdmMeasurement.TITLE,
        summary(),
        List.copyOf(series),
        List.copyOf(tables),
        readings(),
        List.copyOf(maker.levelMarks()),
        List.of());
  }

  private String summary() {
    String found =
        packets.size() == 1
            ? "One packet"
            : "Packet " + settings.packet() + " of " + packets.size();
    if (!p.whole()) {
      return found
          + (p.said() == null || p.said().format() == PacketFormat.LEGACY
              ? ": "
              : ", " + p.said().format().label() + ": ")
          + p.check()
          + ".";
    }
    double evm = p.evm(OfdmPacket.Which.ALL);
    String good =
        String.format(Locale.ROOT, "EVM %.2f %% (%.1f dB)", 100 * evm, db(evm))
            + (causes == null ? "" : causes.words())
            + ".";
    if (p.said() == null) {
      return String.format(
          Locale.ROOT,
          "%s as \"%s\" has it: %d symbols with data of %d tones%s; %s",
          found,
          settings.description().name(),
          p.symbols(),
          plan.tones().length,
          p.check().isEmpty() ? "" : ", " + p.check(),
          good);
    }
    return String.format(
        Locale.ROOT,
        "%s, from the signal: %s,%s %d symbols, %s; %s",
        found,
        OfdmTables.kindOf(p),
        Double.isNaN(p.said().bytes()) ? "" : " " + (int) p.said().bytes() + " bytes in",
        p.symbols(),
        (p.check().isEmpty() ? p.said().words() : p.check())
            + (p.said().learned() ? "; training learned from the signal" : ""),
        good);
  }

  static double db(double amplitude) {
    return 20 * Math.log10(Math.max(1e-12, amplitude));
  }

  // Readings

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    if (p.whole()) {
      errors(out);
      turning(out);
      leakage(out);
      image(out);
    }
    spectrum.ifPresent(s -> out.addAll(s.emission().readings()));
    out.add(carrier.power(10 * Math.log10(Math.max(1e-30, dataPower(p))), powerScatterDb()));
    if (p.whole()) {
      out.add(crest());
    }
    out.add(plain("packets", "Packets found", packets.size(), ""));
    long good = packets.stream().filter(x -> x.whole() && x.check().isEmpty()).count();
    out.add(plain("whole", "Whole, nothing wrong found", good, ""));
    over(out);
    return out;
  }

  /** Of all packets that have data, where there are several. */
  private void over(List<Reading> out) {
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

  /** Of the highest sample, noise along it counts. */
  private Reading crest() {
    double db = power.crestDb();
    double noise = p.evm(OfdmPacket.Which.ALL) / Math.sqrt(2) / Math.pow(10, db / 20);
    return maker.reading(
        "crest",
        "Peaks of the data over their mean",
        db,
        "dB",
        new UncertaintyBudget()
            .rectangular("between samples", BETWEEN_SAMPLES_DB)
            .normal("noise", 20 / Math.log(10) * noise),
        Limit.NONE,
        own);
  }

  /** Of its data, or of the training before it where there are none. */
  static double dataPower(OfdmPacket x) {
    int last = x.fieldPower().length - 1;
    return x.fieldPower()[x.whole() || last == 0 ? last : last > 1 ? 1 : 0];
  }

  private Reading plain(String id, String label, double value, String unit) {
    return maker.reading(
        id, label, value, unit, new UncertaintyBudget(), Limit.NONE, List.copyOf(context.marks()));
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
   * What its plan has, as means.
   *
   * @param channel noise that the training leaves in a value, over its own
   * @param independence of that from tone to tone
   * @param used tones of a symbol with data
   * @param data of these
   * @param power of all tones of a symbol
   * @param turning power of those by which a symbol is turned: pilots, or all that there are
   */
  private record Counts(
      double channel, double independence, double used, double data, double power, double turning) {
    static Counts of(FramePlan plan) {
      double[] noise = ToneChannel.noiseOf(plan);
      double channel = 0;
      double used = 0;
      double data = 0;
      double power = 0;
      double pilots = 0;
      for (SymbolPlan s : plan.data()) {
        for (int k = 0; k < noise.length; k++) {
          if (s.used(k)) {
            // A known value is part of what the channel was learned from: it seems nearer.
            boolean own = s.roles()[k] == SymbolPlan.Role.KNOWN;
            channel += (own ? -1 : 1) * noise[k] * s.power(k);
            used++;
            power += s.power(k);
            data += s.roles()[k] == SymbolPlan.Role.DATA ? 1 : 0;
            pilots += s.roles()[k] == SymbolPlan.Role.PILOT ? s.power(k) : 0;
          }
        }
      }
      double n = Math.max(1, plan.data().size());
      return new Counts(
          channel / Math.max(1, used),
          ToneChannel.independence(plan),
          used / n,
          data / n,
          power / n,
          (pilots == 0 ? power : pilots) / n);
    }

    double known() {
      return used - data;
    }
  }

  private void errors(List<Reading> out) {
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
            db(all),
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

  private void turning(List<Reading> out) {
    double rate = ChannelSamples.TIMES * settings.rateHz();
    double seconds = plan.length() / rate;
    double n = p.symbols() + plan.training().size();
    double evm = p.evm(OfdmPacket.Which.ALL);
    // A straight line through n phases, each of the tones' mean: 12 over n cubed.
    double phase = evm / Math.sqrt(2.0 * counts.turning());
    double turnHz = phase * Math.sqrt(12 / n) / seconds / 2 / Math.PI;
    out.addAll(carrier.frequency("noise", turnHz, settings.rateHz() / 2, settings.centreHz(), own));
    double slope = evm / Math.sqrt(2) / Math.sqrt(meanSquareTones() * counts.used());
    double period = plan.transform() / rate;
    double relative = context.accuracy().frequencyRelative();
    out.add(
        maker.reading(
            "clockOffset",
            "Clock of the symbols off by",
            -1e6 * p.clock(),
            "ppm",
            new UncertaintyBudget()
                .rectangular("reference", Double.isNaN(relative) ? 0 : 1e6 * relative)
                .normal("noise", 1e6 * slope * Math.sqrt(12 / n) / seconds * period / 2 / Math.PI),
            Limit.NONE,
            own));
  }

  private double meanSquareTones() {
    double sum = 0;
    for (int k : plan.tones()) {
      sum += (double) k * k;
    }
    return sum / plan.tones().length;
  }

  private void leakage(List<Reading> out) {
    double mean = Math.hypot(p.leakageRe(), p.leakageIm());
    double sigma = p.leakageScatter();
    if (Double.isNaN(sigma)) {
      return;
    }
    double free = free(mean, sigma);
    out.add(
        maker.reading(
            "leakage",
            "Leakage of the carrier",
            db(free),
            "dBc",
            new UncertaintyBudget().normal("noise", 20 / Math.log(10) * sigma / free),
            leakageLimit(),
            own));
  }

  /** Clause 19 refers to clause 17; later ones know a level, too, and are not applied. */
  private Limit leakageLimit() {
    boolean has = p.said() != null && p.said().format().likeClause17();
    return has ? new Limit(Double.NaN, LEAKAGE_LIMIT_DB) : Limit.NONE;
  }

  private void image(List<Reading> out) {
    if (p.symbols() < 3) {
      return; // beside a gain of each tone's own nothing is left
    }
    double[] m = p.image();
    if (!(m[2] > 0)) {
      return; // no tone with data has another across the carrier
    }
    double free = free(Math.hypot(m[0], m[1]), m[2]);
    out.add(
        maker.reading(
            "image",
            "Mirror image of each tone",
            db(free),
            "dBc",
            new UncertaintyBudget().normal("noise", 20 / Math.log(10) * m[2] / free),
            Limit.NONE,
            own));
  }

  /** Without what noise adds to the length of a mean. */
  private static double free(double mean, double sigma) {
    return Math.sqrt(Math.max(mean * mean - 2 * sigma * sigma, sigma * sigma));
  }

  private double powerScatterDb() {
    return 10 / Math.log(10) / Math.sqrt(counts.used() * Math.max(1.0, p.symbols()));
  }

  /** As the reading of that packet would be judged. */
  private Verdict verdict(OfdmPacket x) {
    boolean trusted = context.marks().isEmpty() && settings.asTheStandard() && x.check().isEmpty();
    double db = trusted ? db(x.evm(OfdmPacket.Which.ALL)) : Double.NaN;
    return new Limit(Double.NaN, limitDb(x)).judge(db, evmBudget(x).expanded());
  }

  /** Of the standard by rate, or of the description; not a number for none. */
  private double limitDb(OfdmPacket x) {
    if (x.coding() != null) {
      return x.coding().errorLimitDb();
    }
    Double percent = settings.described().map(OfdmDescription::evmLimitPercent).orElse(null);
    return percent == null ? Double.NaN : db(percent / 100);
  }

  private UncertaintyBudget evmBudget(OfdmPacket x) {
    return new UncertaintyBudget()
        .normal("noise", 20 / Math.log(10) * relativeScatter(x, counts.used()));
  }
}
