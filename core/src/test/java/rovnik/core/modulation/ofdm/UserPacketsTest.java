package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.limits.LimitSet;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.uncertainty.InstrumentAccuracy;

/** Packets of one HE or EHT user that has the whole channel, made tone by tone. */
public class UserPacketsTest extends PacketBench {
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
    Random random = new Random(7);
    holds(
        160,
        new String[] {"evmWithout", "frequencyError", "clockOffset"},
        t -> {
          int mcs = random.nextInt(10);
          double limit = HeCodings.coding(mcs).errorLimitDb();
          double snr = Math.max(16, -limit + 5) + 10 * random.nextDouble();
          double hz = 200e3 * (2 * random.nextDouble() - 1);
          float[] clean = HeSent.packet(mcs, t % 4, 6 + random.nextInt(6), random);
          Outcome o = measured(received(clean, hz, snr, random, 1, 242 * 78.125e3), FS, 1);
          return new Trial(o, 100 * Math.pow(10, -snr / 20), hz, 0);
        });
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
    int tones = ResourceUnit.whole(width).all().length;
    float[] noisy = received(clean, 133e3 / width, 42, random, 1, tones * 78.125e3 / width);
    Outcome n = inChannel(width, noisy, 1);
    within(n, "evmWithout", 100 * Math.pow(10, -42.0 / 20));
    within(n, "frequencyError", 133e3);
    within(n, "clockOffset", 0);
  }

  /** Two errors that know nothing of each other add by their squares. */
  @Test
  public void theShareOfTheReceiverIsTold() {
    float[] iq = received(HeSent.packet(3, 3, 6, new Random(8)), 0, 40, new Random(9), 1, 18.9e6);
    for (double floor : new double[] {-50, -43, -30, Double.NaN}) {
      MeasurementContext context =
          new MeasurementContext(
              null, InstrumentAccuracy.UNKNOWN.withErrorFloor(floor), LimitSet.NONE, List.of());
      Outcome o =
          new OfdmMeasurement(settings(1)).of(new IqRecord(iq, FS, 5.5e9, 0, false), context);
      double evm = Math.pow(10, value(o, "evmDb") / 10);
      boolean told = floor < value(o, "evmDb");
      assertEquals(o.reading("receiverShare").isPresent(), told, o.summary());
      if (told) {
        double device = evm - Math.pow(10, floor / 10);
        assertEquals(value(o, "receiverShare"), 10 * Math.log10(evm / device), 1e-6);
      }
      assertEquals(o.summary().contains("may be the receiver's"), floor == -30, o.summary());
    }
  }

  /** Samples that come too quickly or too slowly, by a windowed sine quotient. */
  private static float[] atAnotherClock(float[] iq, double ppm) {
    int reach = 24;
    int n = iq.length / 2;
    float[] out = new float[iq.length];
    for (int i = 0; i < n; i++) {
      double at = i * (1 + ppm * 1e-6);
      int near = (int) Math.floor(at);
      for (int k = Math.max(0, near - reach + 1); k <= Math.min(n - 1, near + reach); k++) {
        double x = at - k;
        double sinc = Math.abs(x) < 1e-9 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
        double w = sinc * Math.pow(Math.cos(Math.PI * x / 2 / (reach + 1)), 2);
        out[2 * i] += (float) (w * iq[2 * k]);
        out[2 * i + 1] += (float) (w * iq[2 * k + 1]);
      }
    }
    return out;
  }

  /** The outermost tones turn by more than a point is wide within a symbol; no point is lost. */
  @Test
  public void aClockThatIsFarOffIsFoundInTheWidestChannel() {
    Random random = new Random(40);
    float[] clean = HeSent.eht(16, 13, 2, 12, random);
    int tones = ResourceUnit.whole(16).all().length;
    for (double ppm : new double[] {-40, 2.3, 40}) {
      float[] iq =
          received(atAnotherClock(clean, ppm), 280e3 / 16, 46, random, 1, tones * 78.125e3 / 16);
      Outcome o = inChannel(16, iq, 1);
      within(o, "clockOffset", ppm / (1 + ppm * 1e-6));
      within(o, "frequencyError", 280e3);
      within(o, "evmWithout", 100 * Math.pow(10, -46.0 / 20));
    }
    // With more noise than the points allow that is said.
    float[] iq = received(clean, 0, 30, random, 1, tones * 78.125e3 / 16);
    String summary = inChannel(16, iq, 1).summary();
    assertTrue(summary.contains("points are taken for others, the pilots have 4."), summary);
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
}
