package rovnik.core.modulation.ofdm;

import rovnik.core.result.Axis;
import rovnik.core.result.Series;
import rovnik.core.signal.Transforms;

/**
 * What the channel does over time: the transform of what its tones pass, through a Hann window. Two
 * paths are told apart if they lie two over the width of the tones apart.
 */
final class TimeResponse {
  /** Places for each that the tones tell. */
  private static final int FINE = 4;

  /** Of the time after which it repeats itself, what is shown before and behind the strongest. */
  private static final int BEFORE = 16;

  private static final int BEHIND = 4;
  private static final double LOWEST = 1e-9;

  private TimeResponse() {}

  /**
   * @param tones rising
   * @param spacingHz from tone to tone
   */
  static Series of(int[] tones, double[] re, double[] im, double spacingHz) {
    int places = tones[tones.length - 1] - tones[0] + 1;
    int length = Integer.highestOneBit(Math.max(1, FINE * places - 1)) << 1;
    double[] x = new double[places];
    double[] y = new double[places];
    for (int k = 0; k < tones.length; k++) {
      x[tones[k] - tones[0]] = re[k];
      y[tones[k] - tones[0]] = im[k];
    }
    // Between known tones a straight line, once the strongest path turns them no more.
    double turn = 2 * Math.PI * strongest(transformed(x, y, length)) / length;
    for (int k = 0; k < places; k++) {
      turned(x, y, k, turn * k);
    }
    for (int k = 1; k < tones.length; k++) {
      int low = tones[k - 1] - tones[0];
      int high = tones[k] - tones[0];
      for (int i = low + 1; i < high; i++) {
        double share = (double) (i - low) / (high - low);
        x[i] = x[low] + share * (x[high] - x[low]);
        y[i] = y[low] + share * (y[high] - y[low]);
      }
    }
    double[] power = transformed(x, y, length);
    int top = strongest(power);
    int before = length / BEFORE;
    double[] db = new double[before + length / BEHIND + 1];
    for (int i = 0; i < db.length; i++) {
      int at = Math.floorMod(top + i - before, length);
      db[i] = 10 * Math.log10(Math.max(LOWEST, power[at] / power[top]));
    }
    double step = 1 / (length * spacingHz);
    return Series.curve(
            "response",
            "Response over time",
            Axis.even("Delay", "s", -before * step, step, db.length),
            db,
            "dB")
        .of("Level");
  }

  private static void turned(double[] x, double[] y, int k, double angle) {
    double c = Math.cos(angle);
    double s = Math.sin(angle);
    double re = x[k] * c - y[k] * s;
    y[k] = x[k] * s + y[k] * c;
    x[k] = re;
  }

  private static int strongest(double[] power) {
    int top = 0;
    for (int i = 1; i < power.length; i++) {
      top = power[i] > power[top] ? i : top;
    }
    return top;
  }

  /** Power over delay, which grows from place to place. */
  private static double[] transformed(double[] x, double[] y, int length) {
    float[] re = new float[length];
    float[] im = new float[length];
    for (int k = 0; k < x.length; k++) {
      double w = 0.5 - 0.5 * Math.cos(2 * Math.PI * (k + 0.5) / x.length);
      // Conjugated: a path that comes later turns the tones backwards.
      re[k] = (float) (w * x[k]);
      im[k] = (float) (-w * y[k]);
    }
    Transforms.ofLength(length).forward(re, im);
    double[] out = new double[length];
    for (int i = 0; i < length; i++) {
      out[i] = re[i] * (double) re[i] + im[i] * (double) im[i];
    }
    return out;
  }
}
