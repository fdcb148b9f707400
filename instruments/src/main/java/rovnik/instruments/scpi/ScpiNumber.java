package rovnik.instruments.scpi;

/**
 * Numbers as SCPI-99 gives them: 9.9E37 is infinity and 9.91E37 is not a number (volume 1, 7.2.1.4
 * and 7.2.1.5). Here alone they become what Java calls so.
 */
public final class ScpiNumber {
  private static final double INFINITY = 9.9e37;
  private static final double NOT_A_NUMBER = 9.91e37;
  private static final double WITHIN = 1e-4;

  private ScpiNumber() {}

  /**
   * Reads an answer.
   *
   * @throws NumberFormatException if it is no number in any form
   */
  public static double parse(String answer) {
    return of(Double.parseDouble(answer.strip()));
  }

  /** The value that a number stands for. */
  public static double of(double sent) {
    double size = Math.abs(sent);
    if (near(size, NOT_A_NUMBER)) {
      return Double.NaN;
    }
    return near(size, INFINITY) ? Math.copySign(Double.POSITIVE_INFINITY, sent) : sent;
  }

  private static boolean near(double size, double wanted) {
    return Math.abs(size / wanted - 1) < WITHIN;
  }
}
