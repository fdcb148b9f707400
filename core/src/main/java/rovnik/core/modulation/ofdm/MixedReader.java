package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Reads the data of a packet of one HT or VHT stream in 20 MHz. */
final class MixedReader {
  private final ChannelSamples samples;
  private final OfdmSettings settings;
  private final List<OfdmPacket.Field> first;

  /**
   * @param first fields of the preamble up to SIGNAL
   */
  MixedReader(ChannelSamples samples, OfdmSettings settings, List<OfdmPacket.Field> first) {
    this.samples = samples;
    this.settings = settings;
    this.first = first;
  }

  /**
   * Reads a packet; what there is of it if it is cut off.
   *
   * @param usual symbols of usual length behind SIGNAL, as that says
   */
  OfdmPacket read(PacketFinder.Found found, SignalField signal, PacketHeader header, int usual) {
    int guard = header.guard();
    int count = symbols(header, usual);
    FramePlan whole = MixedPlan.of(header.format(), header.coding(), guard, count);
    PacketFinder.Found own =
        new PacketFinder.Found(found.training() + MixedPlan.TRAINING, found.offset());
    int there = samples.count() - own.training() - whole.transform();
    List<SymbolPlan> data = whole.data().stream().filter(s -> s.at() <= there).toList();
    FramePlan plan = whole.with(data);
    SymbolReader symbols = new SymbolReader(samples, settings, plan);
    symbols.begin(plan, own, plan.length());
    PacketHeader full = there < MixedPlan.SIGNAL_B ? header : withMore(header, symbols, plan);
    SymbolReader.Round round =
        data.isEmpty() ? new SymbolReader.Round(0, plan.tones().length) : symbols.data(plan);
    Told told =
        data.size() < count
            ? new Told("cut off: " + data.size() + " of " + count + " symbols are there", "", null)
            : bits(full, symbols, plan, round);
    List<HeaderBits.Part> parts = new ArrayList<>(signal.parts(SignalField.SPOOFED));
    parts.addAll(full.parts());
    List<OfdmPacket.Field> fields = fields(header.format());
    return OfdmPacket.of(
        symbols,
        plan,
        round,
        told.wrong,
        PacketReader.fieldPower(symbols, plan, fields),
        new OfdmPacket.Said(
            header.format(),
            parts,
            fields,
            header.coding(),
            bytes(full, told),
            told.bytes,
            told.words,
            LegacyPlan.end(usual)));
  }

  /** Symbols with data. */
  private static int symbols(PacketHeader header, int usual) {
    int samplesOfData = (usual - MixedPlan.before(header.format())) * LegacyPacket.SYMBOL;
    int room = samplesOfData / (LegacyTones.TRANSFORM + header.guard());
    return Math.max(0, header.symbols(Math.max(0, room)));
  }

  private static PacketHeader withMore(PacketHeader header, SymbolReader symbols, FramePlan plan) {
    if (!(header instanceof VhtSignal v)) {
      return header;
    }
    float[] sure =
        HeaderReader.Sure.of(symbols, plan, MixedPlan.SIGNAL_B, 3, MixedTones.data()).straight();
    return v.withB(LegacyBits.header(Interleaver.LATER.inOrder(sure, 1), VhtSignal.BITS_B));
  }

  /**
   * What was made of the bits.
   *
   * @param words of the check, "" if something is wrong
   */
  private record Told(String wrong, String words, byte[] bytes) {}

  private static Told bits(
      PacketHeader header, SymbolReader symbols, FramePlan plan, SymbolReader.Round round) {
    if (header.lowDensity() || round.phase.length == 0) {
      return new Told("", "its bits are in LDPC and not decoded", null);
    }
    Coding coding = header.coding();
    int tail = ConvolutionalCode.TAIL_BITS;
    int all = round.phase.length * coding.dataBits(MixedTones.DATA);
    int bytes =
        header instanceof HtSignal h ? h.bytes() : (all - LegacyBits.SERVICE_BITS - tail) / 8;
    int count = header instanceof HtSignal ? LegacyBits.SERVICE_BITS + 8 * bytes + tail : all;
    if (count > all) {
      return new Told("SIGNAL ends before the data that HT-SIG names", "", null);
    }
    LegacyBits.Payload p =
        BitReader.payload(
            symbols, plan, round, coding, Interleaver.LATER, MixedTones.data(), count, bytes);
    return header instanceof VhtSignal v ? ofVht(v, p) : ofHt((HtSignal) header, p);
  }

  private static Told ofHt(HtSignal h, LegacyBits.Payload p) {
    if (h.aggregated()) {
      return new Told("", FrameCheck.Several.in(p.bytes()).words(), p.bytes());
    }
    String wrong = p.wrong();
    return new Told(wrong, wrong.isEmpty() ? "its check sum fits" : "", p.bytes());
  }

  /** SERVICE ends with the check of SIG-B. */
  private static Told ofVht(VhtSignal v, LegacyBits.Payload p) {
    byte[] wanted = new byte[LegacyBits.SERVICE_BITS];
    byte[] check = v.checkOfB();
    System.arraycopy(check, 0, wanted, wanted.length - check.length, check.length);
    if (!Arrays.equals(wanted, p.service())) {
      return new Told("SERVICE does not hold the check of VHT-SIG-B", "", p.bytes());
    }
    return new Told("", FrameCheck.Several.in(p.bytes()).words(), p.bytes());
  }

  private static double bytes(PacketHeader header, Told told) {
    return header instanceof HtSignal h
        ? h.bytes()
        : told.bytes == null ? Double.NaN : told.bytes.length;
  }

  private List<OfdmPacket.Field> fields(PacketFormat format) {
    String name = format.label();
    List<OfdmPacket.Field> out = new ArrayList<>(first);
    boolean vht = format == PacketFormat.VHT;
    out.add(OfdmPacket.Field.of(vht ? "VHT-SIG-A" : "HT-SIG", 2 * LegacyPacket.SYMBOL));
    out.add(OfdmPacket.Field.of("Short training, " + name, LegacyPacket.SYMBOL));
    out.add(OfdmPacket.Field.of("Training, " + name, LegacyPacket.SYMBOL));
    if (vht) {
      out.add(OfdmPacket.Field.of("VHT-SIG-B", LegacyPacket.SYMBOL));
    }
    return List.copyOf(out);
  }
}
