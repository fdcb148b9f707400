package rovnik.core.modulation.ofdm;

import rovnik.core.Refusal;

/**
 * Makes packets of IEEE 802.11-2020 clause 17: short training, long training, SIGNAL, data; each
 * symbol under the window of 17.3.2.5. The power of a symbol is that of the standard's example: 52
 * tones of mean power 1, over the length of the transform.
 */
public final class LegacyPacket {
  /** Both edges of a symbol in a channel of 20 MHz, seconds. */
  private static final double EDGE_SECONDS = 100e-9;

  private static final double USUAL_HZ = 20e6;
  static final int SHORT_PERIOD = 16;

  /** Samples of each training, at the rate of the channel. */
  static final int TRAINING = 160;

  static final int SYMBOL = LegacyTones.TRANSFORM + LegacyTones.GUARD;

  private LegacyPacket() {}

  /**
   * A packet at a multiple of the channel's width.
   *
   * @param scramblerState 1 to 127
   * @param times samples a second, over the width of the channel
   * @return interleaved samples; half an edge comes before the first symbol and after the last
   */
  public static float[] samples(LegacyRate rate, byte[] bytes, int scramblerState, int times) {
    if (bytes.length < 1 || bytes.length > LegacyBits.MOST_BYTES) {
      throw new Refusal("bytes", "A packet has 1 to 4,095 bytes.");
    }
    if (scramblerState < 1 || scramblerState > Scrambler.PERIOD) {
      throw new Refusal("scrambler", "The scrambler begins with 1 to 127.");
    }
    int symbols = rate.symbolsOf(bytes.length);
    int edge = Math.max(2, (int) Math.round(EDGE_SECONDS * USUAL_HZ * times)) / 2 * 2;
    int all = (2 * TRAINING + (1 + symbols) * SYMBOL) * times + edge;
    double[] re = new double[all];
    double[] im = new double[all];
    Tones t = new Tones(times, edge, re, im);
    t.shortTraining();
    t.longTraining();
    t.symbol(LegacyBits.signal(rate, bytes.length), LegacyRate.R6, 0);
    byte[] bits = LegacyBits.data(rate, bytes, scramblerState);
    byte[] own = new byte[rate.codedBits()];
    for (int s = 0; s < symbols; s++) {
      System.arraycopy(bits, s * own.length, own, 0, own.length);
      t.symbol(own, rate, s + 1);
    }
    float[] iq = new float[2 * all];
    for (int n = 0; n < all; n++) {
      iq[2 * n] = (float) re[n];
      iq[2 * n + 1] = (float) im[n];
    }
    return iq;
  }

  /** How long a packet lasts. */
  public static double seconds(LegacyRate rate, int bytes, double channelHz) {
    return (2 * TRAINING + (1 + rate.symbolsOf(bytes)) * SYMBOL) / channelHz;
  }

  /** Adds one part after the other. */
  private static final class Tones {
    private final int times;
    private final int edge;
    private final double[] re;
    private final double[] im;
    private final double[] toneRe = new double[2 * LegacyTones.LAST + 1];
    private final double[] toneIm = new double[2 * LegacyTones.LAST + 1];
    private final double[] cos;
    private final double[] sin;
    private int at;

    Tones(int times, int edge, double[] re, double[] im) {
      int period = LegacyTones.TRANSFORM * times;
      this.cos = new double[period];
      this.sin = new double[period];
      for (int n = 0; n < period; n++) {
        cos[n] = Math.cos(2 * Math.PI * n / period);
        sin[n] = Math.sin(2 * Math.PI * n / period);
      }
      this.times = times;
      this.edge = edge;
      this.re = re;
      this.im = im;
    }

    void shortTraining() {
      for (int k = -LegacyTones.LAST; k <= LegacyTones.LAST; k++) {
        double v = LegacyTones.shortTraining(k);
        set(k, v, v);
      }
      add(TRAINING * times, 0);
    }

    void longTraining() {
      for (int k = -LegacyTones.LAST; k <= LegacyTones.LAST; k++) {
        set(k, LegacyTones.longTraining(k), 0);
      }
      // Half a transform of guard, then two whole ones.
      add(TRAINING * times, LegacyTones.TRANSFORM * times / 2);
    }

    void symbol(byte[] bits, LegacyRate rate, int number) {
      set(0, 0, 0);
      int[] data = LegacyTones.data();
      int each = rate.bitsPerTone();
      for (int i = 0; i < data.length; i++) {
        int value = 0;
        for (int b = 0; b < each; b++) {
          value = value << 1 | bits[i * each + b];
        }
        set(data[i], rate.constellation().re(value), rate.constellation().im(value));
      }
      for (int p = 0; p < LegacyTones.PILOTS.length; p++) {
        set(LegacyTones.PILOTS[p], LegacyTones.pilot(p, number), 0);
      }
      add(SYMBOL * times, LegacyTones.TRANSFORM * times - LegacyTones.GUARD * times);
    }

    private void set(int tone, double x, double y) {
      toneRe[tone + LegacyTones.LAST] = x;
      toneIm[tone + LegacyTones.LAST] = y;
    }

    /** Adds a periodic stretch under its window, which begins so far into the period. */
    private void add(int samples, int into) {
      int period = LegacyTones.TRANSFORM * times;
      double[] x = new double[period];
      double[] y = new double[period];
      for (int k = -LegacyTones.LAST; k <= LegacyTones.LAST; k++) {
        double p = toneRe[k + LegacyTones.LAST] / LegacyTones.TRANSFORM;
        double q = toneIm[k + LegacyTones.LAST] / LegacyTones.TRANSFORM;
        if (p == 0 && q == 0) {
          continue;
        }
        for (int n = 0; n < period; n++) {
          double c = cos[Math.floorMod(k * n, period)];
          double s = sin[Math.floorMod(k * n, period)];
          x[n] += p * c - q * s;
          y[n] += p * s + q * c;
        }
      }
      // The edges reach half of their length beyond both ends.
      for (int n = 0; n < samples + edge; n++) {
        double w = 1;
        if (n < edge) {
          w = rise((double) n / edge);
        } else if (n >= samples) {
          w = 1 - rise((double) (n - samples) / edge);
        }
        int i = Math.floorMod(into + n - edge / 2, period);
        re[at + n] += w * x[i];
        im[at + n] += w * y[i];
      }
      at += samples;
    }

    private static double rise(double share) {
      double s = Math.sin(Math.PI / 2 * share);
      return s * s;
    }
  }
}
