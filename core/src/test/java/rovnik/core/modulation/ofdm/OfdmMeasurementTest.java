package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import java.util.zip.CRC32;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.wave.PacketPart;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Packets found, decoded and measured: those of others, and our own with known faults. */
public class OfdmMeasurementTest {
  private static final double FS = 40e6;
  private static final OfdmSettings USUAL = settings(1, OfdmSettings.Estimate.TRAINING);

  private static OfdmSettings settings(int packet, OfdmSettings.Estimate estimate) {
    return new OfdmSettings(0, 20e6, 0.1, 0, packet, estimate, true, false, null);
  }

  private static byte[] resource(String name) throws IOException {
    try (InputStream in = OfdmMeasurementTest.class.getResourceAsStream("/fixtures/" + name)) {
      return in.readAllBytes();
    }
  }

  private static Outcome measured(OfdmSettings settings, float[] iq, double fs) {
    return new OfdmMeasurement(settings)
        .of(new IqRecord(iq, fs, 5.5e9, 0, false), MeasurementContext.BARE);
  }

  private static double value(Outcome o, String id) {
    return o.reading(id).orElseThrow().value();
  }

  /** Half of the training's noise is in the channel, and a ninth of all comes with the pilots. */
  private static final double OWN_DB = 10 * Math.log10(1.5 * (1 + 44.0 / 52 / 8));

  private static void within(Outcome o, String id, double truth) {
    Reading r = o.reading(id).orElseThrow();
    // Readings of one seed: three standard deviations.
    assertEquals(r.value(), truth, 1.5 * r.uncertainty(), id);
  }

  private static byte[] framed(Random random, int bytes) {
    byte[] out = new byte[bytes];
    random.nextBytes(out);
    CRC32 sum = new CRC32();
    sum.update(out, 0, bytes - 4);
    for (int i = 0; i < 4; i++) {
      out[bytes - 4 + i] = (byte) (sum.getValue() >> 8 * i);
    }
    return out;
  }

  /** What the way does to a packet. */
  private record Way(double carrierHz, double snrDb, double leakDb, double before, double image) {
    Way(double carrierHz, double snrDb, double leakDb, double before) {
      this(carrierHz, snrDb, leakDb, before, 0);
    }
  }

  /** A packet at 40 MS/s with silence around it. */
  private static float[] received(LegacyRate rate, byte[] bytes, Way way, Random random) {
    float[] clean = LegacyPacket.samples(rate, bytes, 1 + random.nextInt(127), 2);
    int before = (int) (way.before() * FS);
    int n = clean.length / 2;
    float[] iq = new float[2 * (n + 2 * before)];
    double power = 52.0 / 64 / 64;
    double leak = Math.sqrt(power) * Math.pow(10, way.leakDb() / 20);
    // The noise of the signal to noise ratio lies in the 52 tones.
    double sigma = Math.sqrt(power * Math.pow(10, -way.snrDb() / 10) * FS / (52 * 312.5e3) / 2);
    for (int i = 0; i < iq.length / 2; i++) {
      double x = 0;
      double y = 0;
      if (i >= before && i < before + n) {
        // The image has a phase of its own: 0.6 - 0.8 j.
        double a = clean[2 * (i - before)];
        double b = clean[2 * (i - before) + 1];
        double p = a + leak + way.image() * (0.6 * a - 0.8 * b);
        double q = b - way.image() * (0.8 * a + 0.6 * b);
        double angle = 2 * Math.PI * way.carrierHz() * i / FS;
        x = p * Math.cos(angle) - q * Math.sin(angle);
        y = p * Math.sin(angle) + q * Math.cos(angle);
      }
      iq[2 * i] = (float) (x + sigma * random.nextGaussian());
      iq[2 * i + 1] = (float) (y + sigma * random.nextGaussian());
    }
    return iq;
  }

  /**
   * Three packets made with NumPy alone at 25 MS/s, with offsets, leakage and noise: see
   * fixtures/legacy_packets.py.
   */
  @Test
  public void packetsOfOthersAreDecodedAndMeasured() throws IOException {
    ByteBuffer b = ByteBuffer.wrap(resource("legacy_packets.f32")).order(ByteOrder.LITTLE_ENDIAN);
    float[] iq = new float[b.remaining() / 4];
    b.asFloatBuffer().get(iq);
    List<String> truth =
        new String(resource("legacy_packets.txt"), StandardCharsets.US_ASCII).lines().toList();
    ChannelSamples samples = new ChannelSamples(iq, 0, iq.length / 2, 25e6, 0, 20e6, 0.8);
    double[] re = new double[samples.count()];
    double[] im = new double[samples.count()];
    samples.read(0, 0, re, im);
    PacketFinder finder = new PacketFinder(re, im);
    PacketReader reader = new PacketReader(new Channels(samples, i -> samples), USUAL);
    PacketFinder.Found found = finder.next(0);
    for (int i = 0; i < 3; i++) {
      String[] words = truth.get(i).split(" ");
      OfdmPacket p = reader.read(found);
      found = finder.next(found.training() + p.end());
      assertEquals(p.check(), "");
      assertEquals(p.coding(), LegacyRate.ofMegabits(Integer.parseInt(words[0])).coding());
      assertEquals(HexFormat.of().formatHex(p.said().payload()), words[2]);
      assertEquals(p.startSeconds(), Double.parseDouble(words[1]), 0.1e-6);

      Outcome o = measured(settings(i + 1, OfdmSettings.Estimate.TRAINING), iq, 25e6);
      within(o, "frequencyError", 83_217);
      within(o, "clockOffset", -23.7);
      within(o, "leakage", -31);
      within(o, "evmWithout", 100 * Math.pow(10, -37.0 / 20));
      within(o, "evmDb", -37 + OWN_DB);
      assertEquals(value(o, "packets"), 3);
      assertEquals(value(o, "whole"), 3);
      within(o, "evmOfAll", 100 * Math.pow(10, (-37 + OWN_DB) / 20));
      StringBuilder all = new StringBuilder();
      for (ResultTable.Row r : o.table("payload").orElseThrow().rows()) {
        assertEquals(r.cells().get(0).value(), all.length() / 2.0);
        all.append(r.cells().get(1).text().replace(" ", ""));
      }
      assertEquals(all.toString(), words[2].substring(0, Math.min(1024, words[2].length())));
    }
    assertEquals(found, null);
    assertEquals(finder.others(), 0);
  }

  /** Without noise nothing but the computation is left. */
  @Test(dataProvider = "rates", dataProviderClass = LegacyPacketTest.class)
  public void theFloorIsLow(LegacyRate rate) {
    Random random = new Random(5);
    float[] iq = received(rate, framed(random, 1500), new Way(-221e3, 300, -300, 12.3e-6), random);
    Outcome o = measured(USUAL, iq, FS);
    assertTrue(value(o, "evmDb") < -70, "EVM " + value(o, "evmDb") + " dB");
    assertEquals(value(o, "frequencyError"), -221e3, 1);
    assertEquals(value(o, "clockOffset"), 0, 0.05);
    assertEquals(value(o, "whole"), 1);
  }

  /** What is claimed holds as often as it is claimed: k = 2. */
  @Test
  public void theTruthLiesWithinWhatIsClaimed() {
    int tries = 120;
    String[] ids = {"evmWithout", "frequencyError", "clockOffset", "leakage", "evmDb"};
    int[] inside = new int[ids.length];
    double[] ratio = new double[ids.length];
    Random random = new Random(77);
    for (int t = 0; t < tries; t++) {
      LegacyRate rate = LegacyRate.values()[random.nextInt(8)];
      double snr = Math.max(18, -rate.errorLimitDb() + 4) + 15 * random.nextDouble();
      double carrierHz = 200e3 * (2 * random.nextDouble() - 1);
      float[] iq =
          received(
              rate,
              framed(random, 60 + random.nextInt(400)),
              new Way(carrierHz, snr, -25, 10e-6),
              random);
      Outcome o = measured(USUAL, iq, FS);
      double[] truth = {100 * Math.pow(10, -snr / 20), carrierHz, 0, -25, -snr + OWN_DB};
      for (int i = 0; i < ids.length; i++) {
        Reading r = o.reading(ids[i]).orElseThrow();
        double off = Math.abs(r.value() - truth[i]) / r.uncertainty();
        inside[i] += off <= 1 ? 1 : 0;
        ratio[i] += off * off / tries;
      }
    }
    for (int i = 0; i < ids.length; i++) {
      assertTrue(inside[i] >= 0.9 * tries, ids[i] + " inside " + inside[i] + " of " + tries);
      // A quarter if the deviation is just the half of what is claimed.
      assertTrue(ratio[i] > 0.08, ids[i] + " claims too much: " + Math.sqrt(ratio[i]));
    }
  }

  /** Wherever a record begins, among packets and within one: all that are whole come whole. */
  @Test
  public void recordsMayBeginAnywhere() {
    Random random = new Random(12);
    int interval = 12_000;
    int samples = 30_000;
    double[] stream = new PacketPart(LegacyRate.R54, 1000, 300e-6, 20e6).make(4 * interval, FS);
    double lasts = LegacyPacket.seconds(LegacyRate.R54, 1000, 20e6) * FS;
    for (int begin = 0; begin < interval; begin += 83) {
      float[] iq = new float[2 * samples];
      for (int i = 0; i < iq.length; i++) {
        iq[i] = (float) (stream[2 * begin + i] + 1e-3 * random.nextGaussian());
      }
      int whole = 0;
      for (int at = 0; at < 4 * interval; at += interval) {
        // The reader leaves the last few samples, and sees packets without all of their training.
        whole += at >= begin && at + lasts + 80 <= begin + samples ? 1 : 0;
      }
      Outcome o = measured(USUAL, iq, FS);
      double found = value(o, "whole");
      assertTrue(found == whole || found == whole + 1, found + " of " + whole + " from " + begin);
      ResultTable list =
          o.tables().stream().filter(t -> t.id().equals("packets")).findFirst().orElseThrow();
      for (ResultTable.Row row : list.rows()) {
        String rate = row.cells().get(2).text();
        String check = row.cells().get(6).text();
        boolean ofThese =
            rate.equals("64-QAM 3/4") && (check.equals("fits") || check.startsWith("cut off"));
        assertTrue(ofThese || check.equals("cut off before SIGNAL ends"), rate + ": " + check);
      }
    }
  }

  /** A level that sinks and a phase that runs are followed by pilots, or shown as errors. */
  @Test
  public void whatIsTrackedIsNoError() {
    Random random = new Random(21);
    float[] iq = received(LegacyRate.R24, framed(random, 600), new Way(0, 45, -60, 10e-6), random);
    int n = iq.length / 2;
    for (int i = 0; i < n; i++) {
      double level = 1 - 0.1 * i / n;
      // A slow swing: no offset takes it away.
      double angle = 0.08 * Math.sin(2 * Math.PI * 9e3 * i / FS);
      double x = level * (iq[2 * i] * Math.cos(angle) - iq[2 * i + 1] * Math.sin(angle));
      iq[2 * i + 1] =
          (float) (level * (iq[2 * i] * Math.sin(angle) + iq[2 * i + 1] * Math.cos(angle)));
      iq[2 * i] = (float) x;
    }
    double[] evm = new double[4];
    for (int i = 0; i < 4; i++) {
      OfdmSettings with =
          new OfdmSettings(
              0, 20e6, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, (i & 1) == 1, (i & 2) == 2, null);
      evm[i] = value(measured(with, iq, FS), "evm");
    }
    assertTrue(evm[3] < 1, "both: " + evm[3]);
    assertTrue(evm[1] > 3, "phase alone: " + evm[1]);
    assertTrue(evm[2] > 3, "level alone: " + evm[2]);
    assertTrue(evm[0] > Math.max(evm[1], evm[2]), "neither: " + evm[0]);
  }

  /** Half and a quarter of the channel are the same packets, more slowly. */
  @Test
  public void narrowerChannels() {
    Random random = new Random(22);
    float[] iq =
        received(LegacyRate.R36, framed(random, 90), new Way(40e3, 40, -30, 10e-6), random);
    for (int slower : new int[] {2, 4}) {
      OfdmSettings narrow =
          new OfdmSettings(
              0, 20e6 / slower, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, null);
      Outcome o = measured(narrow, iq, FS / slower);
      within(o, "evmDb", -40 + OWN_DB);
      within(o, "frequencyError", 40e3 / slower);
      assertEquals(value(o, "whole"), 1);
    }
  }

  /** An echo a sample later, 0.2 as strong: |1 + 0.2 exp(-j w)|, in closed form. */
  @Test
  public void flatnessIsThatOfTheWay() {
    Random random = new Random(23);
    float[] iq = received(LegacyRate.R12, framed(random, 100), new Way(0, 60, -60, 10e-6), random);
    for (int i = iq.length - 1; i >= 2; i--) {
      iq[i] += 0.2f * iq[i - 2];
    }
    Outcome o = measured(USUAL, iq, FS);
    assertTrue(value(o, "evmDb") < -50, "the channel takes it: " + value(o, "evmDb"));
    double[] truth = new double[53];
    double mean = 0;
    for (int k = -26; k <= 26; k++) {
      double w = 2 * Math.PI * k / 128;
      truth[k + 26] = 1.04 + 0.4 * Math.cos(w);
      mean += k != 0 && Math.abs(k) <= 16 ? truth[k + 26] / 32 : 0;
    }
    double[] y = o.series("flatness").orElseThrow().y();
    for (int k = -26; k <= 26; k++) {
      if (k != 0) {
        assertEquals(y[k + 26], 10 * Math.log10(truth[k + 26] / mean), 0.05, "tone " + k);
      }
    }
  }

  /** The level of a record changes nothing but levels. */
  @Test
  public void anyLevelWillDo() {
    Random random = new Random(24);
    float[] iq = received(LegacyRate.R54, framed(random, 300), new Way(0, 40, -60, 10e-6), random);
    double usual = value(measured(USUAL, iq, FS), "evm");
    for (float factor : new float[] {1e-12f, 1e12f}) {
      float[] other = iq.clone();
      for (int i = 0; i < other.length; i++) {
        other[i] *= factor;
      }
      Outcome o = measured(USUAL, other, FS);
      assertEquals(value(o, "evm"), usual, 1e-3 * usual);
      assertEquals(value(o, "whole"), 1);
    }
  }

  /** An image shows in the data as it was made, though the training has it as well. */
  @Test
  public void theMirrorImageIsKnown() {
    Random random = new Random(6);
    int inside = 0;
    for (int t = 0; t < 40; t++) {
      double imageDb = -22 - random.nextInt(15);
      Way way = new Way(3e3, 38, -40, 10e-6, Math.pow(10, imageDb / 20));
      float[] iq = received(LegacyRate.R24, framed(random, 200), way, random);
      Reading r = measured(USUAL, iq, FS).reading("image").orElseThrow();
      inside += Math.abs(r.value() - imageDb) <= r.uncertainty() + 0.05 ? 1 : 0;
    }
    assertTrue(inside >= 36, inside + " of 40");
  }

  /** At 10 dB nearly all packets are found and decoded, and noise has none. */
  @Test
  public void packetsAreFoundInNoiseAndNoneAreInvented() {
    Random random = new Random(10);
    int whole = 0;
    int tries = 200;
    for (int t = 0; t < tries; t++) {
      double carrierHz = 280e3 * (2 * random.nextDouble() - 1);
      float[] iq =
          received(
              LegacyRate.R12,
              framed(random, 100),
              new Way(carrierHz, 10, -40, 30e-6 * (0.5 + random.nextDouble())),
              random);
      whole += value(measured(USUAL, iq, FS), "whole") == 1 ? 1 : 0;
    }
    assertTrue(whole >= tries - 1, whole + " of " + tries);
    double[] re = new double[4_000_000];
    double[] im = new double[re.length];
    for (int i = 0; i < re.length; i++) {
      re[i] = random.nextGaussian();
      im[i] = random.nextGaussian();
    }
    PacketFinder finder = new PacketFinder(re, im);
    assertEquals(finder.next(0), null);
    assertEquals(finder.others(), 0);
  }

  /** Training and data together make the channel's own share small. */
  @Test
  public void trainingAndDataEstimateTheChannelBetter() {
    Random random = new Random(3);
    float[] iq = received(LegacyRate.R24, framed(random, 1000), new Way(0, 35, -60, 10e-6), random);
    double plain = value(measured(USUAL, iq, FS), "evm");
    Outcome o = measured(settings(1, OfdmSettings.Estimate.TRAINING_AND_DATA), iq, FS);
    assertEquals(20 * Math.log10(plain / value(o, "evm")), 10 * Math.log10(1.5), 0.15);
    assertTrue(
        o.reading("evmDb").orElseThrow().marks().contains("not as the standard measures it"));
  }

  private static Refusal refused(OfdmSettings settings, float[] iq, double fs) {
    return expectThrows(Refusal.class, () -> measured(settings, iq, fs));
  }

  @Test
  public void whatIsNoPacketIsSaid() {
    Random random = new Random(8);
    float[] iq = received(LegacyRate.R54, framed(random, 600), new Way(0, 30, -60, 50e-6), random);
    assertEquals(refused(settings(2, OfdmSettings.Estimate.TRAINING), iq, FS).field(), "packet");
    assertEquals(refused(USUAL, iq, 15e6).field(), "channelHz");
    assertTrue(refused(USUAL, new float[40_000], FS).getMessage().contains("all samples are 0"));
    float[] noise = new float[40_000];
    for (int i = 0; i < noise.length; i++) {
      noise[i] = (float) random.nextGaussian();
    }
    assertTrue(refused(USUAL, noise, FS).getMessage().contains("even power"));
    for (int i = 0; i < 20_000; i++) {
      noise[i] *= 30;
    }
    assertTrue(refused(USUAL, noise, FS).getMessage().contains("comes and goes by"));
    float[] tone = new float[40_000];
    for (int i = 0; i < 20_000; i++) {
      tone[2 * i] = (float) Math.cos(0.3 * i);
      tone[2 * i + 1] = (float) Math.sin(0.3 * i);
    }
    assertTrue(refused(USUAL, tone, FS).getMessage().contains("no long training follows"));

    // A packet that the record cuts off is measured as far as it goes, and says so.
    float[] cut = java.util.Arrays.copyOf(iq, iq.length - 2 * 4500);
    Outcome o = measured(USUAL, cut, FS);
    assertEquals(value(o, "whole"), 0);
    assertTrue(o.summary().contains("cut off"), o.summary());
  }
}
