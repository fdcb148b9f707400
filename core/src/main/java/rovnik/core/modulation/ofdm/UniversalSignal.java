package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;

/**
 * U-SIG (IEEE 802.11be, 36.3.12.7; from memory): two symbols of 52 tones with data behind a SIGNAL
 * that comes twice; and EHT-SIG of one user (36.3.12.8) behind it.
 *
 * @param bits of U-SIG
 * @param more of EHT-SIG; null if it was not read
 */
record UniversalSignal(HeaderBits bits, HeaderBits more) implements PacketHeader, UserStream {
  /** Symbols from the repeated SIGNAL to the short training, without EHT-SIG; and those of it. */
  private static final int BEFORE = 4;

  private static final int USUAL_MORE = 2;
  private static final int CHECK = 42;
  private static final int CHECK_BITS = 4;
  private static final int TAIL = 46;
  private static final String[] WIDTHS = {
    "20 MHz", "40 MHz", "80 MHz", "160 MHz", "320 MHz, lower", "320 MHz, upper"
  };

  /** Bits of U-SIG, and of EHT-SIG for one user. */
  static final int BITS = 52;

  /** How often a training repeats itself within a transform, and guards, by the same field. */
  private static final int[] PARTS = {2, 2, 1, 1};

  private static final int[] GUARDS = {16, 32, 16, 64};
  private static final String[] TRAININGS = {
    "2x training, 0.8 us", "2x training, 1.6 us", "4x training, 0.8 us", "4x training, 3.2 us"
  };

  /** U-SIG alone. */
  static UniversalSignal of(byte[] bits) {
    return new UniversalSignal(new HeaderBits("U-SIG", bits), null);
  }

  UniversalSignal with(byte[] ehtSig) {
    return new UniversalSignal(bits, new HeaderBits("EHT-SIG", ehtSig));
  }

  @Override
  public PacketFormat format() {
    return PacketFormat.EHT;
  }

  @Override
  public String wrong() {
    if (!bits.fits(CHECK, CHECK_BITS)) {
      return "the check of U-SIG does not fit";
    }
    return more == null || more.fits(CHECK, CHECK_BITS) ? "" : "the check of EHT-SIG does not fit";
  }

  /** One user, as EHT numbers it. */
  private boolean oneUser() {
    return bits.number(0, 3) == 0 && bits.number(26, 2) == 1;
  }

  /** Bits of a tone in EHT-SIG where it is read: of one user, in BPSK or QPSK; else 0. */
  int bitsPerTone() {
    int mcs = bits.number(35, 2);
    return oneUser() && mcs < 2 ? mcs + 1 : 0;
  }

  int symbolsOfMore() {
    return bits.number(37, 5) + 1;
  }

  @Override
  public String unread() {
    if (bits.number(0, 3) != 0) {
      return "it is newer than EHT";
    }
    if (!oneUser()) {
      return bits.isOne(6) && bits.number(26, 2) == 0
          ? "its data answer a trigger that is not known"
          : "its data are for several users";
    }
    if (bits.number(3, 3) >= WIDTHS.length) {
      return "its width is not known";
    }
    if (bits.number(29, 5) != 0) {
      return "some of its channels are left out";
    }
    if (more == null) {
      return bitsPerTone() == 0
          ? "its EHT-SIG is in 16-QAM, which is not read"
          : "cut off in EHT-SIG";
    }
    if (more.number(36, 4) != 0) {
      return "its data are " + (more.number(36, 4) + 1) + " streams";
    }
    return mcs() <= HeCodings.LAST_OF_EHT
        ? ""
        : "MCS " + mcs() + " sends all twice, which is not read";
  }

  @Override
  public PacketBody data() {
    return this;
  }

  private int mcs() {
    return more.number(31, 4);
  }

  private int training4() {
    return more.number(4, 2);
  }

  @Override
  public int partOfLast() {
    return more.number(10, 2);
  }

  @Override
  public boolean oneLess() {
    return more.isOne(12);
  }

  @Override
  public HePlan layout() {
    return layout(width(), training4()).later(symbolsOfMore() - USUAL_MORE);
  }

  /**
   * With the EHT-SIG that one user needs.
   *
   * @param training its kind and the guard, as the field has them
   */
  static HePlan layout(int width, int training) {
    return new HePlan(width, BEFORE + USUAL_MORE, PARTS[training], GUARDS[training]);
  }

  @Override
  public Coding coding() {
    return HeCodings.coding(mcs());
  }

  @Override
  public boolean lowDensity() {
    return more.isOne(41);
  }

  @Override
  public List<OfdmPacket.Field> fields() {
    int symbol = LegacyPacket.SYMBOL;
    return List.of(
        OfdmPacket.Field.of("SIGNAL again", symbol),
        OfdmPacket.Field.of("U-SIG", 2 * symbol),
        OfdmPacket.Field.of("EHT-SIG", symbolsOfMore() * symbol),
        OfdmPacket.Field.of("Short training, EHT", symbol),
        OfdmPacket.Field.of("Training, EHT", layout().ofTraining()));
  }

  @Override
  public int width() {
    return 1 << Math.min(4, bits.number(3, 3));
  }

  @Override
  public List<HeaderBits.Part> parts() {
    List<HeaderBits.Part> out = new ArrayList<>();
    int width = bits.number(3, 3);
    int version = bits.number(0, 3);
    out.add(bits.part("Version", 0, 3, version == 0 ? "EHT" : "newer than EHT"));
    out.add(bits.part("Width", 3, 3, width < WIDTHS.length ? WIDTHS[width] : "not assigned"));
    out.add(bits.either("Direction", 6, "up", "down"));
    out.add(bits.numbered("Colour of the network", 7, 6));
    out.add(bits.numbered("TXOP", 13, 7));
    out.add(bits.part("Not to be looked at", 20, 5, ""));
    out.add(bits.either("Must be 1", 25, "right", "wrong"));
    out.add(bits.numbered("Kind and compression", 26, 2));
    out.add(bits.either("Must be 1", 28, "right", "wrong"));
    if (bits.isOne(6) && bits.number(26, 2) == 0) {
      out.add(bits.part("Spatial reuse", 29, 8, "4 bits each"));
      out.add(bits.part("Not to be looked at", 37, 5, ""));
      return ended(out);
    }
    out.add(bits.numbered("Punctured channels", 29, 5));
    out.add(bits.either("Must be 1", 34, "right", "wrong"));
    out.add(bits.numbered("MCS of EHT-SIG", 35, 2));
    out.add(bits.part("Symbols of EHT-SIG", 37, 5, "" + (bits.number(37, 5) + 1)));
    return ended(out);
  }

  private List<HeaderBits.Part> ended(List<HeaderBits.Part> out) {
    out.add(bits.checked(CHECK, CHECK_BITS));
    out.add(bits.tail(TAIL));
    if (more != null) {
      ofOneUser(out);
    }
    return List.copyOf(out);
  }

  private void ofOneUser(List<HeaderBits.Part> out) {
    out.add(more.numbered("Spatial reuse", 0, 4));
    out.add(more.part("Training and guard", 4, 2, TRAININGS[training4()]));
    out.add(more.numbered("Trainings", 6, 3));
    out.add(more.either("One more for LDPC", 9, "yes", "no"));
    out.add(more.numbered("Padding before the code", 10, 2));
    out.add(more.either("Extension may mislead", 12, "yes", "no"));
    out.add(more.part("Not to be looked at", 13, 4, ""));
    out.add(more.part("Users", 17, 3, "" + (more.number(17, 3) + 1)));
    out.add(more.numbered("Station", 20, 11));
    out.add(
        more.part("MCS", 31, 4, mcs() <= HeCodings.LAST_OF_EHT ? coding().words() : "" + mcs()));
    out.add(more.either("Must be 1", 35, "right", "wrong"));
    out.add(more.part("Streams", 36, 4, "" + (more.number(36, 4) + 1)));
    out.add(more.either("Beamformed", 40, "yes", "no"));
    out.add(more.either("Code", 41, "LDPC", "convolutional"));
    out.add(more.checked(CHECK, CHECK_BITS));
    out.add(more.tail(TAIL));
  }
}
