package rovnik.core.uncertainty;

/**
 * How far the mean square of errors in a row may be from that of infinitely many. Errors by phase
 * noise hang together over many symbols and go one way only; taken for independent, their mean
 * square looks more certain than it is.
 *
 * <p>The mean square of Gaussian values varies with twice the sum of their squared autocovariances
 * over their number (Bartlett's formula for lag 0: Priestley, "Spectral Analysis and Time Series",
 * 5.3; from memory). The sum ends where they can no longer be told from chance.
 */
public final class SquareScatter {
  private SquareScatter() {}

  /**
   * Standard uncertainty of a mean square, as a share of it.
   *
   * @param parts of the errors, at right angles to each other: one, or two of a complex error
   */
  public static double relative(double[]... parts) {
    return widened(perValue(parts), parts[0].length);
  }

  /**
   * The same of so many values, where what one contributes is known.
   *
   * @param perValue as {@link #perValue} gives it
   */
  public static double widened(double perValue, double values) {
    double r = Math.sqrt(perValue / values);
    // A mean square that came out low states too little of itself.
    return r * (1 + r);
  }

  /** Relative variance of a mean square, times the number of values; 1 of white complex noise. */
  public static double perValue(double[]... parts) {
    int n = parts[0].length;
    double all = 0;
    double fourth = 0;
    for (int k = 0; k < n; k++) {
      double square = 0;
      for (double[] p : parts) {
        square += p[k] * p[k];
      }
      all += square / n;
      fourth += square * square / n;
    }
    if (all == 0) {
      return 0;
    }
    double gauss = 0;
    for (double[] p : parts) {
      gauss += 2 * squaredCovariances(p) / (all * all);
    }
    // Errors of few sizes scatter less than Gaussian ones, but not without any end.
    return Math.max(Math.max(0.02, fourth / all / all - 1), gauss);
  }

  private static double squaredCovariances(double[] x) {
    int n = x.length;
    double power = covariance(x, 0);
    double chance = 2 * power / Math.sqrt(n);
    double sum = power * power;
    int lag = 1;
    while (lag < n / 4) {
      double c = covariance(x, lag);
      if (c < chance) {
        break;
      }
      // Far out the covariance changes slowly: not every lag has to be looked at.
      int step = 1 + lag / 16;
      sum += 2 * step * c * c;
      lag += step;
    }
    // What lasts so long is seen too rarely to be told in full.
    double seen = 1 - 2.0 * (lag - 1) / n;
    return sum / (seen * seen);
  }

  private static double covariance(double[] x, int lag) {
    double sum = 0;
    for (int k = lag; k < x.length; k++) {
      sum += x[k] * x[k - lag];
    }
    return sum / (x.length - lag);
  }
}
