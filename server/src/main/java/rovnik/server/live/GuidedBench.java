package rovnik.server.live;

import java.util.function.BooleanSupplier;
import rovnik.core.Refusal;
import rovnik.core.emission.NoiseFigure;
import rovnik.core.emission.ViewPlan;
import rovnik.core.path.PathCorrection;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.instruments.Instrument;
import rovnik.instruments.iq.AcquisitionPlan;
import rovnik.instruments.iq.IqCapabilities;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.instruments.iq.ScanPlan;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.InstrumentDto;
import rovnik.server.jobs.JobDto;

/** What guided work has at hand: the receiver, the job, the source, and a voice. */
final class GuidedBench {
  /** Raised between two acquisitions when the user stops the work. */
  static final class Stopped extends RuntimeException {
    Stopped() {
      super("stopped", null, false, false);
    }
  }

  /** How a look is taken. */
  record Way(double movedSpans, double referenceStepDb) {
    static final Way PLAIN = new Way(0, 0);
  }

  private final ReceiverSession session;
  private final Instrument receiver;
  private final IqCapabilities able;
  private final BenchService bench;
  private final JobDto job;
  private final SpectrumSettings settings;
  private final ViewPlan view;
  private final BooleanSupplier stopped;
  private final long beganNanos = System.nanoTime();
  private String words = "";
  private double progress;
  private Finding partial;

  GuidedBench(
      ReceiverSession session,
      Instrument receiver,
      IqCapabilities able,
      BenchService bench,
      JobDto job,
      BooleanSupplier stopped) {
    this.session = session;
    this.receiver = receiver;
    this.able = able;
    this.bench = bench;
    this.job = job;
    this.settings = session.settings;
    this.view = session.view;
    this.stopped = stopped;
  }

  SpectrumSettings settings() {
    return settings;
  }

  ViewPlan view() {
    return view;
  }

  JobDto job() {
    return job;
  }

  IqCapabilities receiver() {
    return able;
  }

  PathCorrection correction() {
    return new PathCorrection(job.path().toCore());
  }

  /** Setting with which readings of a finding are made. */
  Setting setting(SpectrumSettings s) {
    return new Setting(s, view, job, correction(), able.accuracy());
  }

  /** Says what is being done; the screen shows it at once. */
  void say(String what, double done) {
    words = what;
    progress = done;
    session.publishState();
  }

  GuidedProgress state(Guided work) {
    double spent = (System.nanoTime() - beganNanos) / 1e9;
    double left = progress > 0.02 ? spent / progress * (1 - progress) : 0;
    return new GuidedProgress(work.id(), work.title(), words, progress, left);
  }

  /** What would be shown if the work were stopped now. */
  void partial(Finding finding) {
    partial = finding;
  }

  Finding partial() {
    return partial;
  }

  /** Takes a look with the plain way. */
  Look look(SpectrumSettings wanted) {
    return look(wanted, ViewPlan.PLAIN, Way.PLAIN);
  }

  /**
   * Takes one look with as many averages as the settings ask for; the screen follows.
   *
   * @throws Stopped if the user stopped the work
   */
  Look look(SpectrumSettings wanted, ViewPlan wantedView, Way way) {
    Setting s = new Setting(wanted, wantedView, job, correction(), able.accuracy());
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
      if (stopped.getAsBoolean()) {
        throw new Stopped();
      }
      Look next = engine.next(receiver);
      if (next == null) {
        continue;
      }
      session.publish(next, s, System.currentTimeMillis());
      Trace t = next.result().base().trace();
      boolean averaged =
          engine instanceof ScanEngine ? next.progress() >= 1 : t.segments() >= wanted.averages();
      if (averaged) {
        return next;
      }
    }
  }

  /** Takes one record as told; the screen is not changed. */
  IqRecord record(IqSetup setup) {
    if (stopped.getAsBoolean()) {
      throw new Stopped();
    }
    IqReceiver iq = (IqReceiver) receiver;
    iq.configure(setup);
    return iq.acquire();
  }

  /** The slowest rate of the receiver that is at least this. */
  double rateFor(double wantedHz) {
    double rate = able.fastestRateHz();
    for (int k = 0; k < able.rateHalvings() && rate / 2 >= wantedHz; k++) {
      rate /= 2;
    }
    return rate;
  }

  /** True if the path of the job begins at a source that can be switched. */
  boolean hasSource() {
    return job.path().sourceInstrument() != null;
  }

  boolean sourceOn() {
    return hasSource() && !Double.isNaN(bench.sourceLevelDbm(job));
  }

  void switchSource(boolean on) {
    bench.setSource(sourceId(), on, null, null, job.id(), session.overrideReason);
  }

  double sourceLevelDbm() {
    return bench.sourceLevelDbm(job);
  }

  void setSourceLevelDbm(double levelDbm) {
    bench.setSourceLevel(sourceId(), levelDbm, job.id(), session.overrideReason);
  }

  /** Excess on the label of the path's noise source, NaN if the path begins at none. */
  double excessNoiseDb() {
    InstrumentDto.NoiseDto noise = bench.noiseOf(job);
    return noise == null ? Double.NaN : noise.excessNoiseDb();
  }

  void setHot(boolean hot) {
    bench.setHot(sourceId(), hot);
  }

  /** What was measured with the noise source straight at the receiver, null if nothing was. */
  NoiseFigure.Receiver receiverNoise() {
    return session.receiverNoise;
  }

  void rememberReceiverNoise(NoiseFigure.Receiver noise) {
    session.receiverNoise = noise;
  }

  /** Lowest and highest level that the source can be set to. */
  double[] sourceRangeDbm() {
    return bench.sourceRangeDbm(sourceId());
  }

  private long sourceId() {
    Long id = job.path().sourceInstrument();
    if (id == null) {
      throw new Refusal(
          "source",
          "The path does not say which instrument its source is. Click the first element and choose"
              + " it.");
    }
    return id;
  }

  String sourceName() {
    return job.path().elements().get(0).name();
  }

  /** Frames what the live view shows from now on. */
  void frame(SpectrumSettings framed) {
    session.settings = framed;
  }
}
