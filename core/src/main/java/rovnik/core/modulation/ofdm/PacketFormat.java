package rovnik.core.modulation.ofdm;

import rovnik.core.Refusal;

/**
 * What comes behind a preamble of IEEE 802.11 clause 17: what that clause has, or what is newer.
 */
public enum PacketFormat {
  LEGACY("OFDM", 1),
  HT("HT", 2),
  VHT("VHT", 8),
  HE("HE", 8),
  EHT("EHT", 16);

  private static final double PART_HZ = 20e6;

  private final String label;
  private final int widest;

  /**
   * @param widest channel, in 20 MHz
   */
  PacketFormat(String label, int widest) {
    this.label = label;
    this.widest = widest;
  }

  /**
   * Width of a channel in 20 MHz, if newer packets of this format have such.
   *
   * @throws Refusal that names those they have
   */
  int widthOf(double channelHz) {
    StringBuilder widths = new StringBuilder();
    for (int w = 1; w <= widest; w *= 2) {
      if (channelHz == w * PART_HZ) {
        return w;
      }
      widths
          .append(w == 1 ? "" : w == widest ? " or " : ", ")
          .append(Math.round(w * PART_HZ / 1e6));
    }
    throw new Refusal("bandHz", "The channel is " + widths + " MHz wide for " + label + ".");
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
