package rovnik.instruments.source;

/**
 * What a source is doing.
 *
 * @param on output switched on
 * @param modulated data instead of a plain carrier
 * @param driveHigh driven high
 * @param frequencyHz nominal frequency
 * @param levelDbm nominal level at its output
 */
public record SourceState(
    boolean on, boolean modulated, boolean driveHigh, double frequencyHz, double levelDbm) {

  /** The state in words, as kept with a run. */
  public String text() {
    return on
        ? "on, " + (modulated ? "data" : "carrier") + (driveHigh ? ", drive high" : "")
        : "off";
  }
}
