package rovnik.core.modulation.analysis;

import rovnik.core.modulation.PulseShape;
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.BandTaker.Band;
import rovnik.core.signal.Transforms;

/** A carrier with symbols, found in the spectrum of a record and taken from it. */
final class CarrierBand {
  /** Samples a symbol that are taken: symbols are read between them. */
  private static final double SAMPLES_PER_SYMBOL = 4;

  /** Steps of the search for the carrier within one symbol rate. */
  private static final int STEPS = 32;

  /** A band without a filter of its own is wider than the signal, and fades out there. */
  private static final double MARGIN = 1.5;

  /** Power of what rounding leaves, against the strongest bin. */
  private static final float ROUNDED = 1e-12f;

  private CarrierBand() {}

  /**
   * Where a carrier is, by the shape of its spectrum; a few hundredths of the symbol rate for some
   * hundred symbols.
   *
   * @param nearHz where it is looked for, from the centre
   * @param reachHz how far to each side
   */
  static double centreHz(
      BandTaker taker, PulseShape sent, double symbolRateHz, double nearHz, double reachHz) {
    return taker.bestMatchHz(
        hz -> Math.pow(sent.response(hz / symbolRateHz), 2),
        sent.halfWidth() * symbolRateHz,
        symbolRateHz / STEPS,
        nearHz,
        reachHz);
  }

  /**
   * Takes a carrier.
   *
   * @param offsetHz where it is; the shift is to the next bin, and told
   * @param filter that it is measured through
   * @param sent what was sent, which says how wide it is where the filter does not
   */
  static Band take(
      BandTaker taker, double offsetHz, PulseShape filter, PulseShape sent, double symbolRateHz) {
    boolean limited = filter.bandLimited() || sent.bandLimited();
    double half =
        filter.bandLimited()
            ? filter.halfWidth()
            : sent.bandLimited() ? MARGIN * sent.halfWidth() : Double.POSITIVE_INFINITY;
    double halfHz = Math.min(limited ? half * symbolRateHz : taker.rateHz(), taker.rateHz() / 2);
    double leastRate = Math.max(SAMPLES_PER_SYMBOL * symbolRateHz, 4 * halfHz);
    boolean fades = !filter.bandLimited() && sent.bandLimited();
    double step = taker.binHz() / symbolRateHz;
    float[] response = FilterTable.of(filter, step, taker.bins(halfHz, leastRate));
    return taker.take(offsetHz, leastRate, fades ? faded(response, step, sent) : response);
  }

  private static float[] faded(float[] response, double step, PulseShape sent) {
    float[] out = response.clone();
    for (int k = 0; k < out.length; k++) {
      double beyond = k * step / sent.halfWidth() - 1;
      if (beyond > 0) {
        out[k] *= (float) ((1 + Math.cos(Math.PI * beyond / (MARGIN - 1))) / 2);
      }
    }
    return out;
  }

  /** The same behind an equalizer for a carrier. */
  static Band through(Band band, Weights w, double carrierHz, double symbolRateHz) {
    int length = band.re().length;
    float[] x = band.re().clone();
    float[] y = band.im().clone();
    Transforms.ofLength(length).forward(x, y);
    double[] h = new double[2];
    float most = 0;
    for (int k = 0; k < length; k++) {
      most = Math.max(most, x[k] * x[k] + y[k] * y[k]);
    }
    float nothing = ROUNDED * most;
    for (int k = 0; k < length; k++) {
      if (x[k] * x[k] + y[k] * y[k] < nothing) {
        x[k] = 0; // the filter let nothing through here
        y[k] = 0;
        continue;
      }
      int bin = k <= length / 2 ? k : k - length;
      double hz = bin * band.rateHz() / length + band.offsetHz() - carrierHz;
      w.response(hz / symbolRateHz, h);
      double a = (x[k] * h[0] - y[k] * h[1]) / length;
      double b = (x[k] * h[1] + y[k] * h[0]) / length;
      // The inverse is a forward transform with the parts exchanged, before and after.
      x[k] = (float) b;
      y[k] = (float) a;
    }
    Transforms.ofLength(length).forward(x, y);
    return new Band(y, x, band.rateHz(), band.offsetHz(), band.samples());
  }
}
