package rovnik.core.modulation.analysis;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/**
 * Whose error it is: sources and receivers with distortion and noise of known size, made sample by
 * sample; the truth of each distortion is its EVM without any noise.
 */
public class OwnShareTest {
  private static final int SPS = 4;
  private static final double RATE = 48e3;
  private static final int PERIOD = 511;
  private static final int RESULT = 800;
  private static final int LOOKS = 6;
  private static final SingleCarrier CARRIER = RecoveryTest.carrier(Format.QAM16, 0.25);

  /** A receiver: noise for symbols of 1, and how its gain falls with the power. */
  private record Receiver(double noiseDb, double bend) {
    /** What it makes of samples whose symbols have an amplitude of {@code level}. */
    float[] of(float[] iq, double level, Random random) {
      float[] out = new float[iq.length];
      double sigma = level * Math.pow(10, noiseDb / 20) * Math.sqrt(SPS / 2.0);
      for (int n = 0; n < iq.length; n += 2) {
        double x = iq[n] + sigma * random.nextGaussian();
        double y = iq[n + 1] + sigma * random.nextGaussian();
        double gain = 1 - bend * (x * x + y * y) / level / level;
        out[n] = (float) (gain * x);
        out[n + 1] = (float) (gain * y);
      }
      return out;
    }
  }

  private static final double LEVEL = 0.3;
  private static final SingleCarrierMeasurement MEASUREMENT =
      new SingleCarrierMeasurement(
          new SingleCarrierSettings(
              CARRIER, 0, 0, RESULT, 0, null, false, false, Double.NaN, Equalizer.OFF, 0));

  private static IqRecord record(float[] iq) {
    return new IqRecord(iq, SPS * RATE, 0, Double.NaN, false);
  }

  /** The source from anywhere in its data, with its own distortion and noise. */
  private static float[] sent(int[] data, Random random, boolean distorted, double noiseDb) {
    int start = random.nextInt(PERIOD);
    int[] values = new int[RESULT + 200];
    for (int k = 0; k < values.length; k++) {
      values[k] = data[(start + k) % PERIOD];
    }
    Carriers.Faults f = new Carriers.Faults();
    f.phase = 6 * random.nextDouble();
    f.delaySymbols = random.nextDouble();
    f.frequency = 0.01 * (random.nextDouble() - 0.5);
    f.level = LEVEL;
    // Half of it noise of the phase, that is alike over some 20 symbols.
    f.noiseDb = noiseDb - 10 * Math.log10(2);
    f.phaseNoise = Math.pow(10, f.noiseDb / 20);
    f.imbalanceDb = distorted ? 0.12 : 0;
    f.leakDb = distorted ? -44 : -300;
    return Carriers.make(Format.QAM16, values, 0.25, SPS, f, random);
  }

  private static Outcome look(float[] iq) {
    return MEASUREMENT.of(record(iq), MeasurementContext.BARE);
  }

  private static double evm(Outcome o) {
    return o.reading("evm").orElseThrow().value();
  }

  private static final Receiver HERE = new Receiver(-40, 0.005);
  private static final Receiver THERE = new Receiver(-46, 0);
  private static final double SOURCE_NOISE_DB = -43;

  /** EVM by the receiver's distortion alone, and by the source's. */
  private static double[] distortions(int[] data) {
    Random random = new Random(1);
    double here =
        evm(
            look(
                new Receiver(-300, HERE.bend())
                    .of(sent(data, random, false, -300), LEVEL, random)));
    double source = evm(look(sent(data, random, true, -300)));
    return new double[] {here, source};
  }

  private static int[] data(long seed) {
    return Carriers.values(new Random(seed), 16, PERIOD);
  }

  private static Outcome apart(int[] data, Random random, boolean withOther) {
    List<Outcome> looks = new ArrayList<>();
    List<Double> quiet = new ArrayList<>();
    for (int i = 0; i < LOOKS; i++) {
      float[] loud = HERE.of(sent(data, random, true, SOURCE_NOISE_DB), LEVEL, random);
      looks.add(look(loud));
      float[] silent = HERE.of(new float[loud.length], LEVEL, random);
      quiet.add(MEASUREMENT.ownNoise(record(loud), record(silent), MeasurementContext.BARE));
    }
    Optional<OwnShare.Other> other =
        withOther
            ? Optional.of(
                new OwnShare.Other(
                    "There",
                    look(THERE.of(sent(data, random, true, SOURCE_NOISE_DB), LEVEL, random))))
            : Optional.empty();
    return OwnShare.of(looks, quiet, other, Format.QAM16);
  }

  private static double percent(double db) {
    return 100 * Math.pow(10, db / 20);
  }

  private static Reading reading(Outcome o, String id) {
    return o.reading(id).orElseThrow();
  }

  /** All four parts are found, each near what it is, and make up the whole. */
  @Test
  public void tellsWhoseItIs() {
    double[] d = distortions(data(77));
    assertTrue(d[0] > 0.2 && d[1] > 0.5, d[0] + " " + d[1]);
    Outcome o = apart(data(77), new Random(5), true);
    ResultTable t = o.tables().get(0);
    double[] should = {percent(HERE.noiseDb()), d[0], d[1], percent(SOURCE_NOISE_DB)};
    double all = 0;
    for (int i = 0; i < 4; i++) {
      double found = t.rows().get(i).cells().get(2).value();
      double uncertain = t.rows().get(i).cells().get(3).value();
      assertEquals(found, should[i], 2 * uncertain + 0.01, t.rows().get(i).cells().get(0).text());
      all += t.rows().get(i).cells().get(1).value();
    }
    assertEquals(all, 100, 0.01);
    assertTrue(o.summary().contains("There sees"), o.summary());
  }

  /** The truth lies inside the stated uncertainty as often as that says. */
  @Test
  public void keepsItsPromise() {
    int inside = 0;
    int narrow = 0;
    int trials = 30;
    for (int i = 0; i < trials; i++) {
      int[] data = data(500 + i);
      double[] d = distortions(data);
      double own = Math.hypot(percent(HERE.noiseDb()), d[0]);
      double source = Math.hypot(percent(SOURCE_NOISE_DB), d[1]);
      Outcome o = apart(data, new Random(100 + i), true);
      Reading a = reading(o, "ownEvm");
      Reading b = reading(o, "sourceEvm");
      inside += Math.abs(a.value() - own) <= a.uncertainty() ? 1 : 0;
      inside += Math.abs(b.value() - source) <= b.uncertainty() ? 1 : 0;
      narrow += Math.abs(a.value() - own) <= a.uncertainty() / 3 ? 1 : 0;
      assertTrue(a.uncertainty() < 0.15 * own, "needlessly wide: " + a.uncertainty());
    }
    assertTrue(inside >= 0.9 * 2 * trials, inside + " of " + 2 * trials);
    assertTrue(narrow < 0.75 * trials, narrow + " far inside of " + trials);
  }

  /** Without another receiver its noise alone is told. */
  @Test
  public void tellsTheNoiseAlone() {
    Outcome o = apart(data(77), new Random(9), false);
    Reading own = reading(o, "ownEvm");
    // The source off, its noise is not pressed down with the carrier: 1 % more here.
    double truth = percent(HERE.noiseDb()) * (1 + 2.4 * HERE.bend());
    assertEquals(own.value(), truth, 2 * own.uncertainty());
    assertTrue(own.label().contains("noise"), own.label());
    assertEquals(o.tables().get(0).rows().size(), 3);
  }

  /** Looks at other data have nothing in common, and it says so. */
  @Test
  public void saysThatNothingRepeats() {
    Random random = new Random(3);
    List<Outcome> looks = new ArrayList<>();
    for (int i = 0; i < 3; i++) {
      Carriers.Faults f = new Carriers.Faults();
      f.noiseDb = -40;
      int[] values = Carriers.values(random, 16, RESULT + 200);
      looks.add(look(Carriers.make(Format.QAM16, values, 0.25, SPS, f, random)));
    }
    Outcome o =
        OwnShare.of(
            looks,
            List.of(0.00005),
            Optional.of(new OwnShare.Other("B", looks.get(0))),
            Format.QAM16);
    assertTrue(o.summary().contains("No two looks held the same data"), o.summary());
    assertEquals(reading(o, "ownEvm").value(), 100 * Math.sqrt(0.00005), 1e-9);
    assertEquals(o.tables().get(0).rows().size(), 2);
    Refusal r =
        expectThrows(
            Refusal.class,
            () ->
                OwnShare.of(
                    looks,
                    List.of(0.1),
                    Optional.of(new OwnShare.Other("spectrum", o)),
                    Format.QAM16));
    assertEquals(r.field(), "runId");
  }

  /**
   * Of a phase that goes on, the same data come turned: only noise is told apart, and it is said.
   */
  @Test
  public void saysThatAPhaseGoesOn() {
    int[] data = data(77);
    Random random = new Random(4);
    List<Outcome> looks = new ArrayList<>();
    for (int i = 0; i < 2; i++) {
      looks.add(look(sent(data, random, true, SOURCE_NOISE_DB)));
    }
    Outcome o = OwnShare.of(looks, List.of(0.00001), Optional.empty(), Format.D8PSK);
    assertEquals(o.tables().get(0).rows().size(), 2);
    assertTrue(o.summary().contains("its phase goes on"), o.summary());
  }

  /** MSK too: its noise is read behind the filter that its errors are read behind. */
  @Test
  public void knowsKeyedNoise() {
    Random random = new Random(8);
    SingleCarrier c =
        KeyedTest.carrier(Format.GMSK, new PulseShape(PulseShape.Kind.GAUSSIAN, 0.3), 0);
    SingleCarrierMeasurement m =
        new SingleCarrierMeasurement(
            new SingleCarrierSettings(
                c, 0, 0, RESULT, 0, null, false, false, Double.NaN, Equalizer.OFF, 0));
    Carriers.Faults f = new Carriers.Faults();
    f.level = 1;
    double[] levels = random.ints(RESULT + 200, 0, 2).mapToDouble(b -> 2 * b - 1).toArray();
    float[] iq = KeyedCarriers.make(levels, c.filter(), 0.25, SPS, f, random);
    Receiver r = new Receiver(-36, 0);
    float[] loud = r.of(iq, 1, random);
    double rateHz = SPS * c.symbolRateHz();
    IqRecord record = new IqRecord(loud, rateHz, 0, Double.NaN, false);
    IqRecord quiet =
        new IqRecord(r.of(new float[loud.length], 1, random), rateHz, 0, Double.NaN, false);
    double evm = evm(m.of(record, MeasurementContext.BARE));
    double own = 100 * Math.sqrt(m.ownNoise(record, quiet, MeasurementContext.BARE));
    assertEquals(own, evm, 0.05 * evm);
  }
}
