package rovnik.server.spectrum;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.NoiseFigure;
import rovnik.core.emission.ViewPlan;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.spectrum.TraceSeries;
import rovnik.instruments.Control;
import rovnik.instruments.iq.AcquisitionPlan;
import rovnik.instruments.iq.IqCapabilities;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.instruments.iq.ScanPlan;
import rovnik.instruments.source.SignalSource;
import rovnik.server.bench.BenchService;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.Guided;
import rovnik.server.live.PathGenerators;
import rovnik.server.live.Workbench;

/** What guided work on spectra has at hand: the receiver, the job, its source, and a voice. */
final class SpectrumBench implements Workbench {
  private static final int CURVE_POINTS = 1500;
  private static final String RECEIVER_NOISE = "receiverNoise";

  /** How a look is taken. */
  record Way(double movedSpans, double referenceStepDb) {
    static final Way PLAIN = new Way(0, 0);
  }

  private final IqReceiver receiver;
  private final BenchService bench;
  private final Setting setting;
  private final Voice voice;

  SpectrumBench(IqReceiver receiver, BenchService bench, Setting setting, Voice voice) {
    this.receiver = receiver;
    this.bench = bench;
    this.setting = setting;
    this.voice = voice;
  }

  /**
   * A finding.
   *
   * @param logarithmic whether the curves are drawn over decades
   * @param base spectrum that it goes back to, kept with it; null if there is none
   */
  static Outcome found(
      Guided<?> work,
      String summary,
      List<Series> curves,
      boolean logarithmic,
      List<ResultTable> tables,
      List<Reading> readings,
      @Nullable EmissionResult base) {
    List<Series> series = new ArrayList<>();
    curves.forEach(c -> series.add(logarithmic ? c.over(c.x().overDecades()) : c));
    boolean own = curves.stream().anyMatch(c -> c.x().quantity().equals(Axis.FREQUENCY));
    if (base != null && !own) {
      series.add(curve("trace", "the spectrum it goes back to", base.base().trace()));
    }
    return new Outcome(
        work.id(), work.title(), summary, series, tables, readings, List.of(), List.of());
  }

  /** A trace of not too many points, each the highest of what it stands for. */
  static Series curve(String id, String label, Trace t) {
    return TraceSeries.thin(id, label, t, CURVE_POINTS);
  }

  @Override
  public JobDto job() {
    return setting.job();
  }

  @Override
  public Voice voice() {
    return voice;
  }

  SpectrumSettings settings() {
    return setting.settings();
  }

  IqCapabilities receiver() {
    return receiver.capabilities();
  }

  PathCorrection correction() {
    return setting.correction();
  }

  /** Setting with which readings of a finding are made. */
  Setting setting(SpectrumSettings s) {
    return setting.with(s, setting.view());
  }

  /** Takes a look with the plain way. */
  SpectrumLook look(SpectrumSettings wanted) {
    return look(wanted, ViewPlan.PLAIN, Way.PLAIN);
  }

  /**
   * Takes one look with as many averages as the settings ask for; the screen follows.
   *
   * @throws Stopped if the user stopped the work
   */
  SpectrumLook look(SpectrumSettings wanted, ViewPlan wantedView, Way way) {
    Setting s = setting.with(wanted, wantedView);
    IqCapabilities able = receiver();
    SpectrumSettings atPort = s.atPort();
    SpectrumSettings stepped =
        atPort.with(
            atPort.centreHz(),
            atPort.spanHz(),
            atPort.rbwHz(),
            atPort.referenceLevelDbm() + way.referenceStepDb());
    Engine engine =
        ScanPlan.needed(atPort.spanHz(), able)
            ? new ScanEngine(s, ScanPlan.of(stepped, able))
            : new RecordEngine(s, AcquisitionPlan.of(stepped, able, way.movedSpans()));
    while (true) {
      voice.breathe();
      SpectrumLook next = engine.next(receiver);
      if (next == null) {
        continue;
      }
      voice.show(next, SettingsDto.of(wanted, wantedView));
      if (next.settled()) {
        return next;
      }
    }
  }

  /** Takes one record as told; the screen is not changed. */
  IqRecord record(IqSetup setup) {
    voice.breathe();
    receiver.configure(setup);
    return receiver.acquire();
  }

  /** The slowest rate of the receiver that is at least this. */
  double rateFor(double wantedHz) {
    double rate = receiver().fastestRateHz();
    for (int k = 0; k < receiver().rateHalvings() && rate / 2 >= wantedHz; k++) {
      rate /= 2;
    }
    return rate;
  }

  PathGenerators generators() {
    return new PathGenerators(bench, job(), voice);
  }

  /** True if the path of the job begins at a source that is on. */
  boolean sourceOn() {
    return job().path().sourceInstrument() != null
        && !Double.isNaN(bench.sourceLevel(job()).meanDbm());
  }

  void switchSource(boolean on) {
    voice.control(sourceId(), Map.of(SignalSource.OUTPUT, on ? Control.ON : Control.OFF));
  }

  double sourceLevelDbm() {
    return bench.sourceLevel(job()).meanDbm();
  }

  void setSourceLevelDbm(double levelDbm) {
    voice.control(sourceId(), Map.of(SignalSource.LEVEL, Double.toString(levelDbm)));
  }

  /** Excess on the label of the path's noise source, NaN if the path begins at none. */
  double excessNoiseDb() {
    return bench.excessNoiseDb(job());
  }

  void setHot(boolean hot) {
    voice.control(sourceId(), Map.of("hot", hot ? Control.ON : Control.OFF));
  }

  /** What was measured with the noise source straight at the receiver, null if nothing was. */
  NoiseFigure.@Nullable Receiver receiverNoise() {
    return (NoiseFigure.Receiver) voice.recalled(RECEIVER_NOISE);
  }

  void rememberReceiverNoise(NoiseFigure.Receiver noise) {
    voice.remember(RECEIVER_NOISE, noise);
  }

  /** Lowest and highest level that the source can be set to. */
  double[] sourceRangeDbm() {
    return bench.sourceRangeDbm(sourceId());
  }

  private long sourceId() {
    Long id = job().path().sourceInstrument();
    if (id == null) {
      throw new Refusal(
          "source",
          "The path does not say which instrument its source is. Click the first element and choose"
              + " it.");
    }
    return id;
  }

  String sourceName() {
    return job().path().elements().get(0).name();
  }

  /** Frames what the live view shows from now on. */
  void frame(SpectrumSettings framed) {
    voice.frame(SettingsDto.of(framed, setting.view()));
  }
}
