package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.List;

/**
 * One packet as it was received and what was made of it. Values of tones are by symbol with data,
 * then by tone as in its plan.
 *
 * @param startSeconds where its preamble begins, from the first sample that counts
 * @param plan what its symbols carry
 * @param said what a packet of IEEE 802.11 says of itself; null for others
 * @param check what is wrong with it, "" if nothing
 * @param carrier offset of the carrier from the centre of the record, Hz
 * @param clock by how much its samples come too slowly, as a share
 * @param channelRe what each tone passed, real part
 * @param values of the symbols with data, equalized
 * @param ideal what they should be
 * @param phase that all tones of a symbol had in common, radians; not in the values if it is
 *     tracked
 * @param leakageRe mean of the tone in the middle, over the root of the power of all others
 * @param leakageScatter standard deviation of that mean, of each part
 * @param fieldPower mean power of its fields; the last is that of the data
 */
record OfdmPacket(
    double startSeconds,
    FramePlan plan,
    Said said,
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
    double[] fieldPower) {

  /** Complex values of tones by symbol. */
  record Grid(double[][] re, double[][] im) {
    static Grid of(int symbols, int tones) {
      return new Grid(new double[symbols][tones], new double[symbols][tones]);
    }
  }

  /** A field before the data, and how many samples it has. */
  record Field(String name, int samples) {
    /** Of so many samples at the rate of the channel. */
    static Field of(String name, int samples) {
      return new Field(name, ChannelSamples.TIMES * samples);
    }

    /** The same in a channel so many times as wide. */
    Field times(int width) {
      return new Field(name, width * samples);
    }
  }

  /**
   * What a packet of IEEE 802.11 says of itself.
   *
   * @param parts of its fields, bit by bit
   * @param fields from its beginning to its data
   * @param coding null if nothing behind its fields can be read
   * @param bytes that it carries; not a number if that is not known
   * @param payload those bytes; null if they were not decoded
   * @param checked they have a check, and it fits
   * @param words on that if nothing is wrong
   * @param learned its training was learned from the signal
   * @param end first sample behind it, from its first training, as its preamble is read
   * @param users whose data these are, where there are several
   * @param unused what is on units that nobody has, where that is limited
   */
  record Said(
      PacketFormat format,
      List<HeaderBits.Part> parts,
      List<Field> fields,
      Coding coding,
      double bytes,
      byte[] payload,
      boolean checked,
      String words,
      boolean learned,
      int end,
      List<User> users,
      List<UnusedTones.Unit> unused) {
    /** Of a packet behind whose headers nothing is read. */
    static Said unread(
        PacketFormat format, List<HeaderBits.Part> parts, List<Field> fields, int end) {
      return new Said(
          format,
          parts,
          fields,
          null,
          Double.NaN,
          null,
          false,
          "",
          false,
          end,
          List.of(),
          List.of());
    }

    /** The same with what is on units that nobody has. */
    Said with(List<UnusedTones.Unit> units) {
      return new Said(
          format, parts, fields, coding, bytes, payload, checked, words, learned, end, users,
          units);
    }
  }

  /**
   * One of several users of a packet.
   *
   * @param tones of the unit, with the pilots
   * @param coding of the data; null if they are not read
   * @param payload its bytes; null if they were not decoded
   * @param words on these
   */
  record User(String name, int[] tones, Coding coding, byte[] payload, String words) {
    boolean has(int tone) {
      return Arrays.binarySearch(tones, tone) >= 0;
    }
  }

  static OfdmPacket of(
      SymbolReader from,
      FramePlan plan,
      SymbolReader.Round round,
      String check,
      double[] fieldPower,
      Said said) {
    double[] mid = from.middle(round);
    return new OfdmPacket(
        from.beginsSeconds(),
        plan,
        said,
        check,
        from.carrierHz(),
        from.clock(),
        from.channel().allRe(),
        from.channel().allIm(),
        round.values,
        round.ideal,
        round.phase,
        mid[0],
        mid[1],
        mid[2],
        fieldPower);
  }

  /** The same with a carrier so much farther from the centre of the record. */
  OfdmPacket moved(double hz) {
    return new OfdmPacket(
        startSeconds,
        plan,
        said,
        check,
        carrier + hz,
        clock,
        channelRe,
        channelIm,
        values,
        ideal,
        phase,
        leakageRe,
        leakageIm,
        leakageScatter,
        fieldPower);
  }

  int[] tones() {
    return plan.tones();
  }

  /** Null if it has none, or if nothing says it. */
  Coding coding() {
    return said == null ? null : said.coding();
  }

  boolean whole() {
    return symbols() > 0;
  }

  int symbols() {
    return values.re().length;
  }

  /** Square of the error of a value. */
  double error(int symbol, int tone) {
    double x = values.re()[symbol][tone] - ideal.re()[symbol][tone];
    double y = values.im()[symbol][tone] - ideal.im()[symbol][tone];
    return x * x + y * y;
  }

  boolean used(int symbol, int tone) {
    return plan.data().get(symbol).used(tone);
  }

  /** Which errors count. */
  enum Which {
    ALL,
    DATA,
    PILOTS;

    boolean has(SymbolPlan.Role role) {
      return switch (role) {
        case NONE -> false;
        case DATA -> this != PILOTS;
        default -> this != DATA;
      };
    }
  }

  /** Root mean square of the error vector, over that of what should be there. */
  double evm(Which which) {
    return evm(which, (s, k) -> true);
  }

  /** Some values of tones, by symbol and tone. */
  @FunctionalInterface
  interface Part {
    boolean has(int symbol, int tone);
  }

  /** The same of some values. */
  double evm(Which which, Part part) {
    double sum = 0;
    double power = 0;
    for (int s = 0; s < symbols(); s++) {
      SymbolPlan symbol = plan.data().get(s);
      for (int k = 0; k < tones().length; k++) {
        if (which.has(symbol.roles()[k]) && part.has(s, k)) {
          sum += error(s, k);
          power += symbol.power(k);
        }
      }
    }
    return Math.sqrt(sum / power);
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
    for (int k = 0; k < tones().length; k++) {
      int across = plan.indexOf(-tones()[k]);
      if (tones()[k] != 0 && across >= 0 && isData(k)) {
        double[] m = mirrorOf(k, across);
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

  /** True if a tone carries data in every symbol. */
  private boolean isData(int k) {
    for (SymbolPlan s : plan.data()) {
      if (s.roles()[k] != SymbolPlan.Role.DATA) {
        return false;
      }
    }
    return true;
  }

  /** Of one tone: error times mirror, mirror squared and error squared, without its own data. */
  private double[] mirrorOf(int k, int across) {
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
    double all = said == null ? plan.head() + plan.length() : LegacyPlan.PREAMBLE.head() + end();
    return all / (ChannelSamples.TIMES * channelHz);
  }

  /** First sample behind it, from its first training. */
  int end() {
    return said == null ? plan.length() : said.end();
  }
}
