package rovnik.server.live;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import rovnik.core.result.Outcome;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobDto;
import rovnik.server.runs.KeptRun;

/**
 * The guided work of a session: what is under way, what was found, and what one work remembers for
 * the next. Who calls holds the session's lock where something is begun or ended.
 *
 * @param <S> settings of the measurement
 */
final class GuidedWork<S> {
  /** A finding with what it was found with, which need not be what is set now. */
  record Found<S>(long id, Outcome outcome, S settings, JobDto job, Object work) {}

  private final MeasuringSession<S> session;
  private final Map<String, Object> memory = new ConcurrentHashMap<>();
  private volatile @Nullable GuidedRun run;
  private volatile @Nullable Found<S> found;

  GuidedWork(MeasuringSession<S> session) {
    this.session = session;
  }

  boolean underWay() {
    return run != null;
  }

  void refuseIfUnderWay(String advice) {
    if (underWay()) {
      throw Conflict.state("Guided work is under way" + advice);
    }
  }

  /** How far it is, null if there is none. */
  @Nullable GuidedProgress progress() {
    GuidedRun r = run;
    return r == null ? null : r.progress();
  }

  /** Of the newest finding, 0 if there is none. */
  long foundId() {
    Found<S> f = found;
    return f == null ? 0 : f.id();
  }

  /** The newest finding, or a {@link Conflict} if there is none. */
  Found<S> found() {
    Found<S> f = found;
    if (f == null) {
      throw Conflict.state("Nothing was found yet. Start guided work first.");
    }
    return f;
  }

  /** Makes work ready to run on the instrument's thread; an earlier finding is forgotten. */
  GuidedRun begin(Guided<?> work, Object form, S with, JobDto of) {
    GuidedRun begun =
        new GuidedRun(
            work,
            (self, instrument) -> session.workbench(instrument, with, of, new Speaker(self, of)),
            (self, outcome, trouble, field) -> {
              synchronized (session) {
                if (run != self) {
                  return; // it was dropped meanwhile
                }
                if (outcome != null) {
                  found = new Found<>(session.number(), outcome, with, of, form);
                }
                run = null;
                session.guidedEnded(self, trouble, field);
              }
            });
    run = begun;
    found = null;
    return begun;
  }

  /** It ends after the look that is under way. */
  void stop() {
    GuidedRun r = run;
    if (r != null) {
      r.stop();
    }
  }

  /** Stops it without waiting for its end; what it found is lost. */
  void drop() {
    stop();
    run = null;
  }

  private final class Speaker implements Workbench.Voice {
    private final GuidedRun self;
    private final JobDto of;

    Speaker(GuidedRun self, JobDto of) {
      this.self = self;
      this.of = of;
    }

    @Override
    public void say(String what, double done) {
      self.say(what, done);
      session.publishState();
    }

    @Override
    public void partial(Outcome outcome) {
      self.partial(outcome);
    }

    @Override
    public void breathe() {
      session.serveCalls();
      if (self.stopping()) {
        throw new Workbench.Stopped();
      }
    }

    @Override
    @SuppressWarnings("unchecked") // a bench shows looks with the settings of its own kind
    public void show(Look look, Object shownWith) {
      session.publish(look, (S) shownWith, of, System.currentTimeMillis());
    }

    @Override
    @SuppressWarnings("unchecked") // a bench keeps looks with the settings of its own kind
    public void keep(Look look, Object keptWith, String name) {
      session.keep(look, (S) keptWith, of, name);
    }

    @Override
    public Object recalled(String key) {
      return memory.get(key);
    }

    @Override
    public void remember(String key, Object what) {
      memory.put(key, what);
    }

    @Override
    public KeptRun kept(long run) {
      return session.keptRun(run);
    }

    @Override
    public void control(long instrument, Map<String, String> values) {
      session.control(instrument, values);
    }

    @Override
    @SuppressWarnings("unchecked")
    public void frame(Object framed) {
      session.frame((S) framed);
    }
  }
}
