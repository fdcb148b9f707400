package rovnik.server.live;

import java.util.Map;
import rovnik.core.result.Outcome;
import rovnik.server.jobs.JobDto;
import rovnik.server.runs.KeptRun;

/** What any guided work has at hand; each kind of measurement adds how a look is taken. */
public interface Workbench {
  /** Raised between two looks when the user stops the work. */
  final class Stopped extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public Stopped() {
      super("stopped", null, false, false);
    }
  }

  /**
   * Puts back what the work changed, at the end of {@code try (restored)}: if the work failed, that
   * failure is told, and not that putting back failed for the same reason.
   */
  interface Restored extends AutoCloseable {
    @Override
    void close();
  }

  /** How a bench speaks to the session that the work is done for. */
  interface Voice {
    /** Says what is being done; the screen shows it at once. */
    void say(String what, double done);

    /** What would be shown if the work were stopped now. */
    void partial(Outcome outcome);

    /** Lets waiting calls in; raises {@link Stopped} if the user stopped the work. */
    void breathe();

    /** Shows a look while the work goes on. */
    void show(Look look, Object settings);

    /** Keeps a look as a run of the job. */
    void keep(Look look, Object settings, String name);

    /** What earlier work of this session remembered, null if nothing. */
    Object recalled(String key);

    void remember(String key, Object what);

    /** A run that was kept earlier, of any job. */
    KeptRun kept(long run);

    /** Sets controls of an instrument, through the gate and for the session's holder. */
    void control(long instrument, Map<String, String> values);

    /** What the screen shows from now on. */
    void frame(Object settings);
  }

  JobDto job();

  Voice voice();

  /** Says what is being done; the screen shows it at once. */
  default void say(String what, double done) {
    voice().say(what, done);
  }

  /** What would be shown if the work were stopped now. */
  default void partial(Outcome outcome) {
    voice().partial(outcome);
  }
}
