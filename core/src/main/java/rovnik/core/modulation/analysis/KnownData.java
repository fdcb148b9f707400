package rovnik.core.modulation.analysis;

import java.util.Arrays;
import java.util.Optional;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Framing;
import rovnik.core.modulation.Payload;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.modulation.SymbolStream;

/**
 * Finds in decided symbols what a description says was sent: turned as it must be, words in their
 * places, the payload from wherever the record begins.
 *
 * @param turn quarter, half, ... turn that was needed, radians
 * @param values of all symbols as sent
 * @param decided values as they were decided, turned
 * @param wrong bits that differ, by symbol
 * @param bits of the payload that were compared
 * @param errors among them
 * @param frameAt first symbol of a known word, -1 without framing
 */
record KnownData(
    double turn, int[] values, int[] decided, int[] wrong, long bits, long errors, int frameAt) {
  /**
   * Payload that agrees by chance does so in half of its bits; more wrong than this is no match.
   */
  private static final double MOST_WRONG = 0.25;

  private static final int PROBE = 256;

  private static final int BLOCKS = 8;
  private static final long LEAST_BLOCK = 100;

  /** Bits of something else are wrong every other time. */
  private static final double SLIPPED = 0.4;

  /** Looks for what was sent; nothing if it is not there. */
  static Optional<KnownData> in(SingleCarrier c, int[] decided) {
    Format format = c.format();
    int tries = format.differential() || !c.mapping().isEmpty() ? 1 : format.symmetry();
    KnownData best = null;
    for (int t = 0; t < tries; t++) {
      int[] values = format.differential() ? changes(c, decided) : turned(c, decided, t, tries);
      // Half a symbol later, the last one has no other half.
      int end = values.length - (format.offset() && t % 2 == 1 ? 1 : 0);
      KnownData k = compare(c, values, end, -2 * Math.PI * t / tries);
      if (k != null && (best == null || k.errors < best.errors)) {
        best = k;
      }
      if (best != null && best.errors == 0) {
        break;
      }
    }
    return Optional.ofNullable(best);
  }

  /** Values after the points are turned back by t of so many parts of a circle. */
  private static int[] turned(SingleCarrier c, int[] decided, int t, int parts) {
    if (c.format().offset() && t % 2 == 1) {
      return swapped(decided, t == 1);
    }
    Constellation points = c.constellation();
    double angle = -2 * Math.PI * t / parts;
    int[] table = new int[points.size()];
    for (int v = 0; v < table.length; v++) {
      double x = points.re(v);
      double y = points.im(v);
      table[v] =
          points.decide(
              x * Math.cos(angle) - y * Math.sin(angle), x * Math.sin(angle) + y * Math.cos(angle));
    }
    return Arrays.stream(decided).map(v -> table[v]).toArray();
  }

  /** A quarter turn of an offset format: what was taken for Q is I, and I of the next is Q. */
  private static int[] swapped(int[] decided, boolean forward) {
    int[] out = new int[decided.length];
    for (int k = 0; k < out.length; k++) {
      int i = decided[k] & 1;
      int q = decided[Math.min(k + 1, out.length - 1)] >> 1;
      out[k] = forward ? i << 1 | (1 - q) : (1 - i) << 1 | q;
    }
    return out;
  }

  /** Values of a format whose bits stand in changes; that of the first symbol is not known. */
  private static int[] changes(SingleCarrier c, int[] decided) {
    Format format = c.format();
    Constellation points = c.constellation();
    int[] ofTurn = new int[8];
    for (int v = 0; v < points.size(); v++) {
      ofTurn[SymbolStream.turn(format, v) & 7] = v;
    }
    int[] out = new int[decided.length];
    for (int k = 1; k < out.length; k++) {
      double before = Math.atan2(points.im(decided[k - 1]), points.re(decided[k - 1]));
      double now = Math.atan2(points.im(decided[k]), points.re(decided[k]));
      int eighths = (int) Math.rint((now - before + format.turn()) / (Math.PI / 4));
      out[k] = ofTurn[eighths & 7];
    }
    return out;
  }

  /** Bits of a symbol, the first one lowest, from its value or the other way. */
  private static int inOrder(int value, int bits) {
    return Integer.reverse(value) >>> (32 - bits);
  }

  private static KnownData compare(SingleCarrier c, int[] values, int end, double turn) {
    int bits = c.constellation().bitsPerSymbol();
    Framing f = c.framing();
    int first = c.format().differential() ? 1 : 0;
    int word = f.none() ? 0 : f.symbols(bits);
    int frameAt = f.none() ? -1 : frame(f, values, bits, word);
    if (!f.none() && frameAt < 0) {
      return null;
    }
    boolean[] ofWord = new boolean[values.length];
    int payloadSymbols = 0;
    for (int k = 0; k < end; k++) {
      int in = f.none() ? word : Math.floorMod(k - frameAt, f.everySymbols());
      ofWord[k] = in < word;
      payloadSymbols += !ofWord[k] && k >= first ? 1 : 0;
    }
    long count = (long) payloadSymbols * bits;
    long[] received = new long[(int) ((count + 63) / 64) + 1];
    long at = 0;
    for (int k = first; k < end; k++) {
      if (!ofWord[k]) {
        Prbs.put(received, at, inOrder(values[k], bits));
        at += bits;
      }
    }
    Optional<long[]> sent = match(c.payload(), received, count);
    if (sent.isEmpty() || slips(sent.get(), received, count)) {
      return null;
    }
    int[] known = values.clone();
    int[] wrong = new int[values.length];
    at = 0;
    for (int k = first; k < end; k++) {
      if (ofWord[k]) {
        int in = bits * Math.floorMod(k - frameAt, f.everySymbols());
        known[k] = Integer.parseInt(f.word().substring(in, in + bits), 2);
      } else {
        known[k] = inOrder((int) Prbs.word(sent.get(), at), bits);
        at += bits;
      }
      wrong[k] = Integer.bitCount(known[k] ^ values[k]);
    }
    long errors = Prbs.errors(sent.get(), received, 0, count);
    return new KnownData(turn, known, values, wrong, count, errors, frameAt);
  }

  /** A part of it agrees and another not at all: something stands between that is not described. */
  private static boolean slips(long[] sent, long[] received, long count) {
    long block = count / BLOCKS;
    if (block < LEAST_BLOCK) {
      return false;
    }
    for (int b = 0; b < BLOCKS; b++) {
      long[] part = Prbs.from(sent, b * block, block);
      if (Prbs.errors(part, received, b * block, block) > SLIPPED * block) {
        return true;
      }
    }
    return false;
  }

  /** Where the first whole word begins: the place at which most of its bits agree. */
  private static int frame(Framing f, int[] values, int bits, int word) {
    int[] wanted = new int[word];
    for (int i = 0; i < word; i++) {
      wanted[i] = Integer.parseInt(f.word().substring(i * bits, (i + 1) * bits), 2);
    }
    int best = -1;
    double least = MOST_WRONG;
    int last = Math.min(f.everySymbols(), values.length - word);
    for (int from = 0; from < last; from++) {
      int wrong = 0;
      int seen = 0;
      for (int k = from; k + word <= values.length; k += f.everySymbols()) {
        for (int i = 0; i < word; i++) {
          wrong += Integer.bitCount(values[k + i] ^ wanted[i]);
        }
        seen += word * bits;
      }
      if (wrong < least * seen) {
        least = (double) wrong / seen;
        best = from;
      }
    }
    return best;
  }

  private static Optional<long[]> match(Payload p, long[] received, long count) {
    if (count < 8) {
      return Optional.empty();
    }
    if (p.prbs() != null) {
      return p.prbs().matching(received, count);
    }
    int period = p.bits().length();
    long[] twice = p.packed(count + period);
    long probe = Math.min(PROBE, count);
    long[] best = null;
    long least = (long) (MOST_WRONG * count) + 1;
    for (int from = 0; from < period; from++) {
      long[] shifted = Prbs.from(twice, from, count);
      if (Prbs.errors(shifted, received, 0, probe) > MOST_WRONG * probe) {
        continue;
      }
      long errors = Prbs.errors(shifted, received, 0, count);
      if (errors < least) {
        least = errors;
        best = shifted;
      }
    }
    return Optional.ofNullable(best);
  }
}
