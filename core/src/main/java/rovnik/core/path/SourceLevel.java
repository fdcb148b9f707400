package rovnik.core.path;

/**
 * What a source puts out.
 *
 * @param meanDbm mean level, NaN if nothing is known of it
 * @param crestDb how far the peaks are above the mean
 * @param set it was set to that; otherwise it may be more, if more is expected of it
 */
public record SourceLevel(double meanDbm, double crestDb, boolean set) {
  public static final SourceLevel UNKNOWN = of(Double.NaN);

  public static SourceLevel of(double meanDbm) {
    return new SourceLevel(meanDbm, 0, false);
  }

  /** What counts if a level is expected of it, NaN for none. */
  public SourceLevel orExpected(double expectedDbm) {
    boolean own = meanDbm > expectedDbm || set && !Double.isNaN(meanDbm);
    return own ? this : new SourceLevel(expectedDbm, crestDb, false);
  }
}
