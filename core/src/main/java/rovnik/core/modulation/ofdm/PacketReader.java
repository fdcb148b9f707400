package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;

/**
 * Reads packets of IEEE 802.11 clause 17: what SIGNAL says, then the symbols behind it; and newer
 * ones that begin like those.
 */
final class PacketReader {
  /** Width in which packets of later clauses begin so. */
  private static final double USUAL_HZ = 20e6;

  private static final List<OfdmPacket.Field> FIELDS =
      List.of(
          OfdmPacket.Field.of("Short training", LegacyPacket.TRAINING),
          OfdmPacket.Field.of("Long training", LegacyPacket.TRAINING),
          OfdmPacket.Field.of("SIGNAL", LegacyPacket.SYMBOL));

  private final ChannelSamples samples;
  private final Channels channels;
  private final OfdmSettings settings;
  private final SymbolReader symbols;
  private final HeaderReader headers;

  PacketReader(Channels channels, OfdmSettings settings) {
    this.samples = channels.preamble(0);
    this.channels = channels;
    this.settings = settings;
    this.symbols = new SymbolReader(samples, settings, LegacyPlan.PREAMBLE);
    this.headers = new HeaderReader(symbols, channels, settings);
  }

  /** Reads a packet; what there is of it if it cannot be decoded. */
  OfdmPacket read(PacketFinder.Found found) {
    int toData = LegacyPlan.end(0);
    symbols.begin(LegacyPlan.PREAMBLE, found, toData);
    float[] sure =
        HeaderReader.Sure.of(symbols, LegacyPlan.PREAMBLE, LegacyPlan.SIGNAL, 0, LegacyTones.data())
            .straight();
    SignalField field = LegacyBits.signal(sure);
    int there = (int) Math.floor((samples.count() - symbols.first() - toData) / LegacyPlan.SYMBOL);
    String check = there < 0 ? "cut off before SIGNAL ends" : field.wrong();
    LegacyRate rate = check.isEmpty() ? field.rate().orElse(null) : null;
    if (rate == LegacyRate.R6 && settings.preambleHz() == USUAL_HZ) {
      PacketHeader header = headers.behind(found, field, there);
      if (header != null) {
        return later(found, field, header);
      }
    }
    if (rate != null && settings.width() > 1) {
      check = "it is a packet of 20 MHz in the lowest part: choose that channel";
      return unread(field, check, LegacyPlan.end(rate.symbolsOf(field.bytes())));
    }
    return rate == null ? unread(field, check, LegacyPlan.end(0)) : legacy(field, rate, there);
  }

  private OfdmPacket unread(SignalField field, String check, int end) {
    FramePlan plan = LegacyPlan.PREAMBLE;
    return OfdmPacket.of(
            symbols,
            plan,
            new SymbolReader.Round(0, plan.tones().length),
            check,
            fieldPower(symbols, plan, FIELDS),
            OfdmPacket.Said.unread(
                PacketFormat.LEGACY, field.parts(field.rateWords()), FIELDS, end))
        .moved(-settings.toLowestHz());
  }

  private OfdmPacket legacy(SignalField field, LegacyRate rate, int there) {
    int bytes = field.bytes();
    int count = rate.symbolsOf(bytes);
    boolean cut = count > there;
    String check = cut ? "cut off: " + there + " of " + count + " symbols are there" : "";
    count = cut ? there : count;
    FramePlan plan = count == 0 ? LegacyPlan.PREAMBLE : LegacyPlan.of(rate, count);
    SymbolReader.Round round =
        count == 0 ? new SymbolReader.Round(0, plan.tones().length) : symbols.data(plan);
    LegacyBits.Payload payload = null;
    if (!cut) {
      payload =
          BitReader.payload(
              symbols,
              plan,
              round,
              rate.coding(),
              Interleaver.LEGACY,
              LegacyTones.data(),
              LegacyBits.SERVICE_BITS + 8 * bytes + ConvolutionalCode.TAIL_BITS,
              bytes);
      check = payload.wrong();
    }
    return OfdmPacket.of(
        symbols,
        plan,
        round,
        check,
        fieldPower(symbols, plan, FIELDS),
        new OfdmPacket.Said(
            PacketFormat.LEGACY,
            field.parts(rate.label() + ", " + megabits(rate) + " Mbit/s"),
            FIELDS,
            rate.coding(),
            bytes,
            payload == null ? null : payload.bytes(),
            payload != null && check.isEmpty(),
            check.isEmpty() ? "its check sum fits" : "",
            false,
            LegacyPlan.end(count),
            List.of(),
            List.of()));
  }

  /** A packet that says behind SIGNAL what it is. */
  private OfdmPacket later(PacketFinder.Found found, SignalField signal, PacketHeader header) {
    int symbols4 = (signal.bytes() + 3 + 2) / 3;
    int end = LegacyPlan.end(symbols4);
    String check = header.wrong().isEmpty() ? header.unread() : header.wrong();
    if (check.isEmpty() && header.data().width() != settings.width()) {
      check =
          "its data are "
              + 20 * header.data().width()
              + " MHz wide: choose that channel, and its middle";
    }
    if (check.isEmpty()
        && header.data().reach() * settings.channelHz() > channels.whole().reachHz()) {
      check = "its tones reach farther than the samples: sample faster, or in its middle";
    }
    if (check.isEmpty()) {
      return new LaterReader(channels, settings, FIELDS).read(found, signal, header, symbols4);
    }
    FramePlan plan = LegacyPlan.PREAMBLE;
    List<HeaderBits.Part> parts = new ArrayList<>(signal.parts(SignalField.SPOOFED));
    parts.addAll(header.parts());
    return OfdmPacket.of(
            symbols,
            plan,
            new SymbolReader.Round(0, plan.tones().length),
            check,
            fieldPower(symbols, plan, FIELDS),
            OfdmPacket.Said.unread(header.format(), parts, FIELDS, end))
        .moved(-settings.toLowestHz());
  }

  /** Of each field, then of the data; not a number if there are none. */
  static double[] fieldPower(SymbolReader from, FramePlan plan, List<OfdmPacket.Field> fields) {
    double[] out = new double[fields.size() + 1];
    int at = -plan.head();
    for (int f = 0; f < fields.size(); f++) {
      int to = at + fields.get(f).samples();
      out[f] = from.power(at, to);
      at = to;
    }
    out[fields.size()] = plan.data().isEmpty() ? Double.NaN : from.power(at, plan.length());
    return out;
  }

  private String megabits(LegacyRate rate) {
    double v = rate.megabits() * settings.channelHz() / USUAL_HZ;
    return v == Math.rint(v) ? Integer.toString((int) v) : Double.toString(v);
  }
}
