package rovnik.core.modulation;

/** The symbols that a description sends: values, and where they stand in the plane. */
public final class SymbolStream {
  private static final double EIGHTH = Math.PI / 4;

  /** Turns in eighths by value of pi/4-DQPSK (ETSI EN 300 392-2, 5.5.2.3, from memory). */
  private static final int[] PI4_TURNS = {1, 3, -1, -3};

  private SymbolStream() {}

  /** Values from the first symbol of a frame on; the payload goes on behind each known word. */
  public static int[] values(SingleCarrier c, int count) {
    int bits = c.format().constellation().bitsPerSymbol();
    Framing f = c.framing();
    int word = f.none() ? 0 : f.symbols(bits);
    long[] payload = c.payload().packed(payloadBits(c, count));
    int[] out = new int[count];
    long at = 0;
    for (int i = 0; i < count; i++) {
      int inFrame = f.none() ? word : i % f.everySymbols();
      int value = 0;
      for (int b = 0; b < bits; b++) {
        boolean one =
            inFrame < word ? f.word().charAt(inFrame * bits + b) == '1' : Prbs.get(payload, at++);
        value = value << 1 | (one ? 1 : 0);
      }
      out[i] = value;
    }
    return out;
  }

  /** Payload bits among so many symbols. */
  public static long payloadBits(SingleCarrier c, long symbols) {
    int bits = c.format().constellation().bitsPerSymbol();
    Framing f = c.framing();
    if (f.none()) {
      return symbols * bits;
    }
    int word = f.symbols(bits);
    long whole = symbols / f.everySymbols();
    long rest = Math.max(0, symbols % f.everySymbols() - word);
    return (whole * (f.everySymbols() - word) + rest) * bits;
  }

  /** Turn that a value of a differential format means, in eighths of a circle. */
  public static int turn(Format format, int value) {
    if (format == Format.PI4_DQPSK) {
      return PI4_TURNS[value];
    }
    int i = value;
    for (int shift = 1; shift < 3; shift++) {
      i ^= value >> shift;
    }
    return i;
  }

  /** Where values stand, interleaved. Differential formats begin at angle 0 and turn. */
  public static float[] points(SingleCarrier c, int[] values) {
    float[] out = new float[2 * values.length];
    Constellation points = c.constellation();
    int eighths = 0;
    for (int i = 0; i < values.length; i++) {
      if (c.format().differential()) {
        eighths = eighths + turn(c.format(), values[i]) & 7;
        out[2 * i] = (float) Math.cos(EIGHTH * eighths);
        out[2 * i + 1] = (float) Math.sin(EIGHTH * eighths);
      } else {
        out[2 * i] = (float) points.re(values[i]);
        out[2 * i + 1] = (float) points.im(values[i]);
      }
    }
    return out;
  }
}
