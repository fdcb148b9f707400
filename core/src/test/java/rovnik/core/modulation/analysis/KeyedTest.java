package rovnik.core.modulation.analysis;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Random;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.Causes;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Framing;
import rovnik.core.modulation.Modulator;
import rovnik.core.modulation.Payload;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.modulation.Waveform;
import rovnik.core.signal.BandTaker;

/** Carriers whose frequency is keyed. */
public class KeyedTest {
  private static final double RATE = 10e3;
  static final PulseShape RECTANGLE = new PulseShape(PulseShape.Kind.RECTANGULAR, 0);

  private static PulseShape gaussian(double bt) {
    return new PulseShape(PulseShape.Kind.GAUSSIAN, bt);
  }

  static SingleCarrier carrier(Format format, PulseShape filter, double deviation) {
    return new SingleCarrier(
        format,
        RATE,
        filter,
        List.of(),
        Payload.of(Prbs.PN9),
        Framing.NONE,
        format.minimumShift() ? 0 : deviation * RATE);
  }

  private static double[] levels(SingleCarrier c, Random random, int count) {
    Constellation points = c.constellation();
    return random
        .ints(count, 0, points.size())
        .mapToDouble(v -> points.re(v) / points.largest())
        .toArray();
  }

  private record Made(KeyedRecovery recovery, Symbols symbols) {}

  private static Made recover(SingleCarrier c, float[] iq, double samplesPerSymbol) {
    double fs = RATE * samplesPerSymbol;
    int samples = iq.length / 2;
    BandTaker taker = new BandTaker(iq, 0, samples, fs);
    KeyedRecovery r = new KeyedRecovery(c, c.matched(), taker, samples, fs);
    return new Made(r, r.recover(0, 0.4 * RATE, 5000));
  }

  @DataProvider
  public Object[][] carriers() {
    return new Object[][] {
      {carrier(Format.MSK, RECTANGLE, 0)},
      {carrier(Format.GMSK, gaussian(0.3), 0)},
      {carrier(Format.GMSK, gaussian(0.5), 0)},
      {carrier(Format.FSK2, RECTANGLE, 0.5)},
      {carrier(Format.FSK2, gaussian(0.5), 0.32)},
      {carrier(Format.FSK4, RECTANGLE, 0.75)},
      {carrier(Format.FSK4, PulseShape.rootRaisedCosine(0.2), 0.4)},
      {carrier(Format.FSK8, RECTANGLE, 1.75)},
    };
  }

  /** Arbitrary delay, phase, level and frequency, a deviation 3 % off: 70 dB down. */
  @Test(dataProvider = "carriers")
  public void theFloor(SingleCarrier c) {
    Random random = new Random(c.words().hashCode());
    double deviation = 1.03 * c.deviation();
    for (double sps : new double[] {12, 9.3}) {
      Carriers.Faults f = new Carriers.Faults();
      f.delaySymbols = random.nextDouble();
      f.phase = 6 * random.nextDouble();
      f.frequency = (random.nextDouble() - 0.5) * 0.19;
      f.level = Math.pow(10, -3 * random.nextDouble());
      f.clockPpm = 20 * (random.nextDouble() - 0.5);
      double[] levels = levels(c, random, 1400);
      float[] iq =
          c.filter().equals(RECTANGLE)
              ? KeyedCarriers.clean(levels, c.filter(), deviation, sps, f, random)
              : KeyedCarriers.make(levels, c.filter(), deviation, sps, f, random);
      Made m = recover(c, iq, sps);
      String which = c.words() + " at " + sps;
      Keying k = m.recovery().keying(20, 8);
      double db = 10 * Math.log10(m.symbols().meanSquare());
      assertEquals(m.symbols().frequencyHz() / RATE, f.frequency, 1e-5, which);
      assertEquals(k.deviationHz() / RATE, deviation, 1e-4 * deviation, which);
      assertEquals(m.symbols().symbolRateHz() / RATE - 1, f.clockPpm * 1e-6, 2e-7, which);
      assertTrue(k.error() < 2e-3, which + ": FSK error " + k.error());
      assertTrue(db < -70, which + ": " + db);
      assertEquals(m.recovery().power(m.symbols()), f.level * f.level, 1e-3 * f.level * f.level);
    }
  }

  /** What the modulator makes is what the trials' own maker makes; known data are found. */
  @Test(dataProvider = "carriers")
  public void madeAndRead(SingleCarrier c) {
    Waveform w = new Modulator(c, 16 * RATE).make(1200);
    Made m = recover(c, w.iq(), 16);
    assertTrue(10 * Math.log10(m.symbols().meanSquare()) < -70);
    KnownData d = KnownData.in(c, m.symbols().values()).orElseThrow();
    assertEquals(d.errors(), 0);
  }

  /** Noise and deviation within their own uncertainties, seeded. */
  @Test
  public void inNoise() {
    SingleCarrier c = carrier(Format.GMSK, gaussian(0.5), 0);
    Random random = new Random(5);
    int inside = 0;
    double spread = 0;
    int trials = 60;
    for (int t = 0; t < trials; t++) {
      Carriers.Faults f = new Carriers.Faults();
      f.noiseDb = -18;
      f.frequency = 0.03;
      float[] iq = KeyedCarriers.make(levels(c, random, 500), c.filter(), 0.25, 8, f, random);
      Made m = recover(c, iq, 8);
      Keying k = m.recovery().keying(20, 8);
      double off = k.deviationHz() / RATE - 0.25;
      inside += Math.abs(off) < 2 * k.deviationStandardHz() / RATE ? 1 : 0;
      spread += Math.pow(off / (k.deviationStandardHz() / RATE), 2) / trials;
    }
    assertTrue(inside >= 52, inside + " inside");
    assertTrue(spread > 0.5 && spread < 1.6, "spread " + spread);
  }

  /** Whole turns: the ends lie on one line, so another instant tells gain from imbalance. */
  @Test
  public void wholeTurnsTellTheirCauses() {
    SingleCarrier c = carrier(Format.FSK2, RECTANGLE, 0.5);
    float[] iq = new Modulator(c, 16 * RATE).make(1200).iq();
    Made clean = recover(c, iq, 16);
    ErrorCauses.Split none = new ErrorCauses(c, c.matched(), clean.symbols()).split();
    double named = none.all().causes().stream().mapToDouble(Causes.Cause::meanSquare).sum();
    assertTrue(
        named < 1.2 * none.all().meanSquare(),
        "shares add up to " + named / none.all().meanSquare());
    for (int n = 0; n < iq.length; n += 2) {
      iq[n] *= 1.02f;
    }
    Made spoilt = recover(c, iq, 16);
    ErrorCauses.Split split = new ErrorCauses(c, c.matched(), spoilt.symbols()).split();
    double image = 0;
    for (Causes.Cause cause : split.all().causes()) {
      boolean ofImage = cause.id().equals("imbalance") || cause.id().equals("quadrature");
      image += ofImage ? cause.meanSquare() : 0;
    }
    // Half of 2 % of the amplitude is the image.
    assertEquals(Math.sqrt(image), 0.01, 0.0005);
    assertTrue(
        image > 0.95 * split.all().meanSquare(), "share " + image / split.all().meanSquare());
    SingleCarrier least = carrier(Format.GMSK, gaussian(0.3), 0);
    Refusal r = expectThrows(Refusal.class, () -> recover(least, iq, 16));
    assertTrue(r.getMessage().contains("does not fit"), r.getMessage());
  }

  /** Carriers, Eb/N0, and the share of symbols that are wrong in theory. */
  @DataProvider
  public Object[][] weak() {
    NormalDistribution normal = new NormalDistribution(0, 1);
    java.util.function.DoubleUnaryOperator q =
        db -> normal.cumulativeProbability(-Math.pow(10, db / 20));
    double twice = 10 * Math.log10(2);
    return new Object[][] {
      {carrier(Format.MSK, RECTANGLE, 0), 6.0, 2 * q.applyAsDouble(6 + twice), 1.0},
      {carrier(Format.MSK, RECTANGLE, 0), 8.0, 2 * q.applyAsDouble(8 + twice), 1.0},
      {carrier(Format.GMSK, gaussian(0.5), 0), 7.0, 2 * q.applyAsDouble(7 + twice), 1.4},
      {carrier(Format.GMSK, gaussian(0.3), 0), 7.0, 2 * q.applyAsDouble(6.5 + twice), 1.4},
      {carrier(Format.FSK2, RECTANGLE, 0.5), 7.0, q.applyAsDouble(7), 1.0},
      {carrier(Format.FSK2, RECTANGLE, 0.5), 9.0, q.applyAsDouble(9), 1.0},
    };
  }

  /**
   * In strong noise as many symbols are wrong as of a phase that is known: 2 Q(sqrt(2 Eb/N0)) of
   * MSK whose symbols are the frequency, Q(sqrt(Eb/N0)) of two frequencies a symbol rate apart
   * (Proakis; from memory); Gaussian filters cost up to 0.5 dB (Murota and Hirade 1981, from
   * memory).
   */
  @Test(dataProvider = "weak")
  public void weakCarriersAreDecidedByPhase(
      SingleCarrier c, double ebN0Db, double wrong, double most) {
    Random random = new Random((long) (100 * wrong) + c.format().ordinal());
    long errors = 0;
    long symbols = 0;
    for (int trial = 0; trial < 3; trial++) {
      Carriers.Faults f = new Carriers.Faults();
      f.noiseDb = -ebN0Db;
      f.frequency = 0.1 * (random.nextDouble() - 0.5);
      f.delaySymbols = random.nextDouble();
      double[] levels = levels(c, random, 4000);
      float[] iq = KeyedCarriers.make(levels, c.filter(), c.deviation(), 8, f, random);
      Symbols s = recover(c, iq, 8).symbols();
      assertEquals(s.frequencyHz() / RATE, f.frequency, 3e-5);
      int least = Integer.MAX_VALUE;
      for (int lag = 0; lag < 60; lag++) {
        int here = 0;
        for (int k = 0; k < s.count() && k + lag < levels.length; k++) {
          here += (s.values()[k] == 1) == (levels[k + lag] > 0) ? 0 : 1;
        }
        least = Math.min(least, Math.min(here, s.count() - here));
      }
      errors += least;
      symbols += s.count();
    }
    // Wrong symbols come in pairs: twice the variance of a count.
    double should = wrong * symbols;
    double scatter = 4 * Math.sqrt(2 * should);
    assertTrue(errors > should - scatter, errors + " wrong, " + should + " in theory");
    assertTrue(errors < most * should + scatter, errors + " wrong, " + should + " in theory");
  }

  @Test
  public void whatDoesNotFit() {
    Random random = new Random(2);
    SingleCarrier two = carrier(Format.FSK2, RECTANGLE, 0.75);
    SingleCarrier four = carrier(Format.FSK4, RECTANGLE, 0.75);
    Carriers.Faults f = new Carriers.Faults();
    float[] ofTwo = KeyedCarriers.make(levels(two, random, 900), RECTANGLE, 0.75, 12, f, random);
    float[] ofFour = KeyedCarriers.make(levels(four, random, 900), RECTANGLE, 0.75, 12, f, random);
    Refusal r = expectThrows(Refusal.class, () -> recover(four, ofTwo, 12));
    assertTrue(r.getMessage().contains("2 of its 4 levels"), r.getMessage());
    expectThrows(Refusal.class, () -> recover(two, ofFour, 12));
    float[] noise = new float[24_000];
    for (int i = 0; i < noise.length; i++) {
      noise[i] = (float) random.nextGaussian();
    }
    expectThrows(Refusal.class, () -> recover(two, noise, 12));
    SingleCarrier qpsk = RecoveryTest.carrier(Format.QPSK, 0.35);
    int[] values = Carriers.values(random, 4, 900);
    float[] points = Carriers.make(Format.QPSK, values, 0.35, 12, f, random);
    expectThrows(Refusal.class, () -> recover(carrier(Format.MSK, RECTANGLE, 0), points, 12));
    assertEquals(qpsk.deviationHz(), 0);
    int[] sixteen = Carriers.values(random, 16, 2000);
    float[] many = Carriers.make(Format.QAM16, sixteen, 0.35, 12, f, random);
    expectThrows(Refusal.class, () -> recover(four, many, 12));
    expectThrows(Refusal.class, () -> recover(carrier(Format.FSK8, RECTANGLE, 1.75), many, 12));
    float[] shorter = new float[600];
    expectThrows(Refusal.class, () -> recover(two, shorter, 12));
  }

  @Test
  public void descriptions() {
    expectThrows(Refusal.class, () -> carrier(Format.FSK2, RECTANGLE, 0));
    expectThrows(Refusal.class, () -> carrier(Format.GMSK, RECTANGLE, 0));
    assertEquals(carrier(Format.MSK, RECTANGLE, 0).deviationHz(), RATE / 4);
    assertEquals(carrier(Format.FSK2, RECTANGLE, 0.5).deviation(), 0.5);
  }
}
