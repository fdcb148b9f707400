package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;

/**
 * HE-SIG-A of a packet for several users (IEEE 802.11ax-2021, 27.3.11.7.2; from memory), and what
 * HE-SIG-B behind it says.
 *
 * @param b null if it was not read
 */
record HeSharedSignal(HeaderBits bits, HeSigB b) implements PacketHeader, HeBody {
  private static final int CHECK = 42;
  private static final int CHECK_BITS = 4;
  private static final int TAIL = 46;

  /** Symbols from the repeated SIGNAL to the short training, without HE-SIG-B. */
  private static final int BEFORE = 4;

  private static final String[] WIDTHS = {"20 MHz", "40 MHz", "80 MHz", "160 MHz"};
  private static final String[] TRAININGS = {
    "4x training, 0.8 us", "2x training, 0.8 us", "2x training, 1.6 us", "4x training, 3.2 us"
  };

  /** How often a training repeats itself within a transform, and guards, by the same field. */
  private static final int[] PARTS = {1, 2, 2, 1};

  private static final int[] GUARDS = {16, 16, 32, 64};
  private static final int[] TRAININGS_SENT = {1, 2, 4, 6, 8};

  /** Codings of HE-SIG-B are the first ones of the data. */
  private static final int LAST_OF_B = 5;

  static HeSharedSignal of(byte[] bits) {
    return new HeSharedSignal(new HeaderBits("HE-SIG-A", bits), null);
  }

  /** With the halves of HE-SIG-B. */
  HeSharedSignal with(List<byte[]> halves) {
    HeSigB read = HeSigB.of(width(), halves);
    int part = bits.number(39, 2);
    return new HeSharedSignal(
        bits,
        new HeSigB(
            read.wrong(), read.parts(), read.users().stream().map(u -> u.filled(part)).toList()));
  }

  @Override
  public PacketFormat format() {
    return PacketFormat.HE;
  }

  @Override
  public String wrong() {
    return !bits.fits(CHECK, CHECK_BITS)
        ? "the check of HE-SIG-A does not fit"
        : b == null ? "" : b.wrong();
  }

  /** True if HE-SIG-B has a form that is read. */
  boolean named() {
    return bits.fits(CHECK, CHECK_BITS) && notNamed().isEmpty();
  }

  private String notNamed() {
    if (bits.number(15, 3) >= WIDTHS.length) {
      return "some of its channels are left out";
    }
    if (bits.isOne(22)) {
      return "its users all have the whole channel, in streams";
    }
    if (bits.isOne(4)) {
      return "its HE-SIG-B is sent twice on two carriers";
    }
    return mcsOfB() <= LAST_OF_B ? "" : "its HE-SIG-B has no MCS " + mcsOfB();
  }

  private int mcsOfB() {
    return bits.number(1, 3);
  }

  /** How HE-SIG-B is coded. */
  Coding codingOfB() {
    return HeCodings.coding(mcsOfB());
  }

  int symbolsOfB() {
    return bits.number(18, 4) + 1;
  }

  @Override
  public String unread() {
    if (!notNamed().isEmpty()) {
      return notNamed();
    }
    if (b == null) {
      return "cut off in HE-SIG-B";
    }
    if (bits.number(34, 3) != 0) {
      return "its training comes several times, for several streams";
    }
    if (bits.isOne(25)) {
      return "its training comes again between the data";
    }
    if (bits.isOne(38)) {
      return "its data are sent twice, in space and time";
    }
    return users().stream().anyMatch(u -> u.coding() != null) ? "" : "it has no data that are read";
  }

  @Override
  public PacketBody data() {
    return this;
  }

  @Override
  public List<SharedUser> users() {
    return b.users();
  }

  /**
   * With an HE-SIG-B of so many symbols.
   *
   * @param training its kind and the guard, as the field has them
   */
  static HePlan layout(int width, int training, int symbolsOfB) {
    return new HePlan(width, BEFORE + symbolsOfB, PARTS[training], GUARDS[training]);
  }

  @Override
  public HePlan layout() {
    return layout(width(), bits.number(23, 2), symbolsOfB());
  }

  @Override
  public int width() {
    return 1 << bits.number(15, 2);
  }

  @Override
  public boolean oneLess() {
    return bits.isOne(41);
  }

  @Override
  public List<HePlan.Share> shares() {
    return users().stream().map(SharedUser::share).toList();
  }

  @Override
  public double reach() {
    return users().stream().mapToDouble(u -> u.unit().reach(width())).max().orElse(0);
  }

  @Override
  public List<OfdmPacket.Field> fields() {
    int symbol = LegacyPacket.SYMBOL;
    return List.of(
        OfdmPacket.Field.of("SIGNAL again", symbol),
        OfdmPacket.Field.of("HE-SIG-A", 2 * symbol),
        OfdmPacket.Field.of("HE-SIG-B", symbolsOfB() * symbol),
        OfdmPacket.Field.of("Short training, HE", symbol),
        OfdmPacket.Field.of("Training, HE", layout().ofTraining()));
  }

  @Override
  public List<HeaderBits.Part> parts() {
    List<HeaderBits.Part> out = new ArrayList<>();
    int width = bits.number(15, 3);
    out.add(bits.either("Direction", 0, "up", "down"));
    out.add(bits.part("MCS of HE-SIG-B", 1, 3, mcsOfB() <= LAST_OF_B ? codingOfB().words() : "?"));
    out.add(bits.either("Two carriers alike in HE-SIG-B", 4, "yes", "no"));
    out.add(bits.numbered("Colour of the network", 5, 6));
    out.add(bits.numbered("Spatial reuse", 11, 4));
    out.add(
        bits.part("Width", 15, 3, width < WIDTHS.length ? WIDTHS[width] : "with some left out"));
    boolean compressed = bits.isOne(22);
    out.add(
        bits.part(
            compressed ? "Users" : "Symbols of HE-SIG-B", 18, 4, "" + (bits.number(18, 4) + 1)));
    out.add(bits.either("HE-SIG-B compressed", 22, "yes", "no"));
    out.add(bits.part("Training and guard", 23, 2, TRAININGS[bits.number(23, 2)]));
    out.add(bits.either("Doppler", 25, "yes", "no"));
    out.add(bits.numbered("TXOP", 26, 7));
    out.add(bits.either("Reserved", 33, "right", "wrong"));
    int trainings = bits.number(34, 3);
    boolean known = trainings < TRAININGS_SENT.length;
    out.add(bits.part("Trainings", 34, 3, known ? "" + TRAININGS_SENT[trainings] : "?"));
    out.add(bits.either("One more for LDPC", 37, "yes", "no"));
    out.add(bits.either("STBC", 38, "yes", "no"));
    out.add(bits.numbered("Padding before the code", 39, 2));
    out.add(bits.part("Extension may mislead", 41, 1, bits.isOne(41) ? "yes" : "no"));
    out.add(bits.checked(CHECK, CHECK_BITS));
    out.add(bits.tail(TAIL));
    if (b != null) {
      out.addAll(b.parts());
    }
    return List.copyOf(out);
  }
}
