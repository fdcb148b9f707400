package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Random;
import org.jtransforms.fft.DoubleFFT_1D;
import org.testng.annotations.Test;
import rovnik.core.emission.EmissionMask;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.Series;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** What packets have on the air: mask, width, peaks, response over time. */
public class PacketSpectrumTest {
  private static final double FS = 80e6;
  private static final int TIMES = 4;
  private static final LegacyRate RATE = LegacyRate.ofMegabits(12);
  private static final double POWER = 52.0 / 64 / 64;

  /** Samples of a Hann window whose 3-dB width is 100 kHz: 1.4406 bins. */
  private static final int WINDOW = (int) Math.rint(1.4406 * FS / 100e3);

  private static final int TRANSFORM = 2048;

  private static OfdmSettings settings() {
    return PacketBench.settings(1);
  }

  private static Outcome measured(float[] iq) {
    return new OfdmMeasurement(settings())
        .of(new IqRecord(iq, FS, 5.5e9, 0, false), MeasurementContext.BARE);
  }

  private static Reading reading(Outcome o, String id) {
    return o.reading(id).orElseThrow();
  }

  private static float[] packet(Random random, int bytes) {
    return LegacyPacket.samples(
        RATE, PacketBench.framed(random, bytes), 1 + random.nextInt(127), TIMES);
  }

  /** An amplifier that takes from its peaks: what it makes lies beside the channel. */
  private static float[] bent(float[] x, double share) {
    float[] y = x.clone();
    for (int n = 0; n < y.length; n += 2) {
      double p = (x[n] * x[n] + x[n + 1] * x[n + 1]) / POWER;
      y[n] *= (float) (1 - share * p);
      y[n + 1] *= (float) (1 - share * p);
    }
    return y;
  }

  /** Packets with quiet between them, over a floor of noise. */
  private static float[] onAir(List<float[]> packets, double floorDb, Random random) {
    int gap = (int) (40e-6 * FS);
    int count = gap;
    for (float[] p : packets) {
      count += p.length / 2 + gap;
    }
    float[] iq = new float[2 * count];
    double sigma = Math.sqrt(POWER * Math.pow(10, floorDb / 10) / 2);
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) (sigma * random.nextGaussian());
    }
    int at = gap;
    for (float[] p : packets) {
      for (int i = 0; i < p.length; i++) {
        iq[2 * at + i] += p[i];
      }
      at += p.length / 2 + gap;
    }
    return iq;
  }

  /** Density over frequency of many packets, by an average of our own. */
  private static double[] density(int packets, double share) {
    double[] sum = new double[TRANSFORM];
    Random random = new Random(5);
    DoubleFFT_1D fft = new DoubleFFT_1D(TRANSFORM);
    for (int t = 0; t < packets; t++) {
      float[] x = bent(packet(random, 1000), share);
      for (int at = 0; at + WINDOW <= x.length / 2; at += WINDOW / 2) {
        double[] w = new double[2 * TRANSFORM];
        for (int n = 0; n < WINDOW; n++) {
          double hann = 0.5 - 0.5 * Math.cos(2 * Math.PI * (n + 0.5) / WINDOW);
          w[2 * n] = hann * x[2 * (at + n)];
          w[2 * n + 1] = hann * x[2 * (at + n) + 1];
        }
        fft.complexForward(w);
        for (int k = 0; k < TRANSFORM; k++) {
          sum[(k + TRANSFORM / 2) % TRANSFORM] += w[2 * k] * w[2 * k] + w[2 * k + 1] * w[2 * k + 1];
        }
      }
    }
    return sum;
  }

  /** IEEE 802.11-2020, 17.3.9.3, in dBr over the offset; from memory. */
  private static double limit(double hz) {
    double[] at = {9e6, 11e6, 20e6, 30e6, 1e9};
    double[] dbr = {0, -20, -28, -40, -40};
    for (int i = 0; i < 4; i++) {
      if (hz <= at[i + 1]) {
        return dbr[i] + (hz - at[i]) / (at[i + 1] - at[i]) * (dbr[i + 1] - dbr[i]);
      }
    }
    return Double.NaN;
  }

  /** The margin of such a density: its densest place is 0 dBr. */
  private static double margin(double[] density) {
    double highest = 0;
    for (double v : density) {
      highest = Math.max(highest, v);
    }
    double worst = 1e9;
    for (int k = 0; k < TRANSFORM; k++) {
      double hz = Math.abs((k - TRANSFORM / 2) * FS / TRANSFORM);
      if (hz >= 9e6) {
        worst = Math.min(worst, limit(hz) - 10 * Math.log10(density[k] / highest));
      }
    }
    return worst;
  }

  /** The claim of a margin, where an amplifier spoils what is beside the channel. */
  @Test
  public void theMarginOfTheMaskIsAsClaimed() {
    double share = 0.06;
    double truth = margin(density(120, share));
    assertTrue(truth > 0.5 && truth < 12, "a margin that tells: " + truth);
    PacketBench.holds(
        40,
        new String[] {"maskMargin"},
        t -> {
          Random random = new Random(100 + t);
          List<float[]> sent =
              List.of(bent(packet(random, 600), share), bent(packet(random, 900), share));
          Outcome o = measured(onAir(sent, -60, random));
          return new PacketBench.Trial(o, truth);
        });
  }

  /** Noise of a known density beside the channel: the limit is where the standard has it. */
  @Test
  public void aNeighbourFailsWhereTheStandardHasIt() {
    Random random = new Random(7);
    float[] own = packet(random, 1500);
    // White in 24 to 26 MHz, where -32.8 to -35.2 dBr are allowed; 312.5 kHz of a tone are 0 dBr.
    float[] neighbour = band(random, own.length / 2, 24e6, 26e6, -30);
    float[] sum = own.clone();
    for (int i = 0; i < sum.length; i++) {
      sum[i] += neighbour[i];
    }
    Outcome o = measured(onAir(List.of(sum), -70, random));
    Reading r = reading(o, "maskMargin");
    // By the ripple between tones 0 dBr is up to 1.4 dB above their mean density.
    assertTrue(r.value() < -35.2 + 30 + 1.5 && r.value() > -35.2 + 30 - 2, "" + r.value());
    assertEquals(r.verdict(), Verdict.FAIL);
    assertTrue(r.label().contains("+2"), r.label());
    assertTrue(o.table("mask").orElseThrow().rows().size() >= 8);
  }

  /** What is there without the packets, too, is not theirs. */
  @Test
  public void whatIsThereAnywayIsNotJudged() {
    Random random = new Random(8);
    float[] iq = onAir(List.of(packet(random, 1500)), -70, random);
    float[] other = band(random, iq.length / 2, 24e6, 26e6, -30);
    for (int i = 0; i < iq.length; i++) {
      iq[i] += other[i];
    }
    Outcome o = measured(iq);
    Reading r = reading(o, "maskMargin");
    assertEquals(r.marks(), List.of("as high without the signal"));
    assertEquals(r.verdict(), Verdict.INVALID);
    assertTrue(o.series("between").isPresent());
  }

  /** A failure of the signal's own is told, though what is there anyway seems to be worse. */
  @Test
  public void itsOwnFailureGoesFirst() {
    Random random = new Random(13);
    float[] own = packet(random, 1500);
    float[] neighbour = band(random, own.length / 2, -17e6, -15e6, -18);
    for (int i = 0; i < own.length; i++) {
      own[i] += neighbour[i];
    }
    float[] iq = onAir(List.of(own), -70, random);
    float[] other = band(random, iq.length / 2, 24e6, 26e6, -20);
    for (int i = 0; i < iq.length; i++) {
      iq[i] += other[i];
    }
    Reading r = reading(measured(iq), "maskMargin");
    assertEquals(r.verdict(), Verdict.FAIL);
    assertTrue(r.label().contains("\u2212"), r.label());
    assertEquals(r.marks(), List.of());
  }

  /** Noise in a band, over the density of tones in 20 MHz. */
  private static float[] band(Random random, int samples, double low, double high, double db) {
    float[] out = new float[2 * samples];
    int lines = 400;
    double power = POWER / 52 / 312.5e3 * (high - low) * Math.pow(10, db / 10);
    for (int l = 0; l < lines; l++) {
      double hz = low + (high - low) * random.nextDouble();
      double phase = 2 * Math.PI * random.nextDouble();
      double a = Math.sqrt(power / lines);
      for (int n = 0; n < samples; n++) {
        double angle = phase + 2 * Math.PI * hz * n / FS;
        out[2 * n] += (float) (a * Math.cos(angle));
        out[2 * n + 1] += (float) (a * Math.sin(angle));
      }
    }
    return out;
  }

  /** Of a record that does not hold all of the mask it is said how far it was seen. */
  @Test
  public void aMaskBeyondTheRecordIsSaid() {
    Random random = new Random(9);
    float[] clean = LegacyPacket.samples(RATE, PacketBench.framed(random, 500), 5, 2);
    Outcome o = PacketBench.measured(PacketBench.received(clean, 0, 50, random), 40e6, 1);
    Reading r = reading(o, "maskMargin");
    assertTrue(
        r.label().startsWith("Mask to \u00b119.9") || r.label().contains("20 MHz"), r.label());
    assertEquals(r.verdict(), Verdict.PASS);
    o.table("mask").orElseThrow().rows().stream()
        .mapToDouble(x -> Math.abs(x.cells().get(1).value()))
        .forEach(hz -> assertTrue(hz < 20.01e6, "beyond is unseen: " + hz));
  }

  /** The peaks of the curve through 32 samples for each of the channel. */
  @Test
  public void peaksAreThoseOfTheCurve() {
    for (int t = 0; t < 6; t++) {
      byte[] bytes = PacketBench.framed(new Random(20 + t), 200);
      float[] fine = LegacyPacket.samples(RATE, bytes, 7, 32);
      // Behind preamble and SIGNAL: 20 us.
      double highest = 0;
      double sum = 0;
      int from = 400 * 32;
      int to = fine.length / 2 - 64;
      for (int n = from; n < to; n++) {
        double p = fine[2 * n] * fine[2 * n] + fine[2 * n + 1] * fine[2 * n + 1];
        highest = Math.max(highest, p);
        sum += p / (to - from);
      }
      Random random = new Random(40 + t);
      Outcome o =
          measured(onAir(List.of(LegacyPacket.samples(RATE, bytes, 7, TIMES)), -60, random));
      Reading r = reading(o, "crest");
      assertEquals(r.value(), 10 * Math.log10(highest / sum), 0.1 + r.uncertainty());
      Series ccdf = o.series("ccdf").orElseThrow();
      // OFDM is nearly noise: exp(-2) is above the mean by 3 dB.
      assertEquals(ccdf.y()[30], 100 * Math.exp(-Math.pow(10, 0.3)), 2.5);
    }
  }

  /** As wide as 52 tones, and a little. */
  @Test
  public void theOccupiedWidthIsThatOfTheTones() {
    double[] density = density(60, 0);
    double all = 0;
    for (double v : density) {
      all += v;
    }
    double below = 0;
    double low = Double.NaN;
    double high = Double.NaN;
    for (int k = 0; k < TRANSFORM; k++) {
      below += density[k];
      double hz = (k + 0.5 - TRANSFORM / 2.0) * FS / TRANSFORM;
      low = Double.isNaN(low) && below > 0.005 * all ? hz : low;
      high = Double.isNaN(high) && below > 0.995 * all ? hz : high;
    }
    Random random = new Random(11);
    Reading r =
        reading(measured(onAir(List.of(packet(random, 1500)), -70, random)), "occupiedBandwidth");
    assertEquals(r.value(), high - low, 1.5 * r.uncertainty());
    assertEquals(r.value(), 16.6e6, 0.3e6, "common practice for these packets");
  }

  /** An echo stands where it comes, as high as it is. */
  @Test
  public void anEchoIsSeen() {
    Random random = new Random(12);
    float[] x = packet(random, 400);
    float[] y = x.clone();
    int late = (int) Math.rint(300e-9 * FS);
    for (int n = late; n < x.length / 2; n++) {
      y[2 * n] += (float) (0.25 * x[2 * (n - late) + 1]);
      y[2 * n + 1] -= (float) (0.25 * x[2 * (n - late)]);
    }
    Series s = measured(onAir(List.of(y), -60, random)).series("response").orElseThrow();
    assertEquals(s.valueAt(0), 0, 0.1);
    assertEquals(s.valueAt(300e-9), 20 * Math.log10(0.25), 0.4);
    assertTrue(s.valueAt(-150e-9) < -30 && s.valueAt(150e-9) < -30);
    assertFalse(Double.isNaN(s.valueAt(700e-9)));
  }

  /** Corners of the masks over 20 to 320 MHz, all from memory, in MHz and dBr. */
  @Test
  public void masksAreThoseOfTheStandard() {
    check(PacketFormat.LEGACY, 20, 5.5, 9, 11, 20, 30, -40);
    check(PacketFormat.LEGACY, 10, 5.9, 4.5, 5.5, 10, 15, -40);
    check(PacketFormat.LEGACY, 5, 5.9, 2.25, 2.75, 5, 7.5, -40);
    check(PacketFormat.HT, 20, 2.412, 9, 11, 20, 30, -45);
    check(PacketFormat.HT, 20, 5.5, 9, 11, 20, 30, -40);
    check(PacketFormat.VHT, 20, 5.5, 9, 11, 20, 30, -40);
    check(PacketFormat.HE, 20, 5.5, 9.75, 10.5, 20, 30, -40);
    check(PacketFormat.HE, 40, 5.5, 19.5, 20.5, 40, 60, -40);
    check(PacketFormat.HE, 80, 5.5, 39.5, 40.5, 80, 120, -40);
    check(PacketFormat.EHT, 160, 6.1, 79.5, 80.5, 160, 240, -40);
    check(PacketFormat.EHT, 320, 6.1, 159.5, 160.5, 320, 480, -40);
  }

  private static void check(
      PacketFormat format,
      double mhz,
      double ghz,
      double full,
      double step,
      double one,
      double last,
      double lowest) {
    EmissionMask mask = StandardMask.of(format, 1e6 * mhz, 1e9 * ghz, 2e6 * mhz, 0);
    double[] at = {full, step, one, last, 2 * mhz};
    double[] dbr = {0, -20, -28, lowest, lowest};
    assertEquals(mask.segments().size(), 4);
    for (int i = 0; i < 4; i++) {
      EmissionMask.Segment s = mask.segments().get(i);
      assertEquals(s.fromHz(), 1e6 * at[i], 1);
      assertEquals(s.toHz(), 1e6 * at[i + 1], 1);
      assertEquals(s.fromDbc(), dbr[i], 1e-9);
      assertEquals(s.toDbc(), dbr[i + 1], 1e-9);
    }
  }
}
