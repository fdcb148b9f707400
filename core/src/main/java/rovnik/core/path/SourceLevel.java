package rovnik.core.path;

/**
 * What a source puts out.
 *
 * @param meanDbm mean level, NaN if nothing is known of it
 * @param crestDb how far the peaks are above the mean
 */
public record SourceLevel(double meanDbm, double crestDb) {
  public static final SourceLevel UNKNOWN = new SourceLevel(Double.NaN, 0);

  public static SourceLevel of(double meanDbm) {
    return new SourceLevel(meanDbm, 0);
  }
}
