package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNull;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.io.InputStream;
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
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Packets that say behind SIGNAL what they are: those of others, and our own. */
public class LaterPacketsTest {
  private static final double FS = 40e6;

  /** A training of one symbol adds its noise, pilots that turn a symbol their share. */
  private static final double OWN_DB = 10 * Math.log10(2 * (1 + 48.0 / 56 / 8));

  private static OfdmSettings settings(int packet) {
    return new OfdmSettings(
        0, 20e6, 0.1, 0, packet, OfdmSettings.Estimate.TRAINING, true, false, null);
  }

  private static byte[] resource(String name) throws IOException {
    try (InputStream in = LaterPacketsTest.class.getResourceAsStream("/fixtures/" + name)) {
      return in.readAllBytes();
    }
  }

  private static Outcome measured(float[] iq, double fs, int packet) {
    return new OfdmMeasurement(settings(packet))
        .of(new IqRecord(iq, fs, 5.5e9, 0, false), MeasurementContext.BARE);
  }

  private static double value(Outcome o, String id) {
    return o.reading(id).orElseThrow().value();
  }

  private static void within(Outcome o, String id, double truth) {
    Reading r = o.reading(id).orElseThrow();
    // Readings of one seed: three standard deviations.
    assertEquals(r.value(), truth, 1.5 * r.uncertainty(), id);
  }

  private static OfdmPacket packet(float[] iq, double fs, int which) {
    ChannelSamples samples = new ChannelSamples(iq, 0, iq.length / 2, fs, 0, 20e6, 0.9);
    double[] re = new double[samples.count()];
    double[] im = new double[samples.count()];
    samples.read(0, 0, re, im);
    PacketFinder finder = new PacketFinder(re, im);
    PacketReader reader = new PacketReader(samples, samples, settings(1));
    PacketFinder.Found found = finder.next(0);
    OfdmPacket p = null;
    for (int i = 0; i < which; i++) {
      p = reader.read(found);
      found = finder.next(found.training() + p.end());
    }
    return p;
  }

  private static String said(Outcome o, String field) {
    ResultTable t =
        o.tables().stream().filter(x -> x.id().equals("signal")).findFirst().orElseThrow();
    String first = "";
    for (ResultTable.Row r : t.rows()) {
      if (r.cells().get(1).text().equals(field)) {
        return r.cells().get(2).text();
      }
      boolean like = first.isEmpty() && r.cells().get(1).text().startsWith(field);
      first = like ? r.cells().get(2).text() : first;
    }
    return first;
  }

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
      for (int mcs = 0; mcs < MixedTones.codings(vht); mcs++) {
        out[n++] = new Object[] {vht ? PacketFormat.VHT : PacketFormat.HT, mcs, false};
        out[n++] = new Object[] {vht ? PacketFormat.VHT : PacketFormat.HT, mcs, true};
      }
    }
    return out;
  }

  private static byte[] framed(Random random, int bytes) {
    byte[] out = new byte[bytes];
    random.nextBytes(out);
    FrameCheck.seal(out);
    return out;
  }

  /** A packet at 40 MS/s with silence around it, an offset, and noise of its 56 tones. */
  private static float[] received(float[] clean, double hz, double snrDb, Random random) {
    return received(clean, hz, snrDb, random, 52.0 / 64 / 64, 56 * 312.5e3);
  }

  private static float[] received(
      float[] clean, double hz, double snrDb, Random random, double power, double widthHz) {
    int before = 500;
    float[] iq = new float[clean.length + 4 * before];
    double sigma = Math.sqrt(power * Math.pow(10, -snrDb / 10) * FS / widthHz / 2);
    for (int n = 0; n < iq.length / 2; n++) {
      int i = n - before;
      boolean in = i >= 0 && i < clean.length / 2;
      double c = Math.cos(2 * Math.PI * hz * n / FS);
      double s = Math.sin(2 * Math.PI * hz * n / FS);
      double x = in ? clean[2 * i] * c - clean[2 * i + 1] * s : 0;
      double y = in ? clean[2 * i] * s + clean[2 * i + 1] * c : 0;
      iq[2 * n] = (float) (x + sigma * random.nextGaussian());
      iq[2 * n + 1] = (float) (y + sigma * random.nextGaussian());
    }
    return iq;
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
        MixedTones.coding(true, mcs).errorLimitDb());
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
    int tries = 120;
    String[] ids = {"evmWithout", "frequencyError", "clockOffset", "evmDb"};
    int[] inside = new int[ids.length];
    double[] ratio = new double[ids.length];
    Random random = new Random(42);
    for (int t = 0; t < tries; t++) {
      boolean vht = random.nextBoolean();
      int mcs = random.nextInt(MixedTones.codings(vht));
      double snr =
          Math.max(18, -MixedTones.coding(vht, mcs).errorLimitDb() + 5) + 12 * random.nextDouble();
      double hz = 200e3 * (2 * random.nextDouble() - 1);
      byte[] frame = framed(random, 300 + random.nextInt(900));
      float[] clean =
          new MixedPacket(
                  vht ? PacketFormat.VHT : PacketFormat.HT, mcs, random.nextBoolean(), frame.length)
              .samples(frame, 1 + random.nextInt(127), 2);
      Outcome o = measured(received(clean, hz, snr, random), FS, 1);
      assertEquals(value(o, "whole"), 1, o.summary());
      double[] truth = {100 * Math.pow(10, -snr / 20), hz, 0, -snr + OWN_DB};
      for (int i = 0; i < ids.length; i++) {
        Reading r = o.reading(ids[i]).orElseThrow();
        double off = Math.abs(r.value() - truth[i]);
        inside[i] += off <= r.uncertainty() ? 1 : 0;
        ratio[i] += off * off / (r.uncertainty() * r.uncertainty() / 4) / tries;
      }
    }
    for (int i = 0; i < ids.length; i++) {
      assertTrue(inside[i] >= 0.9 * tries, ids[i] + " inside " + inside[i] + ", ratio " + ratio[i]);
      assertTrue(ratio[i] > 0.4, ids[i] + " needlessly wide: " + ratio[i]);
    }
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

  /** A short training does not have every tone: a second path costs little all the same. */
  @Test
  public void tonesBetweenThoseOfAShortTrainingFollowTheChannel() {
    double[] most = {-55, -80, -80, -100};
    for (int kind = 0; kind < 4; kind++) {
      Random random = new Random(kind);
      float[] clean = HeSent.packet(3, kind, 6, random);
      float[] both = clean.clone();
      for (int n = 6; n < clean.length / 2; n++) {
        both[2 * n] += 0.6f * clean[2 * (n - 6) + 1];
        both[2 * n + 1] -= 0.6f * clean[2 * (n - 6)];
      }
      Outcome o = measured(received(both, 0, 300, random, 1, 18.9e6), FS, 1);
      assertTrue(value(o, "evmDb") < most[kind], kind + ": " + o.summary());
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
            ? VhtSignal.of(3, 40, false, false).a().bits()
            : HtSignal.of(3, 160, false).bits().bits();
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
    unread(PacketFormat.HT, 7, 1, "its data are 40 MHz wide, which is not read");
    unread(PacketFormat.HT, 3, 1, "MCS 11 is not of one stream");
    unread(PacketFormat.HT, 28, 1, "its data are coded in space and time");
    unread(PacketFormat.HT, 32, 1, "it sounds more streams than it sends");
    unread(PacketFormat.VHT, 1, 1, "its data are 80 MHz wide, which is not read");
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

  @DataProvider
  public Object[][] trainings() {
    return new Object[][] {{0}, {1}, {2}, {3}};
  }

  /** Signs of the training are learned whatever they are; without noise little is left. */
  @Test(dataProvider = "trainings")
  public void heTrainingIsLearned(int kind) {
    for (int mcs = 0; mcs <= HeCodings.LAST_OF_HE; mcs++) {
      Random random = new Random(100 * kind + mcs);
      int symbols = 4 + mcs;
      float[] iq =
          received(HeSent.packet(mcs, kind, symbols, random), -87e3, 300, random, 1, 18.9e6);
      Outcome o = measured(iq, FS, 1);
      assertEquals(value(o, "whole"), 1, o.summary());
      assertTrue(o.summary().contains("HE MCS " + mcs + ","), o.summary());
      assertTrue(o.summary().contains("in " + symbols + " symbols"), o.summary());
      assertTrue(o.summary().contains("training learned from the signal"), o.summary());
      assertTrue(o.summary().contains("1 of 1 MPDU has a check that fits"), o.summary());
      assertEquals(checkOf(o), "fits");
      assertTrue(value(o, "evmDb") < -80, kind + ": " + o.summary());
      assertEquals(value(o, "frequencyError"), -87e3, 2);
    }
  }

  /** The same over seeds with noise and a second path: what is claimed holds; k = 2. */
  @Test
  public void theTruthOfHePacketsLiesWithinWhatIsClaimed() {
    int tries = 80;
    String[] ids = {"evmWithout", "frequencyError", "clockOffset"};
    int[] inside = new int[ids.length];
    double[] ratio = new double[ids.length];
    Random random = new Random(7);
    for (int t = 0; t < tries; t++) {
      int mcs = random.nextInt(10);
      double snr =
          Math.max(16, -HeCodings.coding(mcs).errorLimitDb() + 5) + 10 * random.nextDouble();
      double hz = 200e3 * (2 * random.nextDouble() - 1);
      float[] clean = HeSent.packet(mcs, t % 4, 6 + random.nextInt(6), random);
      Outcome o = measured(received(clean, hz, snr, random, 1, 242 * 78.125e3), FS, 1);
      assertEquals(value(o, "whole"), 1, o.summary());
      double[] truth = {100 * Math.pow(10, -snr / 20), hz, 0};
      for (int i = 0; i < ids.length; i++) {
        Reading r = o.reading(ids[i]).orElseThrow();
        double off = Math.abs(r.value() - truth[i]);
        inside[i] += off <= r.uncertainty() ? 1 : 0;
        ratio[i] += off * off / (r.uncertainty() * r.uncertainty() / 4) / tries;
      }
    }
    for (int i = 0; i < ids.length; i++) {
      assertTrue(inside[i] >= 0.9 * tries, ids[i] + " inside " + inside[i] + ", ratio " + ratio[i]);
      assertTrue(ratio[i] > 0.4, ids[i] + " needlessly wide: " + ratio[i]);
    }
  }

  /** A channel that fades between two paths of the same strength: pilots join its stretches. */
  @Test
  public void stretchesBeyondAFadeAreJoined() {
    int right = 0;
    for (int seed = 0; seed < 20; seed++) {
      Random random = new Random(seed);
      float[] clean = HeSent.packet(1, 3, 6, random);
      float[] both = clean.clone();
      int delay = 6 + random.nextInt(8);
      double angle = 2 * Math.PI * random.nextDouble();
      for (int n = delay; n < clean.length / 2; n++) {
        float a = clean[2 * (n - delay)];
        float b = clean[2 * (n - delay) + 1];
        both[2 * n] += (float) (0.97 * (a * Math.cos(angle) - b * Math.sin(angle)));
        both[2 * n + 1] += (float) (0.97 * (a * Math.sin(angle) + b * Math.cos(angle)));
      }
      OfdmPacket p = packet(received(both, 30e3, 30, random, 1, 18.9e6), FS, 1);
      assertEquals(p.symbols(), 6);
      right += p.check().isEmpty() ? 1 : 0;
    }
    // Two fades between the same two pilots may both be missed: their bits are then wrong.
    assertTrue(right >= 18, right + " of 20");
  }

  /** At 10 dB every header is read and every training learned well enough to decode. */
  @Test
  public void trainingIsLearnedInNoise() {
    Random random = new Random(55);
    for (int t = 0; t < 60; t++) {
      float[] clean = HeSent.packet(0, t % 4, 5, random);
      double hz = 110e3 * (2 * random.nextDouble() - 1);
      OfdmPacket p = packet(received(clean, hz, 10, random, 1, 18.9e6), FS, 1);
      assertEquals(p.check(), "", "try " + t);
      assertEquals(p.symbols(), 5);
    }
  }

  /** Samples that do not reach as far as the tones are a sentence. */
  @Test
  public void tonesBeyondTheSamplesAreToldSo() {
    float[] clean = HeSent.packet(3, 3, 5, new Random(1));
    float[] iq = received(clean, 0, 40, new Random(2), 1, 18.9e6);
    ChannelSamples wide = new ChannelSamples(iq, 0, iq.length / 2, FS, 0, 20e6, 0.9);
    ChannelSamples narrow = new ChannelSamples(iq, 0, iq.length / 2, FS, 10.6e6, 20e6, 0.9);
    assertEquals(wide.reachHz(), 20e6, 1);
    assertEquals(narrow.reachHz(), 9.4e6, 1);
    float[] half = new float[iq.length / 2 / 2 * 2];
    for (int n = 0; n < half.length / 2; n++) {
      half[2 * n] = iq[4 * n];
      half[2 * n + 1] = iq[4 * n + 1];
    }
    // 20 MS/s reach as far as they must; a carrier half a megahertz off leaves too little.
    assertEquals(packet(half, 20e6, 1).check(), "");
    Outcome o =
        new OfdmMeasurement(
                new OfdmSettings(
                    5.5005e9, 20e6, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, null))
            .of(new IqRecord(half, 20e6, 5.5e9, 0, false), MeasurementContext.BARE);
    assertTrue(o.summary().contains("sample faster"), o.summary());
  }

  @DataProvider
  public Object[][] widths() {
    return new Object[][] {{2, 3, 8}, {4, 1, 9}, {8, 0, 5}, {4, 3, 11}};
  }

  private static Outcome inChannel(int width, float[] iq, int packet) {
    OfdmSettings s =
        new OfdmSettings(
            0, 20e6 * width, 0.1, 0, packet, OfdmSettings.Estimate.TRAINING, true, false, null);
    return new OfdmMeasurement(s)
        .of(new IqRecord(iq, 2 * 20e6 * width, 5.5e9, 0, false), MeasurementContext.BARE);
  }

  private static String checkOf(Outcome o) {
    return o.table("packets").orElseThrow().rows().get(0).cells().get(6).text();
  }

  /** What the lowest 20 MHz say is read in the whole channel. */
  @Test(dataProvider = "widths")
  public void widePacketsAreMeasured(int width, int kind, int mcs) {
    Random random = new Random(width);
    float[] clean = HeSent.packet(width, mcs, kind, 5, random);
    // received() takes 40 MS/s: offset and width are so many times as much.
    float[] iq = received(clean, 133e3 / width, 300, random, 1, 18.9e6);
    Outcome o = inChannel(width, iq, 1);
    assertTrue(o.summary().contains("HE MCS " + mcs + ","), o.summary());
    assertTrue(o.summary().contains("5 symbols"), o.summary());
    assertEquals(checkOf(o), "its bits are in LDPC and not decoded");
    assertEquals(value(o, "whole"), 1, o.summary());
    assertEquals(value(o, "frequencyError"), 133e3, 20);
    assertTrue(value(o, "evmDb") < -90, o.summary());
    int tones = UserTones.of(width).all().length;
    float[] noisy = received(clean, 133e3 / width, 42, random, 1, tones * 78.125e3 / width);
    Outcome n = inChannel(width, noisy, 1);
    within(n, "evmWithout", 100 * Math.pow(10, -42.0 / 20));
    within(n, "frequencyError", 133e3);
    within(n, "clockOffset", 0);
  }

  /** 320 MHz of 4096-QAM; and its floor is low. */
  @Test
  public void theWidestPacketIsMeasured() {
    Random random = new Random(320);
    float[] clean = HeSent.eht(16, 13, 2, 4, random);
    float[] iq = received(clean, -133e3 / 16, 300, random, 1, 18.9e6);
    Outcome o = inChannel(16, iq, 1);
    assertTrue(o.summary().contains("EHT MCS 13, 4096-QAM 5/6, 4 symbols"), o.summary());
    assertEquals(value(o, "frequencyError"), -133e3, 20);
    assertTrue(value(o, "evmDb") < -90, o.summary());
    float[] noisy = received(clean, -133e3 / 16, 46, random, 1, 3984 * 78.125e3 / 16);
    Outcome n = inChannel(16, noisy, 1);
    within(n, "evmWithout", 100 * Math.pow(10, -46.0 / 20));
    within(n, "frequencyError", -133e3);
  }

  /** Another width than the packet has is a sentence. */
  @Test
  public void widthsThatDoNotFitAreToldSo() {
    Random random = new Random(4);
    float[] forty = received(HeSent.packet(2, 3, 3, 4, random), 0, 40, random, 1, 18.9e6);
    OfdmSettings low =
        new OfdmSettings(
            5.49e9, 20e6, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, null);
    Outcome o =
        new OfdmMeasurement(low)
            .of(new IqRecord(forty, 80e6, 5.5e9, 0, false), MeasurementContext.BARE);
    assertTrue(o.summary().contains("40 MHz wide: choose that channel"), o.summary());
    float[] legacy =
        received(LegacyPacket.samples(LegacyRate.R12, framed(random, 90), 3, 4), 0, 40, random);
    OfdmSettings wide =
        new OfdmSettings(
            5.51e9, 40e6, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, null);
    Outcome l =
        new OfdmMeasurement(wide)
            .of(new IqRecord(legacy, 80e6, 5.5e9, 0, false), MeasurementContext.BARE);
    assertTrue(l.summary().contains("20 MHz in the lowest part"), l.summary());
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
