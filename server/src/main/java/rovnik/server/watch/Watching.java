package rovnik.server.watch;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import rovnik.core.result.Outcome;
import rovnik.core.watch.WatchPoint;
import rovnik.core.watch.WatchSettings;
import rovnik.core.watch.WatchTally;
import rovnik.server.config.Conflict;
import rovnik.server.live.Follower;
import rovnik.server.live.Phase;
import rovnik.server.runs.KeptLook;

/**
 * A watch that goes on: takes looks on the instrument's thread and hands what came of them to the
 * thread that writes.
 */
final class Watching implements Follower {
  /** An event as it is now; {@code toMillis} null while it goes on. */
  static final class Event {
    final int reading;
    final long fromMillis;
    @Nullable Long toMillis;
    double worst;
    String kept = "";

    /** The look with which the number left its limits, and the one before; null once written. */
    @Nullable KeptLook look;

    @Nullable KeptLook before;

    /** Null until it is on disk. */
    @Nullable Long id;

    Event(int reading, long fromMillis, double worst) {
      this.reading = reading;
      this.fromMillis = fromMillis;
      this.worst = worst;
    }
  }

  /** A time in which nothing is seen; {@code toMillis} null while it goes on. */
  record Gap(long fromMillis, @Nullable Long toMillis, String why) {}

  /** What is to be written, in its order. */
  record Pending(List<WatchPoint> points, List<Event> events, List<Gap> gaps, double seenSeconds) {}

  /** Without a look for this many times the usual pause, or at least so long, nothing is seen. */
  private static final int PAUSES = 4;

  private static final long LEAST_QUIET_MILLIS = 5000;

  private static final String NO_LOOK = "no look came";

  final long id;
  final String name;
  final WatchSettings settings;
  private final WatchTally tally;
  private final Event[] open;
  private List<WatchPoint> points = new ArrayList<>();
  private List<Event> events = new ArrayList<>();
  private List<Gap> gaps = new ArrayList<>();
  private @Nullable Gap gap;
  private @Nullable Outcome last;
  private long lastMillis;
  private double seenSeconds;
  private long pauseMillis;
  private String notTaken = "";
  private int keptSoFar;

  /**
   * @param lastMillis when it saw something last, or began
   * @param keptSoFar events that were kept with their looks
   */
  Watching(long id, String name, WatchSettings settings, long lastMillis, int keptSoFar) {
    this.id = id;
    this.name = name;
    this.settings = settings;
    this.tally = new WatchTally(settings);
    this.open = new Event[settings.readings().size()];
    this.lastMillis = lastMillis;
    this.keptSoFar = keptSoFar;
  }

  /** An event that was open when the server ended. */
  synchronized void goOn(Event event) {
    open[event.reading] = event;
    tally.goOn(event.reading, event.worst);
  }

  /** Nothing was seen since the last look. */
  synchronized void pauseSince(long fromMillis, String why) {
    gap = new Gap(fromMillis, null, why);
    gaps.add(gap);
  }

  @Override
  public void refuseChange() {
    throw Conflict.state(
        "The long watch \"" + name + "\" goes on with these settings and this job. End it first.");
  }

  @Override
  public synchronized void looked(
      Outcome outcome, long atMillis, double seen, Supplier<KeptLook> kept) {
    long at = Math.max(lastMillis + 1, atMillis);
    seenSeconds += seen;
    WatchTally.Step step = tally.add(at, outcome);
    notTaken = step.whyNot();
    if (!notTaken.isEmpty()) {
      return;
    }
    if (gap == null || gap.why().equals(NO_LOOK)) {
      pauseMillis = at - lastMillis; // it may simply take that long
    }
    if (gap != null) {
      gaps.add(new Gap(gap.fromMillis(), at, gap.why()));
      gap = null;
    }
    for (WatchTally.Crossing c : step.crossings()) {
      crossed(c, at, kept);
    }
    for (Event e : open) {
      if (e != null && Double.compare(tally.worst(e.reading), e.worst) != 0) {
        e.worst = tally.worst(e.reading);
        events.add(e);
      }
    }
    step.point().ifPresent(points::add);
    last = outcome;
    lastMillis = at;
  }

  private void crossed(WatchTally.Crossing c, long at, Supplier<KeptLook> kept) {
    if (!c.left()) {
      Event e = open[c.reading()];
      if (e != null) {
        e.toMillis = at;
        e.worst = c.value();
        events.add(e);
      }
      open[c.reading()] = null;
      return;
    }
    Event e = new Event(c.reading(), at, c.value());
    open[c.reading()] = e;
    if (keptSoFar < settings.mostKept()) {
      keptSoFar++;
      e.look = kept.get();
      e.before = last == null ? null : before(e.look, last);
    } else {
      e.kept = "not kept: " + settings.mostKept() + " are kept at most";
    }
    events.add(e);
  }

  /** The look before: samples are of the newest one only. */
  private static KeptLook before(KeptLook now, Outcome earlier) {
    return new KeptLook(
        now.job(),
        now.settings(),
        now.work(),
        now.parts().found(earlier),
        now.sourceName(),
        now.identity(),
        now.overrideReason());
  }

  /**
   * Looks whether anything is seen.
   *
   * @param phase of the session, null if there is none yet
   * @param message what it says
   */
  synchronized void check(long nowMillis, @Nullable Phase phase, String message) {
    boolean runs = phase == Phase.RUNNING;
    long quiet = Math.max(LEAST_QUIET_MILLIS, PAUSES * pauseMillis);
    if (gap == null && (!runs || nowMillis - lastMillis > quiet)) {
      tally.pause().ifPresent(points::add);
      pauseSince(lastMillis, why(phase, message));
    } else if (gap != null && (!runs || !notTaken.isEmpty())) {
      String why = why(phase, message);
      if (!why.isEmpty() && !why.equals(gap.why())) {
        gaps.add(new Gap(gap.fromMillis(), nowMillis, gap.why()));
        pauseSince(nowMillis, why);
      }
    }
  }

  private String why(@Nullable Phase phase, String message) {
    if (phase == Phase.RUNNING) {
      return notTaken.isEmpty() ? NO_LOOK : notTaken;
    }
    return phase == Phase.HELD && message.isEmpty() ? "held" : message;
  }

  /** It sees nothing more for now: what there is so far is a point of its own. */
  synchronized void pause() {
    tally.pause().ifPresent(points::add);
    gap = null;
  }

  /** It ends for good, and with it all that goes on. */
  synchronized void end(long nowMillis) {
    if (gap != null) {
      gaps.add(new Gap(gap.fromMillis(), nowMillis, gap.why()));
    }
    for (int i = 0; i < open.length; i++) {
      Event e = open[i];
      if (e != null) {
        e.toMillis = nowMillis;
        events.add(e);
        open[i] = null;
      }
    }
    pause();
  }

  /** Why nothing is seen now, "" if something is. */
  synchronized String standing() {
    return gap == null ? "" : gap.why();
  }

  /** What could not be written waits for the next time. */
  synchronized void giveBack(Pending p) {
    points.addAll(0, p.points());
    events.addAll(0, p.events());
    gaps.addAll(0, p.gaps());
    seenSeconds += p.seenSeconds();
  }

  synchronized Pending take() {
    Pending all = new Pending(points, events.stream().distinct().toList(), gaps, seenSeconds);
    seenSeconds = 0;
    points = new ArrayList<>();
    events = new ArrayList<>();
    gaps = new ArrayList<>();
    return all;
  }
}
