package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.SplittableRandom;
import rovnik.core.Refusal;

/**
 * Makes packets of one HE or EHT user with one stream that has the whole channel (IEEE
 * 802.11ax-2021, clause 27; IEEE 802.11be, clause 36; from memory). In 20 MHz to MCS 9 frames are
 * in the convolutional code; beyond that the standard has low density, and what is sent is random
 * in its place: constellations are full, no bit can be checked. The signs of the training are our
 * own.
 */
public final class UserPacket implements SentPacket {
  /** Last coding that the convolutional code has. */
  private static final int LAST_CONVOLUTIONAL = 9;

  /** Bytes of a packet that carries no frame. */
  private static final int MOST_BYTES = 400_000;

  private static final int SIGNAL_BITS = 52;
  private static final int CHECK = 42;
  private static final int CHECK_BITS = 4;

  /** Says that nobody knows how long the channel is taken. */
  private static final int ANY_DURATION = 127;

  private static final long SIGNS_SEED = 802;

  private final PacketFormat format;
  private final int width;
  private final int mcs;
  private final int training;
  private final HePlan plan;
  private final int bytes;
  private final int symbols;

  /**
   * @param format HE or EHT
   * @param channelHz 20, 40, 80, 160, of EHT 320 MHz
   * @param mcs 0 to 11, of EHT to 13
   * @param training its kind and the guard, 0 to 3, as the header numbers them
   * @param bytes of the frame, its check sequence among them
   */
  public UserPacket(PacketFormat format, double channelHz, int mcs, int training, int bytes) {
    if (!format.fills()) {
      throw new Refusal("format", "Such packets are HE or EHT.");
    }
    boolean he = format == PacketFormat.HE;
    this.width = widthOf(channelHz, he ? 8 : 16);
    int last = he ? HeCodings.LAST_OF_HE : HeCodings.LAST_OF_EHT;
    if (mcs < 0 || mcs > last) {
      throw new Refusal("mcs", format.label() + " has MCS 0 to " + last + ".");
    }
    if (training < 0 || training > 3) {
      throw new Refusal("training", "There are four kinds of training and guard, 0 to 3.");
    }
    this.format = format;
    this.mcs = mcs;
    this.training = training;
    this.bytes = bytes;
    this.plan = he ? HeSignal.layout(width, training) : UniversalSignal.layout(width, training);
    int bits = LegacyBits.SERVICE_BITS + 8 * sent() + ConvolutionalCode.TAIL_BITS;
    int each = coding().dataBits(UserTones.of(width).data().length);
    this.symbols = (bits + each - 1) / each;
    if (lengthOfSignal() > LegacyBits.MOST_BYTES) {
      throw new Refusal(
          "bytes", "Such a packet lasts longer than SIGNAL can say. Send fewer bytes.");
    }
  }

  private static int widthOf(double channelHz, int most) {
    for (int w = 1; w <= most; w *= 2) {
      if (channelHz == w * 20e6) {
        return w;
      }
    }
    throw new Refusal(
        "bandHz",
        "The channel is 20, 40, 80 or 160 MHz wide" + (most > 8 ? ", or 320 MHz." : " for HE."));
  }

  private Coding coding() {
    return HeCodings.coding(mcs);
  }

  private boolean lowDensity() {
    return width > 1 || mcs > LAST_CONVOLUTIONAL;
  }

  /** With a delimiter and what fills words of 4 bytes. */
  private int sent() {
    return 4 + (bytes + 3) / 4 * 4;
  }

  /** "EHT MCS 13, 4096-QAM 5/6". */
  @Override
  public String label() {
    return format.label()
        + " "
        + coding().words()
        + (lowDensity() ? ", random bits in place of low density" : "");
  }

  @Override
  public String refused(double channelHz) {
    return channelHz == width * 20e6 ? "" : "Its channel is " + 20 * width + " MHz wide.";
  }

  @Override
  public int mostBytes() {
    return lowDensity() ? MOST_BYTES : LegacyBits.MOST_BYTES;
  }

  /** Samples behind the preamble and SIGNAL, at 20 MS/s. */
  private int behind() {
    int symbol = HePlan.USUAL_TRANSFORM + plan.guard();
    return plan.before() * LegacyPacket.SYMBOL + plan.ofTraining() + symbols * symbol;
  }

  private int usual() {
    return (behind() + LegacyPacket.SYMBOL - 1) / LegacyPacket.SYMBOL;
  }

  /** What is left over by three says which kind of packet it is. */
  private int lengthOfSignal() {
    return 3 * usual() - (format == PacketFormat.HE ? 5 : 3);
  }

  private int length() {
    return 2 * LegacyPacket.TRAINING + LegacyPacket.SYMBOL + behind();
  }

  @Override
  public double seconds(double channelHz) {
    return length() * (double) width / channelHz;
  }

  @Override
  public float[] samples(byte[] frame, int scramblerState, int times) {
    PacketMaker t = new PacketMaker(times, width, length());
    byte[] signal = LegacyBits.signal(LegacyRate.R6, lengthOfSignal());
    t.preamble(signal, true);
    t.signal(signal, 1, true);
    int number = 2;
    for (byte[] bits : format == PacketFormat.HE ? he() : eht()) {
      byte[] coded = ConvolutionalCode.of(1, 2).encode(bits);
      for (int from = 0; from < coded.length; from += MixedTones.DATA) {
        byte[] own = Arrays.copyOfRange(coded, from, from + MixedTones.DATA);
        t.header52(Interleaver.LATER.spread(own, 1), number++);
      }
    }
    t.shortTraining(LegacyPacket.SYMBOL);
    FramePlan frames = plan.of(coding(), symbols);
    UserTones user = UserTones.of(width);
    training(t, frames);
    byte[] bits = lowDensity() ? random(user, scramblerState) : coded(frame, scramblerState);
    int each = coding().codedBits(user.data().length);
    for (int s = 0; s < symbols; s++) {
      t.user(frames, s, bits, s * each, coding(), plan.guard());
    }
    return t.samples();
  }

  private void training(PacketMaker t, FramePlan frames) {
    SplittableRandom random = new SplittableRandom(SIGNS_SEED);
    int[] tones = frames.tones();
    double[] re = new double[tones.length];
    for (int k = 0; k < tones.length; k++) {
      int sign = random.nextBoolean() ? 1 : -1;
      re[k] = frames.training().get(0).used(k) ? sign : 0;
    }
    t.whole(tones, re, new double[tones.length], plan.ofTraining(), plan.guard());
  }

  private byte[] random(UserTones user, int seed) {
    SplittableRandom random = new SplittableRandom(seed);
    byte[] out = new byte[symbols * coding().codedBits(user.data().length)];
    for (int i = 0; i < out.length; i++) {
      out[i] = (byte) (random.nextInt() & 1);
    }
    return out;
  }

  private byte[] coded(byte[] frame, int scramblerState) {
    byte[] bits = new byte[symbols * coding().dataBits(HeCodings.DATA)];
    int tail = bits.length - ConvolutionalCode.TAIL_BITS;
    byte[] own = LegacyBits.bitsOf(FrameCheck.alone(frame, (tail - LegacyBits.SERVICE_BITS) / 8));
    System.arraycopy(own, 0, bits, LegacyBits.SERVICE_BITS, own.length);
    return LegacyBits.data(coding(), Interleaver.HE, bits, tail, scramblerState);
  }

  private int oneLess() {
    return plan.room(usual()) > symbols ? 1 : 0;
  }

  private int widthField() {
    return Integer.numberOfTrailingZeros(width);
  }

  /** HE-SIG-A: value and bits of each field in their order. */
  private byte[][] he() {
    int[] first = {1, 1, 0, 2, mcs, 4, 0, 1, 0, 6, 1, 1, 0, 4, widthField(), 2, training, 2, 0, 3};
    int[] second = {ANY_DURATION, 7, lowDensity() ? 1 : 0, 1, 0, 3, 0, 2, oneLess(), 1, 1, 1, 0, 1};
    return new byte[][] {sealed(first, second)};
  }

  /** U-SIG, then EHT-SIG of one user. */
  private byte[][] eht() {
    int[] first = {0, 3, widthField(), 3, 0, 1, 0, 6, ANY_DURATION, 7, 31, 5, 1, 1};
    int[] second = {1, 2, 1, 1, 0, 5, 1, 1, 0, 2, 1, 5};
    int[] common = {0, 4, training, 2, 0, 6, oneLess(), 1, 15, 4, 0, 3};
    int[] user = {0, 11, mcs, 4, 1, 1, 0, 5, lowDensity() ? 1 : 0, 1};
    return new byte[][] {sealed(first, second), sealed(common, user)};
  }

  private static byte[] sealed(int[] first, int[] second) {
    int[] all = Arrays.copyOf(first, first.length + second.length);
    System.arraycopy(second, 0, all, first.length, second.length);
    byte[] bits = Arrays.copyOf(HeaderBits.bitsOf(all), SIGNAL_BITS);
    System.arraycopy(HeaderBits.check(bits, CHECK), 0, bits, CHECK, CHECK_BITS);
    return bits;
  }
}
