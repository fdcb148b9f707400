package rovnik.core.modulation.ofdm;

/**
 * What comes behind a preamble of IEEE 802.11 clause 17: what that clause has, or what is newer.
 */
public enum PacketFormat {
  LEGACY("OFDM", 16),
  HT("HT", 16),
  VHT("VHT", 16),
  HE("HE", 84),
  EHT("EHT", 84);

  private final String label;
  private final int inner;

  /**
   * @param inner tones in 20 MHz that must be flat within less, to each side; of HE and EHT from
   *     memory
   */
  PacketFormat(String label, int inner) {
    this.label = label;
    this.inner = inner;
  }

  /** As its clause is called. */
  public String label() {
    return label;
  }

  int inner() {
    return inner;
  }

  /** True if its tones fill a channel as those of HE and EHT do. */
  boolean fills() {
    return this == HE || this == EHT;
  }

  /** True if the leakage of the carrier is limited as in clause 17. */
  boolean likeClause17() {
    return this == LEGACY || this == HT;
  }
}
