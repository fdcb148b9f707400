package rovnik.core.receiver;

/**
 * A level that was sought.
 *
 * @param dbm the best guess; NaN while there is none
 * @param standardDb how far off it may be, one standard deviation of what chance does
 */
public record LevelEstimate(double dbm, double standardDb) {
  public static final LevelEstimate NONE = new LevelEstimate(Double.NaN, Double.NaN);

  public boolean known() {
    return !Double.isNaN(dbm);
  }
}
