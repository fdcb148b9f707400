package rovnik.core.time;

import java.util.Arrays;
import org.hipparchus.util.KthSelector;
import rovnik.core.result.Axis;
import rovnik.core.signal.BandTaker;

/**
 * A band over time in no more steps than can be drawn, thinned honestly: of each step its highest,
 * its lowest and its mean power, and where its vector turns.
 */
final class TimeSteps {
  /** Of exponentially distributed powers a tenth lies below this share of their mean. */
  private static final double TENTH = -Math.log(0.9);

  /** A band whose quiet tenth is so near to its highest power is never quiet. */
  private static final double ALWAYS = 30;

  /** Frequency and phase are those of a signal, not of noise, from here on: 10 dB. */
  private static final double OVER_NOISE = 10;

  private final BandTaker.Band band;
  private final int from;
  private final int together;
  private final int count;
  private final double startSeconds;
  final double[] highest;
  final double[] lowest;
  final double[] mean;

  /**
   * @param from first sample
   * @param to one after the last
   * @param most steps
   * @param startSeconds of the band's first sample
   */
  TimeSteps(BandTaker.Band band, int from, int to, int most, double startSeconds) {
    this.band = band;
    this.from = from;
    this.together = Math.max(1, (to - from + most - 1) / most);
    this.count = Math.max(1, (to - from) / together);
    this.startSeconds = startSeconds;
    this.highest = new double[count];
    this.lowest = new double[count];
    this.mean = new double[count];
    for (int i = 0; i < count; i++) {
      double low = Double.POSITIVE_INFINITY;
      double high = 0;
      double sum = 0;
      for (int n = from + i * together; n < from + (i + 1) * together; n++) {
        double p = power(band, n);
        low = Math.min(low, p);
        high = Math.max(high, p);
        sum += p;
      }
      highest[i] = high;
      lowest[i] = low;
      mean[i] = sum / together;
    }
  }

  static double power(BandTaker.Band band, int n) {
    double re = band.re()[n];
    double im = band.im()[n];
    return re * re + im * im;
  }

  /**
   * Mean power of the noise between what comes and goes, from the quietest tenth; 0 where something
   * is there all the time, so that nothing tells noise from signal.
   */
  static double quiet(double[] power) {
    double tenth = new KthSelector().select(power.clone(), null, power.length / 10) / TENTH;
    double most = Arrays.stream(power).max().orElse(0);
    return most > ALWAYS * tenth ? tenth : 0;
  }

  boolean thinned() {
    return together > 1;
  }

  Axis axis() {
    double step = together / band.rateHz();
    double first = startSeconds + (from + (together - 1) / 2.0) / band.rateHz();
    return Axis.even("Time", "s", first, step, count);
  }

  /** Whether a step holds a signal. */
  private boolean there(int i, double noise) {
    return mean[i] > OVER_NOISE * noise && mean[i] > 0;
  }

  /** Mean turn of each step as a frequency from the middle of the band; NaN where only noise is. */
  double[] frequencyHz(double noise) {
    double[] out = new double[count];
    for (int i = 0; i < count; i++) {
      double[] turn = new double[2];
      turns(i, turn);
      out[i] = there(i, noise) ? hertz(turn) : Double.NaN;
    }
    return out;
  }

  /** Mean frequency of all steps that hold a signal, from the middle of the band. */
  double meanHz(double noise) {
    double[] turn = new double[2];
    for (int i = 0; i < count; i++) {
      if (there(i, noise)) {
        turns(i, turn);
      }
    }
    return hertz(turn);
  }

  private double hertz(double[] turn) {
    return Math.atan2(turn[1], turn[0]) / (2 * Math.PI) * band.rateHz();
  }

  /** Adds the turns before and after each sample of a step, whose middle is the sample. */
  private void turns(int step, double[] sum) {
    for (int n = from + step * together; n < from + (step + 1) * together; n++) {
      for (int later = Math.max(1, n); later <= Math.min(band.samples() - 1, n + 1); later++) {
        sum[0] += turnRe(later);
        sum[1] += turnIm(later);
      }
    }
  }

  private double turnRe(int n) {
    return band.re()[n] * (double) band.re()[n - 1] + band.im()[n] * (double) band.im()[n - 1];
  }

  private double turnIm(int n) {
    return band.im()[n] * (double) band.re()[n - 1] - band.re()[n] * (double) band.im()[n - 1];
  }

  /**
   * Phase of each step against a carrier, -180 to 180 degrees; NaN where only noise is.
   *
   * @param carrierHz from the middle of the band
   * @param first sample from which on the carrier's mean phase is 0
   * @param last until this one
   */
  double[] phaseDegrees(double noise, double carrierHz, int first, int last) {
    double turn = -2 * Math.PI * carrierHz / band.rateHz();
    double[] zero = turnedBack(turn, first, last);
    double[] out = new double[count];
    for (int i = 0; i < count; i++) {
      double[] v = turnedBack(turn, from + i * together, from + (i + 1) * together);
      double re = v[0] * zero[0] + v[1] * zero[1];
      double im = v[1] * zero[0] - v[0] * zero[1];
      out[i] = there(i, noise) ? Math.toDegrees(Math.atan2(im, re)) : Double.NaN;
    }
    return out;
  }

  /** Sum of samples, each turned back by how far the carrier has turned. */
  private double[] turnedBack(double turn, int first, int last) {
    double re = 0;
    double im = 0;
    for (int n = first; n < last; n++) {
      double c = Math.cos(turn * n);
      double s = Math.sin(turn * n);
      re += band.re()[n] * c - band.im()[n] * s;
      im += band.re()[n] * s + band.im()[n] * c;
    }
    return new double[] {re, im};
  }
}
