package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;

/** Reads the data of a packet of one stream in 20 MHz that says behind SIGNAL what it is. */
final class LaterReader {
  private final ChannelSamples preambles;
  private final ChannelSamples samples;
  private final OfdmSettings settings;
  private final List<OfdmPacket.Field> first;

  /**
   * @param preambles in which the packet says what it is
   * @param samples of the whole channel
   * @param first fields of the preamble up to SIGNAL
   */
  LaterReader(
      ChannelSamples preambles,
      ChannelSamples samples,
      OfdmSettings settings,
      List<OfdmPacket.Field> first) {
    this.preambles = preambles;
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
    OneStream stream = header.data();
    int count = stream.symbols(usual);
    FramePlan whole = stream.plan(count);
    PacketFinder.Found own = own(found, stream.training());
    int there = samples.count() - own.training() - whole.transform();
    FramePlan plan = whole.with(whole.data().stream().filter(s -> s.at() <= there).toList());
    SymbolReader symbols = new SymbolReader(samples, settings, plan);
    symbols.begin(plan, own, plan.length());
    if (stream.learned() && !plan.data().isEmpty()) {
      plan = new LearnedTraining(symbols, plan).learned();
      symbols.trainAgain(plan);
    }
    // What else is said comes before the data: samples are read no farther than those go.
    OneStream full = plan.data().isEmpty() ? stream : stream.withMore(symbols, plan);
    int got = plan.data().size();
    SymbolReader.Round round =
        got == 0 ? new SymbolReader.Round(0, plan.tones().length) : symbols.data(plan);
    Told told =
        count == 0
            ? Told.nothing("SIGNAL leaves no room for its data", "")
            : got < count
                ? Told.nothing("cut off: " + got + " of " + count + " symbols are there", "")
                : bits(full, symbols, plan, round);
    List<HeaderBits.Part> parts = new ArrayList<>(signal.parts(SignalField.SPOOFED));
    parts.addAll(full.parts());
    if (stream.learned()) {
      parts.add(new HeaderBits.Part("Training", "Signs", "learned from the signal", "", ""));
    }
    List<OfdmPacket.Field> fields = new ArrayList<>();
    first.forEach(f -> fields.add(f.times(stream.width())));
    stream.fields().forEach(f -> fields.add(f.times(stream.width())));
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
            stream.coding(),
            told.bytes == null && header.format() != PacketFormat.HT
                ? Double.NaN
                : stream.bytes(count),
            told.bytes,
            told.checked,
            told.words,
            stream.learned(),
            LegacyPlan.end(usual)));
  }

  /** Its own training in the whole channel. */
  private PacketFinder.Found own(PacketFinder.Found found, int later) {
    int at = found.training() + later;
    if (samples == preambles) {
      return new PacketFinder.Found(at, found.offset());
    }
    double radiansPerHz = 2 * Math.PI / samples.rateHz();
    double carrierHz =
        preambles.offsetHz()
            + found.offset() * preambles.rateHz() / (2 * Math.PI)
            - settings.toLowestHz();
    return new PacketFinder.Found(
        samples.placeOf(preambles.seconds(at)), (carrierHz - samples.offsetHz()) * radiansPerHz);
  }

  /**
   * What was made of the bits.
   *
   * @param checked there is a check, and it fits
   * @param words of that, "" if something is wrong
   */
  private record Told(String wrong, boolean checked, String words, byte[] bytes) {
    /** Nothing was decoded. */
    static Told nothing(String wrong, String words) {
      return new Told(wrong, false, words, null);
    }
  }

  private static Told bits(
      OneStream stream, SymbolReader symbols, FramePlan plan, SymbolReader.Round round) {
    if (stream.lowDensity()) {
      return Told.nothing("", "its bits are in LDPC and not decoded");
    }
    if (stream.interleaver() == null) {
      return Told.nothing("", "its bits are not decoded");
    }
    int count = round.phase.length;
    Coding coding = stream.coding();
    if (stream.bits(count) > count * coding.dataBits(stream.tones().length)) {
      return Told.nothing("SIGNAL ends before the data that are named", "");
    }
    if (stream.bytes(count) < 1) {
      return Told.nothing("", "it has no data");
    }
    LegacyBits.Payload p =
        BitReader.payload(
            symbols,
            plan,
            round,
            coding,
            stream.interleaver(),
            stream.tones(),
            stream.bits(count),
            stream.bytes(count));
    String wrong = stream.wrong(p);
    boolean right = wrong.isEmpty();
    return new Told(wrong, right && stream.checked(p), right ? stream.words(p) : "", p.bytes());
  }
}
