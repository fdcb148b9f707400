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
  private final DescribedFrame frame;
  private final CarrierReadings carrier;
  private final List<OfdmPacket> packets;
  private final OfdmPacket p;
  private final FramePlan plan;
  private final double startSeconds;
  private final Function<OfdmPacket, Verdict> verdict;
  private final Function<PacketUser, Verdict> verdictOfUser;

  /**
   * @param frame that is described; null for packets that say what they are
   * @param startSeconds of the first sample that was searched
   * @param verdict of a packet's error
   * @param verdictOfUser of that of a user of the packet that is shown
   */
  OfdmTables(
      OfdmSettings settings,
      DescribedFrame frame,
      CarrierReadings carrier,
      List<OfdmPacket> packets,
      double startSeconds,
      Function<OfdmPacket, Verdict> verdict,
      Function<PacketUser, Verdict> verdictOfUser) {
    this.settings = settings;
    this.frame = frame;
    this.carrier = carrier;
    this.packets = packets;
    this.p = packets.get(settings.packet() - 1);
    this.plan = p.plan();
    this.startSeconds = startSeconds;
    this.verdict = verdict;
    this.verdictOfUser = verdictOfUser;
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
            });
    List<PacketUser> users = p.whole() ? PacketUser.of(p, frame) : List.of();
    if (!users.isEmpty()) {
      out.add(users(users));
    }
    out.add(fields());
    out.add(list());
    if (p.said() != null && p.said().payload() != null) {
      out.add(payload(List.of(p.said().payload()), List.of()));
    } else if (p.said() != null) {
      List<OfdmPacket.User> decoded =
          p.said().users().stream().filter(u -> u.payload() != null).toList();
      if (!decoded.isEmpty()) {
        out.add(
            payload(
                decoded.stream().map(OfdmPacket.User::payload).toList(),
                decoded.stream().map(OfdmPacket.User::name).toList()));
      }
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

  /**
   * Bytes as they were decoded, whether their check fits or not: the first ones of many.
   *
   * @param names whose they are; none if all are of one
   */
  private static ResultTable payload(List<byte[]> of, List<String> names) {
    List<Row> rows = new ArrayList<>();
    int most = MOST_BYTES / of.size() / BYTES_OF_ROW * BYTES_OF_ROW;
    int longest = 0;
    for (int u = 0; u < of.size(); u++) {
      byte[] bytes = of.get(u);
      longest = Math.max(longest, bytes.length);
      for (int from = 0; from < Math.min(bytes.length, most); from += BYTES_OF_ROW) {
        byte[] own = Arrays.copyOfRange(bytes, from, Math.min(bytes.length, from + BYTES_OF_ROW));
        StringBuilder text = new StringBuilder();
        for (byte b : own) {
          text.append(b >= ' ' && b <= '~' ? (char) b : '\u00b7');
        }
        List<Cell> cells = new ArrayList<>();
        if (!names.isEmpty()) {
          cells.add(Cell.of(names.get(u)));
        }
        cells.add(Cell.of(from));
        cells.add(Cell.of(HexFormat.ofDelimiter(" ").formatHex(own)));
        cells.add(Cell.of(text.toString()));
        rows.add(new Row(cells, Verdict.NONE));
      }
    }
    List<Column> columns = new ArrayList<>();
    if (!names.isEmpty()) {
      columns.add(new Column("User", ""));
    }
    for (String name : List.of("From", "Bytes", "As text")) {
      columns.add(new Column(name, ""));
    }
    return new ResultTable(
        "payload",
        longest <= most
            ? "What it carries"
            : names.isEmpty()
                ? "What it carries, the first " + most + " of " + longest + " bytes"
                : "What it carries, the first " + most + " bytes of each user",
        columns,
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
    if (frame.learned()) {
      rows.add(said("Signs of training", "learned from the signal"));
    }
    if (d.window() > 0) {
      rows.add(said("Window", d.window() + " samples"));
    }
    rows.add(said("Symbols with data", "" + all.data().size()));
    rows.add(said("Lasts", Seconds.words((all.head() + all.length()) / (2.0 * settings.rateHz()))));
    return new ResultTable(
        "signal", "As described", List.of(new Column("Field", ""), new Column("Says", "")), rows);
  }

  private static Row said(String field, String says) {
    return new Row(List.of(Cell.of(field), Cell.of(says)), Verdict.NONE);
  }

  /** How good each user's data are. */
  private ResultTable users(List<PacketUser> users) {
    List<Row> rows = new ArrayList<>();
    boolean coded = p.said() != null;
    for (PacketUser u : users) {
      double evm = u.read(p) ? u.evm(p) : Double.NaN;
      List<Cell> cells = new ArrayList<>();
      cells.add(Cell.of(u.name()));
      cells.add(Cell.of(u.tonesOf(p)));
      if (coded) {
        cells.add(Cell.of(u.coding() == null ? "not read" : unbroken(u.coding().label())));
      }
      cells.add(Cell.of(OfdmOutcome.db(evm)));
      if (coded) {
        cells.add(Cell.of(u.coding() == null ? Double.NaN : u.coding().errorLimitDb()));
      }
      cells.add(Cell.of(100 * evm));
      cells.add(Cell.of(10 * Math.log10(u.power(p))));
      if (coded) {
        cells.add(Cell.of(unbroken(u.words())));
      }
      rows.add(new Row(cells, verdictOfUser.apply(u)));
    }
    List<Column> columns = new ArrayList<>();
    columns.add(new Column("User", ""));
    columns.add(new Column("Tones", ""));
    if (coded) {
      columns.add(new Column("Coding", ""));
    }
    columns.add(new Column("EVM", "dB"));
    if (coded) {
      columns.add(new Column("Allowed", "dB"));
    }
    columns.add(new Column("EVM", "%"));
    columns.add(new Column("Over the mean", "dB"));
    if (coded) {
      columns.add(new Column("Bits", ""));
    }
    return new ResultTable("users", "Users", columns, rows);
  }

  /** Words that stay in one line. */
  private static String unbroken(String words) {
    return words.replace(' ', '\u00a0');
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

  /** "64-QAM 3/4", "HT MCS 5, 64-QAM 2/3" or "HE, 3 users", of a packet that says what it is. */
  static String kindOf(OfdmPacket x) {
    PacketFormat format = x.said().format();
    int users = x.said().users().size();
    if (users > 0) {
      return format.label() + (users == 1 ? ", a user" : ", " + users + " users");
    }
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
