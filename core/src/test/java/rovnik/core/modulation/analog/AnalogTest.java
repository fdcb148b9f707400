package rovnik.core.modulation.analog;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.analog.AnalogSettings.Kind;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Analog carriers against the closed forms that their samples are made of here. */
public class AnalogTest {
  private static final double RATE_HZ = 200e3;
  private static final double SECONDS = 0.25;

  /** What a signal is at a time: amplitude and phase. */
  private interface Signal {
    double[] at(double t);
  }

  private static IqRecord record(Signal signal, double noise, long seed) {
    Random random = new Random(seed);
    int n = (int) (RATE_HZ * SECONDS);
    float[] iq = new float[2 * n];
    for (int i = 0; i < n; i++) {
      double[] s = signal.at(i / RATE_HZ);
      iq[2 * i] = (float) (0.3 * s[0] * Math.cos(s[1]) + noise * random.nextGaussian());
      iq[2 * i + 1] = (float) (0.3 * s[0] * Math.sin(s[1]) + noise * random.nextGaussian());
    }
    return new IqRecord(iq, RATE_HZ, 100e6, Double.NaN, false);
  }

  private static AnalogSettings settings(Kind kind, AudioFilter audio) {
    return new AnalogSettings(kind, 0, 40e3, 0.2, 0, audio, Double.NaN, Double.NaN);
  }

  private static Outcome measure(Kind kind, IqRecord r) {
    return measure(settings(kind, AudioFilter.NONE), r);
  }

  private static Outcome measure(AnalogSettings s, IqRecord r) {
    return new AnalogMeasurement(s).of(r, MeasurementContext.BARE);
  }

  private static Reading reading(Outcome o, String id) {
    return o.reading(id).orElseThrow(() -> new AssertionError(id + " of " + o.readings()));
  }

  private static double value(Outcome o, String id) {
    return reading(o, id).value();
  }

  private static double cos(double hz, double t) {
    return Math.cos(2 * Math.PI * hz * t);
  }

  @DataProvider
  public Object[][] depths() {
    return new Object[][] {{0.01}, {0.1}, {0.3}, {0.5}, {0.9}, {1.0}};
  }

  /** AM of 1 to 100 % off the middle of the record: demodulated and from side lines alike. */
  @Test(dataProvider = "depths")
  public void depthOfAm(double depth) {
    double off = 1234.5;
    Outcome o =
        measure(
            Kind.AM,
            record(t -> new double[] {1 + depth * cos(1007, t), 2 * Math.PI * off * t}, 1e-5, 1));
    assertEquals(value(o, "amount"), 100 * depth, 100 * depth * 0.001 + 0.002);
    assertEquals(value(o, "depthFromLines"), 100 * depth, 100 * depth * 0.002 + 0.002);
    assertEquals(value(o, "rate"), 1007, 0.01);
    assertEquals(value(o, "carrierFrequency"), 100e6 + off, 0.5);
    assertEquals(value(o, "carrierPower"), 20 * Math.log10(0.3), 0.02);
    assertTrue(value(o, "sinad") > (depth < 0.05 ? 35 : 50), "SINAD " + value(o, "sinad"));
    assertTrue(o.summary().contains("RBW of 503.5 Hz or less"), o.summary());
  }

  /** Deviation of FM at the carrier's nulls and elsewhere: index times rate. */
  @DataProvider
  public Object[][] deviations() {
    return new Object[][] {{2.4048, 1000}, {5.5201, 1000}, {0.1, 2500}, {1.0, 3000}, {2.5, 3000}};
  }

  @Test(dataProvider = "deviations")
  public void deviationOfFm(double index, double rate) {
    Outcome o =
        measure(
            Kind.FM,
            record(
                t -> new double[] {1, index * Math.sin(2 * Math.PI * rate * t) - 900 * t},
                1e-5,
                2));
    assertEquals(value(o, "amount"), index * rate, index * rate * 0.002 + 0.5);
    assertEquals(value(o, "rate"), rate, 0.01);
    assertEquals(value(o, "carrierFrequency") - 100e6, -900 / (2 * Math.PI), 0.5);
    assertTrue(value(o, "distortion") < 0.5, "distortion " + value(o, "distortion"));
    assertTrue(value(o, "amplitudeWithIt") < 1, "AM " + value(o, "amplitudeWithIt"));
    Outcome pm =
        measure(
            Kind.PM,
            record(t -> new double[] {1, index * Math.sin(2 * Math.PI * rate * t)}, 1e-5, 2));
    assertEquals(value(pm, "amount"), index, index * 0.002);
  }

  /** Harmonics of 3 and 4 % are 5 % of distortion, and SINAD follows from that and the noise. */
  @Test
  public void distortionAndSinad() {
    double noise = 0.004;
    Outcome o =
        measure(
            Kind.AM,
            record(
                t ->
                    new double[] {
                      1 + 0.5 * (cos(1000, t) + 0.03 * cos(2000, t) + 0.04 * cos(3000, t)), 0
                    },
                noise,
                3));
    Reading d = reading(o, "distortion");
    assertEquals(d.value(), 5, 1.5 * d.uncertainty());
    assertTrue(d.uncertainty() < 0.4, "U " + d.uncertainty());
    // Envelope noise in 20 kHz of audio: its part in phase with the carrier, 40 kHz of 200 wide.
    double ofNoise = Math.pow(noise / 0.3, 2) * 40e3 / RATE_HZ;
    double ofTone = 0.25 / 2;
    double ofHarmonics = 0.25 / 2 * 0.0025;
    double sinad = 10 * Math.log10((ofTone + ofHarmonics + ofNoise) / (ofHarmonics + ofNoise));
    assertEquals(value(o, "sinad"), sinad, 0.25);
  }

  /** Amplitude and phase modulation together: the side lines are not alike, and that is said. */
  @Test
  public void sideLinesThatSaySomethingElse() {
    Outcome o =
        measure(
            Kind.AM,
            record(t -> new double[] {1 + 0.3 * cos(1000, t), 0.2 * cos(1000, t)}, 1e-5, 4));
    assertEquals(value(o, "amount"), 30, 0.1);
    assertEquals(value(o, "phaseWithIt"), 0.2 / Math.sqrt(2), 0.002);
    assertTrue(o.summary().contains("phase modulation"), o.summary());
    Outcome both =
        measure(
            Kind.AM,
            record(t -> new double[] {1 + 0.3 * cos(1000, t), 0.2 * cos(1000, t - 2.5e-4)}, 0, 4));
    assertTrue(both.summary().contains("dB"), both.summary());
  }

  /** De-emphasis of 50 us turns 10 kHz down by 10 log10(1 + (2 pi f tau)^2) = 10.36 dB. */
  @Test
  public void filtersTurnDownWhatTheyShould() {
    IqRecord r = record(t -> new double[] {1, 0.2 * Math.sin(2 * Math.PI * 10e3 * t)}, 0, 5);
    double bare = value(measure(Kind.FM, r), "amount");
    double soft =
        value(measure(settings(Kind.FM, new AudioFilter(0, 0, 50e-6, false)), r), "amount");
    double expected = 10 * Math.log10(1 + Math.pow(2 * Math.PI * 10e3 * 50e-6, 2));
    assertEquals(20 * Math.log10(bare / soft), expected, 0.02);
    // ITU-T O.41, table 1 (from memory): 300 Hz -10.6 dB, 1 kHz +1.0, 2 kHz -3.0.
    for (double[] place : new double[][] {{300, -10.6}, {800, 0}, {1000, 1}, {2000, -3}}) {
      IqRecord tone = record(t -> new double[] {1 + 0.3 * cos(place[0], t), 0}, 0, 6);
      double flat = value(measure(Kind.AM, tone), "amount");
      double ear =
          value(measure(settings(Kind.AM, new AudioFilter(0, 0, 0, true)), tone), "amount");
      assertEquals(20 * Math.log10(ear / flat), place[1], 0.05, place[0] + " Hz");
    }
  }

  @Test
  public void aToneSquelchIsKnownBelowTheVoice() {
    Outcome o =
        measure(
            settings(Kind.FM, new AudioFilter(300, 3000, 0, false)),
            record(
                t ->
                    new double[] {
                      1,
                      2 * Math.sin(2 * Math.PI * 1000 * t)
                          + 250 / 123.0 * Math.sin(2 * Math.PI * 123 * t)
                    },
                1e-4,
                7));
    assertEquals(value(o, "toneSquelch"), 123, 0.1);
    assertEquals(value(o, "rate"), 1000, 0.05);
    assertTrue(o.summary().contains("Tone squelch 123.0 Hz"), o.summary());
    // The high pass takes the tone from the voice: 300 Hz against 123 Hz, fifth order.
    assertTrue(value(o, "sinad") > 40, "SINAD " + value(o, "sinad"));
  }

  @Test
  public void aCarrierAloneHasResidualModulation() {
    Outcome o = measure(Kind.FM, record(t -> new double[] {1, 0}, 3e-4, 8));
    assertTrue(o.reading("amount").isEmpty(), "no tone");
    assertTrue(reading(o, "amountRms").label().startsWith("Residual"), o.toString());
    assertTrue(o.summary().contains("no tone"), o.summary());
  }

  @Test
  public void aChannelThatIsTooNarrowIsSaid() {
    Outcome o =
        measure(Kind.FM, record(t -> new double[] {1, 4 * Math.sin(2 * Math.PI * 3400 * t)}, 0, 8));
    assertTrue(o.summary().contains("widen the channel"), o.summary());
  }

  @Test
  public void limitsAreJudged() {
    AnalogSettings s = new AnalogSettings(Kind.FM, 0, 40e3, 0.2, 0, AudioFilter.NONE, 2500, 30);
    Outcome good =
        measure(s, record(t -> new double[] {1, 2.3 * Math.sin(2e3 * Math.PI * t)}, 1e-5, 9));
    assertEquals(good.verdict(), Verdict.PASS);
    Outcome wide =
        measure(s, record(t -> new double[] {1, 2.7 * Math.sin(2e3 * Math.PI * t)}, 1e-5, 9));
    assertEquals(reading(wide, "amount").verdict(), Verdict.FAIL);
  }

  @Test
  public void whatIsNoSignalIsASentence() {
    Refusal noise =
        expectThrows(
            Refusal.class, () -> measure(Kind.FM, record(t -> new double[] {0, 0}, 0.1, 10)));
    assertTrue(noise.getMessage().contains("only noise"), noise.getMessage());
    Refusal silence =
        expectThrows(
            Refusal.class, () -> measure(Kind.AM, record(t -> new double[] {0, 0}, 0, 10)));
    assertTrue(silence.getMessage().contains("no signal"), silence.getMessage());
    Refusal wide =
        expectThrows(
            Refusal.class,
            () ->
                measure(
                    new AnalogSettings(
                        Kind.AM, 0, 300e3, 0.1, 0, AudioFilter.NONE, Double.NaN, Double.NaN),
                    record(t -> new double[] {1, 0}, 0, 1)));
    assertTrue(wide.getMessage().contains("wider than this record"), wide.getMessage());
    expectThrows(Refusal.class, () -> new AudioFilter(3000, 300, 0, false));
  }

  /** In 150 trials the truth lies inside the uncertainty as often as k = 2 says, and not always. */
  @Test
  public void theUncertaintyHolds() {
    int inAmount = 0;
    int inRate = 0;
    int inSinad = 0;
    int trials = 150;
    double noise = 0.02;
    double ofNoise = Math.pow(noise / 0.3, 2) * 40e3 / RATE_HZ;
    double sinad = 10 * Math.log10((0.125 + ofNoise) / ofNoise);
    for (int k = 0; k < trials; k++) {
      Random random = new Random(k);
      double phase = 6 * random.nextDouble();
      double hz = 900 + 200 * random.nextDouble();
      Outcome o =
          measure(
              Kind.AM,
              record(
                  t -> new double[] {1 + 0.5 * Math.cos(2 * Math.PI * hz * t + phase), phase},
                  noise,
                  k));
      inAmount += inside(o, "amount", 50);
      inRate += inside(o, "rate", hz);
      inSinad += inside(o, "sinad", sinad);
    }
    for (int in : new int[] {inAmount, inRate, inSinad}) {
      assertTrue(
          in >= 0.9 * trials && in <= 0.998 * trials,
          inAmount + ", " + inRate + ", " + inSinad + " of " + trials);
    }
  }

  private static int inside(Outcome o, String id, double truth) {
    Reading r = reading(o, id);
    return Math.abs(r.value() - truth) <= r.uncertainty() ? 1 : 0;
  }
}
