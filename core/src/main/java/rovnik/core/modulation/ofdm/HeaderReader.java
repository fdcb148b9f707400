package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.modulation.Constellation;

/** Reads what a packet says behind SIGNAL, and with it of which kind it is. */
final class HeaderReader {
  /** Symbols behind SIGNAL of a packet for a long range before its training. */
  private static final int FAR = 5;

  /** Bits of a header that a symbol of 52 tones with data carries, one on each tone. */
  private static final int BITS_OF_SYMBOL = MixedTones.DATA / 2;

  private final Channels channels;
  private final OfdmSettings settings;
  private final SymbolReader symbols;
  private final SymbolReader repeated;

  /**
   * @param symbols that read the preamble
   */
  HeaderReader(SymbolReader symbols, Channels channels, OfdmSettings settings) {
    this.channels = channels;
    this.settings = settings;
    this.symbols = symbols;
    this.repeated = new SymbolReader(channels.preamble(0), settings, MixedPlan.REPEATED);
  }

  /**
   * How sure each bit of a symbol is, one bit a tone.
   *
   * @param straight if its points are on the real axis
   * @param turned if they are a quarter of a turn farther
   * @param passes how much of its tone comes through, over the mean
   * @param level of the pilots, over what the channel lets through
   */
  record Sure(float[] straight, float[] turned, float[] passes, double level) {
    /** Of a symbol in 20 MHz of what a reader has begun. */
    static Sure of(SymbolReader from, FramePlan plan, int at, int number, int[] data) {
      return of(from, plan, LegacyPlan.header(plan, at, number), data);
    }

    /** Of a symbol of what a reader has begun; its pilots say how it is turned. */
    static Sure of(SymbolReader from, FramePlan plan, SymbolPlan symbol, int[] data) {
      from.transform(symbol.at());
      ToneChannel channel = from.channel();
      double x = 0;
      double y = 0;
      double through = 1e-300;
      for (int k = 0; k < plan.tones().length; k++) {
        if (symbol.roles()[k] == SymbolPlan.Role.PILOT) {
          through += channel.passes(k);
          double p = passedRe(from, channel, k);
          double q = passedIm(from, channel, k);
          x += symbol.pointRe(k, p, q);
          y += symbol.pointIm(k, p, q);
        }
      }
      double sum = Math.max(1e-300, Math.hypot(x, y));
      double length = sum * channel.meanPower();
      int count = data.length;
      Sure out = new Sure(new float[count], new float[count], new float[count], sum / through);
      for (int i = 0; i < data.length; i++) {
        int k = plan.indexOf(data[i]);
        double a = passedRe(from, channel, k);
        double b = passedIm(from, channel, k);
        double p = symbol.pointRe(k, a, b);
        double q = symbol.pointIm(k, a, b);
        out.straight[i] = (float) ((p * x + q * y) / length);
        out.turned[i] = (float) ((q * x - p * y) / length);
        out.passes[i] = (float) (channel.passes(k) / channel.meanPower());
      }
      return out;
    }

    private static double passedRe(SymbolReader from, ToneChannel channel, int k) {
      return from.re(k) * channel.re(k) + from.im(k) * channel.im(k);
    }

    private static double passedIm(SymbolReader from, ToneChannel channel, int k) {
      return from.im(k) * channel.re(k) - from.re(k) * channel.im(k);
    }

    /** Of points with more bits, one after the other, from a place on. */
    void bits(Constellation points, float[] out, int from) {
      int each = points.bitsPerSymbol();
      for (int i = 0; i < straight.length; i++) {
        double one = Math.max(1e-30, passes[i]) * level;
        BitReader.sure(points, straight[i] / one, turned[i] / one, passes[i], out, from + i * each);
      }
    }

    /** True if its points are rather a quarter of a turn farther. */
    boolean isTurned() {
      double more = 0;
      for (int i = 0; i < straight.length; i++) {
        more += turned[i] * turned[i] - straight[i] * straight[i];
      }
      return more > 0;
    }
  }

  /**
   * What comes behind a SIGNAL that says 6 Mbit/s; null if that is what it seems to be.
   *
   * @param there symbols of usual length behind it
   */
  PacketHeader behind(PacketFinder.Found found, SignalField signal, int there) {
    int count = Math.min(MixedPlan.MOST_HEADERS, there);
    if (count < 2) {
      return null;
    }
    symbols.begin(LegacyPlan.PREAMBLE, found, LegacyPlan.end(count));
    Sure first = sure(1);
    Sure second = sure(2);
    if (Arrays.equals(LegacyBits.signal(first.straight).bits(), signal.bits())) {
      return repeated(found, signal.bytes(), there);
    }
    if (first.isTurned() && second.isTurned()) {
      return new HtSignal(bits(Interleaver.LEGACY, first.turned, second.turned));
    }
    if (!first.isTurned() && second.isTurned()) {
      return VhtSignal.ofA(bits(Interleaver.LEGACY, first.straight, second.turned));
    }
    return null;
  }

  private Sure sure(int number) {
    int at = LegacyPlan.SIGNAL + number * LegacyPlan.SYMBOL;
    return Sure.of(symbols, LegacyPlan.PREAMBLE, at, number, LegacyTones.data());
  }

  /** Behind a SIGNAL that came twice, its outermost tones with it. */
  private PacketHeader repeated(PacketFinder.Found found, int length, int there) {
    int count = Math.min(MixedPlan.MOST_HEADERS, there);
    // What the length leaves over 3 says whose bits they are.
    int left = length % 3;
    if (count < 3) {
      byte[] none = new byte[HeSignal.BITS];
      return left == 0 ? UniversalSignal.of(none) : new HeSignal(HeSignal.Kind.ONE, none);
    }
    repeated.begin(MixedPlan.REPEATED, found, LegacyPlan.end(count));
    Sure first = wide(2);
    Sure second = wide(3);
    if (left == 2 && second.isTurned() && count >= FAR) {
      // Each symbol comes twice, the first of both turned and not spread.
      return new HeSignal(
          HeSignal.Kind.FAR, bits(Interleaver.LATER, first.straight, wide(4).straight));
    }
    byte[] bits = bits(Interleaver.LATER, first.straight, second.straight);
    if (left == 1) {
      HeSignal one = new HeSignal(HeSignal.Kind.ONE, bits);
      return settings.trigger() != null && one.answers()
          ? new HeTriggeredSignal(one, settings.trigger())
          : one;
    }
    if (left == 2) {
      return shared(HeSharedSignal.of(bits), found, there);
    }
    UniversalSignal u = UniversalSignal.of(bits);
    int each = u.bitsPerTone();
    int symbols = each == 0 ? 0 : UniversalSignal.BITS / (each * BITS_OF_SYMBOL);
    return u.wrong().isEmpty() && each > 0 && count >= 3 + symbols ? u.with(more(each)) : u;
  }

  /** With HE-SIG-B, if it is there and has a form that is read. */
  private PacketHeader shared(HeSharedSignal a, PacketFinder.Found found, int there) {
    int first = 4;
    if (!a.named() || there < first - 1 + a.symbolsOfB() || a.width() > settings.width()) {
      return a;
    }
    List<byte[]> halves = new ArrayList<>();
    for (int half = 0; half < HeSigB.halves(a.width()); half++) {
      ChannelSamples own = channels.preamble(half);
      SymbolReader reader =
          half == 0 ? repeated : new SymbolReader(own, settings, MixedPlan.REPEATED);
      double hz = half * settings.preambleHz();
      reader.begin(
          MixedPlan.REPEATED,
          channels.moved(found, 0, hz, own),
          LegacyPlan.end(first - 1 + a.symbolsOfB()));
      halves.add(bits(reader, a.codingOfB(), first, a.symbolsOfB()));
    }
    return a.with(halves);
  }

  /** Of several symbols of 52 tones with data, all that they carry. */
  private static byte[] bits(SymbolReader reader, Coding coding, int first, int symbols) {
    int each = coding.codedBits(MixedTones.DATA);
    float[] sure = new float[symbols * each];
    for (int s = 0; s < symbols; s++) {
      int at = LegacyPlan.SIGNAL + (first + s) * LegacyPlan.SYMBOL;
      Sure of = Sure.of(reader, MixedPlan.REPEATED, at, first + s, MixedTones.data());
      of.bits(coding.constellation(), sure, s * each);
    }
    float[] coded = Interleaver.LATER.inOrder(sure, coding.bitsPerTone());
    return coding.code().decode(coded, symbols * coding.dataBits(MixedTones.DATA), false);
  }

  /** EHT-SIG of one user: two symbols of one bit a tone, or one of two. */
  private byte[] more(int bitsPerTone) {
    Sure first = wide(4);
    if (bitsPerTone == 1) {
      return bits(Interleaver.LATER, first.straight, wide(5).straight);
    }
    float[] both = new float[2 * first.straight.length];
    for (int i = 0; i < first.straight.length; i++) {
      both[2 * i] = first.straight[i];
      both[2 * i + 1] = first.turned[i];
    }
    return LegacyBits.header(Interleaver.LATER.inOrder(both, 2), both.length / 2);
  }

  private Sure wide(int number) {
    int at = LegacyPlan.SIGNAL + number * LegacyPlan.SYMBOL;
    return Sure.of(repeated, MixedPlan.REPEATED, at, number, MixedTones.data());
  }

  private static byte[] bits(Interleaver tones, float[] first, float[] second) {
    float[] a = tones.inOrder(first, 1);
    float[] coded = Arrays.copyOf(a, a.length + second.length);
    System.arraycopy(tones.inOrder(second, 1), 0, coded, a.length, second.length);
    return LegacyBits.header(coded, coded.length / 2);
  }
}
