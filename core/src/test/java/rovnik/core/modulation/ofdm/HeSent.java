package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.List;
import java.util.Random;

/**
 * A packet of one HE user with a training of random signs, at 40 MS/s: tone by tone, without
 * windows.
 */
final class HeSent {
  private static final int TIMES = 2;
  private final int width;
  private float[] iq = new float[0];

  private HeSent(int width) {
    this.width = width;
  }

  /**
   * @param kind of training and guard, as HE-SIG-A numbers them
   */
  static float[] packet(int mcs, int kind, int symbols, Random random) {
    return packet(1, mcs, kind, symbols, random);
  }

  /**
   * The same in a wider channel, at twice its width a second; its bits are random then, and said to
   * be of low density.
   *
   * @param width in 20 MHz: 1, 2, 4 or 8
   */
  static float[] packet(int width, int mcs, int kind, int symbols, Random random) {
    int parts = new int[] {4, 2, 2, 1}[kind];
    int guard = new int[] {16, 16, 32, 64}[kind];
    HeSent s = new HeSent(width);
    int before = 4;
    int usual = usual(before, parts, guard, symbols);
    boolean room = new HePlan(width, before, parts, guard).room(usual) > symbols;
    s.preamble(3 * usual - 5);
    s.header(
        2,
        HeaderBits.bitsOf(
            1,
            1,
            0,
            2,
            mcs,
            4,
            0,
            1,
            5,
            6,
            1,
            1,
            0,
            4,
            Integer.numberOfTrailingZeros(width),
            2,
            kind,
            2,
            0,
            3,
            127,
            7,
            width > 1 ? 1 : 0,
            1,
            0,
            3,
            0,
            2,
            room ? 1 : 0,
            1,
            1,
            1,
            0,
            1));
    return s.data(before, parts, guard, mcs, symbols, random);
  }

  /**
   * A packet of one EHT user, its bits random and said to be of low density.
   *
   * @param kind of training and guard, as EHT-SIG numbers them
   */
  static float[] eht(int width, int mcs, int kind, int symbols, Random random) {
    int parts = new int[] {2, 2, 1, 1}[kind];
    int guard = new int[] {16, 32, 16, 64}[kind];
    HeSent s = new HeSent(width);
    int before = 6;
    int usual = usual(before, parts, guard, symbols);
    boolean room = new HePlan(width, before, parts, guard).room(usual) > symbols;
    s.preamble(3 * usual - 3);
    s.header(
        2,
        HeaderBits.bitsOf(
            0,
            3,
            Integer.numberOfTrailingZeros(width),
            3,
            0,
            1,
            5,
            6,
            127,
            7,
            31,
            5,
            1,
            1,
            1,
            2,
            1,
            1,
            0,
            5,
            1,
            1,
            0,
            2,
            1,
            5));
    s.header(
        4,
        HeaderBits.bitsOf(
            0, 4, kind, 2, 0, 6, room ? 1 : 0, 1, 15, 4, 0, 3, 42, 11, mcs, 4, 1, 1, 0, 5, 1, 1));
    return s.data(before, parts, guard, mcs, symbols, random);
  }

  private static int usual(int before, int parts, int guard, int symbols) {
    int samples = 80 * before + 256 / parts + guard + symbols * (256 + guard);
    return (samples + 79) / 80;
  }

  /** Two symbols that say more. */
  private void header(int number, byte[] bits) {
    byte[] all = Arrays.copyOf(bits, 52);
    System.arraycopy(HeaderBits.check(bits, 42), 0, all, 42, 4);
    byte[] coded = ConvolutionalCode.of(1, 2).encode(all);
    for (int i = 0; i < 2; i++) {
      byte[] own = Interleaver.LATER.spread(Arrays.copyOfRange(coded, 52 * i, 52 * i + 52), 1);
      double[][] t = new double[2][57];
      for (int n = 0; n < 52; n++) {
        t[0][MixedTones.data()[n] + 28] = 2 * own[n] - 1;
      }
      pilots(t, number + i);
      add(t, 64, 16, 80, 56);
    }
  }

  private float[] data(int before, int parts, int guard, int mcs, int symbols, Random random) {
    shortTraining(80);
    ResourceUnit user = ResourceUnit.whole(width);
    FramePlan frame =
        new HePlan(width, before, parts, guard)
            .of(List.of(new HePlan.Share(user, HeCodings.coding(mcs), 1)), symbols);
    int last = user.all()[user.all().length - 1];
    double[][] training = new double[2][2 * last + 1];
    int used = 0;
    for (int k = 0; k < user.all().length; k++) {
      boolean has = frame.training().get(0).used(k);
      training[0][user.all()[k] + last] = has ? random.nextBoolean() ? 1 : -1 : 0;
      used += has ? 1 : 0;
    }
    addWhole(training, guard, guard + 256 / parts, used);
    int each = HeCodings.coding(mcs).bitsPerTone();
    byte[] data =
        width == 1 ? data(mcs, symbols, random) : any(symbols * each * user.data().length, random);
    for (int n = 0; n < symbols; n++) {
      double[][] t = new double[2][2 * last + 1];
      int at = n * each * user.data().length;
      for (int tone : user.data()) {
        int value = 0;
        for (int b = 0; b < each; b++) {
          value = value << 1 | data[at++];
        }
        t[0][tone + last] = HeCodings.coding(mcs).constellation().re(value);
        t[1][tone + last] = HeCodings.coding(mcs).constellation().im(value);
      }
      SymbolPlan symbol = frame.data().get(n);
      for (int k = 0; k < user.all().length; k++) {
        if (symbol.roles()[k] == SymbolPlan.Role.PILOT) {
          t[0][user.all()[k] + last] = symbol.re()[k];
        }
      }
      addWhole(t, guard, 256 + guard, user.all().length);
    }
    return iq;
  }

  private static byte[] any(int count, Random random) {
    byte[] out = new byte[count];
    for (int i = 0; i < count; i++) {
      out[i] = (byte) (random.nextBoolean() ? 1 : 0);
    }
    return out;
  }

  private static byte[] data(int mcs, int symbols, Random random) {
    byte[] bits = new byte[symbols * HeCodings.coding(mcs).dataBits(HeCodings.DATA)];
    int tail = bits.length - 6;
    int bytes = (tail - 16) / 8;
    byte[] frame = new byte[Math.min(1500, bytes - 7)];
    random.nextBytes(frame);
    FrameCheck.seal(frame);
    byte[] own = LegacyBits.bitsOf(FrameCheck.alone(frame, bytes));
    System.arraycopy(own, 0, bits, 16, own.length);
    return LegacyBits.data(HeCodings.coding(mcs), Interleaver.HE, bits, tail, 77);
  }

  private void preamble(int length) {
    shortTraining(160);
    double[][] t = new double[2][57];
    for (int k = -26; k <= 26; k++) {
      t[0][k + 28] = LegacyTones.longTraining(k);
    }
    add(t, 64, 32, 160, 52);
    byte[] bits = HeaderBits.bitsOf(0b1011, 4, 0, 1, length, 12, 0, 7);
    for (int i = 0; i < 17; i++) {
      bits[17] ^= bits[i];
    }
    byte[] own = Interleaver.LEGACY.spread(ConvolutionalCode.of(1, 2).encode(bits), 1);
    for (int i = 0; i < 2; i++) {
      t = new double[2][57];
      for (int n = 0; n < 48; n++) {
        t[0][LegacyTones.data()[n] + 28] = 2 * own[n] - 1;
      }
      for (int k : new int[] {-28, -27, 27, 28}) {
        t[0][k + 28] = MixedTones.ofSignal(k);
      }
      pilots(t, i);
      add(t, 64, 16, 80, 56);
    }
  }

  private static void pilots(double[][] t, int number) {
    for (int p = 0; p < 4; p++) {
      t[0][LegacyTones.PILOTS[p] + 28] = LegacyTones.pilot(p, number);
    }
  }

  private void shortTraining(int length) {
    double[][] t = new double[2][57];
    for (int k = -28; k <= 28; k++) {
      t[0][k + 28] = LegacyTones.shortTraining(k);
      t[1][k + 28] = LegacyTones.shortTraining(k);
    }
    add(t, 64, 0, length, 52);
  }

  /** In each part of 20 MHz the same, each part turned by its own quarters. Mean power 1. */
  private void add(double[][] tones, int transform, int guard, int length, double power) {
    int own = tones[0].length / 2;
    int last = own + transform * (width - 1) / 2;
    double[][] all = new double[2][2 * last + 1];
    for (int c = 0; c < width; c++) {
      int middle = transform * c - transform * (width - 1) / 2;
      int quarters = c * c % 4;
      double cos = Math.rint(Math.cos(Math.PI / 2 * quarters));
      double sin = Math.rint(Math.sin(Math.PI / 2 * quarters));
      for (int k = -own; k <= own; k++) {
        double p = tones[0][k + own];
        double q = tones[1][k + own];
        all[0][middle + k + last] = p * cos - q * sin;
        all[1][middle + k + last] = p * sin + q * cos;
      }
    }
    addAll(all, transform, guard, length, width * power);
  }

  private void addWhole(double[][] tones, int guard, int length, double power) {
    addAll(tones, 256, guard, length, power);
  }

  /** Mean power 1 of all tones together; lengths at 20 MS/s. */
  private void addAll(double[][] tones, int transform, int guard, int length, double power) {
    int from = iq.length / 2;
    int times = TIMES * width;
    iq = Arrays.copyOf(iq, iq.length + 2 * times * length);
    int last = tones[0].length / 2;
    int period = times * transform;
    double[] cos = new double[period];
    double[] sin = new double[period];
    for (int n = 0; n < period; n++) {
      cos[n] = Math.cos(2 * Math.PI * n / period);
      sin[n] = Math.sin(2 * Math.PI * n / period);
    }
    double[] x = new double[period];
    double[] y = new double[period];
    for (int k = -last; k <= last; k++) {
      double p = tones[0][k + last] / Math.sqrt(power);
      double q = tones[1][k + last] / Math.sqrt(power);
      for (int n = 0; n < period && (p != 0 || q != 0); n++) {
        int i = Math.floorMod(k * n, period);
        x[n] += p * cos[i] - q * sin[i];
        y[n] += p * sin[i] + q * cos[i];
      }
    }
    for (int n = 0; n < times * length; n++) {
      int i = Math.floorMod(n - times * guard, period);
      iq[2 * (from + n)] = (float) x[i];
      iq[2 * (from + n) + 1] = (float) y[i];
    }
  }
}
