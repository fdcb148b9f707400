package rovnik.core.modulation.wave;

/** One signal of a waveform, as samples around 0 Hz. */
public interface WavePart {
  /** What it is, in a few words. */
  String words();

  /** Highest frequency from 0 Hz that there is anything worth sending at. */
  double reachHz();

  /** How long it takes to come round. */
  Period period(double sampleRateHz);

  /**
   * Its samples, interleaved, of mean power 1 (pulses: while they are on).
   *
   * @param samples how many; its end goes on with its beginning where that is a whole number of
   *     periods
   */
  double[] make(int samples, double sampleRateHz);

  /**
   * A period in samples.
   *
   * @param samples the smallest whole number of samples that it comes round in; 1 if any number
   *     will do, 0 if there is none
   */
  record Period(long samples) {
    public static final Period ANY = new Period(1);
    public static final Period NONE = new Period(0);

    /** Finest step of a frequency, so that frequencies have a common measure: 1 mHz. */
    private static final double FINEST_HZ = 1e-3;

    private static final double LARGEST = 9e15;

    /** Of something that repeats at all these frequencies. */
    static Period of(double sampleRateHz, double... repeatHz) {
      long rate = whole(sampleRateHz);
      long common = 0;
      for (double hz : repeatHz) {
        long step = whole(hz);
        if (step < 0) {
          return NONE;
        }
        common = gcd(common, step);
      }
      if (rate <= 0) {
        return NONE;
      }
      return common == 0 ? ANY : new Period(rate / gcd(rate, common));
    }

    /** Of something that begins anew after so long. */
    static Period every(double intervalSeconds, double sampleRateHz) {
      double samples = intervalSeconds * sampleRateHz;
      double whole = Math.rint(samples);
      return Math.abs(samples - whole) < 1e-6 && whole >= 1
          ? new Period((long) whole)
          : of(sampleRateHz, 1 / intervalSeconds);
    }

    private static long whole(double hz) {
      double steps = Math.abs(hz) / FINEST_HZ;
      double near = Math.rint(steps);
      return near < LARGEST && Math.abs(steps - near) < 1e-6 * Math.max(1, near * 1e-9)
          ? (long) near
          : -1;
    }

    /** Both come round. */
    Period with(Period other) {
      if (samples == 0 || other.samples == 0) {
        return NONE;
      }
      double least = (double) samples / gcd(samples, other.samples) * other.samples;
      return least < LARGEST ? new Period((long) least) : NONE;
    }

    private static long gcd(long a, long b) {
      return b == 0 ? a : gcd(b, a % b);
    }
  }
}
