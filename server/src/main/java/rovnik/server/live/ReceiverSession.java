package rovnik.server.live;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import rovnik.core.Refusal;
import rovnik.core.path.LevelPlan;
import rovnik.core.path.PathCorrection;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.RollingSpectrum;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.units.Frequency;
import rovnik.instruments.Instrument;
import rovnik.instruments.iq.AcquisitionPlan;
import rovnik.instruments.iq.IqCapabilities;
import rovnik.instruments.iq.IqReceiver;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.InstrumentLoop;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.live.LiveState.Phase;
import rovnik.server.runs.KeptLook;
import rovnik.server.spectrum.ReadingDto;
import rovnik.server.spectrum.SettingsDto;
import tools.jackson.databind.json.JsonMapper;

/**
 * A live view of a receiver. Everything between {@link #step} and the frame runs on the
 * instrument's own thread; settings and path are snapshots that the next step picks up.
 */
final class ReceiverSession extends LiveSession implements InstrumentLoop.Continuous {
  private static final long FRAME_NANOS = 33_000_000;

  /** What one configuration of the receiver stands on; a new one starts a new average. */
  private record Setting(
      SpectrumSettings settings,
      JobDto job,
      PathCorrection correction,
      AcquisitionPlan plan,
      IqCapabilities receiver) {}

  private final long instrumentId;
  private final BenchService bench;
  private final JobService jobs;
  private volatile boolean stale = true;
  private volatile boolean freshAverage;
  private volatile long overrideRevision = -1;

  // Touched by the instrument's thread only.
  private Setting setting;
  private SpectrumEstimator estimator;
  private RollingSpectrum rolling;
  private double[] power = new double[0];
  private long nextFrameNanos;

  // The newest look, shared with whoever keeps it.
  private final Object lookLock = new Object();
  private Setting lookSetting;
  private SpectrumResult lookResult;
  private IqRecord lookRecord;
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
  String sourceName() {
    return bench.nameOf(instrumentId);
  }

  @Override
  double widestSpanHz() {
    return bench.capabilities(instrumentId).widestSpanHz();
  }

  @Override
  String levelUnit() {
    return "dBm";
  }

  @Override
  void apply(SpectrumSettings wanted) {
    if (jobId != null) {
      make(wanted, jobs.find(jobId)); // refuses what cannot be done
    }
    settings = wanted;
    stale = true;
    if (phase == Phase.REFUSED && !field.equals("levelPlan")) {
      run();
    } else {
      publishState();
    }
  }

  private Setting make(SpectrumSettings wanted, JobDto job) {
    PathCorrection correction = new PathCorrection(job.path().toCore());
    double gain = correction.gainToPortDb(wanted.centreHz());
    SpectrumSettings atPort =
        new SpectrumSettings(
            correction.planeToPortHz(wanted.centreHz()),
            wanted.spanHz(),
            wanted.rbwHz(),
            wanted.window(),
            wanted.detector(),
            wanted.averages(),
            wanted.referenceLevelDbm() + gain,
            wanted.channelWidthHz());
    IqCapabilities receiver = bench.capabilities(instrumentId);
    return new Setting(wanted, job, correction, AcquisitionPlan.of(atPort, receiver), receiver);
  }

  @Override
  void start(long job, String reason) {
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
    String trouble = trouble(found);
    if (!trouble.isEmpty()) {
      if (reason == null || reason.isBlank()) {
        stand(Phase.REFUSED, trouble, "levelPlan");
        bench.receiver(instrumentId).setContinuous(null);
        throw Conflict.levels(trouble);
      }
      overrideReason = reason.strip();
      overrideRevision = found.path().revision();
    }
    make(settings, found);
    stale = true;
    run();
  }

  private void run() {
    stand(Phase.RUNNING, "", "");
    bench.receiver(instrumentId).setContinuous(this);
  }

  /** What the level plan says against power, "" if nothing or if it was overridden. */
  private String trouble(JobDto job) {
    LevelPlan plan = jobs.plan(job, bench.sourceLevelDbm(job));
    if (plan.blocking().isEmpty()) {
      overrideReason = "";
      return "";
    }
    return overrideRevision == job.path().revision() ? "" : plan.blocking().get(0).sentence();
  }

  @Override
  void hold() {
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
    String trouble = trouble(job);
    if (!trouble.isEmpty() && (phase == Phase.RUNNING || phase == Phase.LOST)) {
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
  void nobodyWatches() {
    hold();
  }

  // From here on: the instrument's thread.

  @Override
  public boolean step(Instrument instrument) {
    IqReceiver receiver = (IqReceiver) instrument;
    if (phase == Phase.LOST) {
      stand(Phase.RUNNING, "", "");
      setting = null;
    }
    if (setting == null || stale) {
      stale = false;
      prepare();
    }
    receiver.configure(setting.plan().setup());
    IqRecord record = receiver.acquire();
    long acquiredAtMillis = System.currentTimeMillis();
    estimator.breakRecord();
    estimator.accumulate(record.iq(), 0, record.sampleCount());
    rolling.take(estimator);
    rolling.powerInto(power);
    List<String> marks = new ArrayList<>();
    if (record.overload()) {
      marks.add("overload");
    }
    if (receiver.protectionTripped()) {
      marks.add("input protection tripped");
    }
    SpectrumResult result = measure(record, marks);
    if (stale) {
      return true; // the settings changed meanwhile: this look is of yesterday
    }
    remember(record, result);
    publish(frame(result, marks, acquiredAtMillis), result);
    pace();
    return true;
  }

  private void prepare() {
    JobDto job = jobs.find(jobId);
    Setting next = make(settings, job);
    boolean same =
        setting != null
            && !freshAverage
            && setting.plan().equals(next.plan())
            && setting.settings().equals(next.settings())
            && setting.job().path().revision() == job.path().revision();
    setting = next;
    freshAverage = false;
    if (!same) {
      estimator = new SpectrumEstimator(next.plan().layout(), settings.detector());
      int points = next.plan().layout().points();
      rolling = new RollingSpectrum(settings.detector(), points, settings.averages());
      power = new double[points];
    }
  }

  private SpectrumResult measure(IqRecord record, List<String> marks) {
    return SpectrumMeasurement.of(
        power,
        setting.plan().layout(),
        record.centreHz(),
        record.fullScaleDbm(),
        rolling.segments(),
        setting.settings(),
        new MeasurementContext(
            setting.correction(),
            setting.receiver().accuracy(),
            setting.job().limits().toCore(),
            marks));
  }

  private Frame frame(SpectrumResult result, List<String> marks, long acquiredAtMillis) {
    var trace = result.trace();
    var layout = setting.plan().layout();
    return new Frame(
        source,
        nextSequence(),
        acquiredAtMillis,
        SettingsDto.of(setting.settings()),
        trace.startHz(),
        trace.stepHz(),
        trace.points(),
        trace.unit(),
        trace.plane(),
        trace.rbwHz(),
        trace.enbwHz(),
        trace.segments(),
        layout.fftLength(),
        layout.sampleRateHz(),
        layout.windowLength() / layout.sampleRateHz(),
        setting.plan().setup().attenuationDb(),
        marks,
        result.peaks(),
        result.readings().stream().map(ReadingDto::of).toList());
  }

  private void remember(IqRecord record, SpectrumResult result) {
    synchronized (lookLock) {
      if (lookIq.length != record.iq().length) {
        lookIq = new float[record.iq().length];
      }
      System.arraycopy(record.iq(), 0, lookIq, 0, lookIq.length);
      lookRecord = record;
      lookResult = result;
      lookSetting = setting;
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
      if (lookResult == null) {
        throw Conflict.state("There is nothing to keep yet. Start the acquisition first.");
      }
      Map<String, String> conditions = new LinkedHashMap<>(bench.conditions());
      var setup = lookSetting.plan().setup();
      conditions.put(
          "receiver attenuation", String.format(Locale.ROOT, "%.0f dB", setup.attenuationDb()));
      conditions.put("sample rate", Frequency.ofHertz(setup.sampleRateHz()).toString());
      IqRecord copy =
          new IqRecord(
              lookIq.clone(),
              lookRecord.sampleRateHz(),
              lookRecord.centreHz(),
              lookRecord.fullScaleDbm(),
              lookRecord.overload());
      return new KeptLook(
          lookSetting.job(),
          lookSetting.settings(),
          lookResult,
          copy,
          null,
          conditions,
          sourceName(),
          bench.one(instrumentId).identity(),
          overrideReason);
    }
  }
}
