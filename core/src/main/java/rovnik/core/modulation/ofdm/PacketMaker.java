package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jtransforms.fft.DoubleFFT_1D;

/**
 * Adds one part of a packet after the other; each under the window of IEEE 802.11-2020, 17.3.2.5.
 */
final class PacketMaker {
  /** Both edges of a symbol in a channel of 20 MHz, seconds. */
  private static final double EDGE_SECONDS = 100e-9;

  private static final double USUAL_HZ = 20e6;
  private static final int LAST = MixedTones.LAST;

  /** By so many quarters the parts of a channel are turned; from memory. */
  private static final int[] QUARTERS = {0, 2, 2, 2, 0, 2, 2, 2, 2, 0, 0, 0, 2, 0, 0, 0};

  private static final int[] QUARTERS_OF_TWO = {0, 1};

  private final int width;

  /** Samples for each at the width of a part. */
  private final int times;

  private final int edge;
  private final double[] re;
  private final double[] im;

  /** Of every first, and of every second part. */
  private final double[][] toneRe = new double[2][2 * LAST + 1];

  private final double[][] toneIm = new double[2][2 * LAST + 1];
  private final Map<Integer, DoubleFFT_1D> transforms = new HashMap<>();
  private int at;

  /** Of a channel that is one part wide. */
  PacketMaker(int times, int length) {
    this(times, 1, length);
  }

  /**
   * @param times samples a second, over the width of the channel
   * @param width of the channel in parts of 20 MHz, each of which has the preamble
   * @param length of the packet, samples at the width of a part
   */
  PacketMaker(int times, int width, int length) {
    this.width = width;
    this.times = times * width;
    this.edge = Math.max(2, (int) Math.round(EDGE_SECONDS * USUAL_HZ * this.times)) / 2 * 2;
    this.re = new double[length * this.times + edge];
    this.im = new double[re.length];
  }

  /** By how many quarters a part of a channel is turned. */
  static int quarters(int part, int width) {
    return width == 2 ? QUARTERS_OF_TWO[part] : QUARTERS[part];
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
    preamble(signal, false);
  }

  /**
   * The same.
   *
   * @param more SIGNAL has the four tones that later fields use
   */
  void preamble(byte[] signal, boolean more) {
    shortTraining(LegacyPacket.TRAINING);
    clear();
    for (int k = -LegacyTones.LAST; k <= LegacyTones.LAST; k++) {
      set(k, LegacyTones.longTraining(k), 0);
    }
    // Half a transform of guard, then two whole ones.
    add(LegacyPacket.TRAINING, LegacyTones.TRANSFORM / 2);
    signal(signal, 0, more);
  }

  /** SIGNAL before its code. */
  void signal(byte[] coded, int number, boolean more) {
    clear();
    int[] data = LegacyTones.data();
    for (int i = 0; i < data.length; i++) {
      set(data[i], 2 * coded[i] - 1, 0);
    }
    for (int k : new int[] {-28, -27, 27, 28}) {
      set(k, more ? MixedTones.ofSignal(k) : 0, 0);
    }
    legacyPilots(number);
    if (more) {
      evenPower();
    }
    add(LegacyPacket.SYMBOL, LegacyTones.TRANSFORM - LegacyTones.GUARD);
  }

  /** A symbol of a field with 52 tones of data. */
  void header52(byte[] bits, int number) {
    clear();
    for (int i = 0; i < bits.length; i++) {
      set(MixedTones.data()[i], 2 * bits[i] - 1, 0);
    }
    legacyPilots(number);
    evenPower();
    add(LegacyPacket.SYMBOL, LegacyTones.TRANSFORM - LegacyTones.GUARD);
  }

  /**
   * The same with other bits in every second part of the channel, and of any coding.
   *
   * @param halves coded bits of each
   * @param symbol of these, the first is 0
   */
  void header52(List<byte[]> halves, Coding coding, int symbol, int number) {
    clear();
    int each = coding.codedBits(MixedTones.DATA);
    for (int half = 0; half < toneRe.length; half++) {
      byte[] bits = halves.get(Math.min(half, halves.size() - 1));
      for (int i = 0; i < MixedTones.DATA; i++) {
        int value = value(bits, symbol * each + i * coding.bitsPerTone(), coding);
        toneRe[half][MixedTones.data()[i] + LAST] = coding.constellation().re(value);
        toneIm[half][MixedTones.data()[i] + LAST] = coding.constellation().im(value);
      }
    }
    legacyPilots(number);
    evenPower();
    add(LegacyPacket.SYMBOL, LegacyTones.TRANSFORM - LegacyTones.GUARD);
  }

  private static int value(byte[] bits, int from, Coding coding) {
    int value = 0;
    for (int b = 0; b < coding.bitsPerTone(); b++) {
      value = value << 1 | bits[from + b];
    }
    return value;
  }

  /**
   * What a user is sent.
   *
   * @param tones with its data, rising
   * @param bits coded, of all symbols, in the order of its tones
   */
  record Carried(int[] tones, Coding coding, byte[] bits) {}

  /** A symbol with data of all users. */
  void users(FramePlan plan, int symbol, List<Carried> users, int guard) {
    users(plan, plan.data().get(symbol), symbol, users, guard);
  }

  /**
   * The same of any symbol.
   *
   * @param number which of the symbols whose bits there are, the first is 0
   */
  void users(FramePlan plan, SymbolPlan s, int number, List<Carried> users, int guard) {
    double[] x = s.re().clone();
    double[] y = s.im().clone();
    for (Carried c : users) {
      int at = number * c.coding.codedBits(c.tones.length);
      for (int tone : c.tones) {
        int k = plan.indexOf(tone);
        int value = value(c.bits, at, c.coding);
        at += c.coding.bitsPerTone();
        double re = c.coding.constellation().re(value);
        double im = c.coding.constellation().im(value);
        x[k] = s.re()[k] * re - s.im()[k] * im;
        y[k] = s.im()[k] * re + s.re()[k] * im;
      }
    }
    whole(plan, x, y, s, plan.transform() / usualTimes() + guard, guard);
  }

  /** Samples of a plan for each at the width of a part. */
  private int usualTimes() {
    return ChannelSamples.TIMES * width;
  }

  /** Their training, which has one of two signs on each tone. */
  void training(FramePlan plan, double[] signs, int samples, int guard) {
    SymbolPlan s = plan.training().get(0);
    double[] x = s.re().clone();
    for (int k = 0; k < x.length; k++) {
      x[k] *= signs[k];
    }
    whole(plan, x, new double[x.length], s, samples, guard);
  }

  /** The training of one whole transform, as it is known. */
  void training(FramePlan plan, int guard) {
    SymbolPlan s = plan.training().get(0);
    whole(plan, s.re(), s.im(), s, plan.transform() / usualTimes() + guard, guard);
  }

  /**
   * A symbol of tones over the whole channel, as strong as the preamble.
   *
   * @param as what its tones have on average
   * @param samples with the guard, at the width of a part
   */
  private void whole(
      FramePlan plan, double[] x, double[] y, SymbolPlan as, int samples, int guard) {
    int[] tones = plan.tones();
    int transform = plan.transform() / usualTimes();
    int period = transform * times;
    double[] all = new double[2 * period];
    double power = 0;
    for (int k = 0; k < tones.length; k++) {
      power += as.used(k) ? as.power(k) : 0;
    }
    double level = Math.sqrt(2.0 * LegacyTones.LAST / power) / LegacyTones.TRANSFORM;
    for (int k = 0; k < tones.length; k++) {
      int bin = Math.floorMod(tones[k], period);
      all[2 * bin] = level * x[k];
      all[2 * bin + 1] = level * y[k];
    }
    add(all, samples, transform - guard);
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

  private void data(int[] tones, byte[] bits, Coding coding) {
    int each = coding.bitsPerTone();
    for (int i = 0; i < tones.length; i++) {
      int value = value(bits, i * each, coding);
      set(tones[i], coding.constellation().re(value), coding.constellation().im(value));
    }
  }

  private void clear() {
    for (int half = 0; half < toneRe.length; half++) {
      Arrays.fill(toneRe[half], 0);
      Arrays.fill(toneIm[half], 0);
    }
  }

  private void set(int tone, double x, double y) {
    for (int half = 0; half < toneRe.length; half++) {
      toneRe[half][tone + LAST] = x;
      toneIm[half][tone + LAST] = y;
    }
  }

  /** More tones than those of clause 17 have no more power together. */
  private void evenPower() {
    double factor = Math.sqrt((double) LegacyTones.LAST / LAST);
    for (int half = 0; half < toneRe.length; half++) {
      for (int i = 0; i < toneRe[half].length; i++) {
        toneRe[half][i] *= factor;
        toneIm[half][i] *= factor;
      }
    }
  }

  /** The tones in each part of the channel, as strong together; from so far into the period. */
  private void add(int samples, int into) {
    int period = LegacyTones.TRANSFORM * times;
    double[] all = new double[2 * period];
    double level = 1 / Math.sqrt(width) / LegacyTones.TRANSFORM;
    for (int part = 0; part < width; part++) {
      int middle = LegacyTones.TRANSFORM * part - LegacyTones.TRANSFORM * (width - 1) / 2;
      int quarters = quarters(part, width);
      double c = level * (quarters == 0 ? 1 : quarters == 2 ? -1 : 0);
      double s = level * (quarters == 1 ? 1 : 0);
      double[] re = toneRe[part % 2];
      double[] im = toneIm[part % 2];
      for (int k = -LAST; k <= LAST; k++) {
        int bin = Math.floorMod(middle + k, period);
        all[2 * bin] += c * re[k + LAST] - s * im[k + LAST];
        all[2 * bin + 1] += s * re[k + LAST] + c * im[k + LAST];
      }
    }
    add(all, samples, into);
  }

  /** Adds a periodic stretch under its window, which begins so far into the period. */
  private void add(double[] tones, int samplesOfPart, int intoOfPart) {
    int period = tones.length / 2;
    transforms.computeIfAbsent(period, DoubleFFT_1D::new).complexInverse(tones, false);
    int samples = samplesOfPart * times;
    int into = intoOfPart * times;
    // The edges reach half of their length beyond both ends.
    for (int n = 0; n < samples + edge; n++) {
      double w = 1;
      if (n < edge) {
        w = rise((double) n / edge);
      } else if (n >= samples) {
        w = 1 - rise((double) (n - samples) / edge);
      }
      int i = Math.floorMod(into + n - edge / 2, period);
      re[at + n] += w * tones[2 * i];
      im[at + n] += w * tones[2 * i + 1];
    }
    at += samples;
  }

  private static double rise(double share) {
    double s = Math.sin(Math.PI / 2 * share);
    return s * s;
  }
}
