package rovnik.core.modulation.analog;

import java.util.Arrays;
import org.jtransforms.fft.DoubleFFT_1D;
import rovnik.core.Refusal;
import rovnik.core.signal.DoubleTransforms;
import rovnik.core.units.Frequency;

/**
 * A channel taken from a record, and what its carrier does over time.
 *
 * @param re the channel around its carrier's mean frequency
 * @param im likewise
 * @param rateHz samples a second of it
 * @param offsetHz what it was shifted by, from the centre of the record
 * @param level mean voltage of its envelope
 * @param power mean power
 */
record Demodulated(
    double[] re, double[] im, double rateHz, double offsetHz, double level, double power) {
  /** Half width of the filter's edges, which are half down in power at those of the channel. */
  private static final double EDGE = 0.1;

  private static final double LEAST_OVERSAMPLING = 2.5;

  /** Geometric over arithmetic mean of a noise spectrum is 0.56; of anything else far less. */
  private static final double FLAT = 0.4;

  /**
   * Takes a channel.
   *
   * @param nearHz where the carrier is expected, from the centre of the record
   */
  static Demodulated of(
      float[] iq, int from, int samples, double sampleHz, double nearHz, double bandHz) {
    int length = Integer.highestOneBit(Math.max(64, 2 * samples - 1));
    double[] lines = new double[2 * length];
    for (int i = 0; i < samples; i++) {
      lines[2 * i] = iq[2 * (from + i)];
      lines[2 * i + 1] = iq[2 * (from + i) + 1];
    }
    DoubleFFT_1D fft = DoubleTransforms.of(length);
    fft.complexForward(lines);
    double bin = sampleHz / length;
    if (flat(lines, length, bin, nearHz, bandHz, sampleHz)) {
      throw new Refusal(
          "signal",
          "There is only noise within "
              + Frequency.ofHertz(bandHz)
              + ". Check the source, the frequency and the reference level.");
    }
    double centre = nearHz;
    for (int round = 0; round < 3; round++) {
      double moved = centroid(lines, length, bin, centre, bandHz, sampleHz);
      centre = Math.max(nearHz - bandHz / 2, Math.min(nearHz + bandHz / 2, moved));
    }
    return taken(lines, length, bin, centre, bandHz, samples / sampleHz, sampleHz);
  }

  private static double power(double[] lines, int length, int k) {
    int at = 2 * Math.floorMod(k, length);
    return lines[at] * lines[at] + lines[at + 1] * lines[at + 1];
  }

  private static boolean flat(
      double[] lines, int length, double bin, double near, double band, double sampleHz) {
    int first = (int) Math.ceil(Math.max(-sampleHz / 2, near - band / 2) / bin);
    int last = (int) Math.floor(Math.min(sampleHz / 2, near + band / 2) / bin);
    double logs = 0;
    double sum = 0;
    int count = 0;
    for (int k = first; k <= last; k++) {
      double p = power(lines, length, k);
      logs += Math.log(p + 1e-300);
      sum += p;
      count++;
    }
    if (!(sum > 0)) {
      throw new Refusal(
          "signal", "There is no signal: all samples are 0. Check the source and the connection.");
    }
    return count > 32 && Math.exp(logs / count) / (sum / count) > FLAT;
  }

  private static double centroid(
      double[] lines, int length, double bin, double centre, double band, double sampleHz) {
    int first = (int) Math.ceil(Math.max(-sampleHz / 2, centre - band / 2) / bin);
    int last = (int) Math.floor(Math.min(sampleHz / 2, centre + band / 2) / bin);
    double sum = 0;
    double moment = 0;
    for (int k = first; k <= last; k++) {
      double p = power(lines, length, k);
      sum += p;
      moment += p * k * bin;
    }
    return sum > 0 ? moment / sum : centre;
  }

  private static Demodulated taken(
      double[] lines,
      int length,
      double bin,
      double centre,
      double band,
      double seconds,
      double sampleHz) {
    int out = 64;
    double wanted = Math.min(LEAST_OVERSAMPLING * band, Math.max(sampleHz, 1.4 * band));
    while (out * bin < wanted) {
      out *= 2;
    }
    double[] z = new double[2 * out];
    int middle = (int) Math.rint(centre / bin);
    int reach = (int) Math.min((0.5 + EDGE) * band / bin, out / 2.0 - 1);
    for (int k = -reach; k <= reach; k++) {
      double hz = (middle + k) * bin;
      if (Math.abs(hz) > sampleHz / 2) {
        continue;
      }
      double over = (Math.abs(k * bin) / band - 0.5 + EDGE) / (2 * EDGE);
      double h = over <= 0 ? 1 : Math.cos(Math.PI / 2 * Math.min(1, over));
      int source = 2 * Math.floorMod(middle + k, length);
      int to = 2 * Math.floorMod(k, out);
      z[to] = h * lines[source] / length;
      z[to + 1] = h * lines[source + 1] / length;
    }
    DoubleTransforms.of(out).complexInverse(z, false);
    double rate = out * bin;
    int count = (int) Math.floor(seconds * rate);
    // The filter rings at the ends of the record.
    int guard = (int) Math.min(count / 8.0, Math.ceil(2 / (EDGE * band) * rate));
    int n = Math.max(16, count - 2 * guard);
    double[] re = new double[n];
    double[] im = new double[n];
    double level = 0;
    double power = 0;
    for (int i = 0; i < n; i++) {
      re[i] = z[2 * (i + guard)];
      im[i] = z[2 * (i + guard) + 1];
      double p = re[i] * re[i] + im[i] * im[i];
      level += Math.sqrt(p) / n;
      power += p / n;
    }
    return new Demodulated(re, im, rate, middle * bin, level, power);
  }

  double seconds() {
    return re.length / rateHz;
  }

  /** Envelope over its mean, less 1: 0.5 at the peaks of 50 %. */
  double[] amplitude() {
    return amplitude(0);
  }

  /**
   * The same without what noise across the carrier adds to its length: half its power over the
   * length (S. O. Rice, 1945, from memory).
   *
   * @param noise power of the noise in one direction, over that of the carrier
   */
  double[] amplitude(double noise) {
    double[] out = new double[re.length];
    double mean = 0;
    for (int i = 0; i < out.length; i++) {
      double a = Math.hypot(re[i], im[i]) / level;
      out[i] = a - Math.min(a, noise / 2 / Math.max(a, 1e-9));
      mean += out[i] / out.length;
    }
    for (int i = 0; i < out.length; i++) {
      out[i] = out[i] / mean - 1;
    }
    return out;
  }

  /** Phase, going on over whole turns, radians. */
  double[] phase() {
    double[] out = new double[re.length];
    out[0] = Math.atan2(im[0], re[0]);
    for (int i = 1; i < out.length; i++) {
      double c = re[i] * re[i - 1] + im[i] * im[i - 1];
      double s = im[i] * re[i - 1] - re[i] * im[i - 1];
      out[i] = out[i - 1] + Math.atan2(s, c);
    }
    return out;
  }

  /** Mean frequency by the line through a phase, Hz from what it was shifted by. */
  double slopeHz(double[] phase) {
    return slope(phase) * rateHz / (2 * Math.PI);
  }

  private static double slope(double[] phase) {
    double middle = (phase.length - 1) / 2.0;
    double sum = 0;
    double all = 0;
    for (int i = 0; i < phase.length; i++) {
      sum += (i - middle) * phase[i];
      all += (i - middle) * (i - middle);
    }
    return sum / all;
  }

  /** A phase without the line through it: the carrier's own frequency. */
  static double[] straightened(double[] phase) {
    double middle = (phase.length - 1) / 2.0;
    double mean = Arrays.stream(phase).average().orElse(0);
    double slope = slope(phase);
    double[] out = new double[phase.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = phase[i] - mean - slope * (i - middle);
    }
    return out;
  }

  /**
   * Frequency over time, Hz from what it was shifted by. The phase is differentiated over its
   * spectrum, so that fast messages do not come out low.
   */
  double[] frequency() {
    double[] p = phase();
    int n = p.length;
    double[] f = new double[n - 1];
    for (int i = 0; i + 1 < n; i++) {
      f[i] = (p[i + 1] - p[i]) * rateHz / (2 * Math.PI);
    }
    int length = Integer.highestOneBit(Math.max(2, 2 * f.length - 1)) * 2;
    double mean = Arrays.stream(f).average().orElse(0);
    double[] work = new double[length];
    for (int i = 0; i < f.length; i++) {
      work[i] = f[i] - mean;
    }
    DoubleTransforms.of(length).realForward(work);
    for (int k = 1; k < length / 2; k++) {
      double x = Math.PI * k / length;
      double h = x / Math.sin(x);
      work[2 * k] *= h;
      work[2 * k + 1] *= h;
    }
    DoubleTransforms.of(length).realInverse(work, true);
    for (int i = 0; i < f.length; i++) {
      f[i] = work[i] + mean;
    }
    return f;
  }
}
