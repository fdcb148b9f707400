package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.List;
import rovnik.core.Refusal;

/**
 * Makes packets of one HT stream (IEEE 802.11-2020 clause 19, mixed format) or one VHT stream
 * (clause 21, one user) with the convolutional code; levels as {@link LegacyPacket}.
 */
public final class MixedPacket implements SentPacket {
  /** Symbols of usual length from SIGNAL to the training of the data, with it. */
  private static final int HEADERS = 4;

  private final boolean vht;
  private final StreamTones tones;
  private final Coding coding;
  private final int guard;
  private final int bytes;
  private final int symbols;
  private final int mcs;

  /** In 20 MHz. */
  public MixedPacket(PacketFormat format, int mcs, boolean shortGuard, int bytes) {
    this(format, 20e6, mcs, shortGuard, bytes);
  }

  /**
   * @param format HT or VHT
   * @param channelHz 20 or 40 MHz, of VHT 80 or 160 as well
   * @param mcs 0 to 7, of VHT to 8 in 20 MHz, to 9 in 40 and 80 MHz
   * @param shortGuard 400 ns instead of 800
   * @param bytes of the frame, its check sequence among them
   */
  public MixedPacket(
      PacketFormat format, double channelHz, int mcs, boolean shortGuard, int bytes) {
    if (format != PacketFormat.HT && format != PacketFormat.VHT) {
      throw new Refusal("format", "Such packets are HT or VHT.");
    }
    this.vht = format == PacketFormat.VHT;
    this.tones = StreamTones.of(format.widthOf(channelHz));
    this.mcs = mcs;
    this.coding = MixedTones.coding(vht, tones.width(), mcs);
    if (vht && VhtSignal.twoCoders(tones.width(), mcs)) {
      throw new Refusal("mcs", "VHT packets in 160 MHz are made with MCS 0 to 7.");
    }
    this.guard = shortGuard ? LegacyTones.GUARD / 2 : LegacyTones.GUARD;
    this.bytes = bytes;
    int each = coding.dataBits(tones.data().length);
    int sent = vht ? words() * 4 : bytes;
    int bits = LegacyBits.SERVICE_BITS + 8 * sent + ConvolutionalCode.TAIL_BITS;
    this.symbols = (bits + each - 1) / each;
    if (lengthOfSignal() > LegacyBits.MOST_BYTES) {
      throw new Refusal(
          "bytes", "Such a packet lasts longer than SIGNAL can say. Send fewer bytes.");
    }
  }

  /** "HT MCS 7, 64-QAM 5/6". */
  @Override
  public String label() {
    return (vht ? PacketFormat.VHT : PacketFormat.HT).label() + " " + coding.words();
  }

  /** Words of 4 bytes that a VHT packet has: a delimiter, then the frame. */
  private int words() {
    return 1 + (bytes + 3) / 4;
  }

  /** Samples of the data at the width of the channel. */
  private int ofData() {
    return symbols * (LegacyTones.TRANSFORM + guard);
  }

  /** Symbols of usual length behind SIGNAL, the last one may not be full. */
  private int usual() {
    int before = HEADERS + (vht ? 1 : 0);
    return before + (ofData() + LegacyPacket.SYMBOL - 1) / LegacyPacket.SYMBOL;
  }

  private int lengthOfSignal() {
    return 3 * usual() - 3;
  }

  private int length() {
    int before = 1 + HEADERS + (vht ? 1 : 0);
    return 2 * LegacyPacket.TRAINING + before * LegacyPacket.SYMBOL + ofData();
  }

  @Override
  public String refused(double channelHz) {
    return channelHz == tones.width() * 20e6
        ? ""
        : "Its channel is " + 20 * tones.width() + " MHz wide.";
  }

  @Override
  public double seconds(double channelHz) {
    return length() * (double) tones.width() / channelHz;
  }

  @Override
  public float[] samples(byte[] frame, int scramblerState, int times) {
    if (frame.length != bytes || scramblerState < 1 || scramblerState > Scrambler.PERIOD) {
      throw new IllegalArgumentException(
          "the frame has " + bytes + " bytes, the state is 1 to 127");
    }
    PacketMaker t = new PacketMaker(times, tones.width(), length());
    t.preamble(LegacyBits.signal(LegacyRate.R6, lengthOfSignal()));
    boolean shortGuard = guard < LegacyTones.GUARD;
    int room = (usual() - HEADERS - 1) * LegacyPacket.SYMBOL / (LegacyTones.TRANSFORM + guard);
    VhtSignal own =
        vht
            ? VhtSignal.of(tones.width(), mcs, words(), shortGuard, shortGuard && room > symbols)
            : null;
    byte[] header =
        vht ? own.a().bits() : HtSignal.of(mcs, tones.width() > 1, bytes, shortGuard).bits().bits();
    byte[] coded = ConvolutionalCode.of(1, 2).encode(header);
    for (int i = 0; i < 2; i++) {
      byte[] half = Arrays.copyOfRange(coded, i * LegacyTones.DATA, (i + 1) * LegacyTones.DATA);
      t.header(Interleaver.LEGACY.spread(half, 1), 1 + i, !vht || i == 1);
    }
    t.shortTraining(LegacyPacket.SYMBOL);
    FramePlan plan =
        MixedPlan.of(vht ? PacketFormat.VHT : PacketFormat.HT, tones, coding, guard, symbols);
    t.training(plan, LegacyTones.GUARD);
    if (vht) {
      byte[] b = tones.interleaver().spread(own.codedB(), 1);
      t.users(
          plan, MixedPlan.signalB(tones), 0, carried(LegacyRate.R6.coding(), b), LegacyTones.GUARD);
    }
    byte[] bits = vht ? ofVht(frame, own.checkOfB(), scramblerState) : ofHt(frame, scramblerState);
    for (int s = 0; s < symbols; s++) {
      t.users(plan, s, carried(coding, bits), guard);
    }
    return t.samples();
  }

  private List<PacketMaker.Carried> carried(Coding with, byte[] bits) {
    return List.of(new PacketMaker.Carried(tones.data(), with, bits));
  }

  private byte[] ofHt(byte[] frame, int scramblerState) {
    byte[] bits = new byte[symbols * coding.dataBits(tones.data().length)];
    byte[] own = LegacyBits.bitsOf(frame);
    System.arraycopy(own, 0, bits, LegacyBits.SERVICE_BITS, own.length);
    int tail = LegacyBits.SERVICE_BITS + own.length;
    return LegacyBits.data(coding, tones.interleaver(), bits, tail, scramblerState);
  }

  /** SERVICE ends with the check of SIG-B; the tail is at the very end. */
  private byte[] ofVht(byte[] frame, byte[] check, int scramblerState) {
    byte[] bits = new byte[symbols * coding.dataBits(tones.data().length)];
    int tail = bits.length - ConvolutionalCode.TAIL_BITS;
    System.arraycopy(check, 0, bits, LegacyBits.SERVICE_BITS - check.length, check.length);
    byte[] own = LegacyBits.bitsOf(FrameCheck.alone(frame, (tail - LegacyBits.SERVICE_BITS) / 8));
    System.arraycopy(own, 0, bits, LegacyBits.SERVICE_BITS, own.length);
    return LegacyBits.data(coding, tones.interleaver(), bits, tail, scramblerState);
  }
}
