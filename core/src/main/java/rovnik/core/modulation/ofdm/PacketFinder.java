package rovnik.core.modulation.ofdm;

/**
 * Finds the beginning of OFDM packets: the short training repeats itself ten times, which is seen
 * whatever the channel and the offset, and the long training that follows has a form that is known.
 */
final class PacketFinder {
  private static final int TIMES = ChannelSamples.TIMES;
  private static final int LAG = LegacyPacket.SHORT_PERIOD * TIMES;
  private static final int WINDOW = 6 * LAG;
  private static final int TRANSFORM = LegacyTones.TRANSFORM * TIMES;

  /**
   * How alike a window and the next period are. Noise reaches it once in 1e11 windows; a packet
   * does with as much noise as signal.
   */
  private static final double ALIKE = 0.5;

  /** And how much of the power of each of both symbols has the form of the long training. */
  private static final double FORMED = 0.3;

  /** Of the form, over its length: 52 tones of power 1. */
  private static final double FORM_POWER = 2.0 * LegacyTones.LAST * TRANSFORM;

  /** From the first window that is alike on, the fullest one is looked for so far. */
  private static final int SEEK = 2 * LegacyPacket.TRAINING * TIMES;

  /** From the fullest window to the long training behind its guard, at least and at most. */
  private static final int NEAREST = 64;

  private static final int FARTHEST = 450;

  /**
   * The beginning of a packet.
   *
   * @param training first sample of the transform of its first training
   * @param offset of the carrier, radians a sample
   */
  record Found(int training, double offset) {}

  private final double[] re;
  private final double[] im;
  private final double[] formRe = new double[TRANSFORM];
  private final double[] formIm = new double[TRANSFORM];
  private int others;

  PacketFinder(double[] re, double[] im) {
    this.re = re;
    this.im = im;
    for (int k = -LegacyTones.LAST; k <= LegacyTones.LAST; k++) {
      int sign = LegacyTones.longTraining(k);
      for (int n = 0; n < TRANSFORM; n++) {
        double angle = 2 * Math.PI * Math.floorMod(k * n, TRANSFORM) / TRANSFORM;
        formRe[n] += sign * Math.cos(angle);
        formIm[n] += sign * Math.sin(angle);
      }
    }
  }

  /** Stretches so far that repeat themselves as a short training does, and are none. */
  int others() {
    return others;
  }

  /** The next packet from a sample on; null if there is no more. */
  Found next(int from) {
    int last = re.length - WINDOW - 2 * TRANSFORM;
    double x = 0;
    double y = 0;
    double first = 0;
    double second = 0;
    int fresh = from;
    for (int n = from; n < last; n++) {
      if (n == fresh) {
        x = 0;
        y = 0;
        first = 0;
        second = 0;
        for (int m = n; m < n + WINDOW; m++) {
          x += re[m] * re[m + LAG] + im[m] * im[m + LAG];
          y += im[m] * re[m + LAG] - re[m] * im[m + LAG];
          first += power(m);
          second += power(m + LAG);
        }
        fresh = n + (1 << 16); // sums that are only ever changed drift
      }
      if (x * x + y * y > ALIKE * ALIKE * first * second && first > 0) {
        Found found = longTraining(n);
        if (found != null) {
          return found;
        }
        others++;
        n += WINDOW;
        fresh = n + 1;
        continue;
      }
      int in = n + WINDOW;
      x += re[in] * re[in + LAG] + im[in] * im[in + LAG];
      y += im[in] * re[in + LAG] - re[in] * im[in + LAG];
      x -= re[n] * re[n + LAG] + im[n] * im[n + LAG];
      y -= im[n] * re[n + LAG] - re[n] * im[n + LAG];
      first += power(in) - power(n);
      second += power(in + LAG) - power(n + LAG);
    }
    return null;
  }

  private double power(int n) {
    return re[n] * re[n] + im[n] * im[n];
  }

  /** The angle by which the carrier turns from a sample to the next, of what repeats itself. */
  private double turn(int from, int samples, int lag) {
    double x = 0;
    double y = 0;
    for (int n = from; n < from + samples; n++) {
      x += re[n] * re[n + lag] + im[n] * im[n + lag];
      y += re[n] * im[n + lag] - im[n] * re[n + lag];
    }
    return Math.atan2(y, x) / lag;
  }

  /** The window of those behind one that holds the most of what repeats itself. */
  private int fullest(int alike) {
    int to = Math.min(alike + SEEK, re.length - WINDOW - LAG);
    double x = 0;
    double y = 0;
    int best = alike;
    double most = 0;
    for (int n = alike - WINDOW; n < to; n++) {
      int in = n + WINDOW;
      x += re[in] * re[in + LAG] + im[in] * im[in + LAG];
      y += im[in] * re[in + LAG] - re[in] * im[in + LAG];
      if (n >= alike) {
        x -= re[n] * re[n + LAG] + im[n] * im[n + LAG];
        y -= im[n] * re[n + LAG] - re[n] * im[n + LAG];
        if (x * x + y * y > most) {
          most = x * x + y * y;
          best = n + 1;
        }
      }
    }
    return best;
  }

  private static boolean formed(double[] match, double[] power, int at) {
    return match[at] > FORMED * FORM_POWER * power[at];
  }

  /** Null if there is none. */
  private Found longTraining(int alike) {
    int full = fullest(alike);
    int begin = full + NEAREST;
    int to = Math.min(full + FARTHEST, re.length - 2 * TRANSFORM);
    if (to <= begin) {
      return null;
    }
    double coarse = turn(full, WINDOW, LAG);
    int reach = to - begin + TRANSFORM;
    double[] p = new double[reach + TRANSFORM];
    double[] q = new double[reach + TRANSFORM];
    double turnRe = Math.cos(coarse);
    double turnIm = Math.sin(coarse);
    double c = 1;
    double s = 0;
    for (int i = 0; i < p.length; i++) {
      p[i] = re[begin + i] * c + im[begin + i] * s;
      q[i] = im[begin + i] * c - re[begin + i] * s;
      double next = c * turnRe - s * turnIm;
      s = c * turnIm + s * turnRe;
      c = next;
    }
    double[] match = new double[reach];
    double[] power = new double[reach];
    for (int m = 0; m < TRANSFORM; m++) {
      power[0] += p[m] * p[m] + q[m] * q[m];
    }
    for (int i = 0; i < reach; i++) {
      double sumRe = 0;
      double sumIm = 0;
      for (int m = 0; m < TRANSFORM; m++) {
        sumRe += p[i + m] * formRe[m] + q[i + m] * formIm[m];
        sumIm += q[i + m] * formRe[m] - p[i + m] * formIm[m];
      }
      match[i] = sumRe * sumRe + sumIm * sumIm;
      if (i > 0) {
        int in = i + TRANSFORM - 1;
        power[i] =
            power[i - 1]
                + p[in] * p[in]
                + q[in] * q[in]
                - p[i - 1] * p[i - 1]
                - q[i - 1] * q[i - 1];
      }
    }
    int best = -1;
    double most = 0;
    for (int i = 0; i < to - begin; i++) {
      double both = match[i] + match[i + TRANSFORM];
      if (both > most && formed(match, power, i) && formed(match, power, i + TRANSFORM)) {
        most = both;
        best = begin + i;
      }
    }
    if (best < 0) {
      return null;
    }
    double fine = turn(best, TRANSFORM, TRANSFORM);
    double whole = 2 * Math.PI / TRANSFORM;
    return new Found(best, fine + whole * Math.rint((coarse - fine) / whole));
  }
}
