package rovnik.core.runs;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Map;
import org.testng.annotations.Test;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.SpectrumOutcome;
import rovnik.core.path.ElementKind;
import rovnik.core.path.PathElement;
import rovnik.core.path.SignalPath;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Series;
import rovnik.core.runs.RunComparison.Change;
import rovnik.core.runs.RunComparison.Presence;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;

public class RunComparisonTest {
  private static Trace trace(double start, double step, float... level) {
    return new Trace(start, step, level, "dBm", "TX OUT", 2 * step, 2 * step, 10, "Hann", "RMS");
  }

  private static RunFacts facts(
      Trace trace, double padDb, double spanHz, String tx, Peak... peaks) {
    SignalPath path =
        new SignalPath(
            List.of(
                PathElement.source("TX", 27, 20),
                PathElement.of("Pad", ElementKind.PAD, -padDb, 0.3),
                PathElement.port("RX", 0, 20, 20)),
            0);
    return new RunFacts(
        SpectrumOutcome.words(
            new SpectrumSettings(100, spanHz, 0, Window.HANN, Detector.RMS, 5, 30, 1)),
        path,
        Map.of("Buoy TX", tx),
        SpectrumOutcome.of(
            EmissionResult.plain(new SpectrumResult(trace, List.of(peaks), List.of())),
            List.of(),
            List.of(),
            List.of()));
  }

  @Test
  public void differenceIsSecondMinusFirstOverTheSharedBand() {
    RunComparison c =
        RunComparison.of(
            facts(trace(0, 10, -90, -80, -70, -60), 30, 200, "on"),
            facts(trace(5, 5, -50, -50, -50, -50), 30, 200, "on"));
    Series d = c.difference().get(0);
    assertEquals(d.x().first(), 5, 1e-9);
    assertEquals(d.x().points(), 4);
    assertEquals(d.y()[0], 35, 1e-4);
    assertEquals(d.y()[1], 30, 1e-4);
    assertEquals(d.unit(), "dB");
    RunComparison apart =
        RunComparison.of(
            facts(trace(0, 1, -90, -80), 30, 200, "on"),
            facts(trace(500, 1, -50, -50), 30, 200, "on"));
    assertTrue(apart.difference().isEmpty());
  }

  @Test
  public void saysWhatChangedAndWhichWay() {
    RunComparison c =
        RunComparison.of(
            facts(trace(0, 1, -90, -80), 30, 200, "on"),
            facts(trace(0, 1, -90, -80), 40, 1e6, "off"));
    assertEquals(
        c.changes(),
        List.of(
            new Change("settings", "span", "200 Hz", "1 MHz", "up"),
            new Change("path", "Pad", "-30.00 dB +-0.3 dB", "-40.00 dB +-0.3 dB", "down"),
            new Change("conditions", "Buoy TX", "on", "off", "")));
  }

  @Test
  public void labelsEveryLine() {
    float[] on = new float[200];
    float[] off = new float[200];
    java.util.Arrays.fill(on, -100);
    java.util.Arrays.fill(off, -100);
    on[50] = 0;
    on[100] = off[100] = -40;
    on[150] = -60;
    off[150] = -50;
    off[180] = -70;
    RunComparison c =
        RunComparison.of(
            facts(trace(0, 1, on), 30, 200, "on", p(50, 0), p(100, -40), p(150, -60)),
            facts(trace(0, 1, off), 30, 200, "off", p(100, -40), p(150, -50), p(180, -70)));
    assertEquals(presence(c, 50), Presence.ONLY_FIRST);
    assertEquals(presence(c, 100), Presence.BOTH);
    assertEquals(presence(c, 150), Presence.BOTH_LEVEL_MOVED);
    assertEquals(presence(c, 180), Presence.ONLY_SECOND);
    assertEquals(c.lines().size(), 4);
  }

  private static RunFacts bare(Series... series) {
    return new RunFacts(
        List.of(),
        null,
        Map.of(),
        new Outcome("any", "Any", "", List.of(series), List.of(), List.of(), List.of(), List.of()));
  }

  /** What is compared need be no spectrum: series of the same id meet, others do not. */
  @Test
  public void seriesOfAnyMeasurementMeetByTheirId() {
    Axis metres = Axis.own("Distance", "m", new double[] {0, 1, 3, 4});
    Series first = Series.curve("step", "", metres, new double[] {1, 2, 3, 4}, "");
    Series second =
        Series.curve("step", "", Axis.even("Distance", "m", 1, 1, 3), new double[] {5, 5, 5}, "");
    Series other = Series.curve("phase", "", metres, new double[] {0, 0, 0, 0}, "degree");
    RunComparison c = RunComparison.of(bare(first, other), bare(second));
    assertEquals(c.difference().size(), 1);
    assertEquals(c.difference().get(0).x().first(), 1, 1e-12);
    // 5 less 2, less the middle between 2 and 3, less 3
    assertEquals(c.difference().get(0).y(), new double[] {3, 2.5, 2}, 1e-12);
    assertTrue(c.lines().isEmpty());
    assertTrue(RunComparison.of(bare(first), bare(other)).difference().isEmpty());
  }

  private static Peak p(double hz, double level) {
    return new Peak(hz, level);
  }

  private static Presence presence(RunComparison c, double hz) {
    return c.lines().stream().filter(l -> l.frequencyHz() == hz).findFirst().get().presence();
  }
}
