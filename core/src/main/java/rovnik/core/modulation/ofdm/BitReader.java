package rovnik.core.modulation.ofdm;

import rovnik.core.modulation.Constellation;

/** From values of tones to how sure their bits are, and to the bytes. */
final class BitReader {
  private BitReader() {}

  /**
   * Decodes all symbols that were read.
   *
   * @param data tones, from the lowest
   * @param count bits to the end of the tail
   */
  static LegacyBits.Payload payload(
      SymbolReader from,
      FramePlan plan,
      SymbolReader.Round round,
      Coding coding,
      Interleaver tones,
      int[] data,
      int count,
      int bytes) {
    int each = coding.bitsPerTone();
    float[] sure = new float[round.phase.length * coding.codedBits(data.length)];
    Constellation points = coding.constellation();
    double mean = from.channel().meanPower();
    int at = 0;
    for (int s = 0; s < round.phase.length; s++) {
      SymbolPlan symbol = plan.data().get(s);
      for (int tone : data) {
        int k = plan.indexOf(tone);
        float weight = (float) (from.channel().passes(k) / mean);
        double x = round.values.re()[s][k];
        double y = round.values.im()[s][k];
        sure(points, symbol.pointRe(k, x, y), symbol.pointIm(k, x, y), weight, sure, at);
        at += each;
      }
    }
    return LegacyBits.payload(coding, tones, sure, count, bytes);
  }

  /**
   * How much nearer the nearest point with a one is than that with a zero, for each bit. The first
   * half of the bits is I, the other Q.
   */
  static void sure(Constellation points, double x, double y, float weight, float[] out, int at) {
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
}
