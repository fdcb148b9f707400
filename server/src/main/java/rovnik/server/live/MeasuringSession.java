package rovnik.server.live;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.instruments.Instrument;
import rovnik.instruments.iq.SharedIqReceiver;
import rovnik.server.bench.InstrumentLoop;
import rovnik.server.config.Conflict;
import rovnik.server.gate.PowerGate;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.runs.KeptLook;
import rovnik.server.runs.KeptRun;
import tools.jackson.databind.json.JsonMapper;

/**
 * One measurement of one source, for any number of windows of which at most one holds it. It owns
 * the job, the phase, hold and resume, what happens when the instrument is lost, the gate, guided
 * work, and what is published and how often; what is measured is up to its {@link Measuring}.
 *
 * <p>Everything from {@link #step} on runs on the instrument's own thread; settings and job are
 * snapshots that the next step picks up. Acquisition goes on at its own pace whatever the windows
 * do; they are sent the newest look no more often than the server is set to.
 *
 * @param <S> settings of the measurement
 */
public final class MeasuringSession<S> implements InstrumentLoop.Continuous {
  private final String source;
  private final Measuring<S> measuring;
  private final @Nullable InstrumentLoop loop;
  private final Hold hold;
  private volatile Client late = Client.NOBODY;
  private final PowerGate gate;
  private final JobService jobs;
  private final Bench bench;
  private final long frameNanos;
  private final Showing<S> showing;
  private final GuidedWork<S> guided = new GuidedWork<>(this);
  private final List<Follower> followers = new CopyOnWriteArrayList<>();

  /** Begins at the time, so that a new server's states are newer than an old one's. */
  private final AtomicLong revision = new AtomicLong(System.currentTimeMillis() * 1000);

  private volatile S settings;
  private volatile @Nullable Long jobId;
  private volatile JobDto job;
  private volatile Phase phase = Phase.IDLE;
  private volatile String message = "";
  private volatile String field = "";
  private volatile Set<String> answered = Set.of();
  private volatile boolean once;
  private volatile boolean stale = true;
  private volatile boolean afresh;
  private volatile boolean lost;
  private final Absence absence = new Absence();

  // Touched by the instrument's thread only.
  private @Nullable S measured;
  private JobDto measuredJob;
  private long nextFrameNanos;
  private long dueNanos;

  /** What a session needs of the Bench. */
  public interface Bench {
    /** State of all that is switched, in words. */
    Map<String, String> conditions();

    /** Answer of this source to who it is. */
    String identity();

    /** Sets controls for a client, through the gate. */
    void control(
        long instrument, Map<String, String> values, Long job, String reason, Client client);

    /** Makes a run. */
    void keep(KeptLook look, String name);

    /** A run that was made earlier. */
    KeptRun kept(long run);

    /** The job that holds where none was chosen: the source alone. */
    JobDto withoutJob();
  }

  /**
   * @param loop owner of the instrument, null for a recording
   * @param frameNanos shortest time between two frames
   */
  MeasuringSession(
      String source,
      Measuring<S> measuring,
      @Nullable InstrumentLoop loop,
      Hold hold,
      PowerGate gate,
      JobService jobs,
      Bench bench,
      long frameNanos,
      JsonMapper json) {
    this.source = source;
    this.measuring = measuring;
    this.loop = loop;
    this.hold = hold;
    this.gate = gate;
    this.jobs = jobs;
    this.bench = bench;
    this.frameNanos = frameNanos;
    this.showing = new Showing<>(source, measuring.kind(), json);
    measuring.heardBy(showing::sound);
    this.settings = measuring.first();
    this.job = bench.withoutJob();
    this.measuredJob = job;
  }

  public String source() {
    return source;
  }

  public Measuring<S> measuring() {
    return measuring;
  }

  public S settings() {
    return settings;
  }

  public JobDto job() {
    return job;
  }

  public @Nullable Long jobId() {
    return jobId;
  }

  public Phase phase() {
    return phase;
  }

  /** What it says of its phase, "" for nothing. */
  public String message() {
    return message;
  }

  /** What its message is about. */
  public String field() {
    return field;
  }

  private String who() {
    return source + "/" + measuring.kind();
  }

  public String overrideReason() {
    return gate.reason(who(), measuring.flow(settings, job));
  }

  // Who holds, who watches.

  public void require(Client client) {
    if (showing.gone(client.id()) && hold.holder().nobody()) {
      // A last request of a window that has closed meanwhile: nobody would ever let go for it. If
      // it
      // only comes back, it holds from then on.
      late = client;
      return;
    }
    hold.require(client, measuring.sourceName());
  }

  Client holder() {
    return hold.holder();
  }

  /** Someone else watches or measures with what this client wants to switch. */
  boolean heldByOther(Client client) {
    return phase.going() && hold.heldByOther(client);
  }

  void takeOver(Client client) {
    hold.takeOver(client);
    publishState();
  }

  void watch(Watcher watcher) {
    Client back = late;
    if (back.id().equals(watcher.clientId()) && hold.holder().nobody()) {
      hold.takeOver(back);
      late = Client.NOBODY;
    }
    showing.watch(watcher);
    publishState();
  }

  /** A window closed; if it held the source, nobody does now. */
  void leave(Watcher watcher) {
    boolean gone = showing.leave(watcher);
    if (gone && hold.release(watcher.clientId())) {
      publishState();
    }
    if (watcher.stalled()) {
      absence.begins(System.nanoTime());
    } else {
      holdUnwatched();
    }
  }

  private void holdUnwatched() {
    if (!showing.watched() && !measuring.busy() && followers.isEmpty()) {
      hold();
    }
  }

  // State.

  public SessionState state() {
    return new SessionState(
        revision.incrementAndGet(),
        source,
        measuring.sourceName(),
        measuring.kind(),
        phase,
        message,
        field,
        hold.holder().id(),
        hold.holder().name(),
        jobId,
        once,
        overrideReason(),
        guided.progress(),
        guided.foundId(),
        settings,
        measuring.facts(settings, job));
  }

  public void publishState() {
    showing.state(state());
  }

  private void stand(Phase newPhase, String newMessage, String newField) {
    phase = newPhase;
    message = newMessage;
    field = newField;
    publishState();
    synchronized (this) {
      notifyAll(); // who waits for a settled outcome
    }
  }

  // Settings.

  /** Takes new settings, or refuses them and changes nothing. */
  public synchronized void apply(S wanted) {
    guided.refuseIfUnderWay(": its settings stay. Stop it first.");
    if (!wanted.equals(settings)) {
      followers.forEach(Follower::refuseChange);
    }
    S checked = measuring.checked(wanted, job);
    String trouble = gate.trouble(who(), measuring.flow(checked, job));
    if (!trouble.isEmpty() && phase.going()) {
      throw Conflict.levels(trouble);
    }
    if (loop == null && phase == Phase.STILL) {
      computeNow(checked, job); // refuses before anything is changed
      return;
    }
    settings = checked;
    stale = true;
    if (phase == Phase.REFUSED && !field.equals("levelPlan")) {
      run();
    } else {
      if (phase == Phase.HELD) {
        readAgain();
      }
      publishState();
    }
  }

  /** Reads what the settings ask for from the look that stands still, if it was taken for them. */
  private void readAgain() {
    Showing.Newest<S> n = showing.peek();
    Look again = n == null ? null : measuring.again(n.look(), n.settings(), settings, n.job());
    if (again != null) {
      publish(again, settings, n.job(), n.acquiredAtMillis());
    }
  }

  // Who follows.

  /** Its looks are followed from now on; while they are, its settings and its job stay. */
  public synchronized void follow(Follower follower) {
    followers.add(follower);
  }

  public synchronized void unfollow(Follower follower) {
    followers.remove(follower);
  }

  // Start, hold.

  /**
   * Starts for a job, or without one.
   *
   * @param reason why power shall flow against the level plan, null if there is no reason to
   * @param answers fields of the questions that the user answered
   * @param single hold after the first settled look
   */
  public synchronized void start(
      @Nullable Long wantedJob, @Nullable String reason, Set<String> answers, boolean single) {
    if (single || !Objects.equals(wantedJob, jobId)) {
      followers.forEach(Follower::refuseChange);
    }
    answered = Set.copyOf(answers);
    allow(wantedJob, reason);
    once = single;
    if (loop == null) {
      computeNow(settings, job);
    } else {
      run();
    }
  }

  /** Checks that a job may be measured now, and takes it; if not, measuring ends. */
  private void allow(@Nullable Long wantedJob, @Nullable String reason) {
    JobDto next = wantedJob == null ? bench.withoutJob() : jobs.find(wantedJob);
    if (wantedJob != null) {
      measuring.fits(next);
    }
    jobId = wantedJob;
    job = next;
    try {
      S checked = measuring.checked(settings, next);
      gate.ask(who(), measuring.flow(checked, next), reason);
      measuring.questions(checked, next).entrySet().stream()
          .filter(q -> !answered.contains(q.getKey()))
          .findFirst()
          .ifPresent(
              q -> {
                throw Conflict.named(q.getKey(), q.getValue());
              });
    } catch (Conflict open) {
      end();
      stand(Phase.REFUSED, open.getMessage(), open.field());
      throw open;
    }
  }

  /** Chooses the job that applies from now on, without starting; what runs stays with its own. */
  public synchronized void choose(@Nullable Long wantedJob) {
    JobDto next = wantedJob == null ? bench.withoutJob() : jobs.find(wantedJob);
    if (!phase.going()) {
      jobId = wantedJob;
      job = next;
      publishState();
    }
  }

  private void run() {
    stale = true;
    stand(Phase.RUNNING, "", "");
    if (loop != null) {
      loop.begin(this);
    }
  }

  private void end() {
    if (loop != null) {
      loop.end(this);
    }
  }

  /** What the user answered before power flowed. */
  public Set<String> answers() {
    return answered;
  }

  /** Takes one look more, for work that needs one; goes on if it runs anyway. */
  public synchronized void runOnce() {
    stale = true;
    if (phase != Phase.RUNNING) {
      once = true;
      run();
    } else {
      publishState();
    }
  }

  public boolean answered(String question) {
    return answered.contains(question);
  }

  public synchronized void hold() {
    stopGuided();
    if (guided.underWay()) {
      return; // it ends by itself after the look that is under way
    }
    if (phase.going()) {
      end();
      measuring.cutOff();
      stale = true;
      stand(Phase.HELD, "", "");
    }
  }

  private void computeNow(S wanted, JobDto with) {
    measuring.prepare(wanted, with, false);
    Look look = measuring.step(null);
    settings = wanted;
    publish(look, wanted, with, System.currentTimeMillis());
    stand(Phase.STILL, "", "");
  }

  /** Path or limits of the job changed. */
  synchronized void jobChanged() {
    Long id = jobId;
    if (id == null) {
      return;
    }
    job = jobs.find(id);
    stale = true;
    if (loop == null) {
      try {
        computeNow(settings, job);
      } catch (Refusal r) {
        stand(Phase.REFUSED, r.getMessage(), r.field());
      } catch (Conflict c) {
        stand(Phase.REFUSED, c.getMessage(), c.field());
      }
      return;
    }
    String trouble = gate.trouble(who(), measuring.flow(settings, job));
    if (!trouble.isEmpty() && phase.going()) {
      guided.drop();
      end();
      measuring.cutOff();
      stand(Phase.REFUSED, trouble, "levelPlan");
    } else if (trouble.isEmpty() && phase == Phase.REFUSED && field.equals("levelPlan")) {
      stand(Phase.HELD, "", "");
    } else {
      publishState();
    }
  }

  /** The job is no more: what it held for is measured without one. */
  synchronized void jobRemoved() {
    hold();
    jobId = null;
    job = bench.withoutJob();
    publishState();
  }

  /** Something was switched: an average must not mix before and after. */
  void restartAverage() {
    afresh = true;
    stale = true;
  }

  // Guided work.

  /** Starts guided work, or refuses it. */
  public synchronized void startGuided(
      Guided<?> work, Object form, @Nullable Long wantedJob, @Nullable String reason) {
    guided.refuseIfUnderWay(". Stop it first.");
    measuring.fitsGuided();
    if (loop == null) {
      throw Conflict.state("A recording stands still: guided work needs an instrument.");
    }
    allow(wantedJob, reason);
    GuidedRun run = guided.begin(work, form, settings, job);
    end();
    stand(Phase.RUNNING, "", "");
    loop.begin(run);
  }

  /** Called on the instrument's thread, with the lock of this session. */
  void guidedEnded(GuidedRun run, String trouble, String where) {
    measured = null;
    stale = true;
    if (loop != null) {
      loop.end(run);
    }
    if (!trouble.isEmpty()) {
      stand(Phase.HELD, trouble, where);
    } else {
      run();
    }
  }

  public void stopGuided() {
    guided.stop();
  }

  /** The newest finding, or a {@link Conflict} if there is none. */
  GuidedWork.Found<S> finding() {
    return guided.found();
  }

  // What guided work does through its session.

  Workbench workbench(Instrument instrument, S with, JobDto of, Workbench.Voice voice) {
    return measuring.workbench(seen(instrument), with, of, voice);
  }

  /** A number for a finding. */
  long number() {
    return showing.number();
  }

  void serveCalls() {
    if (loop != null) {
      loop.serveCalls();
    }
  }

  void control(long instrument, Map<String, String> values) {
    bench.control(instrument, values, jobId, overrideReason(), hold.holder());
  }

  void frame(S framed) {
    settings = framed;
  }

  // What there is.

  /** The newest look with what it was taken with, or a {@link Conflict} if there is none. */
  Showing.Newest<S> newest() {
    return showing.newest();
  }

  /** Waits until the newest look has all that the present settings ask for. */
  synchronized Showing.Newest<S> settled(Duration limit) {
    long end = System.nanoTime() + limit.toNanos();
    while (!isSettled()) {
      long left = end - System.nanoTime();
      if (phase == Phase.REFUSED || phase == Phase.IDLE) {
        throw Conflict.state(
            message.isEmpty() ? "Nothing is measured. Start the measurement first." : message);
      }
      if (left <= 0) {
        throw Conflict.state(
            "It did not settle within "
                + limit.toSeconds()
                + " s. Wait longer (seconds=...), or ask for fewer averages.");
      }
      try {
        wait(Math.max(1, left / 1_000_000));
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        throw Conflict.state("The wait was interrupted.");
      }
    }
    return newest();
  }

  private boolean isSettled() {
    Showing.Newest<S> n = showing.peek();
    return n != null
        && !afresh
        && n.look().settled()
        && n.settings().equals(settings)
        && n.job().equals(job);
  }

  /** Keeps a stretch of what is looked at as a recording. */
  public RecordingDto cut(Cut wanted) {
    Showing.Newest<S> n = showing.peek();
    return measuring.cut(wanted, n == null ? null : n.look());
  }

  /** The newest samples, for what else there is to see in them. */
  LookSamples samples() {
    Showing.Newest<S> n = showing.newest();
    return measuring
        .samples(n.look(), n.settings(), n.job())
        .orElseThrow(
            () ->
                Conflict.state(
                    "There are no samples here: finished traces come, or the span is wider than what is"
                        + " taken at once."));
  }

  /** The newest look, if there is one. */
  public Optional<Look> peek() {
    return Optional.ofNullable(showing.peek()).map(Showing.Newest::look);
  }

  /** The newest look, or a {@link Conflict} if there is none. */
  public Look look() {
    return showing.newest().look();
  }

  /**
   * The newest look as a run keeps it.
   *
   * @param into the job, where none was chosen for measuring
   */
  KeptLook kept(@Nullable Long into) {
    Showing.Newest<S> n = showing.newest();
    return kept(measuring.kept(n.look(), n.settings(), n.job()), n.settings(), null, n.job(), into);
  }

  /** Keeps a look of guided work. */
  void keep(Look look, S with, JobDto of, String name) {
    bench.keep(kept(measuring.kept(look, with, of), with, null, of, null), name);
  }

  KeptRun keptRun(long run) {
    return bench.kept(run);
  }

  /** The newest finding as a run keeps it. */
  KeptLook keptFinding(@Nullable Long into) {
    GuidedWork.Found<S> f = guided.found();
    if (f.outcome().series().isEmpty() && f.outcome().readings().isEmpty()) {
      throw Conflict.state("There is no finding to keep. Start guided work first.");
    }
    Showing.Newest<S> n = showing.peek();
    KeptLook.Parts parts =
        n == null
            ? KeptLook.Parts.of(f.outcome(), List.of())
            : measuring.kept(n.look(), f.settings(), f.job()).found(f.outcome());
    return kept(parts, f.settings(), f.work(), f.job(), into);
  }

  private KeptLook kept(
      KeptLook.Parts parts, S with, @Nullable Object work, JobDto of, @Nullable Long into) {
    JobDto owner = of.isNone() && into != null ? jobs.find(into).readAt(of) : of;
    if (owner.isNone()) {
      throw Conflict.named("jobId", "Choose a job first: what is kept belongs to one.");
    }
    Map<String, String> conditions = new LinkedHashMap<>(bench.conditions());
    conditions.putAll(parts.conditions());
    return new KeptLook(
        owner,
        with,
        work,
        parts.with(conditions),
        measuring.sourceName(),
        bench.identity(),
        gate.reason(who(), measuring.flow(with, of)));
  }

  // From here on: the instrument's thread.

  private Instrument seen(Instrument instrument) {
    return instrument instanceof SharedIqReceiver shared ? shared.seenBy(this) : instrument;
  }

  @Override
  public long dueNanos() {
    return Math.max(dueNanos, measuring.dueNanos());
  }

  @Override
  public boolean step(Instrument instrument) {
    if (absence.isOver(System.nanoTime())) {
      holdUnwatched();
      if (phase == Phase.HELD) {
        return true; // it has ended already
      }
    }
    if (phase == Phase.LOST) {
      stand(Phase.RUNNING, "", "");
      measured = null;
    }
    if (measured == null || stale || lost) {
      stale = false;
      lost = false;
      prepare();
    }
    Look next = measuring.step(seen(instrument));
    if (next == null || stale) {
      dueNanos = 0;
      return true; // nothing yet, or the settings changed meanwhile: this look is of yesterday
    }
    long now = System.nanoTime();
    boolean settled = next.settled();
    long millis = System.currentTimeMillis();
    if (now >= nextFrameNanos || settled) {
      publish(next, measured, measuredJob, millis);
      // From when it was due, not from when it came: what a look takes must not slow the pace.
      nextFrameNanos = Math.max(nextFrameNanos + frameNanos, now);
    } else {
      showing.note(next, measured, measuredJob, millis);
      tell(next, measured, measuredJob, millis);
    }
    // Until all is there it goes on at full speed; then no faster than it is shown.
    dueNanos = settled ? nextFrameNanos : 0;
    if (once && settled) {
      endAfterTheLast();
    }
    return true;
  }

  /**
   * Holds after the last look, unless more is wanted meanwhile. It ends here and not by what the
   * turn answers: a start that comes right after must not be undone.
   */
  private synchronized void endAfterTheLast() {
    if (!stale && once && !measuring.wantsMore()) {
      end();
      stand(Phase.HELD, "", "");
    }
  }

  private void prepare() {
    boolean fresh = afresh || measured == null;
    afresh = false;
    measured = settings;
    measuredJob = job;
    measuring.prepare(measured, measuredJob, fresh);
  }

  void publish(Look look, S with, JobDto of, long acquiredAtMillis) {
    showing.publish(look, with, of, acquiredAtMillis);
    tell(look, with, of, acquiredAtMillis);
    if (look.settled()) {
      synchronized (this) {
        notifyAll();
      }
    }
  }

  private void tell(Look look, S with, JobDto of, long acquiredAtMillis) {
    if (!look.readable()) {
      return;
    }
    for (Follower f : followers) {
      f.looked(
          look.shown(),
          acquiredAtMillis,
          measuring.seenSeconds(look),
          () -> kept(measuring.kept(look, with, of), with, null, of, null));
    }
  }

  @Override
  public void failed(String sentence, boolean connectionLost) {
    measuring.lost();
    if (connectionLost) {
      lost = true;
      stand(Phase.LOST, sentence, "instrument");
    } else {
      cannot(sentence, "instrument");
    }
  }

  @Override
  public void refused(Refusal refusal) {
    measuring.cutOff();
    cannot(refusal.getMessage(), refusal.field());
  }

  /** Ends with what is wrong, unless that is of settings that were changed meanwhile. */
  private synchronized void cannot(String sentence, String where) {
    lost = true;
    if (stale && phase == Phase.RUNNING) {
      run();
    } else {
      stand(Phase.REFUSED, sentence, where);
    }
  }
}
