package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.ScanPlan;
import rovnik.instruments.scpi.Timeouts;
import rovnik.standins.Bench;
import rovnik.standins.world.Truth;

/** Stitched scans against the world's truth, over sockets. */
public class ScanTest {
  private Bench bench;
  private IqReceiver receiver;

  @BeforeClass
  public void connect() throws IOException {
    bench = new Bench(0, 21, false);
    receiver =
        (IqReceiver)
            Drivers.connect(
                "127.0.0.1",
                bench.receiverPort(),
                InstrumentKind.IQ_RECEIVER,
                new DialectLibrary(Path.of("none")).find("scpi-iq"),
                Timeouts.DEFAULT);
  }

  @AfterClass
  public void close() {
    receiver.close();
    bench.close();
  }

  private static SpectrumSettings settings(
      double start, double stop, double rbw, double reference) {
    return new SpectrumSettings(
        (start + stop) / 2,
        stop - start,
        rbw,
        Window.BLACKMAN_HARRIS,
        Detector.RMS,
        16,
        reference,
        1e6);
  }

  private SpectrumResult scan(SpectrumSettings s) {
    ScanPlan plan = ScanPlan.of(s, receiver.capabilities());
    double[] stitched = new double[plan.layout().points()];
    int segments = 0;
    for (int i = 0; i < plan.steps().size(); i++) {
      var one = plan.steps().get(i);
      receiver.configure(one.setup());
      IqRecord record = receiver.acquire();
      SpectrumEstimator e = new SpectrumEstimator(one.layout(), s.detector());
      e.accumulate(record.iq(), 0, record.sampleCount());
      double[] power = new double[one.layout().points()];
      e.powerInto(power);
      for (int k = 0; k < power.length; k++) {
        power[k] *= Math.pow(10, record.fullScaleDbm() / 10);
      }
      plan.merge(i, power, stitched);
      segments = e.segments();
    }
    return SpectrumMeasurement.of(
        stitched,
        plan.layout(),
        List.of(),
        plan.originHz(),
        0,
        segments,
        s,
        MeasurementContext.BARE);
  }

  /** Carrier and harmonics of the transmitter at the port, in one scan of 1.4 GHz. */
  @Test
  public void carrierAndHarmonicsAreTheWorlds() {
    SpectrumResult r = scan(settings(100e6, 1.5e9, 100e3, 5));
    for (int h = 1; h <= 3; h++) {
      double dbc = h == 1 ? 0 : h == 2 ? Truth.SECOND_HARMONIC_DBC : Truth.THIRD_HARMONIC_DBC;
      double hz = h * Truth.BUOY_HZ;
      double expected = Truth.BUOY_LEVEL_DBM + dbc - bench.world().lossDb(hz);
      Peak line =
          r.peaks().stream()
              .filter(p -> Math.abs(p.frequencyHz() - hz) < 20e3)
              .findFirst()
              .orElseThrow(() -> new AssertionError("no line at " + hz + " in " + r.peaks()));
      assertEquals(line.level(), expected, 0.4);
    }
  }

  /** With nothing there the noise is flat: no step at a seam is larger than 0.1 dB. */
  @Test
  public void noSeamsInTheNoise() {
    bench.world().setTransmitting(false);
    SpectrumSettings s =
        new SpectrumSettings(2.2e9, 400e6, 200e3, Window.HANN, Detector.RMS, 32, -20, 1e6);
    ScanPlan plan = ScanPlan.of(s, receiver.capabilities());
    double[] mean = new double[plan.layout().points()];
    for (int pass = 0; pass < 30; pass++) {
      float[] level = scan(s).trace().level();
      for (int i = 0; i < level.length; i++) {
        mean[i] += Math.pow(10, level[i] / 10) / 30;
      }
    }
    bench.world().setTransmitting(true);
    // Means over 300 points before and behind each seam: 300 x 30 x 32 spectra scatter by 0.01 dB.
    int wide = 300;
    for (int first : plan.firstPoint().subList(1, plan.steps().size())) {
      for (int at : new int[] {first, first + plan.overlapPoints()}) {
        double before = average(mean, at - wide, at);
        double after = average(mean, at, at + wide);
        assertEquals(10 * Math.log10(after / before), 0, 0.1, "seam at point " + at);
      }
    }
  }

  private static double average(double[] x, int from, int to) {
    return Arrays.stream(x, Math.max(0, from), Math.min(to, x.length)).average().orElse(1);
  }

  @Test
  public void stepsCoverTheSpanWithoutAGapOnOneGrid() {
    SpectrumSettings s = settings(100e6, 6e9, 100e3, 0);
    ScanPlan plan = ScanPlan.of(s, receiver.capabilities());
    assertEquals(plan.layout().rbwHz(), 100e3, 50);
    int covered = 0;
    for (int i = 0; i < plan.steps().size(); i++) {
      var one = plan.steps().get(i);
      assertTrue(plan.firstPoint().get(i) <= covered, "gap before step " + i);
      covered = plan.pointsAfter(i);
      double first = one.setup().centreHz() + one.layout().offsetHz(0);
      assertEquals(
          first, plan.originHz() + plan.firstPoint().get(i) * plan.layout().stepHz(), 1e-3);
      assertTrue(one.layout().firstBin() > 0, "the dc spike is in sight");
    }
    assertEquals(covered, plan.layout().points());
    assertEquals(plan.originHz() + (covered - 1) * plan.layout().stepHz(), 6e9, 50e3);
    assertEquals(plan.originHz(), 100e6, 0);
  }

  @Test
  public void theLowestFrequenciesAreReached() {
    ScanPlan plan = ScanPlan.of(settings(100e3, 200e6, 30e3, 0), receiver.capabilities());
    assertTrue(plan.steps().get(0).setup().centreHz() >= 10e3);
  }

  @Test
  public void scansThatCannotBeAreRefused() {
    var able = receiver.capabilities();
    assertTrue(ScanPlan.needed(100e6, able));
    assertTrue(!ScanPlan.needed(80e6, able));
    assertThrows(Refusal.class, () -> ScanPlan.of(settings(1e3, 200e6, 30e3, 0), able));
    assertThrows(Refusal.class, () -> ScanPlan.of(settings(1e9, 9e9, 30e3, 0), able));
    Refusal r =
        org.testng.Assert.expectThrows(
            Refusal.class, () -> ScanPlan.of(settings(10e6, 7.9e9, 200, 0), able));
    assertTrue(r.getMessage().contains("Choose an RBW of at least"), r.getMessage());
  }
}
