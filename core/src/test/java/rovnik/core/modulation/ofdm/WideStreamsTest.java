package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** HT and VHT packets of one stream in 40, 80 and 160 MHz. */
public class WideStreamsTest extends PacketBench {
  private static Outcome inChannel(int width, float[] iq, double fs) {
    OfdmSettings s =
        new OfdmSettings(
            0, 20e6 * width, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, null);
    return new OfdmMeasurement(s)
        .of(new IqRecord(iq, fs, 5.5e9, 0, false), MeasurementContext.BARE);
  }

  /** Six packets made with NumPy alone: see fixtures/wide_streams.py. */
  @Test
  public void packetsOfOthersAreReadInTheirChannel() throws IOException {
    ByteBuffer b = ByteBuffer.wrap(resource("wide_streams.f32")).order(ByteOrder.LITTLE_ENDIAN);
    for (String line :
        new String(resource("wide_streams.txt"), StandardCharsets.US_ASCII).lines().toList()) {
      String[] words = line.split(" ");
      int width = Integer.parseInt(words[1]);
      float[] iq = new float[2 * Integer.parseInt(words[4])];
      b.asFloatBuffer().get(iq);
      b.position(b.position() + 4 * iq.length);
      Outcome o = inChannel(width, iq, 25e6 * width);
      assertTrue(o.summary().contains(words[0] + " MCS " + words[2] + ","), o.summary());
      // The frame that it holds ends with a check of its own.
      assertEquals(checkOf(o), "fits", line.substring(0, 12));
      assertEquals(said(o, "Width"), 20 * width + " MHz");
      assertTrue(said(o, "Guard").startsWith(words[3].equals("1") ? "short" : "800"));
      if (words[0].equals("VHT")) {
        int bytes = 4 + words[5].length() / 2;
        assertTrue(lengthOfB(o).startsWith((bytes + 3) / 4 * 4 + " bytes"), lengthOfB(o));
      }
      within(o, "frequencyError", 47_300);
      within(o, "clockOffset", -17.7);
      within(o, "evmWithout", 100 * Math.pow(10, -40.0 / 20));
    }
  }

  private static String lengthOfB(Outcome o) {
    return o.table("signal").orElseThrow().rows().stream()
        .map(r -> r.cells().get(2).text())
        .filter(t -> t.contains("rounded up"))
        .findFirst()
        .orElse("");
  }

  @DataProvider
  public Object[][] kinds() {
    List<Object[]> out = new ArrayList<>();
    for (int mcs = 0; mcs < 8; mcs++) {
      out.add(new Object[] {PacketFormat.HT, 2, mcs});
      out.add(new Object[] {PacketFormat.VHT, 8, mcs});
    }
    for (int mcs = 0; mcs < 10; mcs++) {
      out.add(new Object[] {PacketFormat.VHT, 2, mcs});
      out.add(new Object[] {PacketFormat.VHT, 4, mcs});
    }
    return out.toArray(new Object[0][]);
  }

  /** Without noise nothing but the computation is left, and all bytes come back. */
  @Test(dataProvider = "kinds")
  public void theFloorIsLow(PacketFormat format, int width, int mcs) {
    Random random = new Random(10 * width + mcs);
    byte[] frame = framed(random, 400 + 113 * mcs);
    MixedPacket made = new MixedPacket(format, 20e6 * width, mcs, mcs % 2 == 1, frame.length);
    float[] clean = made.samples(frame, 1 + random.nextInt(127), 2);
    assertEquals(made.seconds(20e6 * width) * 40e6 * width, clean.length / 2.0, 10 * width);
    // received() takes 40 MS/s: offset and width are so many times as much.
    Outcome o = inChannel(width, received(clean, 173e3 / width, 300, random), 40e6 * width);
    assertTrue(o.summary().contains(format.label() + " MCS " + mcs + ","), o.summary());
    assertEquals(checkOf(o), "fits", o.summary());
    assertTrue(value(o, "evmDb") < -75, o.summary());
    assertEquals(value(o, "frequencyError"), 173e3, 10);
    assertEquals(value(o, "clockOffset"), 0, 0.1);
    assertEquals(
        o.reading("evmDb").orElseThrow().limit().upper(),
        MixedTones.coding(true, width, mcs).errorLimitDb());
    assertTrue(o.table("mask").isPresent());
  }

  /** What is claimed holds as often as it is claimed: k = 2. */
  @Test
  public void theTruthLiesWithinWhatIsClaimed() {
    Random random = new Random(77);
    int[] widths = {2, 4, 8};
    holds(
        60,
        new String[] {"evmWithout", "frequencyError", "clockOffset"},
        t -> {
          int width = widths[t % 3];
          int mcs = random.nextInt(width == 8 ? 8 : 10);
          double snr = Math.max(18, 5 - MixedTones.coding(true, width, mcs).errorLimitDb());
          double hz = 200e3 * (2 * random.nextDouble() - 1);
          byte[] frame = framed(random, 300 + random.nextInt(1500));
          float[] clean =
              new MixedPacket(
                      PacketFormat.VHT, 20e6 * width, mcs, random.nextBoolean(), frame.length)
                  .samples(frame, 1 + random.nextInt(127), 2);
          double used = StreamTones.of(width).all().length * 312.5e3 / width;
          float[] iq = received(clean, hz / width, snr, random, 52.0 / 64 / 64, used);
          return new Trial(
              inChannel(width, iq, 40e6 * width), 100 * Math.pow(10, -snr / 20), hz, 0);
        });
  }

  /** Tables 19-6 and 21-5 of IEEE 802.11-2020: tones with data, and pilots; from memory. */
  @Test
  public void thereAreAsManyTonesAsTheStandardHas() {
    int[][] counts = {{1, 52, 4, 28}, {2, 108, 6, 58}, {4, 234, 8, 122}, {8, 468, 16, 250}};
    for (int[] c : counts) {
      StreamTones t = StreamTones.of(c[0]);
      assertEquals(t.data().length, c[1]);
      assertEquals(t.pilots().length, c[2]);
      assertEquals(t.all()[t.all().length - 1], c[3]);
      assertEquals(t.all().length, c[1] + c[2]);
    }
    // Rates of one stream with a guard of 800 ns: tables 19-27 to 21-38; from memory.
    assertEquals(MixedTones.coding(false, 2, 7).dataBits(108) / 4e-6, 135e6, 1);
    assertEquals(MixedTones.coding(true, 4, 9).dataBits(234) / 4e-6, 390e6, 1);
    assertEquals(MixedTones.coding(true, 8, 7).dataBits(468) / 4e-6, 585e6, 1);
  }

  /** Bits that two coders share are not decoded, and that is said; EVM is as ever. */
  @Test
  public void whatTwoCodersShareIsNotDecoded() {
    byte[] bits = VhtSignal.of(8, 9, 100, false, false).a().bits();
    VhtSignal own = VhtSignal.ofA(bits);
    assertEquals(own.unread(), "");
    assertEquals(own.interleaver(), null);
    assertEquals(own.coding().words(), "MCS 9, 256-QAM 5/6");
  }

  /** Image rejection is seen where tones are sent turned: those across have another turn. */
  @Test
  public void aMirrorImageIsFoundAmongTurnedTones() {
    for (int width : new int[] {1, 2, 4, 8}) {
      Random random = new Random(width);
      byte[] frame = framed(random, 3000);
      float[] clean =
          new MixedPacket(PacketFormat.VHT, 20e6 * width, 4, false, frame.length)
              .samples(frame, 3, 2);
      float g = (float) Math.pow(10, -30.0 / 20);
      for (int n = 0; n < clean.length; n += 2) {
        float x = clean[n];
        float y = clean[n + 1];
        clean[n] = x + g * x;
        clean[n + 1] = y - g * y;
      }
      Outcome o = inChannel(width, received(clean, 0, 300, random), 40e6 * width);
      assertEquals(value(o, "image"), -30, 0.3, o.summary());
      // All of it: were the turns a part of the channel, half would be left in 80 MHz. In 40 MHz
      // both halves are sent a quarter apart: images turn the pilots, and those all tones.
      ResultTable.Row cause = o.table("causes").orElseThrow().rows().get(0);
      assertTrue(cause.cells().get(0).text().startsWith("Mirror images"), cause.toString());
      assertTrue(cause.cells().get(1).value() > (width == 2 ? 70 : 99), cause.toString());
    }
  }

  @DataProvider
  public Object[][] leakages() {
    // Limits of 17.3.9.7.2, 19.3.18.7.2 and 21.3.17.4.2, from memory.
    return new Object[][] {
      {PacketFormat.LEGACY, 1, 30, -15},
      {PacketFormat.HT, 1, 30, -15},
      {PacketFormat.HT, 2, 30, -20},
      {PacketFormat.VHT, 4, 20, -32},
      {PacketFormat.VHT, 4, 3, -23},
      {PacketFormat.HE, 2, 11.9, -31.9},
      {PacketFormat.EHT, 16, 40, -32}
    };
  }

  @Test(dataProvider = "leakages")
  public void leakageHasTheLimitOfItsClause(
      PacketFormat format, int width, double sentDbm, double limitDb) {
    assertEquals(LeakageLimit.of(format, width, sentDbm).upper(), limitDb, 1e-9);
    boolean later = format != PacketFormat.LEGACY && format != PacketFormat.HT;
    assertEquals(LeakageLimit.of(format, width, Double.NaN) == Limit.NONE, later);
  }

  /** At a power that is known a carrier that leaks too much fails, at less power it does not. */
  @Test
  public void aCarrierThatLeaksFailsAtHighPower() {
    Random random = new Random(3);
    byte[] frame = framed(random, 2000);
    float[] clean =
        new MixedPacket(PacketFormat.VHT, 40e6, 4, false, frame.length).samples(frame, 3, 2);
    double power = 0;
    for (float v : clean) {
      power += v * v / (clean.length / 2.0);
    }
    float leak = (float) (Math.sqrt(power) * Math.pow(10, -30.0 / 20));
    for (int n = 0; n < clean.length; n += 2) {
      clean[n] += leak;
    }
    float[] iq = received(clean, 0, 50, random);
    OfdmSettings s =
        new OfdmSettings(0, 40e6, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, null);
    for (double sentDbm : new double[] {15, 5}) {
      double fullScale = sentDbm - 10 * Math.log10(power);
      Reading r =
          new OfdmMeasurement(s)
              .of(new IqRecord(iq, 80e6, 5.5e9, fullScale, false), MeasurementContext.BARE)
              .reading("leakage")
              .orElseThrow();
      assertEquals(r.value(), -30, 0.2);
      assertEquals(r.limit().upper(), Math.max(-32, -20 - sentDbm), 0.3);
      assertEquals(r.verdict(), sentDbm == 15 ? Verdict.FAIL : Verdict.PASS);
    }
  }

  /** Ends of the tones that must be flat within less: tables 19-22 and 21-23, from memory. */
  @Test
  public void innerTonesAreThoseOfTheWidth() {
    int[][] vht = {{1, 16, 17}, {2, 42, 43}, {4, 84, 85}, {8, 172, 173}, {8, 44, 43}};
    for (int[] v : vht) {
      assertTrue(PacketFormat.VHT.isInner(-v[1], v[0]));
      assertEquals(PacketFormat.VHT.isInner(v[2], v[0]), false);
    }
    assertTrue(PacketFormat.EHT.isInner(1720, 16));
    assertEquals(PacketFormat.EHT.isInner(1721, 16), false);
    assertEquals(PacketFormat.EHT.isInner(1024, 16), false);
  }

  /** What there is not is a sentence. */
  @Test
  public void whatIsNotMadeSaysWhy() {
    Object[][] wrong = {
      {PacketFormat.HT, 80e6, 3, "The channel is 20 or 40 MHz wide for HT."},
      {PacketFormat.VHT, 320e6, 3, "The channel is 20, 40, 80 or 160 MHz wide for VHT."},
      {PacketFormat.VHT, 160e6, 8, "VHT packets in 160 MHz are made with MCS 0 to 7."},
      {PacketFormat.VHT, 80e6, 10, "One VHT stream in 80 MHz has MCS 0 to 9."},
    };
    for (Object[] w : wrong) {
      Refusal r =
          expectThrows(
              Refusal.class,
              () -> new MixedPacket((PacketFormat) w[0], (double) w[1], (int) w[2], false, 100));
      assertEquals(r.getMessage(), w[3]);
    }
    // A packet of another width than the channel names its own.
    byte[] frame = framed(new Random(5), 200);
    float[] clean = new MixedPacket(PacketFormat.VHT, 40e6, 2, false, 200).samples(frame, 9, 4);
    float[] lower = new float[clean.length];
    for (int n = 0; n < clean.length / 2; n++) {
      // Its lower half in the middle.
      double c = Math.cos(2 * Math.PI * 10e6 / 160e6 * n);
      double s = Math.sin(2 * Math.PI * 10e6 / 160e6 * n);
      lower[2 * n] = (float) (clean[2 * n] * c - clean[2 * n + 1] * s);
      lower[2 * n + 1] = (float) (clean[2 * n] * s + clean[2 * n + 1] * c);
    }
    String summary = inChannel(1, lower, 160e6).summary();
    assertTrue(summary.contains("40 MHz wide: choose that channel"), summary);
  }
}
