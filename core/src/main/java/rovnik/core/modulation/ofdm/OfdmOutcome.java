package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
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

  private static final int[] TONES = OfdmPacket.TONES;

  private final OfdmSettings settings;
  private final IqRecord record;
  private final MeasurementContext context;
  private final List<OfdmPacket> packets;
  private final OfdmPacket p;
  private final double startSeconds;
  private final CarrierReadings carrier;
  private final PlaneReadings maker;
  private final List<String> own;

  /**
   * @param packets that were found, in their order
   * @param startSeconds of the first sample that was searched
   */
  OfdmOutcome(
      OfdmSettings settings,
      IqRecord record,
      MeasurementContext context,
      List<OfdmPacket> packets,
      double startSeconds) {
    this.settings = settings;
    this.record = record;
    this.context = context;
    this.packets = packets;
    this.p = packets.get(settings.packet() - 1);
    this.startSeconds = startSeconds;
    this.carrier = new CarrierReadings(record, context, p.carrier());
    this.maker = carrier.maker();
    this.own = new ArrayList<>(context.marks());
    if (!p.check().isEmpty()) {
      own.add(p.check());
    }
    if (!settings.asTheStandard()) {
      own.add("not as the standard measures it");
    }
  }

  Outcome outcome() {
    return new Outcome(
        OfdmMeasurement.KIND,
        OfdmMeasurement.TITLE,
        summary(),
        p.whole() ? new OfdmSeries(p).series() : List.of(),
        List.of(signal(), fields(), list()),
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
      return found + ": " + p.check() + ".";
    }
    return String.format(
        Locale.ROOT,
        "%s, from the signal: %s, %d bytes in %d symbols, %s; EVM %.2f %% (%.1f dB).",
        found,
        p.rate().label(),
        p.bytes(),
        p.symbols(),
        p.check().isEmpty() ? "its check sum fits" : p.check(),
        100 * p.evm(OfdmPacket.Which.ALL),
        db(p.evm(OfdmPacket.Which.ALL)));
  }

  private static double db(double amplitude) {
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
    double power = p.fieldPower()[p.whole() ? 3 : 1];
    out.add(carrier.power(10 * Math.log10(Math.max(1e-30, power)), powerScatterDb()));
    out.add(plain("packets", "Packets found", packets.size(), ""));
    long good = packets.stream().filter(x -> x.whole() && x.check().isEmpty()).count();
    out.add(plain("whole", "Whole, with a check that fits", good, ""));
    return out;
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
  private double relativeScatter(OfdmPacket of, int tones) {
    double symbols = of.symbols();
    double own = 1 / (tones * symbols);
    boolean training = settings.estimate() == OfdmSettings.Estimate.TRAINING;
    double channel = training ? 0.25 / tones : 0;
    double turn = settings.trackPhase() ? 1.0 / (2 * LegacyTones.PILOTS.length) : 0;
    double turns = 2 * turn * turn / symbols + (training ? turn * turn / 2 : 0);
    double all = (training ? 1.5 : 1) * (1 + turn);
    return LONGER_TAIL * 0.5 * Math.sqrt(own + channel + turns) / all;
  }

  private void errors(List<Reading> out) {
    double all = p.evm(OfdmPacket.Which.ALL);
    double scatter = relativeScatter(p, TONES.length);
    double limitDb = p.rate().errorLimitDb();
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
            "Relative constellation error, " + p.rate().label(),
            db(all),
            "dB",
            evmBudget(p),
            new Limit(Double.NaN, limitDb),
            own));
    for (OfdmPacket.Which which : List.of(OfdmPacket.Which.DATA, OfdmPacket.Which.PILOTS)) {
      boolean data = which == OfdmPacket.Which.DATA;
      double value = 100 * p.evm(which);
      int tones = data ? LegacyTones.DATA : LegacyTones.PILOTS.length;
      out.add(
          maker.reading(
              data ? "evmData" : "evmPilots",
              data ? "EVM of the data" : "EVM of the pilots",
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
   * Four pilots that turn a symbol see one of their eight parts of noise as its phase, which all
   * others then have too.
   */
  private double estimateShare() {
    boolean training = settings.estimate() == OfdmSettings.Estimate.TRAINING;
    double channel = training ? 1.5 : 1 - 1 / (p.symbols() + 2.0);
    double pilots = LegacyTones.PILOTS.length;
    double turn = settings.trackPhase() ? 1 / (2 * pilots) : 0;
    double share = (LegacyTones.DATA - pilots) / TONES.length * turn;
    return 1 - 1 / (channel * (1 + share));
  }

  private double[] peak() {
    double[] out = {0, 0, 0};
    for (int s = 0; s < p.symbols(); s++) {
      for (int k = 0; k < TONES.length; k++) {
        double e = Math.sqrt(p.error(s, k));
        if (e > out[0]) {
          out = new double[] {e, s, TONES[k]};
        }
      }
    }
    return out;
  }

  private void turning(List<Reading> out) {
    double seconds = (p.symbols() + 2.5) * LegacyPacket.SYMBOL / settings.channelHz();
    double n = p.symbols() + 2.0;
    double evm = p.evm(OfdmPacket.Which.ALL);
    // A straight line through n phases, each of the tones' mean: 12 over n cubed.
    double phase = evm / Math.sqrt(2.0 * LegacyTones.PILOTS.length);
    double turnHz = phase * Math.sqrt(12 / n) / seconds / 2 / Math.PI;
    out.addAll(
        carrier.frequency("noise", turnHz, settings.channelHz() / 2, settings.centreHz(), own));
    double slope = evm / Math.sqrt(2) / Math.sqrt(meanSquareTones() * TONES.length);
    double period = LegacyTones.TRANSFORM / settings.channelHz();
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

  private static double meanSquareTones() {
    double sum = 0;
    for (int k : TONES) {
      sum += (double) k * k;
    }
    return sum / TONES.length;
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
            new Limit(Double.NaN, LEAKAGE_LIMIT_DB),
            own));
  }

  private void image(List<Reading> out) {
    if (p.symbols() < 3) {
      return; // beside a gain of each tone's own nothing is left
    }
    double[] m = p.image();
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
    return 10 / Math.log(10) / Math.sqrt(TONES.length * Math.max(1.0, p.symbols()));
  }

  // Tables

  /** SIGNAL bit by bit, in the order in which it is sent. */
  private ResultTable signal() {
    List<Row> rows = new ArrayList<>();
    rows.add(field("Rate", 0, 4, p.rate() == null ? "there is no such rate" : rateWords()));
    SignalField f = p.signal();
    rows.add(field("Reserved", 4, 1, f.reservedIsZero() ? "0, as it must be" : "1, must be 0"));
    rows.add(field("Length", 5, 12, p.bytes() + " bytes"));
    rows.add(field("Parity", 17, 1, f.parityFits() ? "fits" : "does not fit"));
    rows.add(field("Tail", 18, 6, f.tailIsZero() ? "0, as it must be" : "must be 0"));
    return new ResultTable(
        "signal",
        "SIGNAL",
        List.of(
            new Column("Field", ""),
            new Column("Bits", ""),
            new Column("As sent", ""),
            new Column("Says", "")),
        rows);
  }

  private String rateWords() {
    double megabits = p.rate().megabits() * settings.channelHz() / 20e6;
    return String.format(Locale.ROOT, "%s, %s Mbit/s", p.rate().label(), trimmed(megabits));
  }

  private static String trimmed(double v) {
    return v == Math.rint(v) ? Integer.toString((int) v) : Double.toString(v);
  }

  private Row field(String name, int from, int bits, String says) {
    StringBuilder sent = new StringBuilder();
    for (int i = from; i < from + bits; i++) {
      sent.append(p.signal().bits()[i]);
    }
    String places = bits == 1 ? "" + from : from + " to " + (from + bits - 1);
    return new Row(
        List.of(Cell.of(name), Cell.of(places), Cell.of(sent.toString()), Cell.of(says)),
        Verdict.NONE);
  }

  /** Power of the parts of the packet, over that of the data. */
  private ResultTable fields() {
    List<Row> rows = new ArrayList<>();
    double unit = record.calibrated() ? carrier.referredDb() : 0;
    double data = p.fieldPower()[p.whole() ? 3 : 1];
    List<String> names = OfdmPacket.fields();
    for (int i = 0; i < names.size(); i++) {
      double power = p.fieldPower()[i];
      rows.add(
          new Row(
              List.of(
                  Cell.of(names.get(i)),
                  Cell.of(10 * Math.log10(power) + unit),
                  Cell.of(10 * Math.log10(power / data))),
              Verdict.NONE));
    }
    return new ResultTable(
        "fields",
        "Power by field",
        List.of(
            new Column("Field", ""),
            new Column("Power", record.calibrated() ? "dBm" : "dBFS"),
            new Column("Over the data", "dB")),
        rows);
  }

  /** As the reading of that packet would be judged. */
  private Verdict verdict(OfdmPacket x) {
    boolean trusted = context.marks().isEmpty() && settings.asTheStandard() && x.check().isEmpty();
    double db = trusted ? db(x.evm(OfdmPacket.Which.ALL)) : Double.NaN;
    return new Limit(Double.NaN, x.rate().errorLimitDb()).judge(db, evmBudget(x).expanded());
  }

  private UncertaintyBudget evmBudget(OfdmPacket x) {
    return new UncertaintyBudget()
        .normal("noise", 20 / Math.log(10) * relativeScatter(x, TONES.length));
  }

  private ResultTable list() {
    List<Row> rows = new ArrayList<>();
    double unit = record.calibrated() ? carrier.referredDb() : 0;
    for (OfdmPacket x : packets) {
      boolean whole = x.whole();
      rows.add(
          new Row(
              List.of(
                  Cell.of(startSeconds + x.startSeconds()),
                  Cell.of(x.seconds(settings.channelHz())),
                  Cell.of(x.rate() == null ? "unknown" : x.rate().label()),
                  Cell.of(x.rate() == null ? Double.NaN : x.bytes()),
                  Cell.of(10 * Math.log10(x.fieldPower()[whole ? 3 : 1]) + unit),
                  Cell.of(whole ? 100 * x.evm(OfdmPacket.Which.ALL) : Double.NaN),
                  Cell.of(x.check().isEmpty() ? "fits" : x.check())),
              whole ? verdict(x) : Verdict.NONE));
    }
    return new ResultTable(
        "packets",
        "Packets found",
        List.of(
            new Column("Begins", "s"),
            new Column("Lasts", "s"),
            new Column("Rate", ""),
            new Column("Bytes", ""),
            new Column("Power", record.calibrated() ? "dBm" : "dBFS"),
            new Column("EVM", "%"),
            new Column("Check", "")),
        rows);
  }
}
