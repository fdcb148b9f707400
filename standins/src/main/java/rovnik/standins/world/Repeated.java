package rovnik.standins.world;

/**
 * A signal that repeats, seen by a receiver: the lines of its spectrum that lie in the receiver's
 * band, as a table of one period that is read between its places.
 */
final class Repeated {
  private static final int TAPS = 12;
  private static final int PHASES = 2048;
  private static final double[] KERNEL = kernel();

  private final double[] table;
  private final int places;
  private final double periodHz;
  private final double restHz;

  private Repeated(double[] table, double periodHz, double restHz) {
    this.table = table;
    this.places = table.length / 2;
    this.periodHz = periodHz;
    this.restHz = restHz;
  }

  /** What a modulator makes of a line: writes its factor to out[0], out[1]. */
  interface Response {
    void at(double basebandHz, double[] out);
  }

  /**
   * @param lines spectrum of one period, interleaved, line k at k or k - n
   * @param n lines
   * @param periodHz one over the period
   * @param offsetHz where line 0 lies, from the receiver's centre
   * @param rateHz of the receiver
   * @return null if nothing of it lies in the band
   */
  static Repeated seen(
      double[] lines, int n, double periodHz, double offsetHz, double rateHz, Response response) {
    long lowest = (long) Math.ceil((-rateHz / 2 - offsetHz) / periodHz);
    long highest = (long) Math.floor((rateHz / 2 - offsetHz) / periodHz);
    int from = (int) Math.max(lowest, -(n / 2));
    int to = (int) Math.min(highest, (n - 1) / 2);
    if (from > to) {
      return null;
    }
    int middle = from + (to - from) / 2;
    int places = Math.max(64, Integer.highestOneBit(Math.max(1, to - from)) * 8);
    double[] table = new double[2 * places];
    double[] r = new double[2];
    for (int k = from; k <= to; k++) {
      double shape = World.bandShape(offsetHz + k * periodHz, rateHz);
      if (shape == 0) {
        continue;
      }
      response.at(k * periodHz, r);
      int line = 2 * Math.floorMod(k, n);
      int place = 2 * Math.floorMod(k - middle, places);
      double re = lines[line] * r[0] - lines[line + 1] * r[1];
      double im = lines[line] * r[1] + lines[line + 1] * r[0];
      table[place] = shape * re;
      table[place + 1] = -shape * im;
    }
    Dft.forward(table, places); // of the conjugate: the inverse's conjugate
    for (int i = 1; i < table.length; i += 2) {
      table[i] = -table[i];
    }
    return new Repeated(table, periodHz, offsetHz + middle * periodHz);
  }

  /** Adds it, times a factor, to samples that begin at a time; turned by phases that are given. */
  void add(
      double[] iq, int samples, double startSeconds, double rateHz, double factor, double[] turn) {
    Rotor r = new Rotor(2 * Math.PI * (restHz * startSeconds % 1.0), 2 * Math.PI * restHz / rateHz);
    double start = startSeconds * periodHz % 1.0 * places;
    double step = periodHz / rateHz * places;
    int mask = places - 1;
    for (int m = 0; m < samples; m++) {
      double at = start + m * step;
      long whole = (long) Math.floor(at);
      int phase = (int) ((at - whole) * PHASES) * TAPS;
      double re = 0;
      double im = 0;
      for (int t = 0; t < TAPS; t++) {
        int place = 2 * ((int) (whole + t - TAPS / 2 + 1) & mask);
        re += KERNEL[phase + t] * table[place];
        im += KERNEL[phase + t] * table[place + 1];
      }
      double c = factor * (r.cos * turn[2 * m] - r.sin * turn[2 * m + 1]);
      double s = factor * (r.sin * turn[2 * m] + r.cos * turn[2 * m + 1]);
      iq[2 * m] += re * c - im * s;
      iq[2 * m + 1] += re * s + im * c;
      r.turn();
    }
  }

  /** A sine quotient under a raised-cosine bell, for what fills a quarter of the band at most. */
  private static double[] kernel() {
    double[] k = new double[PHASES * TAPS];
    for (int p = 0; p < PHASES; p++) {
      double sum = 0;
      for (int t = 0; t < TAPS; t++) {
        double x = t - TAPS / 2 + 1 - (p + 0.5) / PHASES;
        double sinc = Math.abs(x) < 1e-12 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
        double w = 2 * x / TAPS;
        double bell = bessel(9 * Math.sqrt(Math.max(0, 1 - w * w))) / bessel(9);
        k[p * TAPS + t] = sinc * bell;
        sum += sinc * bell;
      }
      for (int t = 0; t < TAPS; t++) {
        k[p * TAPS + t] /= sum;
      }
    }
    return k;
  }

  /** Modified Bessel function of order 0: its power series. */
  static double bessel(double x) {
    double sum = 1;
    double term = 1;
    for (int i = 1; i < 40; i++) {
      term *= x / 2 / i * (x / 2 / i);
      sum += term;
    }
    return sum;
  }
}
