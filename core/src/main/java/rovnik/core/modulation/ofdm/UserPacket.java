package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import rovnik.core.Refusal;

/**
 * Makes HE and EHT packets with one stream: of one user that has the whole channel, in HE of
 * several users with a unit each (IEEE 802.11ax-2021, clause 27; IEEE 802.11be, clause 36; from
 * memory). On up to 242 tones to MCS 9 frames are in the convolutional code; beyond that the
 * standard has low density, and what is sent is random in its place: constellations are full, no
 * bit can be checked. The signs of the training are our own.
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
  private static final int SCRAMBLER_STATES = 127;

  private final PacketFormat format;
  private final int width;
  private final int training;
  private final HePlan plan;
  private final int bytes;
  private final List<HePlan.Share> shares;

  /** Null if one user has all. */
  private final SentDivision division;

  /** True if it answers a trigger. */
  private final boolean answer;

  private final int symbols;

  private UserPacket(
      PacketFormat format,
      int width,
      int training,
      HePlan plan,
      int bytes,
      List<HePlan.Share> shares,
      SentDivision division,
      boolean answer) {
    this.format = format;
    this.width = width;
    this.training = training;
    this.plan = plan;
    this.bytes = bytes;
    this.shares = shares;
    this.division = division;
    this.answer = answer;
    int bits = LegacyBits.SERVICE_BITS + 8 * sent() + ConvolutionalCode.TAIL_BITS;
    int most = 0;
    for (HePlan.Share s : shares) {
      int each = s.coding().dataBits(s.unit().data().length);
      most = Math.max(most, (bits + each - 1) / each);
    }
    this.symbols = most;
    if (lengthOfSignal() > LegacyBits.MOST_BYTES) {
      throw new Refusal(
          "bytes", "Such a packet lasts longer than SIGNAL can say. Send fewer bytes.");
    }
  }

  /**
   * A packet of one user.
   *
   * @param format HE or EHT
   * @param channelHz 20, 40, 80, 160, of EHT 320 MHz
   * @param mcs 0 to 11, of EHT to 13
   * @param training its kind and the guard, 0 to 3, as the header numbers them
   * @param bytes of the frame, its check sequence among them
   */
  public static UserPacket of(
      PacketFormat format, double channelHz, int mcs, int training, int bytes) {
    if (!format.fills()) {
      throw new Refusal("format", "Such packets are HE or EHT.");
    }
    boolean he = format == PacketFormat.HE;
    int width = format.widthOf(channelHz);
    int last = he ? HeCodings.LAST_OF_HE : HeCodings.LAST_OF_EHT;
    if (mcs < 0 || mcs > last) {
      throw new Refusal("mcs", format.label() + " has MCS 0 to " + last + ".");
    }
    checkTraining(training);
    ResourceUnit unit = ResourceUnit.whole(width);
    HePlan plan = he ? HeSignal.layout(width, training) : UniversalSignal.layout(width, training);
    List<HePlan.Share> share = List.of(new HePlan.Share(unit, HeCodings.coding(mcs), 1));
    return new UserPacket(format, width, training, plan, bytes, share, null, false);
  }

  /**
   * An HE packet of several users, each of whom gets the same bytes; units that nobody has are told
   * as such.
   *
   * @param channelHz 20, 40, 80 or 160 MHz
   * @param training its kind and the guard, 0 to 3, as the header of such packets numbers them
   * @param bytes of each frame, its check sequence among them
   */
  public static UserPacket of(double channelHz, List<SentUser> users, int training, int bytes) {
    int width = PacketFormat.HE.widthOf(channelHz);
    checkTraining(training);
    SentDivision division = new SentDivision(width, users);
    HePlan plan = HeSharedSignal.layout(width, training, division.sent().symbols());
    return new UserPacket(
        PacketFormat.HE, width, training, plan, bytes, division.shares(), division, false);
  }

  /**
   * An HE packet that answers a trigger: its users fill the units that they were given, the others
   * stay empty.
   *
   * @param channelHz 20, 40, 80 or 160 MHz
   * @param bytes of each frame, its check sequence among them
   */
  public static UserPacket of(double channelHz, Trigger trigger, int bytes) {
    int width = PacketFormat.HE.widthOf(channelHz);
    List<HePlan.Share> shares =
        SentDivision.owners(width, trigger.users(), "users").stream()
            .map(SentDivision.Own::share)
            .toList();
    return new UserPacket(
        PacketFormat.HE,
        width,
        trigger.training(),
        trigger.layout(width),
        bytes,
        shares,
        null,
        true);
  }

  private static void checkTraining(int training) {
    if (training < 0 || training > 3) {
      throw new Refusal("training", "There are four kinds of training and guard, 0 to 3.");
    }
  }

  static boolean lowDensity(ResourceUnit unit, int mcs) {
    return unit.interleaver() == null || mcs > LAST_CONVOLUTIONAL;
  }

  private static boolean lowDensity(HePlan.Share s) {
    return s.unit().interleaver() == null || s.coding().bitsPerTone() > 8;
  }

  /** With a delimiter and what fills words of 4 bytes. */
  private int sent() {
    return 4 + (bytes + 3) / 4 * 4;
  }

  /** "EHT MCS 13, 4096-QAM 5/6". */
  @Override
  public String label() {
    long without = shares.stream().filter(UserPacket::lowDensity).count();
    return format.label()
        + (answer ? ", answer to a trigger" : "")
        + (division == null && !answer
            ? " " + shares.get(0).coding().words()
            : shares.size() == 1 ? ", a user" : ", " + shares.size() + " users")
        + (without == 0
            ? ""
            : (without < shares.size() ? ", for " + without + " of them" : ",")
                + " random bits in place of low density");
  }

  @Override
  public String refused(double channelHz) {
    return channelHz == width * 20e6 ? "" : "Its channel is " + 20 * width + " MHz wide.";
  }

  @Override
  public int mostBytes() {
    boolean free = shares.stream().allMatch(UserPacket::lowDensity);
    return free ? MOST_BYTES : LegacyBits.MOST_BYTES;
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
    int left = format == PacketFormat.EHT ? 0 : division == null ? 1 : 2;
    return 3 * usual() - (left == 0 ? 3 : 6 - left);
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
    for (byte[] bits : headers()) {
      byte[] coded = ConvolutionalCode.of(1, 2).encode(bits);
      for (int from = 0; from < coded.length; from += MixedTones.DATA) {
        byte[] own = Arrays.copyOfRange(coded, from, from + MixedTones.DATA);
        t.header52(Interleaver.LATER.spread(own, 1), number++);
      }
    }
    SentDivision.Sent b = division == null ? null : division.sent();
    for (int s = 0; b != null && s < b.symbols(); s++) {
      t.header52(b.coded(), HeCodings.coding(b.mcs()), s, number++);
    }
    t.shortTraining((answer ? 2 : 1) * LegacyPacket.SYMBOL);
    FramePlan frames = plan.of(shares, symbols);
    SplittableRandom random = new SplittableRandom(SIGNS_SEED);
    double[] signs = new double[frames.tones().length];
    Arrays.setAll(signs, k -> random.nextBoolean() ? 1 : -1);
    t.training(frames, signs, plan.ofTraining(), plan.guard());
    List<PacketMaker.Carried> users = new ArrayList<>();
    for (HePlan.Share s : shares) {
      int state = (scramblerState - 1 + users.size()) % SCRAMBLER_STATES + 1;
      users.add(
          new PacketMaker.Carried(
              s.unit().data(),
              s.coding(),
              lowDensity(s) ? random(s, state) : coded(s, frame, state)));
    }
    for (int s = 0; s < symbols; s++) {
      t.users(frames, s, users, plan.guard());
    }
    return t.samples();
  }

  private byte[] random(HePlan.Share s, int seed) {
    SplittableRandom random = new SplittableRandom(seed);
    byte[] out = new byte[symbols * s.coding().codedBits(s.unit().data().length)];
    for (int i = 0; i < out.length; i++) {
      out[i] = (byte) (random.nextInt() & 1);
    }
    return out;
  }

  private byte[] coded(HePlan.Share s, byte[] frame, int scramblerState) {
    byte[] bits = new byte[symbols * s.coding().dataBits(s.unit().data().length)];
    int tail = bits.length - ConvolutionalCode.TAIL_BITS;
    byte[] own = LegacyBits.bitsOf(FrameCheck.alone(frame, (tail - LegacyBits.SERVICE_BITS) / 8));
    System.arraycopy(own, 0, bits, LegacyBits.SERVICE_BITS, own.length);
    return LegacyBits.data(s.coding(), s.unit().interleaver(), bits, tail, scramblerState);
  }

  private int oneLess() {
    return plan.room(usual()) > symbols ? 1 : 0;
  }

  private int widthField() {
    return Integer.numberOfTrailingZeros(width);
  }

  private byte[][] headers() {
    if (division != null) {
      return several();
    }
    if (answer) {
      int[] first = {0, 1, 0, 6, 0, 16, 1, 1, widthField(), 2};
      int[] second = {ANY_DURATION, 7, 0b111111111, 9};
      return new byte[][] {sealed(first, second)};
    }
    int mcs = HeCodings.numberOf(shares.get(0).coding());
    return format == PacketFormat.HE ? he(mcs) : eht(mcs);
  }

  private int dense() {
    return lowDensity(shares.get(0)) ? 1 : 0;
  }

  /** HE-SIG-A of several users. */
  private byte[][] several() {
    SentDivision.Sent b = division.sent();
    int[] first = {0, 1, b.mcs(), 3, 0, 1, 6, 6, 0, 4, widthField(), 3, b.symbols() - 1, 4, 0, 1};
    int[] second = {training, 2, 0, 1, ANY_DURATION, 7, 1, 1, 0, 3, 0, 1, 0, 1, 0, 2, oneLess(), 1};
    return new byte[][] {sealed(first, second)};
  }

  /** HE-SIG-A: value and bits of each field in their order. */
  private byte[][] he(int mcs) {
    int[] first = {1, 1, 0, 2, mcs, 4, 0, 1, 0, 6, 1, 1, 0, 4, widthField(), 2, training, 2, 0, 3};
    int[] second = {ANY_DURATION, 7, dense(), 1, 0, 3, 0, 2, oneLess(), 1, 1, 1, 0, 1};
    return new byte[][] {sealed(first, second)};
  }

  /** U-SIG, then EHT-SIG of one user. */
  private byte[][] eht(int mcs) {
    int[] first = {0, 3, widthField(), 3, 0, 1, 0, 6, ANY_DURATION, 7, 31, 5, 1, 1};
    int[] second = {1, 2, 1, 1, 0, 5, 1, 1, 0, 2, 1, 5};
    int[] common = {0, 4, training, 2, 0, 6, oneLess(), 1, 15, 4, 0, 3};
    int[] user = {0, 11, mcs, 4, 1, 1, 0, 5, dense(), 1};
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
