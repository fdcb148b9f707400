package rovnik.core.modulation;

import rovnik.core.Refusal;

/**
 * The bits that a carrier sends over and over.
 *
 * @param prbs a test sequence, null for bits of one's own
 * @param bits zeros and ones, sent first to last and again; "" with a test sequence
 */
public record Payload(Prbs prbs, String bits) {
  private static final int LONGEST = 1 << 20;

  public Payload {
    bits = bits == null ? "" : bits;
    if (prbs == null && bits.isEmpty()) {
      throw new Refusal("bits", "Name a test sequence or give bits, such as 0110.");
    }
    if (prbs != null && !bits.isEmpty()) {
      throw new Refusal("bits", "Either a test sequence or bits, not both.");
    }
    checkBits("bits", bits);
  }

  static void checkBits(String field, String bits) {
    if (bits.length() > LONGEST) {
      throw new Refusal(field, "At most " + LONGEST + " bits can be given.");
    }
    for (int i = 0; i < bits.length(); i++) {
      if (bits.charAt(i) != '0' && bits.charAt(i) != '1') {
        throw new Refusal(
            field, "Bits are zeros and ones; place " + (i + 1) + " is '" + bits.charAt(i) + "'.");
      }
    }
  }

  public static Payload of(Prbs prbs) {
    return new Payload(prbs, "");
  }

  /** "PN9" or "user's 12 bits". */
  public String words() {
    return prbs == null ? "own " + bits.length() + " bits" : prbs.name();
  }

  /** Bits after which it begins again. */
  public long period() {
    return prbs == null ? bits.length() : prbs.period();
  }

  /** Bits, packed, first lowest. */
  public long[] packed(long count) {
    if (prbs != null) {
      return prbs.bits(count);
    }
    long[] out = new long[(int) ((count + 63) / 64)];
    for (long i = 0; i < count; i++) {
      if (bits.charAt((int) (i % bits.length())) == '1') {
        out[(int) (i >>> 6)] |= 1L << (i & 63);
      }
    }
    return out;
  }
}
