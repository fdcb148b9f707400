package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * VHT-SIG-A and VHT-SIG-B (IEEE 802.11-2020, 21.3.8.3.3 and 21.3.8.3.6) of one user; that of more
 * than 20 MHz from memory.
 *
 * @param a two symbols before the training
 * @param b the symbol behind it; null if it was not read
 */
record VhtSignal(HeaderBits a, HeaderBits b) implements PacketHeader, MixedStream {
  private static final int CHECK = 34;
  private static final int TAIL = 42;

  /** Bits of SIG-A. */
  static final int BITS = 48;

  /** Of SIG-B, what it has before its tail, and the length in this; by the number of the width. */
  private static final int[] BITS_B = {26, 27, 29, 29};

  private static final int[] TAIL_B = {20, 21, 23, 23};
  private static final int[] LENGTH_B = {17, 19, 21, 21};

  /** Coded bits of SIG-B that a part of the channel as wide has: it comes so often as it fits. */
  private static final int HALF_OF_160 = 234;

  /** With one stream so many bits in so little time take two coders. */
  private static final int TWO_CODERS = 8;

  static VhtSignal ofA(byte[] bits) {
    return new VhtSignal(new HeaderBits("VHT-SIG-A", bits), null);
  }

  VhtSignal withB(byte[] bits) {
    return new VhtSignal(a, new HeaderBits("VHT-SIG-B", bits));
  }

  /**
   * Of one user, one stream and the convolutional code.
   *
   * @param words of 4 bytes
   * @param oneLess the short guards leave room for a symbol more than there is
   */
  static VhtSignal of(int width, int mcs, int words, boolean shortGuard, boolean oneLess) {
    int w = Integer.numberOfTrailingZeros(width);
    byte[] bits =
        HeaderBits.bitsOf(
            w,
            2,
            1,
            1,
            0,
            1,
            0,
            6,
            0,
            3,
            0,
            9,
            0,
            1,
            1,
            1,
            shortGuard ? 1 : 0,
            1,
            oneLess ? 1 : 0,
            1,
            0,
            1,
            0,
            1,
            mcs,
            4,
            0,
            1,
            1,
            1,
            0,
            14);
    HeaderBits.seal(bits, CHECK);
    int reserved = TAIL_B[w] - LENGTH_B[w];
    return ofA(bits)
        .withB(
            HeaderBits.bitsOf(
                words, LENGTH_B[w], (1 << reserved) - 1, reserved, 0, BITS_B[w] - TAIL_B[w]));
  }

  @Override
  public PacketFormat format() {
    return PacketFormat.VHT;
  }

  private int mcs() {
    return a.number(28, 4);
  }

  private int streams() {
    return a.number(10, 3) + 1;
  }

  private boolean oneUser() {
    int group = a.number(4, 6);
    return group == 0 || group == 63;
  }

  @Override
  public boolean lowDensity() {
    return a.isOne(26);
  }

  /** Short guards may leave room for a symbol more than there is, which is told. */
  @Override
  public int symbols(int usual) {
    int room = MixedPlan.room(format(), usual, guard());
    return guard() < LegacyTones.GUARD && a.isOne(25) ? Math.max(0, room - 1) : room;
  }

  @Override
  public int guard() {
    return a.isOne(24) ? LegacyTones.GUARD / 2 : LegacyTones.GUARD;
  }

  @Override
  public PacketBody data() {
    return this;
  }

  @Override
  public List<OfdmPacket.Field> fields() {
    return List.of(
        OfdmPacket.Field.of("VHT-SIG-A", 2 * LegacyPacket.SYMBOL),
        OfdmPacket.Field.of("Short training, VHT", LegacyPacket.SYMBOL),
        OfdmPacket.Field.of("Training, VHT", LegacyPacket.SYMBOL),
        OfdmPacket.Field.of("VHT-SIG-B", LegacyPacket.SYMBOL));
  }

  @Override
  public int bits(int symbols) {
    return symbols * coding().dataBits(tones().length);
  }

  /** SERVICE ends with the check of SIG-B. */
  @Override
  public String wrong(LegacyBits.Payload p) {
    byte[] wanted = new byte[LegacyBits.SERVICE_BITS];
    byte[] check = checkOfB();
    System.arraycopy(check, 0, wanted, wanted.length - check.length, check.length);
    return Arrays.equals(wanted, p.service())
        ? FrameCheck.Several.in(p.bytes()).wrong()
        : "SERVICE does not hold the check of VHT-SIG-B";
  }

  @Override
  public PacketBody withMore(SymbolReader begun, FramePlan plan) {
    StreamTones tones = stream();
    float[] sure =
        HeaderReader.Sure.of(begun, plan, MixedPlan.signalB(tones), tones.data()).straight();
    float[] coded = tones.interleaver().inOrder(sure, 1);
    float[] each = new float[2 * BITS_B[w()]];
    for (int from : copies()) {
      for (int i = 0; i < each.length; i++) {
        each[i] += coded[from + i];
      }
    }
    return withB(LegacyBits.header(each, BITS_B[w()]));
  }

  /** Where among the coded bits of its symbol SIG-B begins, again and again. */
  private int[] copies() {
    int each = 2 * BITS_B[w()];
    int part = Math.min(HALF_OF_160, 2 * BITS_B[w()] * width());
    int[] out = new int[width()];
    int inPart = part / each;
    Arrays.setAll(out, c -> c / inPart * part + c % inPart * each);
    return out;
  }

  /** SIG-B as often as its symbol has room, coded; what is left over stays zero. */
  byte[] codedB() {
    byte[] out = new byte[stream().data().length];
    byte[] one = ConvolutionalCode.of(1, 2).encode(b.bits());
    for (int from : copies()) {
      System.arraycopy(one, 0, out, from, one.length);
    }
    return out;
  }

  /** Number of its width. */
  private int w() {
    return a.number(0, 2);
  }

  @Override
  public int width() {
    return 1 << w();
  }

  @Override
  public Interleaver interleaver() {
    return twoCoders(width(), mcs()) ? null : MixedStream.super.interleaver();
  }

  /** True if the bits of one stream are shared by two coders; from memory. */
  static boolean twoCoders(int width, int mcs) {
    return width == 8 && mcs >= TWO_CODERS;
  }

  @Override
  public Coding coding() {
    return MixedTones.coding(true, width(), mcs());
  }

  @Override
  public String wrong() {
    return a.fits(CHECK, 8) ? "" : "the check of VHT-SIG-A does not fit";
  }

  @Override
  public String unread() {
    if (!oneUser()) {
      return "its data are for several users";
    }
    if (streams() > 1) {
      return "its data are " + streams() + " streams";
    }
    if (a.isOne(3)) {
      return "its data are coded in space and time";
    }
    return mcs() < MixedTones.codings(true, width())
        ? ""
        : "there is no MCS " + mcs() + " in " + 20 * width() + " MHz";
  }

  /** The check of SIG-B, as SERVICE must hold it. */
  byte[] checkOfB() {
    return HeaderBits.check(b.bits(), TAIL_B[w()]);
  }

  @Override
  public List<HeaderBits.Part> parts() {
    List<HeaderBits.Part> out = new ArrayList<>();
    out.add(a.part("Width", 0, 2, 20 * width() + " MHz"));
    out.add(a.either("Reserved", 2, "right", "wrong"));
    out.add(a.either("STBC", 3, "in space and time", "none"));
    out.add(a.part("Group", 4, 6, oneUser() ? "one user" : "several users"));
    if (oneUser()) {
      out.add(a.part("Streams", 10, 3, "" + streams()));
      out.add(a.numbered("Partial AID", 13, 9));
    } else {
      out.add(a.part("Streams of users", 10, 12, "3 bits each"));
    }
    out.add(a.either("TXOP power save", 22, "not allowed", "allowed"));
    out.add(a.either("Reserved", 23, "right", "wrong"));
    out.add(a.either("Guard", 24, "short, 400 ns", "800 ns"));
    out.add(a.either("One symbol less", 25, "yes", "no"));
    out.add(a.either("Code", 26, "LDPC", "convolutional"));
    out.add(a.either("One more for LDPC", 27, "yes", "no"));
    boolean known = oneUser() && mcs() < MixedTones.codings(true, width());
    out.add(a.part("MCS", 28, 4, known ? coding().words() : "" + mcs()));
    out.add(a.either("Beamformed", 32, "yes", "no"));
    out.add(a.either("Reserved", 33, "right", "wrong"));
    out.add(a.checked(CHECK, 8));
    out.add(a.tail(TAIL));
    if (b != null) {
      int length = LENGTH_B[w()];
      int left = TAIL_B[w()] - length;
      int bytes = 4 * b.number(0, length);
      out.add(b.part("Length", 0, length, bytes + " bytes, rounded up to 4"));
      boolean ones = b.number(length, left) == (1 << left) - 1;
      out.add(b.part("Reserved", length, left, ones ? "right" : "wrong"));
      out.add(b.tail(TAIL_B[w()]));
    }
    return List.copyOf(out);
  }
}
