package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
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
  private static final int BYTES_OF_ROW = 8;

  /** Enough to know what it is; all of it is in the recording. */
  private static final int MOST_BYTES = 512;

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
    if (p.said() != null) {
      out.add(signal(p.said()));
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
    if (p.said() != null && p.said().payload() != null) {
      out.add(payload(p.said().payload()));
    }
    return out;
  }

  /** What it says bit by bit, in the order in which it is sent. */
  private static ResultTable signal(OfdmPacket.Said said) {
    boolean one = said.format() == PacketFormat.LEGACY;
    List<Row> rows = new ArrayList<>();
    for (HeaderBits.Part part : said.parts()) {
      List<Cell> cells = new ArrayList<>();
      if (!one) {
        cells.add(Cell.of(part.of()));
      }
      cells.add(Cell.of(part.field()));
      cells.add(Cell.of(part.says()));
      cells.add(Cell.of(part.places()));
      cells.add(Cell.of(part.sent()));
      rows.add(new Row(cells, Verdict.NONE));
    }
    List<Column> columns = new ArrayList<>();
    if (!one) {
      columns.add(new Column("In", ""));
    }
    for (String name : List.of("Field", "Says", "Bits", "As sent")) {
      columns.add(new Column(name, ""));
    }
    return new ResultTable("signal", one ? "SIGNAL" : "What the packet says", columns, rows);
  }

  /** Power of the parts of the packet, over that of the data. */
  private ResultTable fields() {
    List<Row> rows = new ArrayList<>();
    double unit = carrier.referredDb();
    double data = OfdmOutcome.dataPower(p);
    List<String> names = new ArrayList<>();
    if (p.said() == null) {
      names.addAll(frame.fields());
    } else {
      p.said().fields().forEach(f -> names.add(f.name()));
    }
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

  /** Bytes as they were decoded, whether their check fits or not: the first ones of many. */
  private static ResultTable payload(byte[] bytes) {
    List<Row> rows = new ArrayList<>();
    for (int from = 0; from < Math.min(bytes.length, MOST_BYTES); from += BYTES_OF_ROW) {
      byte[] own = Arrays.copyOfRange(bytes, from, Math.min(bytes.length, from + BYTES_OF_ROW));
      StringBuilder text = new StringBuilder();
      for (byte b : own) {
        text.append(b >= ' ' && b <= '~' ? (char) b : '\u00b7');
      }
      rows.add(
          new Row(
              List.of(
                  Cell.of(from),
                  Cell.of(HexFormat.ofDelimiter(" ").formatHex(own)),
                  Cell.of(text.toString())),
              Verdict.NONE));
    }
    return new ResultTable(
        "payload",
        bytes.length > MOST_BYTES
            ? "What it carries, the first " + MOST_BYTES + " of " + bytes.length + " bytes"
            : "What it carries",
        List.of(new Column("From", ""), new Column("Bytes", ""), new Column("As text", "")),
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

  /** What is wrong, that a check fits, or why nothing was checked. */
  private static String checkOf(OfdmPacket x) {
    if (!x.check().isEmpty() || x.said() == null) {
      return x.check();
    }
    return x.said().checked() ? "fits" : x.said().words();
  }

  /** "64-QAM 3/4", or "HT MCS 5". */
  private static String shortKindOf(OfdmPacket x) {
    PacketFormat format = x.said().format();
    return format == PacketFormat.LEGACY || x.coding() == null
        ? kindOf(x)
        : format.label() + " " + x.coding().name();
  }

  /** "64-QAM 3/4", or "HT MCS 5, 64-QAM 2/3", of a packet that says what it is. */
  static String kindOf(OfdmPacket x) {
    PacketFormat format = x.said().format();
    String coding = x.coding() == null ? "unknown" : x.coding().words();
    return format == PacketFormat.LEGACY ? coding : format.label() + " " + coding;
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
                  Cell.of(x.seconds(x.said() == null ? settings.rateHz() : settings.preambleHz())),
                  Cell.of(x.said() == null ? settings.description().name() : shortKindOf(x)),
                  Cell.of(x.said() == null ? Double.NaN : x.said().bytes()),
                  Cell.of(10 * Math.log10(OfdmOutcome.dataPower(x)) + unit),
                  Cell.of(whole ? 100 * x.evm(OfdmPacket.Which.ALL) : Double.NaN),
                  Cell.of(checkOf(x))),
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
