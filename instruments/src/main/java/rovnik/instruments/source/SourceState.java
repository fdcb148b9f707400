package rovnik.instruments.source;

/**
 * What a source is doing.
 *
 * @param on output switched on
 * @param modulated data instead of a plain carrier
 * @param driveHigh driven high
 * @param frequencyHz nominal frequency
 * @param levelDbm nominal mean level at its output
 * @param crestDb how far its peaks are above the mean, 0 if that is not known
 * @param set the level was set, and is not only what it should be
 */
public record SourceState(
    boolean on,
    boolean modulated,
    boolean driveHigh,
    double frequencyHz,
    double levelDbm,
    double crestDb,
    boolean set) {

  /** The state in words, as kept with a run. */
  public String text() {
    return on
        ? "on, " + (modulated ? "data" : "carrier") + (driveHigh ? ", drive high" : "")
        : "off";
  }
}
