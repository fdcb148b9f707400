package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;

/**
 * A field of a preamble that says what follows.
 *
 * @param name as the standard calls it
 * @param bits in the order in which they are sent
 */
record HeaderBits(String name, byte[] bits) {
  private static final int CHECK_BITS = 8;
  private static final int GENERATOR = 0b111;

  /**
   * What some of its bits say.
   *
   * @param of the field that they are of
   * @param field what they are
   * @param places of the first and the last
   * @param sent as they were sent
   */
  record Part(String of, String field, String places, String sent, String says) {}

  /** A number, its lowest bit sent first. */
  int number(int from, int count) {
    int out = 0;
    for (int i = 0; i < count; i++) {
      out |= bits[from + i] << i;
    }
    return out;
  }

  boolean isOne(int at) {
    return bits[at] == 1;
  }

  Part part(String field, int from, int count, String says) {
    StringBuilder sent = new StringBuilder();
    for (int i = from; i < from + count; i++) {
      sent.append(bits[i]);
    }
    String places = count == 1 ? "" + from : from + "\u2013" + (from + count - 1);
    return new Part(name, field, places, sent.toString(), says);
  }

  /** A number, as it is. */
  Part numbered(String field, int from, int count) {
    return part(field, from, count, "" + number(from, count));
  }

  /** A bit, in words. */
  Part either(String field, int at, String one, String zero) {
    return part(field, at, 1, isOne(at) ? one : zero);
  }

  /** Check bits that may be fewer than the whole check has: its first ones. */
  Part checked(int at, int count) {
    return part("Check", at, count, fits(at, count) ? "fits" : "does not fit");
  }

  Part tail(int from) {
    int count = bits.length - from;
    return part("Tail", from, count, number(from, count) == 0 ? "right" : "wrong");
  }

  /** True if the bits at a place are the check of all before them. */
  boolean fits(int at, int count) {
    byte[] check = check(bits, at);
    for (int i = 0; i < count; i++) {
      if (bits[at + i] != check[i]) {
        return false;
      }
    }
    return true;
  }

  /**
   * The check of the first bits (IEEE 802.11-2020, 19.3.9.4.4), in the order in which it is sent.
   */
  static byte[] check(byte[] bits, int count) {
    int register = (1 << CHECK_BITS) - 1;
    for (int i = 0; i < count; i++) {
      int out = register >> CHECK_BITS - 1 & 1 ^ bits[i];
      register = (register << 1 & (1 << CHECK_BITS) - 1) ^ (out == 1 ? GENERATOR : 0);
    }
    byte[] check = new byte[CHECK_BITS];
    for (int i = 0; i < CHECK_BITS; i++) {
      check[i] = (byte) (~register >> CHECK_BITS - 1 - i & 1);
    }
    return check;
  }

  /** Bits of a field that is to be sent: values with how many bits each has, lowest first. */
  static byte[] bitsOf(int... valueAndCount) {
    List<Byte> out = new ArrayList<>();
    for (int i = 0; i < valueAndCount.length; i += 2) {
      for (int b = 0; b < valueAndCount[i + 1]; b++) {
        out.add((byte) (valueAndCount[i] >> b & 1));
      }
    }
    byte[] bits = new byte[out.size()];
    for (int i = 0; i < bits.length; i++) {
      bits[i] = out.get(i);
    }
    return bits;
  }

  /** Puts the check of all bits before a place there. */
  static void seal(byte[] bits, int at) {
    System.arraycopy(check(bits, at), 0, bits, at, CHECK_BITS);
  }
}
