package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;

/**
 * HE-SIG-A (IEEE 802.11ax-2021, 27.3.11.7; from memory): two symbols of 52 tones with data behind a
 * SIGNAL that comes twice.
 *
 * @param kind whose bits they are
 */
record HeSignal(Kind kind, HeaderBits bits) implements PacketHeader, UserStream {
  /** Who packets are for. */
  enum Kind {
    /** One user, or the answer to a trigger: its first bit says which. */
    ONE,
    /** One user over a long range: each symbol of HE-SIG-A comes twice. */
    FAR
  }

  /** Symbols from the repeated SIGNAL to the short training. */
  private static final int BEFORE = 4;

  private static final int CHECK = 42;
  private static final int CHECK_BITS = 4;
  private static final int TAIL = 46;
  static final int BITS = 52;
  private static final int[] WIDTHS_MHZ = {20, 40, 80, 160};
  private static final String[] TRAININGS = {
    "1x training, 0.8 us", "2x training, 0.8 us", "2x training, 1.6 us", "4x training, 3.2 us"
  };

  /** How often a training repeats itself within a transform, and guards, by the same field. */
  private static final int[] PARTS = {4, 2, 2, 1};

  private static final int[] GUARDS = {16, 16, 32, 64};

  HeSignal(Kind kind, byte[] bits) {
    this(kind, new HeaderBits("HE-SIG-A", bits));
  }

  @Override
  public PacketFormat format() {
    return PacketFormat.HE;
  }

  @Override
  public String wrong() {
    return bits.fits(CHECK, CHECK_BITS) ? "" : "the check of HE-SIG-A does not fit";
  }

  @Override
  public String unread() {
    if (!bits.isOne(0)) {
      return "its data answer a trigger: say what that asked for";
    }
    if (kind == Kind.FAR && bits.number(19, 2) != 0) {
      return "its data are on 106 tones";
    }
    if (bits.isOne(41)) {
      return "its training comes again between the data";
    }
    if (bits.number(23, 3) != 0) {
      return "its data are " + (bits.number(23, 3) + 1) + " streams";
    }
    if (bits.isOne(7) || bits.isOne(35)) {
      return "its data are sent twice, on two carriers or in space and time";
    }
    return mcs() <= HeCodings.LAST_OF_HE ? "" : "there is no MCS " + mcs();
  }

  /** True if it answers a trigger, and its check fits. */
  boolean answers() {
    return kind == Kind.ONE && wrong().isEmpty() && !bits.isOne(0);
  }

  /** Width of an answer to a trigger, in 20 MHz. */
  int widthOfAnswer() {
    return 1 << bits.number(24, 2);
  }

  @Override
  public PacketBody data() {
    return this;
  }

  private int mcs() {
    return bits.number(3, 4);
  }

  private int training4() {
    return bits.number(21, 2);
  }

  @Override
  public int partOfLast() {
    return bits.number(37, 2);
  }

  @Override
  public boolean oneLess() {
    return bits.isOne(39);
  }

  @Override
  public HePlan layout() {
    HePlan usual = layout(width(), training4());
    return kind == Kind.FAR ? usual.later(2) : usual;
  }

  /**
   * @param training its kind and the guard, as the field has them
   */
  static HePlan layout(int width, int training) {
    return new HePlan(width, BEFORE, PARTS[training], GUARDS[training]);
  }

  @Override
  public Coding coding() {
    return HeCodings.coding(mcs());
  }

  @Override
  public boolean lowDensity() {
    return bits.isOne(33);
  }

  @Override
  public List<OfdmPacket.Field> fields() {
    int symbol = LegacyPacket.SYMBOL;
    return List.of(
        OfdmPacket.Field.of("SIGNAL again", symbol),
        OfdmPacket.Field.of("HE-SIG-A", (kind == Kind.FAR ? 4 : 2) * symbol),
        OfdmPacket.Field.of("Short training, HE", symbol),
        OfdmPacket.Field.of("Training, HE", layout().ofTraining()));
  }

  @Override
  public int width() {
    return 1 << bits.number(19, 2);
  }

  @Override
  public List<HeaderBits.Part> parts() {
    List<HeaderBits.Part> out = new ArrayList<>();
    ofOne(out);
    out.add(bits.checked(CHECK, CHECK_BITS));
    out.add(bits.tail(TAIL));
    return List.copyOf(out);
  }

  private void ofOne(List<HeaderBits.Part> out) {
    out.add(bits.either("Kind", 0, "one user", "answer to a trigger"));
    if (!bits.isOne(0)) {
      out.add(bits.numbered("Colour of the network", 1, 6));
      out.add(bits.part("Spatial reuse", 7, 16, "4 bits each"));
      out.add(bits.part("Reserved", 23, 1, ""));
      out.add(bits.part("Width", 24, 2, WIDTHS_MHZ[bits.number(24, 2)] + " MHz"));
      out.add(bits.numbered("TXOP", 26, 7));
      out.add(bits.part("Reserved", 33, 9, ""));
      return;
    }
    out.add(bits.either("Beam changes", 1, "yes", "no"));
    out.add(direction(2));
    out.add(bits.part("MCS", 3, 4, mcs() <= HeCodings.LAST_OF_HE ? coding().words() : "" + mcs()));
    out.add(bits.either("Two carriers alike", 7, "yes", "no"));
    out.add(bits.numbered("Colour of the network", 8, 6));
    out.add(bits.either("Reserved", 14, "right", "wrong"));
    out.add(bits.numbered("Spatial reuse", 15, 4));
    out.add(bits.part("Width", 19, 2, WIDTHS_MHZ[bits.number(19, 2)] + " MHz"));
    out.add(bits.part("Training and guard", 21, 2, TRAININGS[training4()]));
    out.add(bits.part("Streams", 23, 3, "" + (bits.number(23, 3) + 1)));
    out.add(bits.numbered("TXOP", 26, 7));
    out.add(bits.either("Code", 33, "LDPC", "convolutional"));
    out.add(bits.either("One more for LDPC", 34, "yes", "no"));
    out.add(bits.either("STBC", 35, "yes", "no"));
    out.add(bits.either("Beamformed", 36, "yes", "no"));
    out.add(bits.numbered("Padding before the code", 37, 2));
    out.add(bits.part("Extension may mislead", 39, 1, bits.isOne(39) ? "yes" : "no"));
    out.add(bits.either("Reserved", 40, "right", "wrong"));
    out.add(bits.either("Doppler", 41, "yes", "no"));
  }

  private HeaderBits.Part direction(int at) {
    return bits.either("Direction", at, "up", "down");
  }
}
