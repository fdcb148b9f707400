package rovnik.core.modulation.analog;

import java.util.Locale;

/**
 * The two lines beside a carrier, read as a spectrum shows them.
 *
 * @param depth sum of both over the carrier: the depth of AM that nothing else comes with
 * @param unlikeDb upper over lower
 * @param phase phase modulation that they tell of together, radians
 */
record SideLines(double depth, double unlikeDb, double phase) {
  /** Periods that must be in the record, so that the lines are apart under the window. */
  private static final double LEAST_PERIODS = 8;

  private static final double ALIKE_DB = 0.3;

  /**
   * @return null if there is no tone, or too few periods of it
   */
  static SideLines of(Demodulated d, double carrierHz, double toneHz) {
    if (!(toneHz > 0) || d.seconds() * toneHz < LEAST_PERIODS) {
      return null;
    }
    double[] c = line(d, carrierHz);
    double[] up = over(line(d, carrierHz + toneHz), c);
    double[] low = over(line(d, carrierHz - toneHz), c);
    double a = Math.hypot(up[0], up[1]);
    double b = Math.hypot(low[0], low[1]);
    return new SideLines(
        a + b,
        20 * Math.log10(Math.max(a, 1e-9) / Math.max(b, 1e-9)),
        Math.hypot(up[0] - low[0], up[1] + low[1]));
  }

  /** One line under a four-term Blackman-Harris window. */
  private static double[] line(Demodulated d, double hz) {
    int n = d.re().length;
    double re = 0;
    double im = 0;
    double all = 0;
    for (int i = 0; i < n; i++) {
      double x = 2 * Math.PI * (i + 0.5) / n;
      double w =
          0.35875 - 0.48829 * Math.cos(x) + 0.14128 * Math.cos(2 * x) - 0.01168 * Math.cos(3 * x);
      double angle = -2 * Math.PI * hz / d.rateHz() * i;
      double c = Math.cos(angle);
      double s = Math.sin(angle);
      re += w * (d.re()[i] * c - d.im()[i] * s);
      im += w * (d.re()[i] * s + d.im()[i] * c);
      all += w;
    }
    return new double[] {re / all, im / all};
  }

  private static double[] over(double[] x, double[] by) {
    double p = Math.max(by[0] * by[0] + by[1] * by[1], 1e-300);
    return new double[] {(x[0] * by[0] + x[1] * by[1]) / p, (x[1] * by[0] - x[0] * by[1]) / p};
  }

  boolean unlike() {
    return Math.abs(unlikeDb) > ALIKE_DB;
  }

  /** Why they may say something else than the envelope. */
  String why() {
    if (unlike()) {
      return String.format(
          Locale.ROOT,
          "the upper one is %.1f dB %s the lower, so phase modulation comes with it, or a filter"
              + " takes from one",
          Math.abs(unlikeDb),
          unlikeDb > 0 ? "over" : "under");
    }
    return String.format(Locale.ROOT, "phase modulation of %.3g rad comes with it", phase);
  }
}
