package rovnik.server.analyzer;

import java.util.List;
import java.util.concurrent.locks.LockSupport;
import rovnik.core.Refusal;
import rovnik.core.network.CalibrationKit;
import rovnik.core.network.CalibrationMethod;
import rovnik.core.network.CalibrationStep;
import rovnik.core.network.CalibrationWork;
import rovnik.core.network.KeptCalibration;
import rovnik.core.network.NetworkData;
import rovnik.core.network.PortLevels;
import rovnik.core.network.RawSweep;
import rovnik.core.network.Residuals;
import rovnik.core.network.SweepSettings;
import rovnik.instruments.Instrument;
import rovnik.instruments.network.NetworkAnalyzer;
import rovnik.instruments.network.NetworkCapabilities;
import rovnik.server.analyzer.SweepPicture.Look;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.InstrumentLoop;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobService;
import rovnik.server.live.LiveState.Phase;
import rovnik.server.live.SharedSource;
import rovnik.server.networks.NetworkService;
import rovnik.server.networks.NetworkView;
import rovnik.server.networks.NetworkViewDto;
import tools.jackson.databind.json.JsonMapper;

/**
 * One network analyzer: sweeps, calibrates, and shows what it sees in the same views as a file.
 * Everything from {@link #step} on runs on the instrument's own thread.
 */
final class AnalyzerSession extends SharedSource implements InstrumentLoop.Continuous {
  private static final long FRAME_NANOS = 30_000_000;
  private static final long PROGRESS_NANOS = 200_000_000;

  private final String source;
  private final long instrumentId;
  private final BenchService bench;
  private final JobService jobs;
  private final NetworkService networks;
  private final SweepPicture picture;
  private final NetworkCapabilities able;

  private volatile SweepSettings settings;
  private volatile Phase phase = Phase.IDLE;
  private volatile String message = "";
  private volatile String field = "";
  private volatile Long jobId;
  private volatile AnalyzerPath path;
  private volatile boolean single;
  private volatile double progress = 1;
  private volatile double remainingSeconds;
  private volatile long sweeps; // written by the instrument's thread alone
  private final PowerLeave leave = new PowerLeave();
  private final CalibrationDesk desk = new CalibrationDesk();
  private volatile boolean onlyForStep;
  private volatile Look look;
  private volatile boolean stale = true;

  // Touched by the instrument's thread only.
  private boolean began;
  private String identity = "";
  private long nextFrameNanos;
  private long nextProgressNanos;

  AnalyzerSession(
      String source,
      long instrumentId,
      BenchService bench,
      JobService jobs,
      NetworkService networks,
      NetworkView views,
      JsonMapper json) {
    super(json);
    this.source = source;
    this.instrumentId = instrumentId;
    this.bench = bench;
    this.jobs = jobs;
    this.networks = networks;
    this.able = bench.networkCapabilities(instrumentId);
    this.picture = new SweepPicture(views, able);
    double low = Math.max(able.lowestHz(), 1e6);
    this.settings =
        new SweepSettings(
            low,
            Math.min(able.highestHz(), 1e9),
            401,
            SweepSettings.Type.LINEAR,
            List.of(),
            10e3,
            1,
            -10,
            true);
  }

  @Override
  protected String sourceName() {
    return bench.nameOf(instrumentId);
  }

  /** Measures for this job; its path is read now and when the job changes, not with each sweep. */
  private void follow(Long job) {
    path = job == null ? null : AnalyzerPath.of(jobs.find(job), instrumentId, networks);
    jobId = job;
  }

  private SweepPicture.Setting setting() {
    return new SweepPicture.Setting(sourceName(), settings, path);
  }

  @Override
  public AnalyzerState state() {
    AnalyzerPath at = path;
    PortLevels levels = at == null ? null : at.levels(settings);
    KeptCalibration.State s = trust(System.currentTimeMillis());
    KeptCalibration c = picture.calibration();
    return new AnalyzerState(
        nextRevision(),
        source,
        sourceName(),
        phase,
        message,
        field,
        holder().id(),
        holder().name(),
        jobId,
        SweepDto.of(settings),
        single,
        progress,
        sweeps,
        remainingSeconds,
        c == null ? null : c.id(),
        s.trust(),
        s.trust().label(),
        s.why(),
        c == null ? "" : c.name() + ", " + c.method().label(),
        desk.dto(leave.partQuestion(at, settings)),
        levels == null
            ? null
            : new AnalyzerState.LevelsDto(
                at.plan(levels), levels.backward(), levels.blocking(), levels.dcQuestion()),
        picture.atPart(),
        leave.dcChecked(),
        leave.reason());
  }

  private KeptCalibration.State trust(long nowMillis) {
    KeptCalibration c = picture.calibration();
    return c == null
        ? KeptCalibration.State.NONE
        : c.state(
            settings,
            identity.isEmpty() ? c.identity() : identity,
            nowMillis,
            (long) (1000 * able.freshSeconds()));
  }

  private void stand(Phase newPhase, String newMessage, String newField) {
    phase = newPhase;
    message = newMessage;
    field = newField;
    publishState();
  }

  /** It sends, or will again as soon as the instrument is back. */
  private boolean sweeping() {
    return phase == Phase.RUNNING || phase == Phase.LOST;
  }

  /** Takes new settings, or refuses them and changes nothing. */
  void apply(SweepSettings wanted) {
    able.check(wanted);
    desk.allow(wanted);
    String trouble = leave.trouble(path, wanted);
    if (!trouble.isEmpty() && sweeping()) {
      throw Conflict.levels(trouble);
    }
    settings = wanted;
    stale = true;
    publishState();
  }

  void view(NetworkViewDto.Request wanted, boolean part, Long job) {
    if (job != null && phase != Phase.RUNNING) {
      follow(job); // a sweep that runs stays with the job it was started for
    }
    SweepPicture.Seen again = picture.view(wanted, part, look, setting());
    if (again != null && phase != Phase.RUNNING) {
      look = again.look();
      publish(again.look(), again.shown());
    }
    publishState();
  }

  void start(Long job, String reason, boolean dc, boolean once) {
    follow(job);
    try {
      leave.ask(path, settings, reason, dc);
    } catch (Conflict open) {
      bench.analyzer(instrumentId).setContinuous(null);
      stand(Phase.REFUSED, open.getMessage(), open.field());
      throw open;
    }
    single = once;
    onlyForStep = false;
    run();
  }

  private void run() {
    stale = true;
    stand(Phase.RUNNING, "", "");
    bench.analyzer(instrumentId).setContinuous(this);
  }

  void hold() {
    if (sweeping()) {
      desk.forget();
      bench.analyzer(instrumentId).setContinuous(null);
      stale = true; // a sweep that was cut off is begun anew
      progress = 1;
      stand(Phase.HELD, "", "");
    }
  }

  @Override
  protected void nobodyWatches() {
    if (!desk.busy()) {
      hold();
    }
  }

  /** Path or limits of the job changed. */
  void jobChanged() {
    follow(jobId);
    String trouble = leave.trouble(path, settings);
    if (sweeping() && !trouble.isEmpty()) {
      bench.analyzer(instrumentId).setContinuous(null);
      stand(Phase.REFUSED, trouble, "levelPlan");
    } else {
      publishState();
    }
  }

  // Calibration.

  void calibrate(CalibrationMethod method, CalibrationKit kit, double throughSeconds) {
    leave.standardsNext();
    desk.begin(new CalibrationWork(method, kit, settings, throughSeconds));
    publishState();
  }

  void dropWork() {
    desk.drop();
    publishState();
  }

  /**
   * Measures a standard.
   *
   * @param partOff whether the user said that the part is off the ports
   */
  synchronized void measure(CalibrationStep step, boolean partOff) {
    leave.askForStandards(path, settings, partOff);
    desk.want(step);
    stale = true;
    if (phase != Phase.RUNNING) {
      onlyForStep = true;
      run();
    } else {
      publishState();
    }
  }

  KeptCalibration finish(String name, CalibrationStore store) {
    KeptCalibration kept = store.keep(desk.solved(name, identity));
    desk.drop();
    use(kept, 0);
    return kept;
  }

  /** Uses a calibration, or none. */
  void use(KeptCalibration c, double worstVerified) {
    picture.use(c, worstVerified);
    stale = true;
    publishState();
  }

  void verified(double worst) {
    picture.verified(worst);
    publishState();
  }

  KeptCalibration calibration() {
    return picture.calibration();
  }

  Look look() {
    Look l = look;
    if (l == null) {
      throw Conflict.state("Nothing was measured yet. Start the sweep first.");
    }
    return l;
  }

  SweepSettings settings() {
    return settings;
  }

  Long jobId() {
    return jobId;
  }

  String overrideReason() {
    return leave.reason();
  }

  /** Errors left in what is shown. */
  Residuals residuals(KeptCalibration.State state) {
    return picture.residuals(state, setting());
  }

  // From here on: the instrument's thread.

  @Override
  public boolean step(Instrument instrument) {
    if (!(instrument instanceof NetworkAnalyzer analyzer)) {
      throw new Refusal("source", "This instrument is no network analyzer.");
    }
    if (phase == Phase.LOST) {
      stand(Phase.RUNNING, "", "");
      stale = true;
    }
    if (stale) {
      stale = false;
      began = false;
      if (identity.isEmpty()) {
        identity = analyzer.identity();
      }
      analyzer.configure(settings);
    }
    CalibrationStep forStep = desk.wanted();
    if (!began) {
      analyzer.begin();
      began = true;
      nextProgressNanos = System.nanoTime() + PROGRESS_NANOS;
    }
    double now = analyzer.progress();
    if (now < 1) {
      waiting(analyzer, now);
      return true;
    }
    RawSweep raw = analyzer.read();
    began = false;
    progress = 1;
    sweeps++;
    if (stale || forStep != desk.wanted()) {
      return true; // settings or the step changed meanwhile: this sweep is of yesterday
    }
    String trouble = analyzer.trouble();
    if (forStep != null) {
      desk.take(forStep, raw);
      publishState();
    }
    show(raw, trouble);
    if (!ended(forStep != null ? onlyForStep : single)) {
      pace();
    }
    return true;
  }

  /** Holds after the last sweep, unless the next step of a calibration was asked for meanwhile. */
  private synchronized boolean ended(boolean last) {
    if (!last || desk.wanted() != null) {
      return false;
    }
    // Ended here and not by the loop: a start that comes right after must not be undone.
    bench.analyzer(instrumentId).setContinuous(null);
    stand(Phase.HELD, "", "");
    return true;
  }

  private void waiting(NetworkAnalyzer analyzer, double now) {
    if (System.nanoTime() >= nextProgressNanos) {
      progress = now;
      remainingSeconds = analyzer.remainingSeconds();
      nextProgressNanos = System.nanoTime() + PROGRESS_NANOS;
      publishState();
    }
    double left = Math.min(0.02, Math.max(0.0005, analyzer.remainingSeconds()));
    LockSupport.parkNanos((long) (left * 1e9));
  }

  private void show(RawSweep raw, String trouble) {
    KeptCalibration c = picture.calibration();
    KeptCalibration.State state = trust(System.currentTimeMillis());
    NetworkData n = raw.ratios();
    if (c != null) {
      n = c.correct(n);
    }
    SweepPicture.Setting at = setting();
    look = picture.look(n, state, trouble.isEmpty() ? List.of() : List.of(trouble), at.path());
    publish(look, picture.answered(look, at));
  }

  private void publish(Look l, NetworkViewDto.Shown shown) {
    publishFrame(
        AnalyzerFrame.bytes(
            json, source, nextSequence(), shown, l.state().trust(), l.plane(), l.marks()));
  }

  /** The newest sweep as the view shows it. */
  NetworkViewDto.Shown newest() {
    return picture.answered(look(), setting());
  }

  private void pace() {
    long now = System.nanoTime();
    if (now < nextFrameNanos) {
      LockSupport.parkNanos(nextFrameNanos - now);
    }
    nextFrameNanos = Math.max(now, nextFrameNanos) + FRAME_NANOS;
  }

  @Override
  public void failed(String sentence, boolean connectionLost) {
    began = false;
    stale = true;
    stand(connectionLost ? Phase.LOST : Phase.HELD, sentence, "instrument");
  }

  @Override
  public void refused(Refusal refusal) {
    began = false;
    stale = true;
    desk.forget();
    stand(Phase.REFUSED, refusal.getMessage(), refusal.field());
  }
}
