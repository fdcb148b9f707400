package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.Random;

/**
 * A packet of one HE user with a training of random signs, at 40 MS/s: tone by tone, without
 * windows.
 */
final class HeSent {
  private static final int TIMES = 2;
  private float[] iq = new float[0];

  /**
   * @param kind of training and guard, as HE-SIG-A numbers them
   */
  static float[] packet(int mcs, int kind, int symbols, Random random) {
    int parts = new int[] {4, 2, 2, 1}[kind];
    int guard = new int[] {16, 16, 32, 64}[kind];
    HeSent s = new HeSent();
    int samples = 80 + 160 + 80 + 256 / parts + guard + symbols * (256 + guard);
    int usual = (samples + 79) / 80;
    int room = (80 * usual - samples) / (256 + guard);
    s.preamble(3 * usual - 5);
    byte[] bits =
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
            0,
            2,
            kind,
            2,
            0,
            3,
            127,
            7,
            0,
            4,
            0,
            2,
            room > 0 ? 1 : 0,
            1,
            1,
            1,
            0,
            1);
    byte[] all = Arrays.copyOf(bits, 52);
    System.arraycopy(HeaderBits.check(bits, 42), 0, all, 42, 4);
    byte[] coded = ConvolutionalCode.of(1, 2).encode(all);
    for (int i = 0; i < 2; i++) {
      byte[] own = Interleaver.LATER.spread(Arrays.copyOfRange(coded, 52 * i, 52 * i + 52), 1);
      double[][] t = new double[2][57];
      for (int n = 0; n < 52; n++) {
        t[0][MixedTones.data()[n] + 28] = 2 * own[n] - 1;
      }
      pilots(t, 2 + i);
      s.add(t, 64, 16, 80, 56);
    }
    s.shortTraining(80);
    HePlan plan = new HePlan(4, parts, guard);
    FramePlan frame = plan.of(HeTones.coding(mcs), symbols);
    double[][] training = new double[2][245];
    int used = 0;
    for (int k = 0; k < HeTones.all().length; k++) {
      boolean has = frame.training().get(0).used(k);
      training[0][HeTones.all()[k] + 122] = has ? random.nextBoolean() ? 1 : -1 : 0;
      used += has ? 1 : 0;
    }
    s.add(training, 256, guard, guard + 256 / parts, used);
    int each = HeTones.coding(mcs).bitsPerTone();
    byte[] data = data(mcs, symbols, random);
    for (int n = 0; n < symbols; n++) {
      double[][] t = new double[2][245];
      int at = n * each * HeTones.DATA;
      for (int tone : HeTones.data()) {
        int value = 0;
        for (int b = 0; b < each; b++) {
          value = value << 1 | data[at++];
        }
        t[0][tone + 122] = HeTones.coding(mcs).constellation().re(value);
        t[1][tone + 122] = HeTones.coding(mcs).constellation().im(value);
      }
      SymbolPlan symbol = frame.data().get(n);
      for (int k = 0; k < HeTones.all().length; k++) {
        if (symbol.roles()[k] == SymbolPlan.Role.PILOT) {
          t[0][HeTones.all()[k] + 122] = symbol.re()[k];
        }
      }
      s.add(t, 256, guard, 256 + guard, 242);
    }
    return s.iq;
  }

  private static byte[] data(int mcs, int symbols, Random random) {
    byte[] bits = new byte[symbols * HeTones.coding(mcs).dataBits(HeTones.DATA)];
    int tail = bits.length - 6;
    byte[] frame = new byte[(tail - 16) / 8];
    random.nextBytes(frame);
    byte[] own = LegacyBits.bitsOf(frame);
    System.arraycopy(own, 0, bits, 16, own.length);
    return LegacyBits.data(HeTones.coding(mcs), Interleaver.HE, bits, tail, 77);
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

  /** Mean power 1 of all tones together. */
  private void add(double[][] tones, int transform, int guard, int length, double power) {
    int from = iq.length / 2;
    iq = Arrays.copyOf(iq, iq.length + 2 * TIMES * length);
    int last = tones[0].length / 2;
    int period = TIMES * transform;
    double[] cos = new double[period];
    double[] sin = new double[period];
    for (int n = 0; n < period; n++) {
      cos[n] = Math.cos(2 * Math.PI * n / period);
      sin[n] = Math.sin(2 * Math.PI * n / period);
    }
    for (int n = 0; n < TIMES * length; n++) {
      double x = 0;
      double y = 0;
      for (int k = -last; k <= last; k++) {
        double p = tones[0][k + last];
        double q = tones[1][k + last];
        int i = Math.floorMod(k * (n - TIMES * guard), period);
        x += p * cos[i] - q * sin[i];
        y += p * sin[i] + q * cos[i];
      }
      iq[2 * (from + n)] = (float) (x / Math.sqrt(power));
      iq[2 * (from + n) + 1] = (float) (y / Math.sqrt(power));
    }
  }
}
