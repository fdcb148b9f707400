package rovnik.core.spectrum;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.limits.LimitSet;
import rovnik.core.limits.Verdict;
import rovnik.core.path.ElementKind;
import rovnik.core.path.PathCorrection;
import rovnik.core.path.PathElement;
import rovnik.core.path.SignalPath;
import rovnik.core.result.Reading;
import rovnik.core.signal.Window;
import rovnik.core.uncertainty.InstrumentAccuracy;

public class MeasurementTest {
  private static final double FS = 400e3;

  private static SignalPath path(double padDb, int plane) {
    return new SignalPath(
        List.of(
            PathElement.source("TX", 27, 20),
            PathElement.of("Pad", ElementKind.PAD, -padDb, 0.3),
            PathElement.port("RX", 0, 20, 20)),
        plane);
  }

  private static Reading read(
      String id, double amplitude, double offsetHz, SignalPath path, LimitSet limits, String mark) {
    SpectrumSettings s =
        new SpectrumSettings(915e6, 200e3, 200, Window.HANN, Detector.RMS, 20, 30, 25e3);
    SpectrumLayout layout = SpectrumLayout.plan(FS, 0, 200e3, 200, Window.HANN);
    int samples = (int) layout.samplesFor(20);
    SpectrumEstimator e = new SpectrumEstimator(layout, Detector.RMS);
    e.accumulate(
        Signals.sum(
            Signals.tone(samples, offsetHz / FS, amplitude), Signals.noise(samples, 1e-9, 1)),
        0,
        samples);
    double[] power = new double[layout.points()];
    e.powerInto(power);
    SpectrumResult r =
        SpectrumMeasurement.of(
            power,
            layout,
            e.outside(),
            915e6,
            0,
            e.segments(),
            s,
            new MeasurementContext(
                new PathCorrection(path),
                new InstrumentAccuracy(0.4, 1e-9),
                limits,
                mark == null ? List.of() : List.of(mark)));
    return r.readings().stream().filter(x -> x.id().equals(id)).findFirst().get();
  }

  private static final LimitSet LIMITS = new LimitSet(915e6, 10, 27, 3, 0.5);

  /** Arithmetic: a carrier at 915.005 MHz, nominal 915.000, is +5 kHz or +5.46 ppm off. */
  @Test
  public void frequencyErrorInHertzAndPpm() {
    Reading hz = read("frequencyError", 0.5, 5000, path(30, 0), LIMITS, null);
    Reading ppm = read("frequencyErrorPpm", 0.5, 5000, path(30, 0), LIMITS, null);
    assertEquals(hz.value(), 5000, 0.1);
    assertEquals(ppm.value(), 5.46, 0.005);
    assertEquals(ppm.verdict(), Verdict.PASS);
    assertEquals(ppm.margin(), 10 - 5.4645, 0.001);
    Reading tight =
        read("frequencyErrorPpm", 0.5, 5000, path(30, 0), new LimitSet(915e6, 2.5, 27, 3, 1), null);
    assertEquals(tight.verdict(), Verdict.FAIL);
  }

  /** A carrier of another service is not off the licensed frequency: it has none here. */
  @Test
  public void aCarrierElsewhereIsNotJudged() {
    LimitSet far = new LimitSet(458e6, 10, 27, 3, 0.5);
    for (String id : new String[] {"frequencyError", "frequencyErrorPpm", "carrierPower"}) {
      assertEquals(read(id, 0.5, 5000, path(30, 0), far, null).verdict(), Verdict.NONE, id);
    }
  }

  /** Two plans that differ by a pad give the same reading at the plane. */
  @Test
  public void padCancels() {
    Reading with30 = read("carrierPower", 0.5, 100, path(30, 0), LIMITS, null);
    Reading with40 = read("carrierPower", 0.5 / Math.sqrt(10), 100, path(40, 0), LIMITS, null);
    assertEquals(with30.value(), 30 - 6.0206, 0.01);
    assertEquals(with40.value(), with30.value(), 0.01);
    assertEquals(with30.plane(), "TX OUT");
  }

  @Test
  public void limitAndVerdictAreTheSameAtEveryPlane() {
    Reading atSource = read("carrierPower", 0.7, 100, path(30, 0), LIMITS, null);
    Reading atPort = read("carrierPower", 0.7, 100, path(30, 1), LIMITS, null);
    assertEquals(atPort.value(), atSource.value() - 30, 1e-4);
    assertEquals(atPort.margin(), atSource.margin(), 1e-4);
    assertTrue(atPort.uncertainty() < atSource.uncertainty());
  }

  /**
   * 0.5 dB below the limit: sure with the receiver's 0.46 dB alone, not with the pad's tolerance as
   * well. The limit is the transmitter's, so the pad counts wherever the level is read.
   */
  @Test
  public void aSmallMarginIsUnsureAtEveryPlane() {
    double amplitude = Math.pow(10, -3 / 20.0);
    Reading atSource = read("carrierPower", amplitude, 100, path(30, 0), LIMITS, null);
    Reading atPort = read("carrierPower", amplitude, 100, path(30, 1), LIMITS, null);
    assertEquals(atSource.margin(), 0.5, 0.02);
    assertTrue(atPort.uncertainty() < 0.48 && atSource.uncertainty() > 0.55);
    assertEquals(atSource.verdict(), Verdict.PASS_UNSURE);
    assertEquals(atPort.verdict(), Verdict.PASS_UNSURE);
    assertEquals(atPort.limitPlane(), "TX OUT");
    assertEquals(atPort.limitUncertainty(), atSource.uncertainty(), 1e-9);
  }

  @DataProvider
  public Object[][] floors() {
    return new Object[][] {
      {Window.RECTANGULAR, 0.37, true}, // between two bins: side lobes all over the span
      {Window.RECTANGULAR, 0.0, false}, // a whole number of periods has none
      {Window.HAMMING, 0.37, true}, // -43 dB and hardly falling (Harris 1978, from memory)
      {Window.BLACKMAN_HARRIS, 0.37, false},
    };
  }

  /** What a window makes of a strong tone is no noise floor. */
  @Test(dataProvider = "floors")
  public void leakageIsNoNoiseFloor(Window window, double binsOff, boolean leaks) {
    SpectrumSettings s =
        new SpectrumSettings(915e6, 200e3, 500, window, Detector.RMS, 20, 30, 25e3);
    SpectrumLayout layout = SpectrumLayout.ofLength(FS, 0, 200e3, window, 1024);
    int samples = (int) layout.samplesFor(20);
    double offset = (20 + binsOff) / layout.fftLength();
    SpectrumEstimator e = new SpectrumEstimator(layout, Detector.RMS);
    e.accumulate(
        Signals.sum(Signals.tone(samples, offset, 0.9), Signals.noise(samples, 1e-8, 1)),
        0,
        samples);
    double[] power = new double[layout.points()];
    e.powerInto(power);
    Reading floor =
        SpectrumMeasurement.of(
                power,
                layout,
                e.outside(),
                915e6,
                Double.NaN,
                e.segments(),
                s,
                MeasurementContext.BARE)
            .readings()
            .stream()
            .filter(r -> r.id().equals("noiseDensity"))
            .findFirst()
            .get();
    assertEquals(floor.marks().toString().contains("leakage"), leaks, floor.toString());
    double truth = 10 * Math.log10(1e-8 / FS);
    if (!leaks) {
      assertEquals(floor.value(), truth, 0.4);
    } else {
      assertTrue(floor.value() > truth + 1, floor.toString());
    }
  }

  @Test
  public void anOverloadIsOnTheNumberAndIsNotJudged() {
    Reading r = read("carrierPower", 0.5, 100, path(30, 0), LIMITS, "overload");
    assertEquals(r.marks(), List.of("overload"));
    assertEquals(r.verdict(), Verdict.INVALID);
    Reading f = read("frequencyError", 0.5, 100, path(30, 0), LIMITS, "overload");
    assertTrue(f.marks().isEmpty());
  }

  /** A strong line outside the channel is not the carrier that the limits speak of. */
  @Test
  public void onlyALineInTheChannelIsTheCarrier() {
    Reading off = read("carrierPower", 0.5, 60e3, path(30, 0), LIMITS, null);
    assertTrue(Double.isNaN(off.value()));
    assertEquals(off.verdict(), Verdict.INVALID);
    assertEquals(off.marks(), List.of("no carrier in the channel at 915 MHz"));
    LimitSet elsewhere = new LimitSet(800e6, 10, 27, 3, 0.5);
    Reading other = read("carrierPower", 0.5, 60e3, path(30, 0), elsewhere, null);
    assertEquals(other.verdict(), Verdict.NONE);
    assertEquals(other.value(), 30 - 6.02, 0.01);
  }

  @Test
  public void noiseFloorIsADensityAtThePlane() {
    Reading n = read("noiseDensity", 0.5, 100, path(30, 0), LIMITS, null);
    // 1e-9 of full scale (0 dBm) spread over 400 kHz, seen through 30 dB of pad.
    // The skirt of the carrier lifts one point in twelve, and so the median, by 0.1 dB.
    assertEquals(n.value(), -90 - 56.02 + 30, 0.2);
    assertEquals(n.unit(), "dBm/Hz");
  }
}
