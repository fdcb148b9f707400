package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * VHT-SIG-A and VHT-SIG-B (IEEE 802.11-2020, 21.3.8.3.3 and 21.3.8.3.6) of one user in 20 MHz.
 *
 * @param a two symbols before the training
 * @param b the symbol behind it; null if it was not read
 */
record VhtSignal(HeaderBits a, HeaderBits b) implements PacketHeader, MixedStream {
  private static final int CHECK = 34;
  private static final int TAIL = 42;

  /** Bits of SIG-A. */
  static final int BITS = 48;

  /** Of SIG-B, and those of them before its tail. */
  static final int BITS_B = 26;

  static final int TAIL_B = 20;
  private static final int[] WIDTHS_MHZ = {20, 40, 80, 160};

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
  static VhtSignal of(int mcs, int words, boolean shortGuard, boolean oneLess) {
    byte[] bits =
        HeaderBits.bitsOf(
            0,
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
    return ofA(bits).withB(HeaderBits.bitsOf(words, 17, 7, 3, 0, 6));
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
    return symbols * coding().dataBits(MixedTones.DATA);
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
    float[] sure =
        HeaderReader.Sure.of(begun, plan, MixedPlan.SIGNAL_B, 3, MixedTones.data()).straight();
    return withB(LegacyBits.header(Interleaver.LATER.inOrder(sure, 1), BITS_B));
  }

  @Override
  public Coding coding() {
    return MixedTones.coding(true, mcs());
  }

  @Override
  public String wrong() {
    return a.fits(CHECK, 8) ? "" : "the check of VHT-SIG-A does not fit";
  }

  @Override
  public String unread() {
    if (a.number(0, 2) != 0) {
      return "its data are " + WIDTHS_MHZ[a.number(0, 2)] + " MHz wide, which is not read";
    }
    if (!oneUser()) {
      return "its data are for several users";
    }
    if (streams() > 1) {
      return "its data are " + streams() + " streams";
    }
    if (a.isOne(3)) {
      return "its data are coded in space and time";
    }
    return mcs() < MixedTones.codings(true) ? "" : "there is no MCS " + mcs() + " in 20 MHz";
  }

  /** The check of SIG-B, as SERVICE must hold it. */
  byte[] checkOfB() {
    return HeaderBits.check(b.bits(), TAIL_B);
  }

  @Override
  public List<HeaderBits.Part> parts() {
    List<HeaderBits.Part> out = new ArrayList<>();
    out.add(a.part("Width", 0, 2, WIDTHS_MHZ[a.number(0, 2)] + " MHz"));
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
    boolean known = oneUser() && mcs() < MixedTones.codings(true);
    out.add(a.part("MCS", 28, 4, known ? coding().words() : "" + mcs()));
    out.add(a.either("Beamformed", 32, "yes", "no"));
    out.add(a.either("Reserved", 33, "right", "wrong"));
    out.add(a.checked(CHECK, 8));
    out.add(a.tail(TAIL));
    if (b != null) {
      int bytes = 4 * b.number(0, 17);
      out.add(b.part("Length", 0, 17, bytes + " bytes, rounded up to 4"));
      out.add(b.part("Reserved", 17, 3, b.number(17, 3) == 7 ? "right" : "wrong"));
      out.add(b.tail(TAIL_B));
    }
    return List.copyOf(out);
  }
}
