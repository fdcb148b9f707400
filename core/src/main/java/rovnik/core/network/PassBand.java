package rovnik.core.network;

import rovnik.core.Refusal;

/**
 * The pass band of a transmission around its highest point.
 *
 * @param downDb how far below the highest point its edges lie
 * @param lowHz lower edge
 * @param highHz upper edge
 */
public record PassBand(double downDb, double lowHz, double highHz) {
  public double widthHz() {
    return highHz - lowHz;
  }

  /** Middle between the edges. */
  public double centreHz() {
    return (lowHz + highHz) / 2;
  }

  /** Centre over width; at 3 dB the loaded quality of a single resonator. */
  public double quality() {
    return centreHz() / widthHz();
  }

  /**
   * The band between the first points on both sides of the highest one that lie so far below it,
   * straight in dB between points.
   *
   * @param downDb more than 0
   * @return null if the network does not fall that far on both sides
   */
  public static PassBand of(NetworkData n, int row, int column, double downDb) {
    if (!(downDb > 0)) {
      throw new Refusal("downDb", "The edges of a band lie some dB below its top, such as 3.");
    }
    int top = 0;
    for (int i = 1; i < n.points(); i++) {
      if (n.magnitude(i, row, column) > n.magnitude(top, row, column)) {
        top = i;
      }
    }
    double wall = n.magnitudeDb(top, row, column) - downDb;
    double low = edge(n, row, column, top, -1, wall);
    double high = edge(n, row, column, top, 1, wall);
    return Double.isNaN(low) || Double.isNaN(high) ? null : new PassBand(downDb, low, high);
  }

  private static double edge(NetworkData n, int row, int column, int top, int side, double wall) {
    double before = n.magnitudeDb(top, row, column);
    for (int i = top + side; i >= 0 && i < n.points(); i += side) {
      double here = n.magnitudeDb(i, row, column);
      if (here <= wall) {
        double share = (before - wall) / (before - here);
        double a = n.frequencyHz()[i - side];
        return a + share * (n.frequencyHz()[i] - a);
      }
      before = here;
    }
    return Double.NaN;
  }
}
