package rovnik.core.modulation.ofdm;

import rovnik.core.modulation.Constellation;

/** Reads packets of IEEE 802.11 clause 17: what SIGNAL says, then the symbols behind it. */
final class PacketReader {
  private final ChannelSamples samples;
  private final SymbolReader symbols;

  PacketReader(ChannelSamples samples, OfdmSettings settings) {
    this.samples = samples;
    this.symbols = new SymbolReader(samples, settings, LegacyPlan.PREAMBLE);
  }

  /** Reads a packet; what there is of it if it cannot be decoded. */
  OfdmPacket read(PacketFinder.Found found) {
    int toData = LegacyPlan.SIGNAL + LegacyPlan.PREAMBLE.transform();
    symbols.begin(LegacyPlan.PREAMBLE, found, toData);
    SignalField field = LegacyBits.signal(signal());
    int there = (int) Math.floor((samples.count() - symbols.first() - toData) / LegacyPlan.SYMBOL);
    String check = there < 0 ? "cut off before SIGNAL ends" : field.wrong();
    LegacyRate rate = check.isEmpty() ? field.rate().orElse(null) : null;
    int bytes = field.bytes();
    int count = rate == null ? 0 : rate.symbolsOf(bytes);
    if (rate != null && count > there) {
      check = "cut off: " + there + " of " + count + " symbols are there";
      count = there;
    }
    FramePlan plan = count == 0 ? LegacyPlan.PREAMBLE : LegacyPlan.of(rate, count);
    SymbolReader.Round round =
        count == 0 ? new SymbolReader.Round(0, plan.tones().length) : symbols.data(plan);
    LegacyBits.Payload payload =
        rate == null || !check.isEmpty() ? null : decoded(rate, round, bytes);
    if (payload != null && check.isEmpty()) {
      check = payload.wrong();
    }
    return OfdmPacket.of(
        symbols,
        plan,
        round,
        check,
        fieldPower(count),
        new OfdmPacket.Legacy(field, rate, payload));
  }

  /** How sure each bit of SIGNAL is. */
  private float[] signal() {
    symbols.transform(LegacyPlan.SIGNAL);
    FramePlan plan = LegacyPlan.PREAMBLE;
    ToneChannel channel = symbols.channel();
    double x = 0;
    double y = 0;
    for (int p = 0; p < LegacyTones.PILOTS.length; p++) {
      int k = plan.indexOf(LegacyTones.PILOTS[p]);
      int sign = LegacyTones.pilot(p, 0);
      x += sign * (symbols.re(k) * channel.re(k) + symbols.im(k) * channel.im(k));
      y += sign * (symbols.im(k) * channel.re(k) - symbols.re(k) * channel.im(k));
    }
    double length = Math.max(1e-300, Math.hypot(x, y)) * symbols.channel().meanPower();
    float[] sure = new float[LegacyTones.DATA];
    int[] data = LegacyTones.data();
    for (int i = 0; i < data.length; i++) {
      int k = plan.indexOf(data[i]);
      double p = symbols.re(k) * channel.re(k) + symbols.im(k) * channel.im(k);
      double q = symbols.im(k) * channel.re(k) - symbols.re(k) * channel.im(k);
      sure[i] = (float) ((p * x + q * y) / length);
    }
    return sure;
  }

  private LegacyBits.Payload decoded(LegacyRate rate, SymbolReader.Round round, int bytes) {
    int each = rate.bitsPerTone();
    float[] sure = new float[round.phase.length * rate.codedBits()];
    Constellation points = rate.constellation();
    double mean = symbols.channel().meanPower();
    for (int s = 0; s < round.phase.length; s++) {
      int at = s * rate.codedBits();
      for (int tone : LegacyTones.data()) {
        int k = LegacyPlan.PREAMBLE.indexOf(tone);
        float weight = (float) (symbols.channel().passes(k) / mean);
        sure(points, round.values.re()[s][k], round.values.im()[s][k], weight, sure, at);
        at += each;
      }
    }
    return LegacyBits.payload(rate, sure, bytes);
  }

  /**
   * How much nearer the nearest point with a one is than that with a zero, for each bit. The first
   * half of the bits is I, the other Q.
   */
  private static void sure(
      Constellation points, double x, double y, float weight, float[] out, int at) {
    int bits = points.bitsPerSymbol();
    int ofQ = bits / 2;
    int ofI = bits - ofQ;
    for (int b = 0; b < bits; b++) {
      boolean i = b < ofI;
      int shift = bits - 1 - b;
      double zero = Double.POSITIVE_INFINITY;
      double one = Double.POSITIVE_INFINITY;
      for (int level = 0; level < 1 << (i ? ofI : ofQ); level++) {
        int value = i ? level << ofQ : level;
        double d = square(i ? x - points.re(value) : y - points.im(value));
        if ((value >> shift & 1) == 1) {
          one = Math.min(one, d);
        } else {
          zero = Math.min(zero, d);
        }
      }
      out[at + b] = (float) (weight * (zero - one));
    }
  }

  private static double square(double x) {
    return x * x;
  }

  private double[] fieldPower(int count) {
    int training = LegacyPacket.TRAINING * ChannelSamples.TIMES;
    int begin = -LegacyPlan.PREAMBLE.head();
    int data = LegacyPlan.SIGNAL + LegacyPlan.PREAMBLE.transform();
    return new double[] {
      symbols.power(begin, begin + training),
      symbols.power(begin + training, begin + 2 * training),
      symbols.power(begin + 2 * training, data),
      count == 0 ? Double.NaN : symbols.power(data, data + count * LegacyPlan.SYMBOL)
    };
  }
}
