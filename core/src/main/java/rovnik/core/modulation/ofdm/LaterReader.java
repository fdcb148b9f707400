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
    OneStream full = there < MixedPlan.SIGNAL_B ? stream : stream.withMore(symbols, plan);
    int got = plan.data().size();
    SymbolReader.Round round =
        got == 0 ? new SymbolReader.Round(0, plan.tones().length) : symbols.data(plan);
    Told told =
        count == 0
            ? new Told("SIGNAL leaves no room for its data", "", null)
            : got < count
                ? new Told("cut off: " + got + " of " + count + " symbols are there", "", null)
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
            told.words + (stream.learned() ? "; training learned from the signal" : ""),
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
   * @param words of the check, "" if something is wrong
   */
  private record Told(String wrong, String words, byte[] bytes) {}

  private static Told bits(
      OneStream stream, SymbolReader symbols, FramePlan plan, SymbolReader.Round round) {
    if (stream.lowDensity() || stream.interleaver() == null) {
      return new Told("", "its bits are in LDPC and not decoded", null);
    }
    int count = round.phase.length;
    Coding coding = stream.coding();
    if (stream.bits(count) > count * coding.dataBits(stream.tones().length)) {
      return new Told("SIGNAL ends before the data that are named", "", null);
    }
    if (stream.bytes(count) < 1) {
      return new Told("", "it has no data", null);
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
    return new Told(wrong, wrong.isEmpty() ? stream.words(p) : "", p.bytes());
  }
}
