package rovnik.server.watch;

import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.stereotype.Component;
import rovnik.core.units.Moment;
import rovnik.core.watch.WatchSettings;
import rovnik.server.config.Conflict;
import rovnik.server.live.Cut;
import rovnik.server.live.MeasuringSession;
import rovnik.server.runs.KeptLook;
import rovnik.server.runs.RunService;

/**
 * Keeps what was seen around an event: the look with which a number left its limits and the one
 * before as runs, and of a receiver that streams the samples around it as a recording.
 */
@Component
class EventKeeper implements DisposableBean {
  private static final Logger LOG = LoggerFactory.getLogger(EventKeeper.class);
  private static final int LONGEST_NAME = 200;

  private final RunService runs;
  private final ScheduledExecutorService later =
      Executors.newSingleThreadScheduledExecutor(
          r -> {
            Thread t = new Thread(r, "keeps events");
            t.setDaemon(true);
            return t;
          });

  EventKeeper(RunService runs) {
    this.runs = runs;
  }

  /** What was kept, or why it was not, in words. */
  String keep(
      String watch, WatchSettings settings, Watching.Event e, @Nullable MeasuringSession<?> of) {
    KeptLook look = e.look;
    if (look == null) {
      return e.kept;
    }
    String label = settings.readings().get(e.reading).shownLabel();
    String name = watch + ", " + Moment.ofMillis(e.fromMillis);
    try {
      if (e.before != null) {
        runs.keep(e.before, named(name + ", before"));
      }
      String kept = runs.keep(look, named(name + ", " + label)).name();
      if (of != null && look.parts().samples() == null && look.parts().recordingId() == null) {
        double seconds = 2 * settings.aroundSeconds();
        // From the event on, not from when it is written.
        long until = e.fromMillis + (long) (1000 * settings.aroundSeconds());
        later.schedule(
            () -> cut(of, new Cut(named(name), null, seconds)),
            until - System.currentTimeMillis(),
            TimeUnit.MILLISECONDS);
      }
      return "run \"" + kept + "\"";
    } catch (RuntimeException noRoom) {
      LOG.warn("an event of the watch \"{}\" was not kept", watch, noRoom);
      return "not kept: " + noRoom.getMessage();
    }
  }

  private static void cut(MeasuringSession<?> of, Cut wanted) {
    try {
      of.cut(wanted);
    } catch (Conflict none) {
      // It holds no samples: the runs are what there is.
    } catch (RuntimeException e) {
      LOG.warn("the samples \"{}\" were not kept", wanted.name(), e);
    }
  }

  private static String named(String wanted) {
    return wanted.length() <= LONGEST_NAME ? wanted : wanted.substring(0, LONGEST_NAME);
  }

  @Override
  public void destroy() {
    later.shutdownNow();
  }
}
