package rovnik.core.path;

/** What an element of a path is. */
public enum ElementKind {
  SOURCE("Source"),
  PAD("Pad"),
  CABLE("Cable"),
  ADAPTER("Adapter"),
  PROBE("Probe"),
  AMPLIFIER("Amplifier"),
  FILTER("Filter"),
  MIXER("Mixer"),
  CONVERTER("Digital converter"),
  COMBINER("Combiner"),
  DUT("Device under test"),
  PORT("Instrument port");

  private final String label;

  ElementKind(String label) {
    this.label = label;
  }

  public String label() {
    return label;
  }
}
