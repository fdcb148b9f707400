package rovnik.core.modulation.analysis;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.result.Outcome;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** The equalizer against an echo of known size, and a phase that is followed. */
public class EqualizerTest {
  private static final int SPS = 4;
  private static final double RATE = 48e3;

  private static Outcome measure(SingleCarrier c, float[] iq, Equalizer equalizer, int track) {
    SingleCarrierSettings s =
        new SingleCarrierSettings(c, 0, 0, 0, 0, null, false, false, Double.NaN, equalizer, track);
    IqRecord record = new IqRecord(iq, SPS * RATE, 0, Double.NaN, false);
    return new SingleCarrierMeasurement(s).of(record, MeasurementContext.BARE);
  }

  /** Without an equalizer: so much, or more than any result is given for. */
  private static double bare(SingleCarrier c, float[] iq) {
    try {
      return evm(measure(c, iq, Equalizer.OFF, 0));
    } catch (Refusal doesNotFit) {
      assertEquals(doesNotFit.field(), "format");
      return 100;
    }
  }

  private static double evm(Outcome o) {
    return o.reading("evm").orElseThrow().value();
  }

  /** An echo three quarters of a symbol late, with its own phase. */
  private static float[] withEcho(float[] iq, double db, int samples) {
    float[] out = iq.clone();
    double re = Math.pow(10, db / 20) * Math.cos(2.1);
    double im = Math.pow(10, db / 20) * Math.sin(2.1);
    for (int n = samples; n < iq.length / 2; n++) {
      double x = iq[2 * (n - samples)];
      double y = iq[2 * (n - samples) + 1];
      out[2 * n] += (float) (re * x - im * y);
      out[2 * n + 1] += (float) (re * y + im * x);
    }
    return out;
  }

  private static float[] made(Format format, long seed, double noiseDb) {
    Random random = new Random(seed);
    Carriers.Faults f = new Carriers.Faults();
    f.noiseDb = noiseDb;
    f.frequency = 0.02;
    int[] values = Carriers.values(random, format.constellation().size(), 3000);
    return Carriers.make(format, values, 0.35, SPS, f, random);
  }

  @DataProvider
  public Object[][] formats() {
    return new Object[][] {{Format.QPSK, -10.0}, {Format.QAM64, -24.0}, {Format.PSK8, -16.0}};
  }

  /** The echo's own error is gone; what is left is the noise that was put in. */
  @Test(dataProvider = "formats")
  public void takesAnEchoOff(Format format, double echoDb) {
    SingleCarrier c = RecoveryTest.carrier(format, 0.35);
    float[] iq = withEcho(made(format, 4, -45), echoDb, 3);
    double bare = bare(c, iq);
    assertTrue(bare > 50 * Math.pow(10, echoDb / 20), "bare " + bare);
    Outcome o = measure(c, iq, new Equalizer(Equalizer.Mode.TRAINED, 6, List.of()), 0);
    double noise = 100 * Math.pow(10, -45.0 / 20);
    assertEquals(evm(o), noise, 0.25 * noise, format + " " + bare);

    // Its response is that of the echo turned about, at every frequency within the flat band.
    Series response = o.series("equalizer").orElseThrow();
    double[] db = response.y();
    double worst = 0;
    double mean = 0;
    int inside = 0;
    double[] should = new double[db.length];
    for (int i = 0; i < db.length; i++) {
      double hz = response.x().at(i);
      double angle = -2 * Math.PI * hz * 3 / SPS / RATE + 2.1 - 2 * Math.PI * 0.02 * 3 / SPS;
      double a = Math.pow(10, echoDb / 20);
      double re = 1 + a * Math.cos(angle);
      double im = a * Math.sin(angle);
      should[i] = -20 * Math.log10(Math.hypot(re, im));
      if (Math.abs(hz) < 0.3 * RATE) {
        mean += db[i] - should[i];
        inside++;
      }
    }
    mean /= inside;
    for (int i = 0; i < db.length; i++) {
      if (Math.abs(response.x().at(i)) < 0.3 * RATE) {
        worst = Math.max(worst, Math.abs(db[i] - should[i] - mean));
      }
    }
    assertTrue(worst < 0.15, format + ": response off by " + worst + " dB");
  }

  /** Held: the weights of one record serve another with other data. */
  @Test
  public void isHeld() {
    SingleCarrier c = RecoveryTest.carrier(Format.QAM16, 0.35);
    Outcome trained =
        measure(
            c,
            withEcho(made(Format.QAM16, 4, -45), -16, 3),
            new Equalizer(Equalizer.Mode.TRAINED, 5, List.of()),
            0);
    Values.Complex w = (Values.Complex) trained.series("equalizerTaps").orElseThrow().values();
    List<List<Double>> taps = new ArrayList<>();
    for (int i = 0; i < w.re().length; i++) {
      taps.add(List.of(w.re()[i], w.im()[i]));
    }
    assertEquals(taps.size(), 21);
    Equalizer held = new Equalizer(Equalizer.Mode.HELD, 5, taps);
    float[] other = withEcho(made(Format.QAM16, 9, -45), -16, 3);
    double noise = 100 * Math.pow(10, -45.0 / 20);
    assertEquals(evm(measure(c, other, held, 0)), noise, 0.3 * noise);
    // On a carrier without the echo it does harm, as large as the echo.
    double harm = evm(measure(c, made(Format.QAM16, 9, -45), held, 0));
    assertTrue(harm > 8, "harm " + harm);
  }

  /** A phase that wanders: followed, the noise is left. */
  @Test
  public void thePhaseIsFollowed() {
    SingleCarrier c = RecoveryTest.carrier(Format.QAM16, 0.35);
    float[] iq = made(Format.QAM16, 6, -40);
    Random random = new Random(8);
    double angle = 0;
    for (int n = 0; n < iq.length / 2; n++) {
      angle += 0.002 * random.nextGaussian();
      double x = iq[2 * n] * Math.cos(angle) - iq[2 * n + 1] * Math.sin(angle);
      iq[2 * n + 1] = (float) (iq[2 * n] * Math.sin(angle) + iq[2 * n + 1] * Math.cos(angle));
      iq[2 * n] = (float) x;
    }
    double bare = evm(measure(c, iq, Equalizer.OFF, 0));
    double followed = evm(measure(c, iq, Equalizer.OFF, 24));
    assertTrue(bare > 2.5, "bare " + bare);
    // 1 % of noise, and what a walk strays from its mean over 24 symbols: about sqrt(24 / 12)
    // steps.
    assertTrue(followed > 0.95 && followed < 1.4, "followed " + followed);
  }

  @Test
  public void whatCannotBe() {
    SingleCarrier keyed = KeyedTest.carrier(Format.FSK2, KeyedTest.RECTANGLE, 0.5);
    Equalizer trained = new Equalizer(Equalizer.Mode.TRAINED, 5, List.of());
    Refusal r = expectThrows(Refusal.class, () -> measure(keyed, new float[400], trained, 0));
    assertEquals(r.field(), "equalizer");
    expectThrows(Refusal.class, () -> measure(keyed, new float[400], Equalizer.OFF, 30));
    expectThrows(Refusal.class, () -> new Equalizer(Equalizer.Mode.HELD, 5, List.of()));
    expectThrows(Refusal.class, () -> new Equalizer(Equalizer.Mode.TRAINED, 99, List.of()));
    SingleCarrier c = RecoveryTest.carrier(Format.QPSK, 0.35);
    expectThrows(Refusal.class, () -> measure(c, new float[400], Equalizer.OFF, 3));
  }
}
