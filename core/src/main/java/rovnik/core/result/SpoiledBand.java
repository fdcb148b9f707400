package rovnik.core.result;

/**
 * A band of a stitched trace that must not be trusted.
 *
 * @param why "overload", for example
 */
public record SpoiledBand(double fromHz, double toHz, String why) {
  public boolean overlaps(double low, double high) {
    return fromHz <= high && toHz >= low;
  }
}
