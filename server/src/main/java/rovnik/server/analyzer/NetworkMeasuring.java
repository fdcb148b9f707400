package rovnik.server.analyzer;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
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
import rovnik.core.network.SweepNoise;
import rovnik.core.network.SweepSettings;
import rovnik.core.result.Fact;
import rovnik.core.units.Frequency;
import rovnik.instruments.Instrument;
import rovnik.instruments.network.NetworkAnalyzer;
import rovnik.instruments.network.NetworkCapabilities;
import rovnik.server.bench.BenchService;
import rovnik.server.config.Conflict;
import rovnik.server.gate.Flow;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.GuidedKind;
import rovnik.server.live.Look;
import rovnik.server.live.Measuring;
import rovnik.server.live.MeasuringSession;
import rovnik.server.live.Workbench;
import rovnik.server.networks.NetworkOutcome;
import rovnik.server.networks.NetworkService;
import rovnik.server.networks.NetworkView;
import rovnik.server.networks.NetworkViewDto;
import rovnik.server.networks.NetworkViewDto.Shown;
import rovnik.server.runs.KeptLook;

/** A network analyzer: sweeps, calibrates, and shows what it sees in the same views as a file. */
final class NetworkMeasuring implements Measuring<NetworkSettings> {
  static final String DC_CHECK = "dcCheck";
  private static final long PROGRESS_NANOS = 200_000_000;
  private static final double LONGEST_NAP_SECONDS = 0.02;

  private final long instrument;
  private final BenchService bench;
  private final NetworkService networks;
  private final NetworkView views;
  private final JobNetworks jobNetworks;
  private final NetworkCapabilities able;
  private final CalibrationDesk desk = new CalibrationDesk();

  private volatile MeasuringSession<?> session;
  private volatile double progress = 1;
  private volatile double remainingSeconds;
  private volatile long sweeps; // written by the instrument's thread alone
  private volatile boolean partOff;
  private volatile KeptCalibration calibration;
  private volatile double verified;
  private volatile String identity = "";
  private volatile KnownPath knownPath = new KnownPath(null, null);
  private volatile NetworkLook newest;

  // Touched by the instrument's thread only.
  private NetworkSettings settings;
  private JobDto job;
  private final SweepNoise noise = new SweepNoise();
  private @Nullable KeptCalibration noisyWith;
  private volatile List<Double> shownNoise = List.of();
  private boolean configured;
  private boolean began;
  private long dueNanos;
  private long nextProgressNanos;

  /** The path of a job through this analyzer, read once. */
  private record KnownPath(@Nullable JobDto job, @Nullable AnalyzerPath path) {}

  NetworkMeasuring(
      long instrument,
      BenchService bench,
      NetworkService networks,
      NetworkView views,
      JobNetworks jobNetworks) {
    this.instrument = instrument;
    this.bench = bench;
    this.networks = networks;
    this.views = views;
    this.jobNetworks = jobNetworks;
    this.able = bench.networkCapabilities(instrument);
  }

  void opened(MeasuringSession<?> by) {
    session = by;
  }

  MeasuringSession<?> session() {
    return session;
  }

  @Override
  public String kind() {
    return NetworkOutcome.KIND;
  }

  @Override
  public String sourceName() {
    return bench.nameOf(instrument);
  }

  @Override
  public Class<NetworkSettings> settingsType() {
    return NetworkSettings.class;
  }

  @Override
  public NetworkSettings first() {
    return new NetworkSettings(
        SweepDto.of(
            new SweepSettings(
                Math.max(able.lowestHz(), 1e6),
                Math.min(able.highestHz(), 1e9),
                401,
                SweepSettings.Type.LINEAR,
                List.of(),
                10e3,
                1,
                -10,
                true)),
        NetworkViewDto.Request.PLAIN,
        true);
  }

  @Override
  public NetworkSettings checked(NetworkSettings wanted, JobDto with) {
    if (wanted.sweep() == null) {
      throw new Refusal("sweep", "Say how to sweep.");
    }
    SweepSettings sweep = wanted.sweep().toCore();
    able.check(sweep);
    desk.allow(sweep);
    NetworkView.check(wanted.viewed());
    NetworkSettings checked =
        new NetworkSettings(SweepDto.of(sweep), wanted.viewed(), wanted.readAtPart());
    NetworkLook n = newest;
    if (n != null && Arrays.equals(n.network().frequencyHz(), sweep.frequencies())) {
      shown(checked, with, n.network(), n.state(), n.marks()); // refuses a view that does not fit
    }
    return checked;
  }

  /** Null if the path of the job does not lead through this analyzer. */
  @Nullable AnalyzerPath path(JobDto of) {
    KnownPath known = knownPath;
    if (known.job() != of) {
      known = new KnownPath(of, of.isNone() ? null : AnalyzerPath.of(of, instrument, networks));
      knownPath = known;
    }
    return known.path();
  }

  /** What is plugged in now, "" if nobody knows. */
  String subject() {
    return subject(session.job());
  }

  /** What is plugged in: the part that the path names, else the job's device. */
  private String subject(JobDto of) {
    Long holder = AnalyzerPath.partHolder(of);
    return holder == null ? of.dut() : bench.plugged(holder);
  }

  @Override
  public Flow flow(NetworkSettings s, JobDto of) {
    AnalyzerPath at = path(of);
    SweepSettings sweep = s.sweep().toCore();
    return at == null
        ? Flow.NONE
        : new Flow(
            of.pathVersion(),
            at.levels(sweep).blocking(),
            sweep.powerDbm(),
            sweep.bothPorts() ? sweep.powerDbm() : Double.NEGATIVE_INFINITY);
  }

  @Override
  public Map<String, String> questions(NetworkSettings s, JobDto of) {
    AnalyzerPath at = path(of);
    String dc = at == null ? "" : at.levels(s.sweep().toCore()).dcQuestion();
    return dc.isEmpty() ? Map.of() : Map.of(DC_CHECK, dc + " Then tick \"no dc\".");
  }

  @Override
  public Object facts(NetworkSettings s, JobDto of) {
    AnalyzerPath at = path(of);
    SweepSettings sweep = s.sweep().toCore();
    PortLevels levels = at == null ? null : at.levels(sweep);
    KeptCalibration c = calibration;
    KeptCalibration.State trust = trust(sweep);
    return new NetworkFacts(
        progress,
        sweeps,
        remainingSeconds,
        c == null ? null : c.id(),
        trust.trust(),
        trust.trust().label(),
        trust.why(),
        c == null ? "" : c.name() + ", " + c.method().label(),
        desk.dto(partQuestion(sweep, of)),
        levels == null
            ? null
            : new NetworkFacts.LevelsDto(
                at.plan(levels), levels.backward(), levels.blocking(), levels.dcQuestion()),
        subject(of));
  }

  private KeptCalibration.State trust(SweepSettings sweep) {
    KeptCalibration c = calibration;
    return c == null
        ? KeptCalibration.State.NONE
        : c.state(
            sweep,
            identity.isEmpty() ? c.identity() : identity,
            System.currentTimeMillis(),
            (long) (1000 * able.freshSeconds()));
  }

  // Calibration.

  void calibrate(CalibrationMethod method, CalibrationKit kit, double throughSeconds) {
    partOff = false;
    SweepSettings sweep = ((NetworkSettings) session.settings()).sweep().toCore();
    desk.begin(new CalibrationWork(method, kit, sweep, throughSeconds));
    session.publishState();
  }

  void dropWork() {
    desk.drop();
    session.publishState();
  }

  /**
   * What must be said before standards are measured, "" if nothing: a part that is still plugged in
   * gets the power as well.
   */
  private String partQuestion(SweepSettings sweep, JobDto of) {
    AnalyzerPath at = path(of);
    if (at == null || partOff) {
      return "";
    }
    PortLevels levels = at.levels(sweep);
    boolean mayStay =
        levels.blocking().isEmpty()
            && (levels.dcQuestion().isEmpty() || session != null && session.answered(DC_CHECK));
    return mayStay
        ? ""
        : "Take "
            + (at.partName().isEmpty() ? "the part" : at.partName())
            + " off both ports first: a calibration sends power, and the ports bear no dc.";
  }

  /**
   * Measures a standard.
   *
   * @param saidOff whether the user said that the part is off the ports
   */
  void measure(CalibrationStep step, boolean saidOff) {
    partOff = partOff || saidOff;
    String question =
        partQuestion(((NetworkSettings) session.settings()).sweep().toCore(), session.job());
    if (!question.isEmpty()) {
      throw Conflict.named("partOff", question + " Then tick \"the part is off\".");
    }
    desk.want(step);
    session.runOnce();
  }

  KeptCalibration finish(String name, CalibrationStore store) {
    KeptCalibration kept = store.keep(desk.solved(name, identity));
    desk.drop();
    use(kept, 0);
    return kept;
  }

  /**
   * Uses a calibration, or none.
   *
   * @param worstVerified largest residual that a verification found, linear; 0 if none was made
   */
  void use(@Nullable KeptCalibration c, double worstVerified) {
    calibration = c;
    verified = worstVerified;
    session.publishState();
  }

  void verified(double worst) {
    verified = worst;
    session.publishState();
  }

  @Nullable KeptCalibration calibration() {
    return calibration;
  }

  // What is made of a sweep.

  /** Errors left in what is shown. */
  private Residuals residuals(NetworkSettings s, KeptCalibration.State state, JobDto of) {
    KeptCalibration c = calibration;
    SweepSettings sweep = s.sweep().toCore();
    Residuals r =
        c == null
            ? able.raw()
            : Residuals.after(c.method(), state.trust(), able.raw(), able.calibrated(), verified);
    AnalyzerPath at = s.readAtPart() ? path(of) : null;
    double around = at == null ? 0 : at.aroundDb((sweep.lowestHz() + sweep.highestHz()) / 2);
    double noiseDb =
        10 * Math.log10(sweep.bandwidthHz() / 1e3 / sweep.averages()) - (sweep.powerDbm() + 10);
    double atPart = Math.pow(10, -around / 20);
    double pads = at == null ? 0 : Math.pow(10, at.aroundUncertaintyDb() / 20) - 1;
    return r.withTracking(Math.hypot(r.tracking(), pads))
        .withFloor(able.calibrated().floor() * Math.pow(10, noiseDb / 20) * atPart)
        .withNoise(shownNoise, atPart);
  }

  private NetworkLook look(
      NetworkSettings s,
      JobDto of,
      NetworkData atPlane,
      KeptCalibration.State state,
      List<String> marks) {
    AnalyzerPath at = s.readAtPart() ? path(of) : null;
    NetworkData read = at == null ? atPlane : at.atPart(atPlane);
    String plane =
        at == null || at.partName().isEmpty()
            ? "the calibrated ports"
            : "the connectors of " + at.partName();
    Shown drawn;
    try {
      drawn = shown(s, of, read, state, marks);
    } catch (Refusal | Conflict r) {
      // The view was good for another sweep, as a part known over another band only.
      NetworkSettings plain =
          new NetworkSettings(s.sweep(), NetworkViewDto.Request.PLAIN, s.atPart());
      drawn = shown(plain, of, read, state, marks).withNote(r.getMessage());
    }
    return new NetworkLook(atPlane, read, drawn, state, marks, plane);
  }

  private Shown shown(
      NetworkSettings s,
      JobDto of,
      NetworkData network,
      KeptCalibration.State state,
      List<String> marks) {
    return views.shown(
        0,
        sourceName(),
        subject(of),
        network,
        s.viewed(),
        residuals(s, state, of),
        NetworkLook.invalid(state, marks));
  }

  @Override
  public Look again(Look look, NetworkSettings before, NetworkSettings s, JobDto of) {
    NetworkLook l = (NetworkLook) look;
    if (!before.sweep().equals(s.sweep())) {
      return null;
    }
    NetworkLook again = look(s, of, l.atPlane(), l.state(), l.marks());
    newest = again;
    return again;
  }

  // On the instrument's thread.

  @Override
  public void prepare(NetworkSettings s, JobDto of, boolean afresh) {
    if (settings != null && !settings.sweep().equals(s.sweep())) {
      noise.forget();
    }
    configured = configured && !afresh && settings != null && settings.sweep().equals(s.sweep());
    began = began && configured;
    settings = s;
    job = of;
  }

  @Override
  public @Nullable Look step(@Nullable Instrument connected) {
    if (!(connected instanceof NetworkAnalyzer analyzer)) {
      throw new Refusal("source", "This instrument is no network analyzer.");
    }
    if (!configured) {
      if (identity.isEmpty()) {
        identity = analyzer.identity();
      }
      analyzer.configure(settings.sweep().toCore());
      configured = true;
      began = false;
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
      return null;
    }
    RawSweep raw = analyzer.read();
    began = false;
    progress = 1;
    dueNanos = 0;
    sweeps++;
    if (forStep != desk.wanted()) {
      return null; // the step changed meanwhile: this sweep is of yesterday
    }
    String trouble = analyzer.trouble();
    if (forStep != null) {
      desk.take(forStep, raw);
      session.publishState();
    }
    KeptCalibration c = calibration;
    KeptCalibration.State state = trust(settings.sweep().toCore());
    NetworkData n = c == null ? raw.ratios() : c.correct(raw.ratios());
    if (c != noisyWith) {
      noise.forget();
      noisyWith = c;
    }
    noise.take(n);
    shownNoise = noise.sigma();
    NetworkLook look =
        look(settings, job, n, state, trouble.isEmpty() ? List.of() : List.of(trouble));
    newest = look;
    return look;
  }

  private void waiting(NetworkAnalyzer analyzer, double now) {
    double left = analyzer.remainingSeconds();
    if (System.nanoTime() >= nextProgressNanos) {
      progress = now;
      remainingSeconds = left;
      nextProgressNanos = System.nanoTime() + PROGRESS_NANOS;
      session.publishState();
    }
    double nap = Math.min(LONGEST_NAP_SECONDS, Math.max(0.0005, left));
    dueNanos = System.nanoTime() + (long) (nap * 1e9);
  }

  @Override
  public long dueNanos() {
    return dueNanos;
  }

  @Override
  public boolean wantsMore() {
    return desk.wanted() != null;
  }

  @Override
  public boolean busy() {
    return desk.busy();
  }

  @Override
  public void cutOff() {
    desk.forget();
    lost();
  }

  @Override
  public void lost() {
    began = false;
    configured = false;
    progress = 1;
    dueNanos = 0;
  }

  // What is kept.

  @Override
  public KeptLook.Parts kept(Look look, NetworkSettings s, JobDto of) {
    NetworkLook l = (NetworkLook) look;
    return new KeptLook.Parts(
        l.whole(judged(l, s, of)), words(s), null, null, l.network(), conditions(l, s));
  }

  /** Held to the job's limits and read in its bands, or over the whole sweep if it has none. */
  private Shown judged(NetworkLook l, NetworkSettings s, JobDto of) {
    JobNetwork asked = of.isNone() ? JobNetwork.NONE : jobNetworks.find(of.id());
    List<NetworkViewDto.Band> bands =
        asked.bands().isEmpty()
            ? List.of(new NetworkViewDto.Band("", 0, Double.MAX_VALUE))
            : asked.bands();
    NetworkViewDto.Request r =
        NetworkViewDto.Request.PLAIN.judging(asked.limits(), bands, of.dut());
    return shown(
        new NetworkSettings(s.sweep(), r, s.atPart()), of, l.network(), l.state(), l.marks());
  }

  private static List<Fact> words(NetworkSettings s) {
    SweepSettings w = s.sweep().toCore();
    return List.of(
        Fact.of("start", w.lowestHz(), "Hz"),
        Fact.of("stop", w.highestHz(), "Hz"),
        Fact.of("points", w.frequencies().length, ""),
        Fact.of("steps", w.type().name().toLowerCase(Locale.ROOT)),
        Fact.of("IF bandwidth", w.bandwidthHz(), "Hz"),
        Fact.of("averages", w.averages(), ""),
        Fact.of("port power", w.powerDbm(), "dBm"),
        Fact.of("port 2 sends", w.bothPorts() ? "yes" : "no"));
  }

  private Map<String, String> conditions(NetworkLook l, NetworkSettings s) {
    KeptCalibration c = calibration;
    Map<String, String> words = new LinkedHashMap<>();
    SweepSettings w = s.sweep().toCore();
    words.put(
        "sweep",
        w.frequencies().length
            + " points, "
            + Frequency.ofHertz(w.lowestHz())
            + " to "
            + Frequency.ofHertz(w.highestHz()));
    words.put("calibration", c == null ? "none" : c.name() + ", " + c.method().label());
    words.put("trust", l.state().trust().label());
    return words;
  }

  // Guided work.

  @Override
  public List<GuidedKind> guidedKinds() {
    return List.of(
        new GuidedKind(
            "scatter",
            "Scatter of sweeps",
            "Sweeps again and again, and tells how far the values scatter by themselves.",
            new ScatterWork.Form(20)));
  }

  @Override
  public Workbench workbench(
      Instrument connected, NetworkSettings s, JobDto of, Workbench.Voice voice) {
    return new NetworkBench(this, connected, s, of, voice);
  }
}
