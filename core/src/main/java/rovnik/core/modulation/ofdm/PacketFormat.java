package rovnik.core.modulation.ofdm;

/**
 * What comes behind a preamble of IEEE 802.11 clause 17: what that clause has, or what is newer.
 */
public enum PacketFormat {
  LEGACY("OFDM"),
  HT("HT"),
  VHT("VHT"),
  HE("HE"),
  EHT("EHT");

  private final String label;

  PacketFormat(String label) {
    this.label = label;
  }

  /** As its clause is called. */
  public String label() {
    return label;
  }

  /**
   * True if a tone must be flat within less than others. Beyond 20 MHz from memory.
   *
   * @param width of the channel, in 20 MHz
   */
  boolean isInner(int tone, int width) {
    int k = Math.abs(tone);
    return switch (width) {
      case 1 -> k <= (fills() ? 84 : 16);
      case 2 -> k <= (fills() ? 168 : 42);
      case 4 -> k <= (fills() ? 344 : 84);
      case 8 -> fills() ? k >= 166 && k <= 696 : k >= 44 && k <= 172;
      // Each half as a channel of its own.
      default -> Math.abs(k - 1024) >= 166 && Math.abs(k - 1024) <= 696;
    };
  }

  /** True if its tones fill a channel as those of HE and EHT do. */
  boolean fills() {
    return this == HE || this == EHT;
  }
}
