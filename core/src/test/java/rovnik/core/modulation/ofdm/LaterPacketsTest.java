package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNull;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import java.util.function.Consumer;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.modulation.wave.PacketPart;
import rovnik.core.result.Outcome;

/** Packets that say behind SIGNAL what they are: those of others, and our own HT and VHT ones. */
public class LaterPacketsTest extends PacketBench {
  /**
   * Two HT, two VHT, three HE, two EHT packets and the beginnings of two others, made with NumPy
   * alone: see fixtures/later_packets.py.
   */
  @Test
  public void packetsOfOthersAreToldApartAndMeasured() throws IOException {
    ByteBuffer b = ByteBuffer.wrap(resource("later_packets.f32")).order(ByteOrder.LITTLE_ENDIAN);
    float[] iq = new float[b.remaining() / 4];
    b.asFloatBuffer().get(iq);
    List<String> truth =
        new String(resource("later_packets.txt"), StandardCharsets.US_ASCII).lines().toList();
    for (int i = 0; i < truth.size(); i++) {
      String[] words = truth.get(i).split(" ");
      OfdmPacket p = packet(iq, 32e6, i + 1);
      Outcome o = measured(iq, 32e6, i + 1);
      assertEquals(p.said().format().name(), words[0], words[3]);
      assertEquals(p.startSeconds(), Double.parseDouble(words[3]), 0.1e-6);
      assertEquals(said(o, "Check"), "fits", words[0]);
      assertEquals(said(o, "MCS").contains(words[1]), true, said(o, "MCS"));
      assertEquals(value(o, "packets"), 11);
      boolean dense = words[2].equals("1") && words[0].equals("EHT");
      if (words[4].equals("-") && !dense) {
        assertTrue(
            p.check().equals("its data are for several users")
                || p.check().equals("its data are on 106 tones"),
            p.check());
        assertEquals(p.symbols(), 0);
        continue;
      }
      assertEquals(p.check(), "", words[0]);
      if (dense) {
        assertNull(p.said().payload());
        assertTrue(p.said().words().contains("LDPC"));
      } else {
        byte[] frame = HexFormat.of().parseHex(words[4]);
        int from = words[0].equals("HT") ? 0 : 4;
        byte[] payload = p.said().payload();
        assertEquals(Arrays.copyOfRange(payload, from, from + frame.length), frame);
      }
      within(o, "frequencyError", -61_400);
      within(o, "clockOffset", 11.3);
      boolean he = words[0].endsWith("E") || words[0].equals("EHT");
      // Noise was put beside the power of all tones; 242 narrow ones take more width than 56.
      double snr = he ? 38 - 10 * Math.log10(242 * 78.125 / (56 * 312.5)) : 38;
      within(o, "evmWithout", 100 * Math.pow(10, -snr / 20));
      if (!he) {
        within(o, "evmDb", -snr + OWN_DB);
      }
    }
  }

  /** The example of IEEE 802.11-2020, 19.3.9.4.4; from memory. */
  @Test
  public void theCheckOfTheStandardsExample() {
    String sent = "1111000100100110000000001110000000";
    byte[] bits = new byte[sent.length()];
    for (int i = 0; i < bits.length; i++) {
      bits[i] = (byte) (sent.charAt(i) - '0');
    }
    assertEquals(HeaderBits.check(bits, bits.length), new byte[] {1, 0, 1, 0, 1, 0, 0, 0});
  }

  @DataProvider
  public Object[][] kinds() {
    Object[][] out = new Object[34][];
    int n = 0;
    for (boolean vht : new boolean[] {false, true}) {
      for (int mcs = 0; mcs < MixedTones.codings(vht, 1); mcs++) {
        out[n++] = new Object[] {vht ? PacketFormat.VHT : PacketFormat.HT, mcs, false};
        out[n++] = new Object[] {vht ? PacketFormat.VHT : PacketFormat.HT, mcs, true};
      }
    }
    return out;
  }

  /** Without noise nothing but the computation is left, and all bytes come back. */
  @Test(dataProvider = "kinds")
  public void theFloorIsLow(PacketFormat format, int mcs, boolean shortGuard) {
    Random random = new Random(mcs);
    byte[] frame = framed(random, 700 + 13 * mcs);
    float[] clean =
        new MixedPacket(format, mcs, shortGuard, frame.length)
            .samples(frame, 1 + random.nextInt(127), 2);
    Outcome o = measured(received(clean, 173e3, 300, random), FS, 1);
    assertTrue(value(o, "evmDb") < -70, o.summary());
    assertEquals(value(o, "frequencyError"), 173e3, 1);
    assertEquals(value(o, "clockOffset"), 0, 0.1);
    assertTrue(o.summary().contains(format.label() + " MCS " + mcs + ","), o.summary());
    assertEquals(
        o.reading("evmDb").orElseThrow().limit().upper(),
        MixedTones.coding(true, 1, mcs).errorLimitDb());
    OfdmPacket p = packet(received(clean, 173e3, 300, random), FS, 1);
    int from = format == PacketFormat.VHT ? 4 : 0;
    assertEquals(Arrays.copyOfRange(p.said().payload(), from, from + frame.length), frame);
    assertEquals(p.seconds(20e6) * FS, clean.length / 2.0, 170);
    // Every field has the power that the standard gives it: the same.
    for (double power : p.fieldPower()) {
      assertEquals(10 * Math.log10(power / p.fieldPower()[0]), 0, 0.8);
    }
  }

  /** What is claimed holds as often as it is claimed: k = 2. */
  @Test
  public void theTruthLiesWithinWhatIsClaimed() {
    Random random = new Random(42);
    holds(
        120,
        new String[] {"evmWithout", "frequencyError", "clockOffset", "evmDb"},
        t -> {
          boolean vht = random.nextBoolean();
          int mcs = random.nextInt(MixedTones.codings(vht, 1));
          double limit = MixedTones.coding(vht, 1, mcs).errorLimitDb();
          double snr = Math.max(18, -limit + 5) + 12 * random.nextDouble();
          double hz = 200e3 * (2 * random.nextDouble() - 1);
          byte[] frame = framed(random, 300 + random.nextInt(900));
          PacketFormat format = vht ? PacketFormat.VHT : PacketFormat.HT;
          float[] clean =
              new MixedPacket(format, mcs, random.nextBoolean(), frame.length)
                  .samples(frame, 1 + random.nextInt(127), 2);
          Outcome o = measured(received(clean, hz, snr, random), FS, 1);
          return new Trial(o, 100 * Math.pow(10, -snr / 20), hz, 0, -snr + OWN_DB);
        });
  }

  /** Data of clause 17 at its lowest rate look like none of the newer headers. */
  @Test
  public void legacyPacketsStayWhatTheyAre() {
    Random random = new Random(9);
    for (int t = 0; t < 60; t++) {
      byte[] frame = framed(random, 14 + random.nextInt(40));
      float[] clean = LegacyPacket.samples(LegacyRate.R6, frame, 1 + random.nextInt(127), 2);
      OfdmPacket p = packet(received(clean, 50e3, 12, random), FS, 1);
      assertEquals(p.said().format(), PacketFormat.LEGACY);
      assertEquals(p.check(), "");
    }
  }

  /** At 10 dB every header is read, at every offset of 20 ppm at 5.5 GHz. */
  @Test
  public void headersAreReadInNoise() {
    Random random = new Random(31);
    int wrong = 0;
    for (int t = 0; t < 100; t++) {
      byte[] frame = framed(random, 60);
      boolean vht = t % 2 == 0;
      float[] clean =
          new MixedPacket(vht ? PacketFormat.VHT : PacketFormat.HT, 0, t % 3 == 0, 60)
              .samples(frame, 1 + random.nextInt(127), 2);
      double hz = 110e3 * (2 * random.nextDouble() - 1);
      OfdmPacket p = packet(received(clean, hz, 10, random), FS, 1);
      boolean right = p.said().format() == (vht ? PacketFormat.VHT : PacketFormat.HT);
      wrong += right && p.check().isEmpty() ? 0 : 1;
    }
    assertEquals(wrong, 0);
  }

  private static OfdmPacket withHeader(PacketFormat format, Consumer<byte[]> change) {
    boolean vht = format == PacketFormat.VHT;
    byte[] bits =
        vht
            ? VhtSignal.of(1, 3, 40, false, false).a().bits()
            : HtSignal.of(3, false, 160, false).bits().bits();
    change.accept(bits);
    byte[] coded = ConvolutionalCode.of(1, 2).encode(bits);
    PacketMaker t = new PacketMaker(2, 320 + 80 * 30);
    t.preamble(LegacyBits.signal(LegacyRate.R6, 60));
    for (int i = 0; i < 2; i++) {
      byte[] half = Arrays.copyOfRange(coded, 48 * i, 48 * i + 48);
      t.header(Interleaver.LEGACY.spread(half, 1), 1 + i, !vht || i == 1);
    }
    return packet(received(t.samples(), 0, 40, new Random(3)), FS, 1);
  }

  /** What one stream in 20 MHz is not, and what cannot be believed, is a sentence. */
  @Test
  public void whatIsNotReadSaysWhy() {
    assertEquals(
        withHeader(PacketFormat.HT, b -> b[9] ^= 1).check(), "the check of HT-SIG does not fit");
    assertEquals(
        withHeader(PacketFormat.VHT, b -> b[9] ^= 1).check(),
        "the check of VHT-SIG-A does not fit");
    unread(PacketFormat.HT, 7, 1, "its data are 40 MHz wide: choose that channel, and its middle");
    unread(PacketFormat.HT, 3, 1, "MCS 11 is not of one stream");
    unread(PacketFormat.HT, 28, 1, "its data are coded in space and time");
    unread(PacketFormat.HT, 32, 1, "it sounds more streams than it sends");
    unread(PacketFormat.VHT, 1, 1, "its data are 80 MHz wide: choose that channel, and its middle");
    unread(PacketFormat.VHT, 5, 1, "its data are for several users");
    unread(PacketFormat.VHT, 10, 1, "its data are 2 streams");
    unread(PacketFormat.VHT, 31, 1, "there is no MCS 11 in 20 MHz");
  }

  private static void unread(PacketFormat format, int bit, int value, String why) {
    OfdmPacket p =
        withHeader(
            format,
            b -> {
              b[bit] = (byte) value;
              HeaderBits.seal(b, 34);
            });
    assertEquals(p.check(), why);
    assertEquals(p.said().format(), format);
    assertEquals(p.symbols(), 0);
  }

  /** Bits of low density are not decoded, which is no fault of the packet. */
  @Test
  public void dataOfLowDensityAreMeasuredAllTheSame() {
    OfdmPacket p =
        withHeader(
            PacketFormat.VHT,
            b -> {
              b[26] = 1;
              HeaderBits.seal(b, 34);
            });
    assertEquals(p.check(), "");
    assertNull(p.said().payload());
    assertTrue(p.said().words().contains("LDPC"));
    assertEquals(p.symbols(), 21 - 5);
  }

  /** A packet that ends with the record is read as far as it is there. */
  @Test
  public void cutPacketsAreReadAsFarAsTheyAre() {
    byte[] frame = framed(new Random(1), 900);
    float[] clean = new MixedPacket(PacketFormat.HT, 2, false, 900).samples(frame, 5, 2);
    float[] iq = received(clean, 0, 35, new Random(2));
    for (int keep :
        new int[] {1000 + 2 * 720 + 1200, 1000 + 2 * 690, 1000 + 2 * 500, 1000 + 2 * 430}) {
      OfdmPacket p = packet(Arrays.copyOf(iq, 2 * keep), FS, 1);
      assertTrue(p.check().startsWith("cut off"), keep + ": " + p.check());
    }
  }

  /** Made waveforms have them one after the other, in 20 MHz only. */
  @Test
  public void packetsAreMadeAgainAndAgain() {
    PacketPart part =
        new PacketPart(new MixedPacket(PacketFormat.VHT, 5, true, 500), 500, 400e-6, 20e6);
    double[] made = part.make(48_000, FS);
    float[] iq = new float[made.length];
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) made[i];
    }
    Outcome o = measured(iq, FS, 2);
    assertEquals(value(o, "whole"), 3);
    assertTrue(part.words().contains("VHT MCS 5, 64-QAM 2/3"), part.words());
  }

  /** Data of any kind are no faulty frames; a frame with one wrong bit is. */
  @Test
  public void framesWithinAreCheckedWhereThereAreAny() {
    Random random = new Random(8);
    byte[] any = new byte[60_000];
    random.nextBytes(any);
    assertEquals(FrameCheck.Several.in(any).wrong(), "");
    byte[] one = FrameCheck.alone(framed(random, 301), 400);
    assertEquals(FrameCheck.Several.in(one), new FrameCheck.Several(1, 1));
    one[100] ^= 4;
    assertEquals(FrameCheck.Several.in(one).wrong(), "0 of 1 MPDU has a check that fits");
    byte[] two = Arrays.copyOf(one, 800);
    System.arraycopy(FrameCheck.alone(framed(random, 90), 400), 0, two, 400, 400);
    assertEquals(FrameCheck.Several.in(two), new FrameCheck.Several(2, 1));
  }

  /** Packets of clause 17 need no more samples than their own tones. */
  @Test
  public void legacyPacketsNeedNoMoreThanTheirOwnTones() {
    double fs = 16.8e6;
    float[] clean = LegacyPacket.samples(LegacyRate.R24, framed(new Random(1), 200), 9, 21);
    // 420 MS/s: every 25th sample, of tones that reach 8.3 MHz.
    float[] few = new float[clean.length / 50 * 2];
    for (int n = 0; n < few.length / 2; n++) {
      few[2 * n] = clean[50 * n];
      few[2 * n + 1] = clean[50 * n + 1];
    }
    Outcome o = measured(received(few, 0, 300, new Random(2)), fs, 1);
    assertTrue(o.summary().contains("16-QAM 1/2, 200 bytes"), o.summary());
    assertEquals(checkOf(o), "fits");
  }
}
