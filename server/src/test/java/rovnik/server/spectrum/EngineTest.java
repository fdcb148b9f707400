package rovnik.server.spectrum;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNull;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.emission.LevelDisplay;
import rovnik.core.emission.SecondInput;
import rovnik.core.emission.ViewPlan;
import rovnik.core.path.ElementKind;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.spectrum.TraceMode;
import rovnik.core.spectrum.TraceRow;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.instruments.iq.AcquisitionPlan;
import rovnik.instruments.iq.IqCapabilities;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.instruments.iq.ScanPlan;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.LimitsDto;
import rovnik.server.jobs.PathDto;
import rovnik.server.jobs.PathElementDto;

/** Engines with a receiver that is only arithmetic: a tone of a level that the test chooses. */
public class EngineTest {
  private static final IqCapabilities ABLE =
      new IqCapabilities(
          10e3,
          8e9,
          100e6,
          12,
          0.8,
          1 << 22,
          -20,
          40,
          2,
          20,
          18,
          2,
          0,
          new InstrumentAccuracy(0.4, 1e-9));

  /** One tone at 500 MHz, full scale by the attenuation; clips when the tone is above it. */
  private static final class ToneReceiver implements IqReceiver {
    private IqSetup setup;
    private double toneDbm = -30;
    private boolean tripped;
    private final List<IqSetup> seen = new ArrayList<>();

    @Override
    public IqCapabilities capabilities() {
      return ABLE;
    }

    @Override
    public void configure(IqSetup wanted) {
      setup = wanted;
      seen.add(wanted);
    }

    @Override
    public IqRecord acquire() {
      double fullScale = ABLE.fullScaleDbm(setup.attenuationDb());
      double offset = 500e6 - setup.centreHz();
      boolean inBand = Math.abs(offset) < setup.sampleRateHz() / 2;
      double a = inBand ? Math.pow(10, (toneDbm - fullScale) / 20) : 0;
      float[] iq = new float[2 * setup.samples()];
      java.util.Random random = new java.util.Random(1);
      for (int i = 0; i < setup.samples(); i++) {
        double phase = 2 * Math.PI * (offset / setup.sampleRateHz()) * i;
        iq[2 * i] = (float) (a * Math.cos(phase) + 1e-5 * random.nextGaussian());
        iq[2 * i + 1] = (float) (a * Math.sin(phase) + 1e-5 * random.nextGaussian());
      }
      return new IqRecord(iq, setup.sampleRateHz(), setup.centreHz(), fullScale, a > 1);
    }

    /** The same tone on input 2, 20 dB weaker at its port. */
    @Override
    public IqRecord acquiredOnSecond() {
      IqSetup first = setup;
      toneDbm -= 20;
      setup =
          new IqSetup(
              first.centreHz(), first.sampleRateHz(), first.samples(), first.secondAttenuationDb());
      IqRecord r = acquire();
      setup = first;
      toneDbm += 20;
      return r;
    }

    @Override
    public boolean protectionTripped() {
      return tripped;
    }

    @Override
    public void clearProtection() {
      tripped = false;
    }

    @Override
    public String identity() {
      return "tone";
    }

    @Override
    public void reset() {
      setup = null;
    }

    @Override
    public List<String> errors() {
      return List.of();
    }

    @Override
    public void close() {
      // nothing is open
    }
  }

  private static PathElementDto element(String name, ElementKind kind, double gainDb) {
    return new PathElementDto(
        name,
        kind,
        "number",
        gainDb,
        "",
        null,
        0,
        null,
        null,
        true,
        null,
        kind == ElementKind.SOURCE ? 0.0 : null,
        null,
        null,
        null,
        null,
        null,
        null);
  }

  private static JobDto job(long revision) {
    return new JobDto(
        1,
        "job",
        "dut",
        new PathDto(
            List.of(
                element("TX", ElementKind.SOURCE, 0),
                element("Pad", ElementKind.PAD, -20),
                element("RX", ElementKind.PORT, 0)),
            0,
            revision),
        new LimitsDto(null, null, null, null, null),
        List.of(),
        false);
  }

  private static Setting setting(SpectrumSettings s, long revision, TraceRow... rows) {
    ViewPlan view =
        new ViewPlan(
            List.of(rows),
            ViewPlan.PLAIN.reducer(),
            4096,
            null,
            null,
            null,
            null,
            false,
            false,
            false,
            List.of(),
            LevelDisplay.PLAIN,
            null);
    JobDto job = job(revision);
    return new Setting(s, view, job, new PathCorrection(job.path().toCore()), ABLE.accuracy());
  }

  private static Setting withSecond(SpectrumSettings s, SecondInput second) {
    Setting plain = setting(s, 1);
    ViewPlan v = plain.view();
    ViewPlan view =
        new ViewPlan(
            v.traces(),
            v.reducer(),
            v.mostPoints(),
            null,
            null,
            null,
            null,
            false,
            false,
            false,
            List.of(),
            LevelDisplay.PLAIN,
            second);
    return new Setting(s, view, plain.job(), plain.correction(), ABLE.accuracy());
  }

  private static Reading reading(SpectrumLook look, String id) {
    return look.result().readings().stream()
        .filter(r -> r.id().equals(id))
        .findFirst()
        .orElseThrow(() -> new AssertionError(id + " not in " + look.result().readings()));
  }

  private static SpectrumSettings span(double span, double reference) {
    return new SpectrumSettings(500e6, span, 0, Window.HANN, Detector.RMS, 64, reference, span / 4);
  }

  private static RecordEngine engine(Setting s) {
    return new RecordEngine(s, AcquisitionPlan.of(s.atPort(), ABLE));
  }

  private static double top(Trace t) {
    double top = Double.NEGATIVE_INFINITY;
    for (float v : t.level()) {
      top = Math.max(top, v);
    }
    return top;
  }

  /** -30 dBm at the port behind 20 dB is -10 dBm at the plane, on every trace. */
  @Test
  public void allTracesAreAtTheReadingPlane() {
    ToneReceiver receiver = new ToneReceiver();
    RecordEngine e =
        engine(
            setting(
                span(200e3, 10),
                1,
                TraceRow.of(TraceMode.HIGHEST, 1),
                TraceRow.of(TraceMode.LIVE, 1),
                TraceRow.math(TraceMode.RATIO, 0, 1)));
    SpectrumLook first = e.next(receiver);
    assertEquals(first.result().base().peaks().get(0).level(), -10, 0.01);
    assertEquals(top(first.rows().get(0).trace()), -10, 0.8);
    receiver.toneDbm = -40;
    SpectrumLook second = e.next(receiver);
    assertEquals(top(second.rows().get(0).trace()), -10, 0.8); // the highest stays
    assertEquals(top(second.rows().get(1).trace()), -20, 0.8);
    assertEquals(second.rows().get(2).trace().unit(), "dB");
    assertEquals(second.rows().get(2).trace().levelAt(500e6), 10, 0.3);
    assertEquals(second.facts().attenuationDb(), 10, 0); // -10 dBm expected at the port
  }

  /** A view that changes keeps the average; other settings or another path begin a new one. */
  @Test
  public void averagesGoOnWhileTheyAreOfTheSame() {
    ToneReceiver receiver = new ToneReceiver();
    RecordEngine before = engine(setting(span(200e3, 10), 1));
    before.next(receiver);
    int segments = before.next(receiver).result().base().trace().segments();
    RecordEngine sameWithTrace =
        engine(setting(span(200e3, 10), 1, TraceRow.of(TraceMode.HIGHEST, 1)));
    sameWithTrace.follow(before);
    assertTrue(sameWithTrace.next(receiver).result().base().trace().segments() > segments);
    RecordEngine otherPath = engine(setting(span(200e3, 10), 2));
    otherPath.follow(sameWithTrace);
    assertTrue(otherPath.next(receiver).result().base().trace().segments() < segments);
    RecordEngine otherSpan = engine(setting(span(100e3, 10), 2));
    otherSpan.follow(otherPath);
    assertTrue(otherSpan.next(receiver).result().base().trace().segments() < segments);
  }

  /** What was frozen stays frozen when the reference level changes. */
  @Test
  public void frozenTracesOutliveOtherSettings() {
    ToneReceiver receiver = new ToneReceiver();
    RecordEngine before = engine(setting(span(200e3, 10), 1, TraceRow.of(TraceMode.FROZEN, 1)));
    before.next(receiver);
    receiver.toneDbm = -60;
    RecordEngine after = engine(setting(span(200e3, 10), 1, TraceRow.of(TraceMode.FROZEN, 1)));
    after.follow(before);
    SpectrumLook look = after.next(receiver);
    assertEquals(top(look.rows().get(0).trace()), -10, 0.8);
  }

  @Test
  public void overloadAndProtectionAreMarks() {
    ToneReceiver receiver = new ToneReceiver();
    receiver.toneDbm = 0;
    receiver.tripped = true;
    RecordEngine e = engine(setting(span(200e3, -10), 1));
    assertEquals(e.next(receiver).marks(), List.of("overload", "input protection tripped"));
  }

  /** A scan shows what it has, then all of it; an overload spoils the steps that saw it. */
  @Test
  public void aScanGrowsAndMarksOnlyWhatWasSpoiled() {
    ToneReceiver receiver = new ToneReceiver();
    receiver.toneDbm = -5; // above full scale of -20 dBm plus 10 dB
    SpectrumSettings wide =
        new SpectrumSettings(500e6, 400e6, 200e3, Window.HANN, Detector.RMS, 4, 10, 1e6);
    Setting s = setting(wide, 1);
    ScanPlan plan = ScanPlan.of(s.atPort(), ABLE);
    ScanEngine e = new ScanEngine(s, plan);
    SpectrumLook last = null;
    double progress = 0;
    for (int i = 0; i < plan.steps().size(); i++) {
      SpectrumLook look = e.next(receiver);
      if (look != null) {
        assertTrue(look.progress() > progress);
        progress = look.progress();
        last = look;
      }
    }
    assertEquals(progress, 1, 0);
    assertEquals(last.remainingSeconds(), 0, 0);
    Trace t = last.result().base().trace();
    assertEquals(t.startHz(), 300e6, 1e-3);
    assertEquals(t.stopHz(), 700e6, 200e3);
    assertNull(last.record());
    assertTrue(!last.spoiled().isEmpty() && last.spoiled().size() <= 3, last.spoiled().toString());
    last.spoiled()
        .forEach(
            b -> assertTrue(b.fromHz() < 500e6 + 60e6 && b.toHz() > 500e6 - 60e6, b.toString()));
    receiver.toneDbm = -30;
    // A whole pass is shown when it is of use again, at the latest after a few.
    SpectrumLook second = null;
    for (int i = 0; i < 100 * plan.steps().size() && second == null; i++) {
      second = e.next(receiver);
    }
    assertEquals(second.spoiled(), List.of());
    assertEquals(second.result().base().peaks().get(0).frequencyHz(), 500e6, 20e3);
    assertEquals(second.result().base().peaks().get(0).level(), -10, 0.2);
    // Each step was tuned below what it shows.
    receiver.seen.forEach(setup -> assertTrue(setup.centreHz() < 700e6));
  }

  /**
   * -50 dBm at port 2 behind a probe of 10:1 is -30 dBm at its tip, whatever the path of input 1.
   */
  @Test
  public void theSecondInputHasItsOwnProbeAndLevel() {
    ToneReceiver receiver = new ToneReceiver();
    SecondInput second = new SecondInput(Window.FLAT_TOP, 10, 10);
    Engine e = Engine.of(withSecond(span(200e3, 10), second), ABLE);
    SpectrumLook look = e.next(receiver);
    assertEquals(look.rows().size(), 1);
    assertEquals(look.rows().get(0).trace().plane(), "tip of probe 2, 10:1");
    assertEquals(reading(look, "secondLevel").value(), -30, 0.02);
    assertEquals(reading(look, "secondOverFirst").value(), -20, 0.02);
    assertEquals(reading(look, "carrierPower").value(), -10, 0.02);
    // +10 dBm at the tip is -10 dBm at the port: 10 dB over full scale without attenuation.
    assertEquals(receiver.seen.get(0).secondAttenuationDb(), 10, 0);
    assertEquals(receiver.seen.get(0).attenuationDb(), 10, 0);
    // The flat-top window is wider: the same length gives a coarser RBW.
    assertTrue(look.rows().get(0).trace().rbwHz() > look.result().base().trace().rbwHz());
  }

  @Test
  public void anOverloadOfTheSecondInputMarksItsNumbersAlone() {
    ToneReceiver receiver = new ToneReceiver();
    receiver.toneDbm = -5;
    SecondInput second = new SecondInput(Window.HANN, -60, 1);
    SpectrumLook look = Engine.of(withSecond(span(200e3, 40), second), ABLE).next(receiver);
    assertEquals(look.marks(), List.of());
    receiver.toneDbm = 15;
    SpectrumLook over = Engine.of(withSecond(span(200e3, 40), second), ABLE).next(receiver);
    assertTrue(over.marks().contains("overload of input 2"), over.marks().toString());
    assertEquals(reading(over, "secondLevel").marks(), List.of("overload of input 2"));
    assertEquals(reading(over, "carrierPower").marks(), List.of());
  }

  /** The average of input 2 goes on with the first's, and begins anew with another probe. */
  @Test
  public void theSecondAverageFollowsItsOwnSettings() {
    ToneReceiver receiver = new ToneReceiver();
    SecondInput ten = new SecondInput(Window.HANN, 10, 10);
    Engine before = Engine.of(withSecond(span(200e3, 10), ten), ABLE);
    before.next(receiver);
    int segments = before.next(receiver).rows().get(0).trace().segments();
    Engine same = Engine.of(withSecond(span(200e3, 10), ten), ABLE);
    same.follow(before);
    assertTrue(same.next(receiver).rows().get(0).trace().segments() > segments);
    Engine other =
        Engine.of(withSecond(span(200e3, 10), new SecondInput(Window.HANN, 10, 1)), ABLE);
    other.follow(same);
    assertTrue(other.next(receiver).rows().get(0).trace().segments() < segments);
  }

  @Test
  public void aScanHasNoSecondInput() {
    Refusal r =
        expectThrows(
            Refusal.class,
            () ->
                Engine.of(withSecond(span(400e6, 10), new SecondInput(Window.HANN, 10, 10)), ABLE));
    assertEquals(r.field(), "second");
    assertTrue(r.getMessage().contains("80 MHz"), r.getMessage());
  }

  /** A steady tone reads itself on both weighted traces once they have settled. */
  @Test
  public void weightedTracesComeFromTheSamples() {
    ToneReceiver receiver = new ToneReceiver();
    Engine e =
        Engine.of(
            setting(
                span(400e3, 10),
                1,
                TraceRow.of(TraceMode.QUASI_PEAK, 1),
                TraceRow.of(TraceMode.CISPR_AVERAGE, 1)),
            ABLE);
    SpectrumLook look = null;
    for (int i = 0; i < 150; i++) {
      look = e.next(receiver);
    }
    assertEquals(top(look.rows().get(0).trace()), -10, 0.2);
    assertEquals(top(look.rows().get(1).trace()), -10, 0.2);
    // The filter of 120 kHz: 6 dB down at 60 kHz from the tone.
    assertEquals(look.rows().get(1).trace().levelAt(500.06e6), -16, 0.4);
    Refusal r =
        expectThrows(
            Refusal.class,
            () ->
                Engine.of(setting(span(400e6, 10), 1, TraceRow.of(TraceMode.QUASI_PEAK, 1)), ABLE));
    assertEquals(r.field(), "traces");
  }

  /** Further traces of a scan come with its first whole pass. */
  @Test
  public void aScanHoldsItsHighest() {
    ToneReceiver receiver = new ToneReceiver();
    Setting s = setting(span(200e6, 10), 1, TraceRow.of(TraceMode.HIGHEST, 1));
    Engine e = Engine.of(s, ABLE);
    SpectrumLook whole = null;
    for (int i = 0; i < 200 && (whole == null || whole.progress() < 1); i++) {
      SpectrumLook look = e.next(receiver);
      assertTrue(look == null || look.progress() >= 1 || look.rows().isEmpty());
      whole = look == null ? whole : look;
    }
    assertEquals(whole.rows().get(0).label(), "highest hold");
    assertEquals(top(whole.rows().get(0).trace()), -10, 1);
    receiver.toneDbm = -60;
    SpectrumLook later = null;
    for (int i = 0; i < 600; i++) {
      SpectrumLook look = e.next(receiver);
      later = look == null ? later : look;
    }
    assertEquals(top(later.rows().get(0).trace()), -10, 1);
    assertTrue(top(later.result().base().trace()) < -35);
  }
}
