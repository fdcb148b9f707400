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
}
