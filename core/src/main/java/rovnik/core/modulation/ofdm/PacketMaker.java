package rovnik.core.modulation.ofdm;

import java.util.Arrays;

/**
 * Adds one part of a packet after the other; each under the window of IEEE 802.11-2020, 17.3.2.5.
 */
final class PacketMaker {
  /** Both edges of a symbol in a channel of 20 MHz, seconds. */
  private static final double EDGE_SECONDS = 100e-9;

  private static final double USUAL_HZ = 20e6;
  private static final int LAST = MixedTones.LAST;

  private final int times;
  private final int edge;
  private final double[] re;
  private final double[] im;
  private final double[] toneRe = new double[2 * LAST + 1];
  private final double[] toneIm = new double[2 * LAST + 1];
  private final double[] cos;
  private final double[] sin;
  private int at;

  /**
   * @param times samples a second, over the width of the channel
   * @param length of the packet, samples at the width of the channel
   */
  PacketMaker(int times, int length) {
    int period = LegacyTones.TRANSFORM * times;
    this.cos = new double[period];
    this.sin = new double[period];
    for (int n = 0; n < period; n++) {
      cos[n] = Math.cos(2 * Math.PI * n / period);
      sin[n] = Math.sin(2 * Math.PI * n / period);
    }
    this.times = times;
    this.edge = Math.max(2, (int) Math.round(EDGE_SECONDS * USUAL_HZ * times)) / 2 * 2;
    this.re = new double[length * times + edge];
    this.im = new double[re.length];
  }

  /** Interleaved; half an edge comes before the first symbol and after the last. */
  float[] samples() {
    float[] iq = new float[2 * re.length];
    for (int n = 0; n < re.length; n++) {
      iq[2 * n] = (float) re[n];
      iq[2 * n + 1] = (float) im[n];
    }
    return iq;
  }

  /** Short training, long training, SIGNAL. */
  void preamble(byte[] signal) {
    shortTraining(LegacyPacket.TRAINING);
    clear();
    for (int k = -LegacyTones.LAST; k <= LegacyTones.LAST; k++) {
      set(k, LegacyTones.longTraining(k), 0);
    }
    // Half a transform of guard, then two whole ones.
    add(LegacyPacket.TRAINING, LegacyTones.TRANSFORM / 2);
    header(signal, 0, false);
  }

  /** So many samples at the width of the channel. */
  void shortTraining(int samples) {
    clear();
    for (int k = -LegacyTones.LAST; k <= LegacyTones.LAST; k++) {
      double v = LegacyTones.shortTraining(k);
      set(k, v, v);
    }
    add(samples, 0);
  }

  /** A symbol of a field of the preamble; its data may be a quarter of a turn on. */
  void header(byte[] bits, int number, boolean turned) {
    clear();
    int[] data = LegacyTones.data();
    for (int i = 0; i < data.length; i++) {
      double v = 2 * bits[i] - 1;
      set(data[i], turned ? 0 : v, turned ? v : 0);
    }
    legacyPilots(number);
    add(LegacyPacket.SYMBOL, LegacyTones.TRANSFORM - LegacyTones.GUARD);
  }

  private void legacyPilots(int number) {
    for (int p = 0; p < LegacyTones.PILOTS.length; p++) {
      set(LegacyTones.PILOTS[p], LegacyTones.pilot(p, number), 0);
    }
  }

  /** A symbol with data of clause 17. */
  void symbol(byte[] bits, Coding coding, int number) {
    clear();
    data(LegacyTones.data(), bits, coding);
    legacyPilots(number);
    add(LegacyPacket.SYMBOL, LegacyTones.TRANSFORM - LegacyTones.GUARD);
  }

  /** The training of the tones that later packets have. */
  void training() {
    clear();
    for (int k = -LAST; k <= LAST; k++) {
      set(k, MixedTones.training(k), 0);
    }
    evenPower();
    add(LegacyPacket.SYMBOL, LegacyTones.TRANSFORM - LegacyTones.GUARD);
  }

  /**
   * A symbol of those tones.
   *
   * @param symbol of the data, the first is 0
   * @param before symbols whose pilots change sign before it
   * @param guard samples at the width of the channel
   */
  void symbol(byte[] bits, Coding coding, int symbol, int before, int guard) {
    clear();
    data(MixedTones.data(), bits, coding);
    for (int p = 0; p < LegacyTones.PILOTS.length; p++) {
      set(LegacyTones.PILOTS[p], MixedTones.pilot(p, symbol, before), 0);
    }
    evenPower();
    add(LegacyTones.TRANSFORM + guard, LegacyTones.TRANSFORM - guard);
  }

  private void data(int[] tones, byte[] bits, Coding coding) {
    int each = coding.bitsPerTone();
    for (int i = 0; i < tones.length; i++) {
      int value = 0;
      for (int b = 0; b < each; b++) {
        value = value << 1 | bits[i * each + b];
      }
      set(tones[i], coding.constellation().re(value), coding.constellation().im(value));
    }
  }

  private void clear() {
    Arrays.fill(toneRe, 0);
    Arrays.fill(toneIm, 0);
  }

  private void set(int tone, double x, double y) {
    toneRe[tone + LAST] = x;
    toneIm[tone + LAST] = y;
  }

  /** More tones than those of clause 17 have no more power together. */
  private void evenPower() {
    double factor = Math.sqrt((double) LegacyTones.LAST / LAST);
    for (int i = 0; i < toneRe.length; i++) {
      toneRe[i] *= factor;
      toneIm[i] *= factor;
    }
  }

  /** Adds a periodic stretch under its window, which begins so far into the period. */
  private void add(int samplesOfChannel, int intoOfChannel) {
    int samples = samplesOfChannel * times;
    int into = intoOfChannel * times;
    int period = LegacyTones.TRANSFORM * times;
    double[] x = new double[period];
    double[] y = new double[period];
    for (int k = -LAST; k <= LAST; k++) {
      double p = toneRe[k + LAST] / LegacyTones.TRANSFORM;
      double q = toneIm[k + LAST] / LegacyTones.TRANSFORM;
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
