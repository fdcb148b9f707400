package rovnik.server.live;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import rovnik.core.Refusal;
import rovnik.core.emission.EmissionMeasurement;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.NoiseFigure;
import rovnik.core.emission.ViewPlan;
import rovnik.core.limits.Reading;
import rovnik.core.path.LevelPlan;
import rovnik.core.path.PathCorrection;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.TraceRow;
import rovnik.core.units.Frequency;
import rovnik.instruments.Instrument;
import rovnik.instruments.iq.IqCapabilities;
import rovnik.instruments.sweep.SweepCapabilities;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.InstrumentLoop;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.live.LiveState.Phase;
import rovnik.server.runs.KeptLook;
import tools.jackson.databind.json.JsonMapper;

/**
 * A live view of a receiver. Everything between {@link #step} and the frame runs on the
 * instrument's own thread; settings and path are snapshots that the next step picks up.
 */
final class ReceiverSession extends LiveSession implements InstrumentLoop.Continuous {
  private static final long FRAME_NANOS = 33_000_000;

  private final long instrumentId;
  private final BenchService bench;
  private final JobService jobs;
  private volatile boolean stale = true;
  private volatile boolean freshAverage;
  private volatile Overridden overridden;

  /** A path for which a reason was given, and the headroom that it was given for. */
  private record Overridden(JobDto.PathVersion path, double headroomDb) {
    boolean covers(JobDto job, LevelPlan plan) {
      return path.equals(job.pathVersion()) && plan.worstHeadroomDb() > headroomDb - 0.05;
    }
  }

  private volatile GuidedRun guided;
  private volatile Setting findingSetting;
  volatile NoiseFigure.Receiver receiverNoise;

  // Touched by the instrument's thread only.
  private Setting setting;
  private Engine engine;
  private long nextFrameNanos;

  // The newest look, shared with whoever keeps it.
  private final Object lookLock = new Object();
  private Setting lookSetting;
  private Look look;
  private SpectrumLayout lookLayout;
  private long lookTakenAtMillis;
  private float[] lookIq = new float[0];

  ReceiverSession(
      String source,
      long instrumentId,
      SpectrumSettings settings,
      BenchService bench,
      JobService jobs,
      JsonMapper json) {
    super(source, settings, json);
    this.instrumentId = instrumentId;
    this.bench = bench;
    this.jobs = jobs;
  }

  @Override
  protected String sourceName() {
    return bench.nameOf(instrumentId);
  }

  @Override
  double widestSpanHz() {
    if (bench.sweeps(instrumentId)) {
      SweepCapabilities swept = bench.sweepCapabilities(instrumentId);
      return swept.highestHz() - swept.lowestHz();
    }
    IqCapabilities able = bench.capabilities(instrumentId);
    return able.highestHz() - able.lowestHz();
  }

  @Override
  double widestAtOnceHz() {
    if (bench.sweeps(instrumentId)) {
      return widestSpanHz();
    }
    return bench.capabilities(instrumentId).widestSpanHz();
  }

  @Override
  String levelUnit() {
    return "dBm";
  }

  @Override
  void apply(SpectrumSettings wanted, ViewPlan wantedView) {
    if (guided != null) {
      throw Conflict.state("Guided work is under way: its settings stay. Stop it first.");
    }
    if (jobId != null) {
      engine(make(wanted, wantedView, jobs.find(jobId))); // refuses what cannot be done
    }
    settings = wanted;
    view = wantedView;
    stale = true;
    if (phase == Phase.REFUSED && !field.equals("levelPlan")) {
      run();
    } else if (phase == Phase.HELD && readAgain()) {
      publishState();
    } else {
      publishState();
    }
  }

  /**
   * Reads what the view asks for from the look that stands still; traces that it does not have come
   * with the next acquisition.
   *
   * @return false if it was taken with other settings
   */
  private boolean readAgain() {
    Look again;
    Setting now;
    synchronized (lookLock) {
      if (look == null || !lookSetting.settings().equals(settings)) {
        return false;
      }
      now = make(settings, view, lookSetting.job());
      EmissionResult result =
          EmissionMeasurement.of(
              SpectrumMeasurement.bare(look.result().base()),
              settings,
              view,
              now.context(look.marks(), look.spoiled()),
              lookLayout,
              lookRecord());
      List<String> wanted = view.traces().stream().map(TraceRow::label).toList();
      List<Reading> readings = new ArrayList<>(result.readings());
      boolean two = view.second() != null;
      look.result().readings().stream()
          .filter(r -> two && SecondTrace.made(r))
          .forEach(readings::add);
      again =
          look.with(
              new EmissionResult(
                  new SpectrumResult(result.base().trace(), result.base().peaks(), readings),
                  result.tables(),
                  result.limitLines()),
              look.rows().stream()
                  .filter(r -> two && SecondTrace.made(r) || wanted.contains(r.label()))
                  .toList());
      look = again;
      lookSetting = now;
    }
    publish(again, now, lookTakenAtMillis);
    return true;
  }

  private IqRecord lookRecord() {
    IqRecord r = look.record();
    return r == null
        ? null
        : new IqRecord(
            lookIq.clone(), r.sampleRateHz(), r.centreHz(), r.fullScaleDbm(), r.overload());
  }

  private Setting make(SpectrumSettings wanted, ViewPlan wantedView, JobDto job) {
    return new Setting(
        wanted,
        wantedView,
        job,
        new PathCorrection(job.path().toCore()),
        bench.sweeps(instrumentId)
            ? bench.sweepCapabilities(instrumentId).accuracy()
            : bench.capabilities(instrumentId).accuracy());
  }

  private Engine engine(Setting wanted) {
    return bench.sweeps(instrumentId)
        ? Engine.of(wanted, bench.sweepCapabilities(instrumentId))
        : Engine.of(wanted, bench.capabilities(instrumentId));
  }

  @Override
  void start(long job, String reason) {
    JobDto found = ready(job, reason);
    engine(make(settings, view, found));
    stale = true;
    run();
  }

  /** Checks that a job may be measured with this receiver now. */
  private JobDto ready(long job, String reason) {
    JobDto found = jobs.find(job);
    Long port = found.path().portInstrument();
    if (port == null) {
      throw Conflict.state(
          "The path of this job ends at no instrument. Click its last element and choose the"
              + " receiver that the cable goes to.");
    }
    if (port != instrumentId) {
      throw Conflict.state(
          "The path of this job ends at "
              + bench.nameOf(port)
              + ". Choose that receiver, or change the last element of the path.");
    }
    jobId = job;
    LevelPlan plan = plan(found);
    String trouble = trouble(found, plan);
    if (!trouble.isEmpty()) {
      if (reason == null || reason.isBlank()) {
        stand(Phase.REFUSED, trouble, "levelPlan");
        bench.receiver(instrumentId).setContinuous(null);
        throw Conflict.levels(trouble);
      }
      overrideReason = reason.strip();
      overridden = new Overridden(found.pathVersion(), plan.worstHeadroomDb());
    }
    return found;
  }

  @Override
  void startGuided(Guided work, long job, String reason) {
    if (guided != null) {
      throw Conflict.state("Guided work is under way. Stop it first.");
    }
    if (bench.sweeps(instrumentId)) {
      throw Conflict.state(
          "Guided work needs an IQ receiver. Choose one as the source, and as the end of the path.");
    }
    JobDto found = ready(job, reason);
    IqCapabilities able = bench.capabilities(instrumentId);
    GuidedRun[] self = new GuidedRun[1];
    self[0] =
        new GuidedRun(
            work,
            i -> new GuidedBench(this, i, able, bench, found, self[0]::stopping),
            this::guidedEnded);
    guided = self[0];
    found(null);
    stand(Phase.RUNNING, "", "");
    bench.receiver(instrumentId).setContinuous(self[0]);
  }

  /** Called on the instrument's thread. */
  private void guidedEnded(GuidedRun run, Finding result, String trouble, String where) {
    if (guided != run) {
      return;
    }
    if (result != null) {
      findingSetting = make(settings, view, jobs.find(jobId));
      found(result);
    }
    guided = null;
    setting = null;
    stale = true;
    if (!trouble.isEmpty()) {
      bench.receiver(instrumentId).setContinuous(null);
      stand(Phase.HELD, trouble, where);
    } else {
      run();
    }
  }

  @Override
  void stopGuided() {
    GuidedRun run = guided;
    if (run != null) {
      run.stop();
    }
  }

  @Override
  GuidedProgress guided() {
    GuidedRun run = guided;
    return run == null ? null : run.progress();
  }

  @Override
  KeptLook findingLook() {
    Finding f = finding;
    if (f == null || f.base() == null) {
      throw Conflict.state("There is no finding to keep. Start guided work first.");
    }
    Setting s = findingSetting;
    SpectrumResult base =
        new SpectrumResult(f.base().base().trace(), f.base().base().peaks(), f.readings());
    Map<String, String> conditions = new LinkedHashMap<>(bench.conditions());
    conditions.put("found by", f.title());
    conditions.put("summary", f.summary());
    return new KeptLook(
        s.job(),
        s.settings(),
        s.view(),
        new EmissionResult(base, f.tables(), f.curves()),
        List.of(),
        null,
        null,
        conditions,
        sourceName(),
        bench.one(instrumentId).identity(),
        overrideReason);
  }

  private void run() {
    stand(Phase.RUNNING, "", "");
    bench.receiver(instrumentId).setContinuous(this);
  }

  private LevelPlan plan(JobDto job) {
    return jobs.plan(job, bench.sourceLevelDbm(job));
  }

  /** What the level plan says against power, "" if nothing or if it was overridden. */
  private String trouble(JobDto job, LevelPlan plan) {
    if (plan.blocking().isEmpty()) {
      overrideReason = "";
      return "";
    }
    Overridden before = overridden;
    return before != null && before.covers(job, plan) ? "" : plan.blocking().get(0).sentence();
  }

  @Override
  void hold() {
    stopGuided();
    if (guided != null) {
      return; // it ends by itself after the acquisition that is under way
    }
    if (phase == Phase.RUNNING || phase == Phase.LOST) {
      bench.receiver(instrumentId).setContinuous(null);
      stand(Phase.HELD, "", "");
    }
  }

  @Override
  void jobChanged() {
    stale = true;
    if (jobId == null) {
      return;
    }
    JobDto job = jobs.find(jobId);
    String trouble = trouble(job, plan(job));
    if (!trouble.isEmpty() && (phase == Phase.RUNNING || phase == Phase.LOST)) {
      stopGuided();
      guided = null;
      bench.receiver(instrumentId).setContinuous(null);
      stand(Phase.REFUSED, trouble, "levelPlan");
    } else if (trouble.isEmpty() && phase == Phase.REFUSED && field.equals("levelPlan")) {
      stand(Phase.HELD, "", "");
    } else {
      publishState();
    }
  }

  @Override
  void restartAverage() {
    freshAverage = true;
    stale = true;
  }

  @Override
  protected void nobodyWatches() {
    hold();
  }

  // From here on: the instrument's thread.

  @Override
  public boolean step(Instrument instrument) {
    if (phase == Phase.LOST) {
      stand(Phase.RUNNING, "", "");
      setting = null;
    }
    if (setting == null || stale) {
      stale = false;
      prepare();
    }
    Look next = engine.next(instrument);
    long acquiredAtMillis = System.currentTimeMillis();
    if (next == null || stale) {
      return true; // nothing yet, or the settings changed meanwhile: this look is of yesterday
    }
    remember(next, acquiredAtMillis);
    publish(next, setting, acquiredAtMillis);
    pace();
    return true;
  }

  private void prepare() {
    JobDto job = jobs.find(jobId);
    Engine before = setting == null || freshAverage ? null : engine;
    freshAverage = false;
    setting = make(settings, view, job);
    engine = engine(setting);
    if (before != null) {
      engine.follow(before);
    }
  }

  private void remember(Look next, long acquiredAtMillis) {
    synchronized (lookLock) {
      if (next.record() != null) {
        float[] iq = next.record().iq();
        if (lookIq.length != iq.length) {
          lookIq = new float[iq.length];
        }
        System.arraycopy(iq, 0, lookIq, 0, iq.length);
      }
      look = next;
      lookSetting = setting;
      lookLayout = engine.layout();
      lookTakenAtMillis = acquiredAtMillis;
    }
  }

  private void pace() {
    long now = System.nanoTime();
    if (nextFrameNanos > now) {
      LockSupport.parkNanos(nextFrameNanos - now);
    }
    nextFrameNanos = Math.max(now, nextFrameNanos) + FRAME_NANOS;
  }

  @Override
  public void failed(String sentence, boolean connectionLost) {
    stand(connectionLost ? Phase.LOST : Phase.REFUSED, sentence, "instrument");
  }

  @Override
  public void refused(Refusal refusal) {
    stand(Phase.REFUSED, refusal.getMessage(), refusal.field());
  }

  @Override
  KeptLook look() {
    synchronized (lookLock) {
      if (look == null) {
        throw Conflict.state("There is nothing to keep yet. Start the acquisition first.");
      }
      Map<String, String> conditions = new LinkedHashMap<>(bench.conditions());
      conditions.put(
          "receiver attenuation",
          String.format(Locale.ROOT, "%.0f dB", look.facts().attenuationDb()));
      if (look.facts().sampleRateHz() > 0) {
        conditions.put("sample rate", Frequency.ofHertz(look.facts().sampleRateHz()).toString());
      } else {
        conditions.put(
            "sweep time", String.format(Locale.ROOT, "%.3g s", look.facts().recordSeconds()));
      }
      return new KeptLook(
          lookSetting.job(),
          lookSetting.settings(),
          lookSetting.view(),
          look.result(),
          look.rows().stream().map(r -> new KeptLook.Row(r.label(), r.trace())).toList(),
          lookRecord(),
          null,
          conditions,
          sourceName(),
          bench.one(instrumentId).identity(),
          overrideReason);
    }
  }
}
