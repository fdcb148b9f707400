package rovnik.core.modulation;

import java.util.Arrays;
import java.util.Optional;
import rovnik.core.Refusal;

/**
 * Pseudo-random test sequences of ITU-T O.150: bit n is the exclusive or of the bits a taps back.
 * Bits are packed into words of 64, first bit lowest, so that long ones are made and compared a
 * word at a time.
 */
public enum Prbs {
  PN9(9, 5),
  PN11(11, 9),
  PN15(15, 14),
  PN20(20, 3),
  PN23(23, 18),
  PN31(31, 28);

  private final int order;
  private final int tap;

  Prbs(int order, int tap) {
    this.order = order;
    this.tap = tap;
  }

  public static Prbs ofOrder(int order) {
    return Arrays.stream(values())
        .filter(p -> p.order == order)
        .findFirst()
        .orElseThrow(
            () ->
                new Refusal(
                    "prbs", "Test sequences are PN9, PN11, PN15, PN20, PN23 and PN31 (O.150)."));
  }

  public int order() {
    return order;
  }

  /** Bits after which the sequence begins again. */
  public long period() {
    return (1L << order) - 1;
  }

  /** The sequence of a register full of ones: it begins with these. */
  public long[] bits(long count) {
    boolean[] ones = new boolean[order];
    Arrays.fill(ones, true);
    return after(before(ones, 0), count);
  }

  /**
   * What follows some bits of the sequence.
   *
   * @param seed as many bits as the order, the first the oldest; they are not repeated
   */
  public long[] after(boolean[] seed, long count) {
    long all = order + count;
    long[] out = new long[(int) ((all + 63) / 64) + 1];
    for (int i = 0; i < order; i++) {
      if (seed[i]) {
        set(out, i);
      }
    }
    // The recursion holds over doubled steps, too: squares of the polynomial. Once enough bits are
    // there, a step of 64 or more makes whole words.
    int back = order;
    int other = tap;
    long at = order;
    while (at < all) {
      if (at >= 2L * back && Math.min(back, other) < 64) {
        back *= 2;
        other *= 2;
        continue;
      }
      if ((at & 63) == 0 && Math.min(back, other) >= 64 && at >= back) {
        out[(int) (at >>> 6)] = word(out, at - back) ^ word(out, at - other);
        at += 64;
      } else {
        if (get(out, at - back) ^ get(out, at - other)) {
          set(out, at);
        }
        at++;
      }
    }
    return from(out, order, count);
  }

  /** So many of packed bits from one on. */
  public static long[] from(long[] bits, long first, long count) {
    long[] out = new long[(int) ((count + 63) / 64)];
    for (int i = 0; i < out.length; i++) {
      out[i] = word(bits, first + 64L * i);
    }
    if ((count & 63) != 0) {
      out[out.length - 1] &= (1L << (count & 63)) - 1;
    }
    return out;
  }

  /** One bit of packed ones. */
  public static boolean get(long[] bits, long at) {
    return (bits[(int) (at >>> 6)] >>> (at & 63) & 1) != 0;
  }

  private static void set(long[] bits, long at) {
    bits[(int) (at >>> 6)] |= 1L << (at & 63);
  }

  /** Adds some bits, the first one lowest, to packed ones that are 0 there. */
  public static void put(long[] bits, long at, int some) {
    int i = (int) (at >>> 6);
    int shift = (int) (at & 63);
    bits[i] |= (long) some << shift;
    if (shift > 32) {
      bits[i + 1] |= (long) some >>> (64 - shift);
    }
  }

  /** The 64 bits from one on. */
  public static long word(long[] bits, long at) {
    int i = (int) (at >>> 6);
    int shift = (int) (at & 63);
    return shift == 0 || i + 1 >= bits.length
        ? bits[i] >>> shift
        : bits[i] >>> shift | bits[i + 1] << (64 - shift);
  }

  /**
   * The sequence that received bits are of, beginning with them: the register is taken from a place
   * where the bits keep to the recursion, and run backwards and forwards from there.
   *
   * @param received packed
   * @return as many bits as were received, or nothing if no place fits well enough
   */
  public Optional<long[]> matching(long[] received, long count) {
    long step = Math.max(1, (count - 4L * order) / 64);
    for (long at = 0; at + 4L * order <= count; at += step) {
      boolean[] seed = new boolean[order];
      for (int i = 0; i < order; i++) {
        seed[i] = get(received, at + i);
      }
      if (empty(seed)) {
        continue;
      }
      long probe = Math.min(count - at - order, 256);
      if (errors(after(seed, probe), received, at + order, probe) > probe / 4) {
        continue;
      }
      long[] all = new long[(int) ((count + 63) / 64)];
      copy(after(before(seed, at), count), all);
      if (errors(all, received, 0, count) <= count / 4) {
        return Optional.of(all);
      }
    }
    return Optional.empty();
  }

  /** A register of zeros alone stays as it is and belongs to no sequence. */
  private static boolean empty(boolean[] bits) {
    for (boolean b : bits) {
      if (b) {
        return false;
      }
    }
    return true;
  }

  /** The register that leads, after so many bits and its own length, to this one. */
  private boolean[] before(boolean[] seed, long bits) {
    boolean[] register = seed.clone();
    // One register earlier than the bits that begin at zero.
    long back = (bits + order) % period();
    for (long i = 0; i < back; i++) {
      // b[n] = b[n-order] ^ b[n-tap], so b[n-order] = b[n] ^ b[n-tap].
      boolean oldest = register[order - 1] ^ register[order - 1 - tap];
      System.arraycopy(register, 0, register, 1, order - 1);
      register[0] = oldest;
    }
    return register;
  }

  private static void copy(long[] from, long[] to) {
    System.arraycopy(from, 0, to, 0, Math.min(from.length, to.length));
  }

  /** Bits that differ. */
  public static long errors(long[] sent, long[] received, long from, long count) {
    long wrong = 0;
    long at = 0;
    for (; at + 64 <= count; at += 64) {
      wrong += Long.bitCount(sent[(int) (at >>> 6)] ^ word(received, from + at));
    }
    if (at < count) {
      long mask = (1L << (count - at)) - 1;
      wrong += Long.bitCount((sent[(int) (at >>> 6)] ^ word(received, from + at)) & mask);
    }
    return wrong;
  }
}
