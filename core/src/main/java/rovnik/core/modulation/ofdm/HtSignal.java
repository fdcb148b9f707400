package rovnik.core.modulation.ofdm;

import java.util.List;

/**
 * HT-SIG (IEEE 802.11-2020, 19.3.9.4.3): two symbols.
 *
 * @param bits of both
 */
record HtSignal(HeaderBits bits) implements PacketHeader, MixedStream {
  private static final int CHECK = 34;
  private static final int TAIL = 42;
  static final int BITS = 48;
  static final int MOST_BYTES = 65_535;

  /** Number of the coding that has the same in both halves of 40 MHz. */
  private static final int TWICE = 32;

  HtSignal(byte[] bits) {
    this(new HeaderBits("HT-SIG", bits));
  }

  /** Of one stream without anything that is optional. */
  static HtSignal of(int mcs, boolean wide, int bytes, boolean shortGuard) {
    byte[] b =
        HeaderBits.bitsOf(
            mcs,
            7,
            wide ? 1 : 0,
            1,
            bytes,
            16,
            1,
            1,
            1,
            1,
            1,
            1,
            0,
            1,
            0,
            2,
            0,
            1,
            shortGuard ? 1 : 0,
            1,
            0,
            2,
            0,
            14);
    HeaderBits.seal(b, CHECK);
    return new HtSignal(b);
  }

  @Override
  public PacketFormat format() {
    return PacketFormat.HT;
  }

  private int mcs() {
    return bits.number(0, 7);
  }

  int bytes() {
    return bits.number(8, 16);
  }

  boolean aggregated() {
    return bits.isOne(27);
  }

  @Override
  public int width() {
    return bits.isOne(7) ? 2 : 1;
  }

  @Override
  public boolean lowDensity() {
    return bits.isOne(30);
  }

  @Override
  public int guard() {
    return bits.isOne(31) ? LegacyTones.GUARD / 2 : LegacyTones.GUARD;
  }

  @Override
  public PacketBody data() {
    return this;
  }

  @Override
  public List<OfdmPacket.Field> fields() {
    return List.of(
        OfdmPacket.Field.of("HT-SIG", 2 * LegacyPacket.SYMBOL),
        OfdmPacket.Field.of("Short training, HT", LegacyPacket.SYMBOL),
        OfdmPacket.Field.of("Training, HT", LegacyPacket.SYMBOL));
  }

  @Override
  public int bits(int symbols) {
    return LegacyBits.SERVICE_BITS + 8 * bytes() + ConvolutionalCode.TAIL_BITS;
  }

  @Override
  public int bytes(int symbols) {
    return bytes();
  }

  @Override
  public String wrong(LegacyBits.Payload p) {
    return aggregated() ? FrameCheck.Several.in(p.bytes()).wrong() : p.wrong();
  }

  @Override
  public boolean checked(LegacyBits.Payload p) {
    return !aggregated() || MixedStream.super.checked(p);
  }

  @Override
  public String words(LegacyBits.Payload p) {
    return aggregated() ? FrameCheck.Several.in(p.bytes()).words() : "its check sum fits";
  }

  @Override
  public int symbols(int usual) {
    int room = MixedPlan.room(format(), usual, guard());
    int tail = lowDensity() ? 0 : ConvolutionalCode.TAIL_BITS;
    int each = coding().dataBits(tones().length);
    return Math.min(room, (LegacyBits.SERVICE_BITS + 8 * bytes() + tail + each - 1) / each);
  }

  @Override
  public Coding coding() {
    return MixedTones.coding(false, width(), mcs());
  }

  @Override
  public String wrong() {
    return bits.fits(CHECK, 8) ? "" : "the check of HT-SIG does not fit";
  }

  @Override
  public String unread() {
    if (mcs() == TWICE) {
      return "MCS 32 sends each bit in both halves, which is not read";
    }
    if (mcs() >= MixedTones.codings(false, width())) {
      return "MCS " + mcs() + " is not of one stream";
    }
    if (bits.number(28, 2) != 0) {
      return "its data are coded in space and time";
    }
    if (bits.number(32, 2) != 0) {
      return "it sounds more streams than it sends";
    }
    return bytes() == 0 ? "it has no data" : "";
  }

  @Override
  public List<HeaderBits.Part> parts() {
    String mcs =
        mcs() < MixedTones.codings(false, width())
            ? coding().words()
            : "MCS " + mcs() + ", not of one stream";
    return List.of(
        bits.part("MCS", 0, 7, mcs),
        bits.either("Width", 7, "40 MHz", "20 MHz"),
        bits.part("Length", 8, 16, bytes() + " bytes"),
        bits.either("Smoothing", 24, "allowed", "not advised"),
        bits.either("Not sounding", 25, "no sounding", "sounding"),
        bits.either("Reserved", 26, "right", "wrong"),
        bits.either("Aggregation", 27, "several MPDUs", "one MPDU"),
        bits.numbered("STBC", 28, 2),
        bits.either("Code", 30, "LDPC", "convolutional"),
        bits.either("Guard", 31, "short, 400 ns", "800 ns"),
        bits.numbered("More streams sounded", 32, 2),
        bits.checked(CHECK, 8),
        bits.tail(TAIL));
  }
}
