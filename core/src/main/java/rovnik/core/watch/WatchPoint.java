package rovnik.core.watch;

/**
 * All looks of a short time together. Arrays have one number for each that is followed, NaN where
 * no look had it.
 *
 * @param atMillis when its last look was complete, milliseconds since 1970
 * @param low lowest
 * @param high highest
 * @param last of the last look
 * @param uncertainty largest expanded uncertainty
 */
public record WatchPoint(
    long atMillis, double[] low, double[] high, double[] last, double[] uncertainty) {

  /** All of it as one row of numbers. */
  public double[] packed() {
    int n = low.length;
    double[] out = new double[4 * n];
    System.arraycopy(low, 0, out, 0, n);
    System.arraycopy(high, 0, out, n, n);
    System.arraycopy(last, 0, out, 2 * n, n);
    System.arraycopy(uncertainty, 0, out, 3 * n, n);
    return out;
  }

  /**
   * The point that was packed so.
   *
   * @param from where its numbers begin
   * @param readings how many are followed
   */
  public static WatchPoint unpacked(long atMillis, double[] packed, int from, int readings) {
    return new WatchPoint(
        atMillis,
        part(packed, from, readings, 0),
        part(packed, from, readings, 1),
        part(packed, from, readings, 2),
        part(packed, from, readings, 3));
  }

  private static double[] part(double[] packed, int from, int readings, int which) {
    double[] out = new double[readings];
    System.arraycopy(packed, from + which * readings, out, 0, readings);
    return out;
  }
}
