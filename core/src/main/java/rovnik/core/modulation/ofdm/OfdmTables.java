package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/** Tables of the packets of a record: what one says, its fields and users, and all of them. */
final class OfdmTables {
  private final OfdmSettings settings;
  private final OfdmDescription.Frame frame;
  private final CarrierReadings carrier;
  private final List<OfdmPacket> packets;
  private final OfdmPacket p;
  private final FramePlan plan;
  private final double startSeconds;
  private final Function<OfdmPacket, Verdict> verdict;

  /**
   * @param frame that is described; null for packets that say what they are
   * @param startSeconds of the first sample that was searched
   * @param verdict of a packet's error
   */
  OfdmTables(
      OfdmSettings settings,
      OfdmDescription.Frame frame,
      CarrierReadings carrier,
      List<OfdmPacket> packets,
      double startSeconds,
      Function<OfdmPacket, Verdict> verdict) {
    this.settings = settings;
    this.frame = frame;
    this.carrier = carrier;
    this.packets = packets;
    this.p = packets.get(settings.packet() - 1);
    this.plan = p.plan();
    this.startSeconds = startSeconds;
    this.verdict = verdict;
  }

  List<ResultTable> tables() {
    List<ResultTable> out = new ArrayList<>();
    if (p.legacy() != null) {
      out.add(signal(p.legacy().signal()));
    }
    settings
        .described()
        .ifPresent(
            d -> {
              out.add(told(d));
              if (p.whole()) {
                out.add(users());
              }
            });
    out.add(fields());
    out.add(list());
    return out;
  }

  /** SIGNAL bit by bit, in the order in which it is sent. */
  private ResultTable signal(SignalField f) {
    List<Row> rows = new ArrayList<>();
    rows.add(field(f, "Rate", 0, 4, p.rate() == null ? "there is no such rate" : rateWords()));
    rows.add(field(f, "Reserved", 4, 1, f.reservedIsZero() ? "0, as it must be" : "1, must be 0"));
    rows.add(field(f, "Length", 5, 12, f.bytes() + " bytes"));
    rows.add(field(f, "Parity", 17, 1, f.parityFits() ? "fits" : "does not fit"));
    rows.add(field(f, "Tail", 18, 6, f.tailIsZero() ? "0, as it must be" : "must be 0"));
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
    double megabits = p.rate().megabits() * settings.rateHz() / 20e6;
    return String.format(Locale.ROOT, "%s, %s Mbit/s", p.rate().label(), trimmed(megabits));
  }

  private static String trimmed(double v) {
    return v == Math.rint(v) ? Integer.toString((int) v) : Double.toString(v);
  }

  private static Row field(SignalField f, String name, int from, int bits, String says) {
    StringBuilder sent = new StringBuilder();
    for (int i = from; i < from + bits; i++) {
      sent.append(f.bits()[i]);
    }
    String places = bits == 1 ? "" + from : from + " to " + (from + bits - 1);
    return new Row(
        List.of(Cell.of(name), Cell.of(places), Cell.of(sent.toString()), Cell.of(says)),
        Verdict.NONE);
  }

  /** Power of the parts of the packet, over that of the data. */
  private ResultTable fields() {
    List<Row> rows = new ArrayList<>();
    double unit = carrier.referredDb();
    double data = OfdmOutcome.dataPower(p);
    List<String> names = new ArrayList<>();
    settings
        .described()
        .ifPresentOrElse(
            d -> names.addAll(frame.fields()),
            () -> names.addAll(List.of("Short training", "Long training", "SIGNAL")));
    names.add("Data");
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
            new Column("Power", carrier.levelUnit()),
            new Column("Over the data", "dB")),
        rows);
  }

  /** What the description says, where other packets say it themselves. */
  private ResultTable told(OfdmDescription d) {
    FramePlan all = frame.plan();
    List<Row> rows = new ArrayList<>();
    rows.add(said("Name", d.name()));
    rows.add(said("Source", d.source().isEmpty() ? "not said" : d.source()));
    rows.add(said("From tone to tone", Frequency.ofHertz(d.spacingHz()).toString()));
    rows.add(
        said(
            "Tones in use",
            (all.tones().length
                    + " from "
                    + all.tones()[0]
                    + " to "
                    + all.tones()[all.tones().length - 1])
                .replace('-', '\u2212')));
    rows.add(said("Transform", d.transform() + " samples"));
    rows.add(said("Symbols to learn from", "" + all.training().size()));
    rows.add(said("Symbols with data", "" + all.data().size()));
    rows.add(said("Lasts", Seconds.words((all.head() + all.length()) / (2.0 * settings.rateHz()))));
    return new ResultTable(
        "signal", "As described", List.of(new Column("Field", ""), new Column("Says", "")), rows);
  }

  private static Row said(String field, String says) {
    return new Row(List.of(Cell.of(field), Cell.of(says)), Verdict.NONE);
  }

  /** How good each user's data are. */
  private ResultTable users() {
    List<Row> rows = new ArrayList<>();
    for (int u = 0; u < frame.users().size(); u++) {
      int user = u;
      double evm = p.evm(OfdmPacket.Which.DATA, (s, k) -> frame.of().get(s)[k] == user);
      String name = frame.users().get(u);
      rows.add(
          new Row(
              List.of(
                  Cell.of(name.isEmpty() ? "all data" : name),
                  Cell.of(tonesOf(u)),
                  Cell.of(100 * evm),
                  Cell.of(OfdmOutcome.db(evm))),
              Verdict.NONE));
    }
    return new ResultTable(
        "users",
        "Users",
        List.of(
            new Column("User", ""),
            new Column("Tones", ""),
            new Column("EVM", "%"),
            new Column("EVM", "dB")),
        rows);
  }

  /** The tones of a user in any symbol: how many, and from where to where. */
  private String tonesOf(int user) {
    int count = 0;
    int first = 0;
    int last = 0;
    for (int k = 0; k < plan.tones().length; k++) {
      int tone = k;
      if (frame.of().stream().anyMatch(of -> of[tone] == user)) {
        first = count++ == 0 ? plan.tones()[k] : first;
        last = plan.tones()[k];
      }
    }
    return (count + " from " + first + " to " + last).replace('-', '\u2212');
  }

  private String kindOf(OfdmPacket x) {
    return x.legacy() == null
        ? settings.description().name()
        : x.rate() == null ? "unknown" : x.rate().label();
  }

  private ResultTable list() {
    List<Row> rows = new ArrayList<>();
    double unit = carrier.referredDb();
    for (OfdmPacket x : packets) {
      boolean whole = x.whole();
      rows.add(
          new Row(
              List.of(
                  Cell.of(startSeconds + x.startSeconds()),
                  Cell.of(x.seconds(settings.rateHz())),
                  Cell.of(kindOf(x)),
                  Cell.of(x.rate() == null ? Double.NaN : x.legacy().signal().bytes()),
                  Cell.of(10 * Math.log10(OfdmOutcome.dataPower(x)) + unit),
                  Cell.of(whole ? 100 * x.evm(OfdmPacket.Which.ALL) : Double.NaN),
                  Cell.of(x.check().isEmpty() ? "fits" : x.check())),
              whole ? verdict.apply(x) : Verdict.NONE));
    }
    return new ResultTable(
        "packets",
        "Packets found",
        List.of(
            new Column("Begins", "s"),
            new Column("Lasts", "s"),
            new Column(settings.described().isPresent() ? "As described" : "Rate", ""),
            new Column("Bytes", ""),
            new Column("Power", carrier.levelUnit()),
            new Column("EVM", "%"),
            new Column("Check", "")),
        rows);
  }
}
