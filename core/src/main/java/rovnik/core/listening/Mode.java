package rovnik.core.listening;

/** How a channel is made heard. */
public enum Mode {
  AM("AM", "AM depth", "%", 100),
  FM("FM", "Deviation", "Hz", 1),
  USB("USB", "Voltage", "of full scale", 1),
  LSB("LSB", "Voltage", "of full scale", 1);

  private final String label;
  private final String amount;
  private final String unit;
  private final double scale;

  Mode(String label, String amount, String unit, double scale) {
    this.label = label;
    this.amount = amount;
    this.unit = unit;
    this.scale = scale;
  }

  /** "FM". */
  public String label() {
    return label;
  }

  /** What is heard of the carrier. */
  String amount() {
    return amount;
  }

  String unit() {
    return unit;
  }

  /** What the amount is shown in, over what it is kept in. */
  double scale() {
    return scale;
  }

  boolean oneSideBand() {
    return this == USB || this == LSB;
  }
}
