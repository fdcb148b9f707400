package rovnik.core.modulation.ofdm;

import java.util.List;

/**
 * One packet as it was received and what was made of it. Values of tones are by symbol with data,
 * then by tone from -26 to 26 without 0; the ideal ones have mean power 1.
 *
 * @param startSeconds where its preamble begins, from the first sample that counts
 * @param signal what the field says
 * @param rate what SIGNAL says; null if nothing behind it can be read
 * @param check what is wrong with it, "" if nothing
 * @param carrier offset of the carrier from where the channel was taken, Hz
 * @param clock by how much its samples come too slowly, as a share
 * @param channelRe what each tone passed, real part
 * @param values of the symbols with data, equalized
 * @param ideal what they should be
 * @param phase that all tones of a symbol had in common, radians; not in the values if it is
 *     tracked
 * @param leakageRe mean of the tone in the middle, over the root of the power of all others
 * @param leakageScatter standard deviation of that mean, of each part
 * @param fieldPower mean power of short training, long training, SIGNAL and data
 * @param payload the bytes; null if they were not decoded
 */
record OfdmPacket(
    double startSeconds,
    SignalField signal,
    LegacyRate rate,
    String check,
    double carrier,
    double clock,
    double[] channelRe,
    double[] channelIm,
    Grid values,
    Grid ideal,
    double[] phase,
    double leakageRe,
    double leakageIm,
    double leakageScatter,
    double[] fieldPower,
    LegacyBits.Payload payload) {

  /** All tones that carry something, from the lowest. */
  static final int[] TONES = tones();

  /** Complex values of tones by symbol. */
  record Grid(double[][] re, double[][] im) {
    static Grid of(int symbols) {
      return new Grid(new double[symbols][TONES.length], new double[symbols][TONES.length]);
    }

    int symbols() {
      return re.length;
    }
  }

  private static int[] tones() {
    int[] out = new int[2 * LegacyTones.LAST];
    for (int i = 0; i < out.length; i++) {
      out[i] = i < LegacyTones.LAST ? i - LegacyTones.LAST : i - LegacyTones.LAST + 1;
    }
    return out;
  }

  int bytes() {
    return signal.bytes();
  }

  boolean whole() {
    return rate != null && values.symbols() > 0;
  }

  int symbols() {
    return values.symbols();
  }

  /** Square of the error of a value. */
  double error(int symbol, int tone) {
    double x = values.re()[symbol][tone] - ideal.re()[symbol][tone];
    double y = values.im()[symbol][tone] - ideal.im()[symbol][tone];
    return x * x + y * y;
  }

  /** Which errors count. */
  enum Which {
    ALL,
    DATA,
    PILOTS;

    boolean has(int tone) {
      return this == ALL || LegacyTones.isPilot(TONES[tone]) == (this == PILOTS);
    }
  }

  /** Root mean square of the error vector, of a root mean square of 1. */
  double evm(Which which) {
    double sum = 0;
    int count = 0;
    for (int s = 0; s < symbols(); s++) {
      for (int k = 0; k < TONES.length; k++) {
        if (which.has(k)) {
          sum += error(s, k);
          count++;
        }
      }
    }
    return Math.sqrt(sum / count);
  }

  /**
   * What each tone has of the mirror of the one across the carrier, the same for all: of least
   * squares, beside a gain of each tone's own, which the estimate of the channel may have left.
   *
   * @return real and imaginary part over the tone, and the standard deviation of each
   */
  double[] image() {
    double x = 0;
    double y = 0;
    double weight = 0;
    double left = 0;
    int count = -1;
    for (int k = 0; k < TONES.length; k++) {
      if (!LegacyTones.isPilot(TONES[k])) {
        double[] m = mirrorOf(k);
        x += m[0];
        y += m[1];
        weight += m[2];
        left += m[3];
        count += symbols() - 1;
      }
    }
    double re = x / weight;
    double im = y / weight;
    double rest = Math.max(0, left - (re * re + im * im) * weight);
    return new double[] {re, im, Math.sqrt(rest / (2 * count) / weight)};
  }

  /** Of one tone: error times mirror, mirror squared and error squared, without its own data. */
  private double[] mirrorOf(int k) {
    int across = TONES.length - 1 - k;
    double mirrors = 0;
    double points = 1e-300;
    double bothRe = 0;
    double bothIm = 0;
    double x = 0;
    double y = 0;
    double ownX = 0;
    double ownY = 0;
    double left = 0;
    for (int s = 0; s < symbols(); s++) {
      double re = ideal.re()[s][across];
      double im = -ideal.im()[s][across];
      double p = ideal.re()[s][k];
      double q = ideal.im()[s][k];
      double errorRe = values.re()[s][k] - p;
      double errorIm = values.im()[s][k] - q;
      mirrors += re * re + im * im;
      points += p * p + q * q;
      bothRe += p * re + q * im;
      bothIm += q * re - p * im;
      x += errorRe * re + errorIm * im;
      y += errorIm * re - errorRe * im;
      ownX += errorRe * p + errorIm * q;
      ownY += errorIm * p - errorRe * q;
      left += errorRe * errorRe + errorIm * errorIm;
    }
    return new double[] {
      x - (ownX * bothRe - ownY * bothIm) / points,
      y - (ownX * bothIm + ownY * bothRe) / points,
      mirrors - (bothRe * bothRe + bothIm * bothIm) / points,
      left - (ownX * ownX + ownY * ownY) / points
    };
  }

  /** Seconds from the beginning of the preamble to the end of the last symbol. */
  double seconds(double channelHz) {
    return (2.0 * LegacyPacket.TRAINING + LegacyPacket.SYMBOL * (1.0 + symbols())) / channelHz;
  }

  /** What a packet consists of, in its order. */
  static List<String> fields() {
    return List.of("Short training", "Long training", "SIGNAL", "Data");
  }
}
