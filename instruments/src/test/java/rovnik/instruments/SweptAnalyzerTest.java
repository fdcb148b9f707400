package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.ToneInterpolator;
import rovnik.core.spectrum.Trace;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.scpi.Timeouts;
import rovnik.instruments.sweep.Sweep;
import rovnik.instruments.sweep.SweepSetup;
import rovnik.instruments.sweep.SweptAnalyzer;
import rovnik.standins.Bench;
import rovnik.standins.world.Truth;

/** The swept analyzer over its socket, in both trace formats, against the world's truth. */
public class SweptAnalyzerTest {
  private Bench bench;

  @BeforeMethod
  public void open() throws IOException {
    bench = new Bench(0, 9, false);
  }

  @AfterMethod
  public void close() {
    bench.close();
  }

  @DataProvider
  public Object[][] dialects() {
    return new Object[][] {{"scpi-sweep"}, {"scpi-sweep-ascii"}};
  }

  private SweptAnalyzer connect(String dialect) {
    return (SweptAnalyzer)
        Drivers.connect(
            "127.0.0.1",
            bench.analyzerPort(),
            InstrumentKind.SWEPT_ANALYZER,
            new DialectLibrary(Path.of("none")).find(dialect),
            Timeouts.DEFAULT);
  }

  private static SpectrumSettings settings(double centre, double span, double rbw, Detector d) {
    return new SpectrumSettings(centre, span, rbw, Window.HANN, d, 1, 0, span / 4);
  }

  private static SpectrumResult measure(SweptAnalyzer analyzer, SpectrumSettings s) {
    analyzer.configure(SweepSetup.of(s, analyzer.capabilities()));
    Sweep sweep = analyzer.sweep();
    Trace t =
        new Trace(
            sweep.startHz(),
            sweep.stepHz(),
            sweep.levelDbm(),
            "dBm",
            "port",
            sweep.rbwHz(),
            sweep.rbwHz() * analyzer.capabilities().noiseOverRbw(),
            1,
            "",
            "");
    return SpectrumMeasurement.of(
        t,
        ToneInterpolator.gaussian(sweep.rbwHz(), sweep.stepHz()),
        List.of(),
        s,
        MeasurementContext.BARE);
  }

  @Test(dataProvider = "dialects")
  public void theCarrierIsTheWorlds(String dialect) {
    try (SweptAnalyzer analyzer = connect(dialect)) {
      SpectrumResult r = measure(analyzer, settings(458.525e6, 200e3, 1e3, Detector.RMS));
      Peak top = r.peaks().get(0);
      assertEquals(top.frequencyHz(), Truth.BUOY_HZ, 10);
      double expected = Truth.BUOY_LEVEL_DBM - bench.world().lossDb(Truth.BUOY_HZ);
      assertEquals(top.level(), expected, 0.3);
      assertEquals(r.trace().rbwHz(), 1e3, 0);
    }
  }

  /** All harmonics and the room in one sweep. */
  @Test
  public void aWideSweepShowsHarmonics() {
    try (SweptAnalyzer analyzer = connect("scpi-sweep")) {
      SpectrumResult r = measure(analyzer, settings(800e6, 1.4e9, 300e3, Detector.PEAK));
      double second =
          Truth.BUOY_LEVEL_DBM
              + Truth.SECOND_HARMONIC_DBC
              - bench.world().lossDb(2 * Truth.BUOY_HZ);
      assertTrue(
          r.peaks().stream()
              .anyMatch(
                  p ->
                      Math.abs(p.frequencyHz() - 2 * Truth.BUOY_HZ) < 100e3
                          && Math.abs(p.level() - second) < 0.7),
          r.peaks().toString());
    }
  }

  /** Detectors order noise as they must, by the analyzer's own words. */
  @Test
  public void detectorsAreTheAnalyzers() {
    bench.world().setTransmitting(false);
    try (SweptAnalyzer analyzer = connect("scpi-sweep")) {
      double peak = mean(analyzer, Detector.PEAK);
      double rms = mean(analyzer, Detector.RMS);
      double log = mean(analyzer, Detector.LOG_AVERAGE);
      double low = mean(analyzer, Detector.MINIMUM);
      // Four independent looks a point: the highest of n exponentials is 1 + 1/2 + ... + 1/n, the
      // lowest 1/n, the mean of their logs gamma(1 + 1/n)^n.
      assertEquals(peak - rms, 10 * Math.log10(25 / 12.0), 0.35);
      assertEquals(low - rms, -6.02, 0.6);
      assertEquals(log - rms, -1.71, 0.35);
      double kTBF = Truth.THERMAL_DBM_PER_HZ + 22 + 10 * Math.log10(10e3 * 1.0645) + 0.1;
      assertEquals(rms, kTBF + 10, 0.3); // 10 dB of attenuation for a reference of 0 dBm
    }
  }

  private static double mean(SweptAnalyzer analyzer, Detector d) {
    analyzer.configure(SweepSetup.of(settings(2e9, 10e6, 10e3, d), analyzer.capabilities()));
    double sum = 0;
    float[] level = analyzer.sweep().levelDbm();
    for (float v : level) {
      sum += Math.pow(10, v / 10);
    }
    return 10 * Math.log10(sum / level.length);
  }

  @Test
  public void whatItCannotIsRefused() {
    try (SweptAnalyzer analyzer = connect("scpi-sweep")) {
      var able = analyzer.capabilities();
      assertThrows(Refusal.class, () -> SweepSetup.of(settings(9e9, 1e6, 0, Detector.RMS), able));
      assertThrows(Refusal.class, () -> SweepSetup.of(settings(1e9, 1e6, 1, Detector.RMS), able));
      Refusal many =
          expectThrows(
              Refusal.class, () -> SweepSetup.of(settings(1e9, 1e9, 1e3, Detector.RMS), able));
      assertTrue(many.getMessage().contains("RBW of at least 50 kHz"), many.getMessage());
      assertEquals(SweepSetup.of(settings(1e9, 1e6, 500, Detector.RMS), able).points(), 2001);
      assertThrows(IllegalStateException.class, analyzer::sweep);
      analyzer.configure(SweepSetup.of(settings(1e9, 1e6, 10e3, Detector.RMS), able));
      analyzer.reset();
      assertThrows(IllegalStateException.class, analyzer::sweep);
      assertTrue(analyzer.identity().contains("Swept analyzer"));
    }
  }

  @Test
  public void anOverloadIsSaid() {
    try (SweptAnalyzer analyzer = connect("scpi-sweep")) {
      SpectrumSettings low =
          new SpectrumSettings(458.5e6, 1e6, 10e3, Window.HANN, Detector.RMS, 1, -30, 100e3);
      analyzer.configure(SweepSetup.of(low, analyzer.capabilities()));
      assertTrue(analyzer.sweep().overload());
    }
  }
}
