package rovnik.standins.world;

/**
 * The pilot boat's voice radio, receiving: channel filter, limiter, discriminator, squelch, audio.
 * The squelch listens to the noise above the voice, which falls as a carrier comes.
 */
public final class VoiceReceiver {
  /** Samples of its loudspeaker's output, a second. */
  public static final double AUDIO_HZ = 16e3;

  private static final int PER_AUDIO = 8;
  private static final double RATE_HZ = PER_AUDIO * AUDIO_HZ;
  private static final double CHANNEL_HZ = 7.5e3;
  private static final int CHANNEL_TAPS = 193;
  private static final int AUDIO_TAPS = 161;
  private static final int BLOCK = 2048;

  /** With this, audio has 12 dB SINAD where the data sheet says. */
  private static final double NOISE_FIGURE_DB = 5.15;

  /** With this, a neighbour is as loud as the data sheet says. */
  private static final double LO_DBC_PER_HZ_AT_10_KHZ = -114.3;

  /** Noise above the voice, in hertz rms, at which the squelch opens and closes. */
  private static final double OPENS_HZ = 3130;

  private static final double CLOSES_HZ = 4280;
  private static final double SQUELCH_SECONDS = 0.25;

  /** Frequency deviation of full scale at the output. */
  private static final double FULL_SCALE_HZ = 5e3;

  private static final double CORNER_HZ = 300;

  private final TestedInput input;
  private final double[] channel = low(CHANNEL_TAPS, (CHANNEL_HZ + 2e3) / RATE_HZ, 9);
  private final double[] voice = low(AUDIO_TAPS, 3.4e3 / RATE_HZ, 6);
  private final double[] iq = new double[2 * BLOCK];
  private final double[] ring = new double[2 * (BLOCK + CHANNEL_TAPS)];
  private final double[] found = new double[BLOCK + AUDIO_TAPS];
  private final float[] audio = new float[BLOCK / PER_AUDIO];
  private final Section[] high = {new Section(CORNER_HZ, 0.541), new Section(CORNER_HZ, 1.307)};
  private final Section[] above = {
    new Section(4.5e3, 0.541, RATE_HZ), new Section(4.5e3, 1.307, RATE_HZ)
  };
  private final double[] deep = new double[(int) (AUDIO_HZ / 2)];
  private double lastRe = 1;
  private double lastIm;
  private double noise = 4e6;
  private double soft;
  private boolean open;
  private Squelch squelch = Squelch.OFF;
  private int deepAt;

  /** What mutes the loudspeaker. */
  public enum Squelch {
    OFF,
    NOISE,
    /** Noise, and the tone must be there. */
    TONE
  }

  /** A high pass of second order (bilinear). */
  private static final class Section {
    private final double b;
    private final double a1;
    private final double a2;
    private double z1;
    private double z2;

    Section(double hz, double q) {
      this(hz, q, AUDIO_HZ);
    }

    Section(double hz, double q, double rateHz) {
      double k = Math.tan(Math.PI * hz / rateHz);
      double n = 1 + k / q + k * k;
      b = 1 / n;
      a1 = 2 * (k * k - 1) / n;
      a2 = (1 - k / q + k * k) / n;
    }

    double next(double x) {
      double y = b * x + z1;
      z1 = -2 * b * x - a1 * y + z2;
      z2 = b * x - a2 * y;
      return y;
    }
  }

  public VoiceReceiver(World world, long seed) {
    input =
        new TestedInput(
            world,
            seed,
            Truth.VOICE_HZ,
            Truth.VOICE_REFERENCE_ERROR,
            RATE_HZ,
            NOISE_FIGURE_DB,
            Truth.VOICE_IIP3_DBM,
            LO_DBC_PER_HZ_AT_10_KHZ);
  }

  /** A low pass: a sine quotient under a Kaiser bell. */
  private static double[] low(int taps, double cut, double beta) {
    double[] h = new double[taps];
    double sum = 0;
    for (int i = 0; i < taps; i++) {
      double x = i - (taps - 1) / 2.0;
      double w = 2 * x / (taps - 1);
      double s = x == 0 ? 2 * cut : Math.sin(2 * Math.PI * cut * x) / (Math.PI * x);
      h[i] = s * Repeated.bessel(beta * Math.sqrt(Math.max(0, 1 - w * w)));
      sum += h[i];
    }
    for (int i = 0; i < taps; i++) {
      h[i] /= sum;
    }
    return h;
  }

  public synchronized void setSquelch(Squelch wanted) {
    squelch = wanted;
  }

  public synchronized Squelch squelch() {
    return squelch;
  }

  /** Highest level at its connector since the last time, dBm. */
  public synchronized double highestDbm() {
    double h = input.highestDbm();
    input.forgetHighest();
    return h;
  }

  /** The next samples of its output, full scale 1. */
  public synchronized float[] audio(int samples) {
    float[] out = new float[samples];
    for (int at = 0; at < samples; at += audio.length) {
      block();
      System.arraycopy(audio, 0, out, at, Math.min(audio.length, samples - at));
    }
    return out;
  }

  /** Whether its squelch lets a signal through, after it has listened for a while. */
  public synchronized boolean open() {
    return open && (squelch != Squelch.TONE || toneThere());
  }

  /** Frequency of the tone below the voice, NaN if there is none. */
  public synchronized double toneHz() {
    double best = 0;
    double bestHz = Double.NaN;
    double all = 0;
    int places = 0;
    for (double hz = 65; hz < 256; hz += 0.5) {
      double p = strength(hz);
      all += p;
      places++;
      if (p > best) {
        best = p;
        bestHz = hz;
      }
    }
    return best > 12 * all / places ? bestHz : Double.NaN;
  }

  private boolean toneThere() {
    return Math.abs(toneHz() - Truth.VOICE_TONE_HZ) < 2;
  }

  private double strength(double hz) {
    double re = 0;
    double im = 0;
    for (int i = 0; i < deep.length; i += 8) {
      double t = (deepAt + i) % deep.length;
      double w = 1 - Math.cos(2 * Math.PI * i / deep.length);
      re += w * deep[(int) t] * Math.cos(2 * Math.PI * hz * i / AUDIO_HZ);
      im += w * deep[(int) t] * Math.sin(2 * Math.PI * hz * i / AUDIO_HZ);
    }
    return re * re + im * im;
  }

  private void block() {
    System.arraycopy(ring, 2 * BLOCK, ring, 0, 2 * CHANNEL_TAPS);
    input.next(iq, BLOCK);
    System.arraycopy(iq, 0, ring, 2 * CHANNEL_TAPS, 2 * BLOCK);
    System.arraycopy(found, BLOCK, found, 0, AUDIO_TAPS);
    double slow = 1 / (SQUELCH_SECONDS * RATE_HZ);
    for (int n = 0; n < BLOCK; n++) {
      double re = 0;
      double im = 0;
      for (int k = 0; k < CHANNEL_TAPS; k++) {
        re += channel[k] * ring[2 * (n + k + 1)];
        im += channel[k] * ring[2 * (n + k + 1) + 1];
      }
      double cross = im * lastRe - re * lastIm;
      double along = re * lastRe + im * lastIm;
      lastRe = re;
      lastIm = im;
      double hz = RATE_HZ / (2 * Math.PI) * Math.atan2(cross, along);
      found[AUDIO_TAPS + n] = hz;
      double hiss = above[1].next(above[0].next(hz));
      noise += slow * (hiss * hiss - noise);
    }
    double rms = Math.sqrt(noise);
    open = open ? rms < CLOSES_HZ : rms < OPENS_HZ;
    boolean muted = squelch != Squelch.OFF && !open();
    double keep = Math.exp(-2 * Math.PI * CORNER_HZ / AUDIO_HZ);
    for (int m = 0; m < audio.length; m++) {
      double v = 0;
      for (int k = 0; k < AUDIO_TAPS; k++) {
        v += voice[k] * found[m * PER_AUDIO + k + 1];
      }
      deep[deepAt] = v;
      deepAt = (deepAt + 1) % deep.length;
      // De-emphasis, 6 dB an octave above the corner; 1 at 1 kHz.
      soft = keep * soft + (1 - keep) * v;
      double x = high[1].next(high[0].next(soft * Math.hypot(1, 1000 / CORNER_HZ))) / FULL_SCALE_HZ;
      // Rated output is that of the deviation's 60 %.
      double rated = 0.6 * Truth.VOICE_DEVIATION_HZ / FULL_SCALE_HZ;
      double y = x + 2 * Truth.VOICE_DISTORTION / rated * (x * x - rated * rated / 2);
      audio[m] = muted ? 0 : (float) y;
    }
  }
}
