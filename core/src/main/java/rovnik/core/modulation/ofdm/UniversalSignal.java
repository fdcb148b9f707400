package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;

/**
 * U-SIG (IEEE 802.11be, 36.3.12.7; from memory): two symbols of 52 tones with data behind a SIGNAL
 * that comes twice. What follows is not read.
 */
record UniversalSignal(HeaderBits bits) implements PacketHeader {
  private static final int CHECK = 42;
  private static final int CHECK_BITS = 4;
  private static final int TAIL = 46;
  private static final String[] WIDTHS = {
    "20 MHz", "40 MHz", "80 MHz", "160 MHz", "320 MHz, lower", "320 MHz, upper"
  };

  UniversalSignal(byte[] bits) {
    this(new HeaderBits("U-SIG", bits));
  }

  @Override
  public PacketFormat format() {
    return PacketFormat.EHT;
  }

  @Override
  public String wrong() {
    return bits.fits(CHECK, CHECK_BITS) ? "" : "the check of U-SIG does not fit";
  }

  @Override
  public String unread() {
    return "the data of EHT packets are not read";
  }

  @Override
  public OneStream data() {
    throw new IllegalStateException(unread());
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
    out.add(bits.either("Must be right", 25, "1, as it must be", "0, must be 1"));
    out.add(bits.numbered("Kind and compression", 26, 2));
    out.add(bits.either("Must be right", 28, "1, as it must be", "0, must be 1"));
    if (bits.isOne(6) && bits.number(26, 2) == 0) {
      out.add(bits.part("Spatial reuse", 29, 8, "4 bits each"));
      out.add(bits.part("Not to be looked at", 37, 5, ""));
      return ended(out);
    }
    out.add(bits.numbered("Punctured channels", 29, 5));
    out.add(bits.either("Must be right", 34, "1, as it must be", "0, must be 1"));
    out.add(bits.numbered("MCS of EHT-SIG", 35, 2));
    out.add(bits.part("Symbols of EHT-SIG", 37, 5, "" + (bits.number(37, 5) + 1)));
    return ended(out);
  }

  private List<HeaderBits.Part> ended(List<HeaderBits.Part> out) {
    out.add(bits.checked(CHECK, CHECK_BITS));
    out.add(bits.tail(TAIL));
    return List.copyOf(out);
  }
}
