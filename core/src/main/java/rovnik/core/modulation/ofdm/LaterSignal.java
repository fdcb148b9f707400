package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;

/**
 * What the packets say whose SIGNAL is sent twice: HE-SIG-A (IEEE 802.11ax-2021, 27.3.11.7) or
 * U-SIG (IEEE 802.11be, 36.3.12.7), two symbols of 52 tones with data. Both from memory. Their data
 * are not read.
 *
 * @param format HE or EHT
 * @param severalUsers of HE only: its bits are those of a packet for several users
 */
record LaterSignal(PacketFormat format, boolean severalUsers, HeaderBits bits)
    implements PacketHeader {
  private static final int CHECK = 42;
  private static final int CHECK_BITS = 4;
  private static final int TAIL = 46;
  static final int BITS = 52;
  private static final int[] WIDTHS_MHZ = {20, 40, 80, 160};
  private static final String[] WIDTHS_OF_EHT = {
    "20 MHz", "40 MHz", "80 MHz", "160 MHz", "320 MHz, lower", "320 MHz, upper"
  };

  /**
   * Whose bits they are, by the rest that the length in SIGNAL leaves over 3: 0 for EHT, 2 for HE
   * of several users, 1 for HE of one user.
   */
  static LaterSignal of(int length, byte[] bits) {
    boolean he = length % 3 != 0;
    return new LaterSignal(
        he ? PacketFormat.HE : PacketFormat.EHT,
        length % 3 == 2,
        new HeaderBits(he ? "HE-SIG-A" : "U-SIG", bits));
  }

  /** Of one user over a long range: its length leaves 2, its symbols come twice. */
  static LaterSignal ofLongRange(byte[] bits) {
    return new LaterSignal(PacketFormat.HE, false, new HeaderBits("HE-SIG-A", bits));
  }

  @Override
  public String wrong() {
    return bits.fits(CHECK, CHECK_BITS) ? "" : "the check of " + bits.name() + " does not fit";
  }

  @Override
  public String unread() {
    return "the data of " + format.label() + " packets are not read";
  }

  @Override
  public Coding coding() {
    throw new IllegalStateException("its data are not read");
  }

  @Override
  public boolean lowDensity() {
    throw new IllegalStateException("its data are not read");
  }

  @Override
  public int symbols(int room) {
    return 0;
  }

  @Override
  public int guard() {
    return LegacyTones.GUARD;
  }

  @Override
  public List<HeaderBits.Part> parts() {
    List<HeaderBits.Part> out = new ArrayList<>();
    if (format == PacketFormat.EHT) {
      universal(out);
    } else if (severalUsers) {
      heOfSeveral(out);
    } else {
      heOfOne(out);
    }
    out.add(bits.checked(CHECK, CHECK_BITS));
    out.add(bits.tail(TAIL));
    return List.copyOf(out);
  }

  private void universal(List<HeaderBits.Part> out) {
    int width = bits.number(3, 3);
    int version = bits.number(0, 3);
    out.add(bits.part("Version", 0, 3, version == 0 ? "EHT" : "newer than EHT"));
    out.add(
        bits.part(
            "Width", 3, 3, width < WIDTHS_OF_EHT.length ? WIDTHS_OF_EHT[width] : "not assigned"));
    out.add(direction(6));
    out.add(bits.numbered("Colour of the network", 7, 6));
    out.add(bits.numbered("TXOP", 13, 7));
    out.add(bits.part("Not to be looked at", 20, 5, ""));
    out.add(bits.either("Must be right", 25, "1, as it must be", "0, must be 1"));
    out.add(bits.numbered("Kind and compression", 26, 2));
    out.add(bits.either("Must be right", 28, "1, as it must be", "0, must be 1"));
    if (bits.isOne(6) && bits.number(26, 2) == 0) {
      out.add(bits.part("Spatial reuse", 29, 8, "4 bits each"));
      out.add(bits.part("Not to be looked at", 37, 5, ""));
      return;
    }
    out.add(bits.numbered("Punctured channels", 29, 5));
    out.add(bits.either("Must be right", 34, "1, as it must be", "0, must be 1"));
    out.add(bits.numbered("MCS of EHT-SIG", 35, 2));
    out.add(bits.part("Symbols of EHT-SIG", 37, 5, "" + (bits.number(37, 5) + 1)));
  }

  private void heOfOne(List<HeaderBits.Part> out) {
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
    String[] guards = {
      "1x training, 0.8 us", "2x training, 0.8 us", "2x training, 1.6 us", "4x training"
    };
    out.add(bits.either("Beam changes", 1, "yes", "no"));
    out.add(direction(2));
    out.add(bits.numbered("MCS", 3, 4));
    out.add(bits.either("Two carriers alike", 7, "yes", "no"));
    out.add(bits.numbered("Colour of the network", 8, 6));
    out.add(bits.either("Reserved", 14, "1, as it must be", "0, must be 1"));
    out.add(bits.numbered("Spatial reuse", 15, 4));
    out.add(bits.part("Width", 19, 2, WIDTHS_MHZ[bits.number(19, 2)] + " MHz"));
    out.add(bits.part("Training and guard", 21, 2, guards[bits.number(21, 2)]));
    out.add(bits.part("Streams", 23, 3, "" + (bits.number(23, 3) + 1)));
    out.add(bits.numbered("TXOP", 26, 7));
    out.add(bits.either("Code", 33, "LDPC", "convolutional"));
    out.add(bits.either("One more for LDPC", 34, "yes", "no"));
    out.add(bits.either("STBC", 35, "yes", "no"));
    out.add(bits.either("Beamformed", 36, "yes", "no"));
    out.add(bits.numbered("Padding before the code", 37, 2));
    out.add(bits.part("Extension may mislead", 39, 1, bits.isOne(39) ? "yes" : "no"));
    out.add(bits.either("Reserved", 40, "1, as it must be", "0, must be 1"));
    out.add(bits.either("Doppler", 41, "yes", "no"));
  }

  private void heOfSeveral(List<HeaderBits.Part> out) {
    out.add(direction(0));
    out.add(bits.numbered("MCS of SIG-B", 1, 3));
    out.add(bits.either("Two carriers alike in SIG-B", 4, "yes", "no"));
    out.add(bits.numbered("Colour of the network", 5, 6));
    out.add(bits.numbered("Spatial reuse", 11, 4));
    out.add(bits.numbered("Width", 15, 3));
    out.add(bits.numbered("Symbols of SIG-B, or users", 18, 4));
    out.add(bits.either("SIG-B compressed", 22, "yes", "no"));
    out.add(bits.numbered("Training and guard", 23, 2));
    out.add(bits.either("Doppler", 25, "yes", "no"));
    out.add(bits.numbered("TXOP", 26, 7));
    out.add(bits.either("Reserved", 33, "1, as it must be", "0, must be 1"));
    out.add(bits.numbered("Trainings", 34, 3));
    out.add(bits.either("One more for LDPC", 37, "yes", "no"));
    out.add(bits.either("STBC", 38, "yes", "no"));
    out.add(bits.numbered("Padding before the code", 39, 2));
    out.add(bits.part("Extension may mislead", 41, 1, bits.isOne(41) ? "yes" : "no"));
  }

  private HeaderBits.Part direction(int at) {
    return bits.either("Direction", at, "up", "down");
  }
}
