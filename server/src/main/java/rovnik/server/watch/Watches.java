package rovnik.server.watch;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.result.Outcome;
import rovnik.core.watch.Followed;
import rovnik.core.watch.WatchSettings;
import rovnik.core.watch.Watched;
import rovnik.instruments.InstrumentFault;
import rovnik.server.bench.BenchService;
import rovnik.server.config.Conflict;
import rovnik.server.config.Json;
import rovnik.server.config.Refusals;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.live.Client;
import rovnik.server.live.MeasuringSession;
import rovnik.server.live.Phase;
import rovnik.server.live.Sessions;
import rovnik.server.live.Sources;
import rovnik.server.watch.WatchMapper.EventRow;
import rovnik.server.watch.WatchMapper.GapRow;
import rovnik.server.watch.WatchMapper.WatchRow;
import tools.jackson.databind.JsonNode;

/**
 * All long watches: begins and ends them, writes what they see, and goes on with them when the
 * server comes back.
 */
@Service
public class Watches implements DisposableBean {
  private static final Logger LOG = LoggerFactory.getLogger(Watches.class);
  private static final long WRITE_MILLIS = 500;

  /** What an instrument reported may pass: so long after it the measurement is started again. */
  private static final long AGAIN_MILLIS = 15_000;

  /** After a start of the server its instruments take a little while to be there. */
  private static final long EARLY_MILLIS = 2_000;

  private static final int LONGEST_WORDS = 1000;

  private final WatchMapper mapper;
  private final WatchStore store;
  private final Sessions sessions;
  private final JobService jobs;
  private final EventKeeper keeper;
  private final Json json;
  private final TransactionTemplate transaction;
  private final Clock clock = Clock.systemUTC();
  private final Map<Long, Active> active = new ConcurrentHashMap<>();
  private final ScheduledExecutorService writer =
      Executors.newSingleThreadScheduledExecutor(
          r -> {
            Thread t = new Thread(r, "watches");
            t.setDaemon(true);
            return t;
          });

  /** A watch with its session; null while that cannot be had, as before its instrument is there. */
  private static final class Active {
    final WatchRow row;
    final Watching watching;
    @Nullable MeasuringSession<?> session;
    String trouble = "";

    /** Why what it saw is not on disk yet, "" if it is. */
    volatile String unwritten = "";

    long triedMillis;

    Active(WatchRow row, Watching watching) {
      this.row = row;
      this.watching = watching;
    }
  }

  Watches(
      WatchMapper mapper,
      WatchStore store,
      Sessions sessions,
      BenchService bench,
      JobService jobs,
      EventKeeper keeper,
      Json json,
      TransactionTemplate transaction) {
    this.mapper = mapper;
    this.store = store;
    this.sessions = sessions;
    this.jobs = jobs;
    this.keeper = keeper;
    this.json = json;
    this.transaction = transaction;
    jobs.onRemove(id -> all().stream().filter(a -> a.row.jobId() == id).forEach(this::drop));
    bench.onRemove(
        id ->
            all().stream()
                .filter(a -> a.row.source().equals(Sources.instrument(id)))
                .forEach(a -> end(a, "its instrument was removed from the Bench")));
    writer.scheduleWithFixedDelay(this::turn, WRITE_MILLIS, WRITE_MILLIS, TimeUnit.MILLISECONDS);
  }

  private Collection<Active> all() {
    return active.values();
  }

  private long now() {
    return clock.millis();
  }

  private <T> T read(String text, Class<T> type) {
    return json.read(json.mapper().readTree(text), type);
  }

  // What there is.

  List<WatchDtos.Dto> ofJob(long jobId) {
    jobs.find(jobId);
    return mapper.ofJob(jobId).stream().map(this::dto).toList();
  }

  WatchDtos.Dto one(long id) {
    return dto(mapper.one(id));
  }

  private WatchDtos.Dto dto(WatchRow r) {
    Active a = active.get(r.id());
    return new WatchDtos.Dto(
        r.id(),
        r.jobId(),
        r.name(),
        r.source(),
        r.sourceName(),
        r.measurement(),
        r.title(),
        read(r.planJson(), WatchDtos.Plan.class),
        r.beganMillis(),
        r.endedMillis(),
        a == null ? r.whyEnded() : a.watching.standing(),
        a == null ? "" : a.unwritten);
  }

  /** What is measured for a job, with the numbers that could be watched. */
  List<WatchDtos.Watchable> watchable(long jobId) {
    jobs.find(jobId);
    List<WatchDtos.Watchable> out = new ArrayList<>();
    for (MeasuringSession<?> s : sessions.measuredFor(jobId)) {
      s.peek()
          .ifPresent(
              look ->
                  out.add(
                      new WatchDtos.Watchable(
                          s.source(),
                          s.measuring().sourceName(),
                          s.measuring().kind(),
                          look.shown().title(),
                          Followed.all(look.shown()).stream()
                              .map(WatchDtos.Candidate::of)
                              .toList())));
    }
    return out;
  }

  // Beginning and ending.

  /** Begins a watch, and what it watches, if that is held. */
  WatchDtos.Dto begin(WatchDtos.New wanted, Client client) {
    String name = Refusals.named(wanted.name(), "name", "watch");
    String source = wanted.source() == null ? "" : wanted.source();
    if (!Sources.isInstrument(source)) {
      throw new Refusal(
          "source", "A watch needs an instrument, such as \"i3\": a recording stands still.");
    }
    MeasuringSession<?> session =
        sessions.session(source, wanted.measurement() == null ? "" : wanted.measurement());
    Outcome outcome =
        session
            .peek()
            .orElseThrow(
                () -> Conflict.state("Start the measurement first: what it shows is watched."))
            .shown();
    Long jobId = session.jobId();
    if (jobId == null) {
      throw Conflict.named("jobId", "Measure for a job: what is watched belongs to one.");
    }
    WatchSettings settings = settings(wanted, outcome);
    if (session.phase() != Phase.RUNNING) {
      session.require(client);
      session.start(jobId, null, session.answers(), false);
    }
    JobDto job = session.job();
    WatchMapper.Inserted<WatchRow> inserted =
        new WatchMapper.Inserted<>(
            new WatchRow(
                0,
                jobId,
                name,
                source,
                session.measuring().sourceName(),
                session.measuring().kind(),
                outcome.title() + " of " + session.measuring().sourceName(),
                json.mapper().writeValueAsString(session.settings()),
                json.mapper().writeValueAsString(WatchDtos.Plan.of(settings)),
                json.mapper().writeValueAsString(session.answers()),
                session.overrideReason(),
                job.path().revision(),
                now(),
                null,
                "",
                0.0));
    mapper.insert(inserted);
    WatchRow row = mapper.one(inserted.id);
    Active a = new Active(row, new Watching(row.id(), name, settings, row.beganMillis(), 0));
    a.session = session;
    session.follow(a.watching);
    active.put(row.id(), a);
    return dto(row);
  }

  private static WatchSettings settings(WatchDtos.New wanted, Outcome outcome) {
    List<Watched> watched = new ArrayList<>();
    for (WatchDtos.NewReading r :
        wanted.readings() == null ? List.<WatchDtos.NewReading>of() : wanted.readings()) {
      String id = r == null || r.id() == null ? "" : r.id();
      Followed f =
          Followed.find(outcome, id)
              .orElseThrow(
                  () ->
                      new Refusal(
                          "readings",
                          "The measurement has no number \""
                              + id
                              + "\" now. Choose one of its candidates."));
      watched.add(
          new Watched(
              f.id(),
              f.label(),
              f.unit(),
              f.plane(),
              Boolean.TRUE.equals(r.perHour()),
              new Limit(WatchDtos.orNan(r.lower()), WatchDtos.orNan(r.upper())),
              r.hysteresis() == null ? 0 : r.hysteresis()));
    }
    return new WatchSettings(
        watched,
        wanted.everySeconds() == null ? 1 : wanted.everySeconds(),
        wanted.mostKept() == null ? 20 : wanted.mostKept(),
        wanted.aroundSeconds() == null ? 1 : wanted.aroundSeconds());
  }

  WatchDtos.Dto end(long id) {
    WatchRow row = mapper.one(id);
    Active a = active.get(id);
    if (a != null) {
      end(a, "");
    } else if (row.endedMillis() == null) {
      mapper.end(id, now(), "");
    }
    return one(id);
  }

  private void end(Active a, String why) {
    drop(a);
    long at = now();
    a.watching.end(at);
    write(a);
    mapper.end(a.row.id(), at, why);
  }

  /** It sees nothing more. */
  private void drop(Active a) {
    active.remove(a.row.id());
    MeasuringSession<?> session = a.session;
    if (session != null) {
      session.unfollow(a.watching);
    }
  }

  void remove(long id) {
    mapper.one(id);
    Active a = active.get(id);
    if (a != null) {
      drop(a);
    }
    mapper.delete(id);
  }

  // Going on after a start of the server.

  @EventListener
  void ready(ApplicationReadyEvent event) {
    for (WatchRow row : mapper.goingOn()) {
      long last = Math.max(row.beganMillis(), mapper.lastMillis(row.id()));
      Watching watching =
          new Watching(
              row.id(),
              row.name(),
              read(row.planJson(), WatchDtos.Plan.class).toCore(),
              last,
              mapper.countOfKept(row.id()));
      for (EventRow e : mapper.events(row.id(), 0, Long.MAX_VALUE)) {
        if (e.toMillis() == null) {
          Watching.Event open = new Watching.Event(e.reading(), e.fromMillis(), e.worst());
          open.id = e.id();
          open.kept = e.kept();
          watching.goOn(open);
        }
      }
      List<GapRow> gaps = mapper.gaps(row.id(), last, Long.MAX_VALUE);
      boolean paused = !gaps.isEmpty() && gaps.get(gaps.size() - 1).toMillis() == null;
      watching.pauseSince(
          paused ? gaps.get(gaps.size() - 1).fromMillis() : last, "the server did not run");
      active.put(row.id(), new Active(row, watching));
    }
  }

  /** Brings back what was measured, as it was. */
  private void resume(Active a) {
    if (now() - a.triedMillis < (a.session == null ? EARLY_MILLIS : AGAIN_MILLIS)) {
      return;
    }
    a.triedMillis = now();
    try {
      MeasuringSession<?> session = a.session;
      if (session == null) {
        session = sessions.session(a.row.source(), a.row.measurement());
        set(session, a.row);
        start(session, a.row);
        session.follow(a.watching);
        a.session = session;
      } else {
        start(session, a.row);
      }
      a.trouble = "";
    } catch (Refusal | Conflict | InstrumentFault e) {
      a.trouble = e.getMessage();
    }
  }

  private <S> void set(MeasuringSession<S> session, WatchRow row) {
    // An older Rovnik may have written them: what it did not know is as it is at first.
    JsonNode kept = json.mapper().readTree(row.settingsJson());
    session.apply(
        json.read(
            json.merged(session.measuring().first(), kept), session.measuring().settingsType()));
  }

  /** A reason to let power flow holds for the path that it was given for. */
  private void start(MeasuringSession<?> session, WatchRow row) {
    boolean same = jobs.find(row.jobId()).path().revision() == row.pathRevision();
    session.start(
        row.jobId(),
        same ? row.overrideReason() : "",
        Set.of(read(row.answersJson(), String[].class)),
        false);
  }

  // Writing, on a thread of its own.

  private void turn() {
    for (Active a : all()) {
      try {
        MeasuringSession<?> session = a.session;
        if (session == null || faulty(session)) {
          resume(a);
          session = a.session;
        }
        Phase phase = session == null ? null : session.phase();
        a.watching.check(now(), phase, session == null ? a.trouble : session.message());
        write(a);
      } catch (RuntimeException e) {
        LOG.error("the watch \"{}\" could not be written", a.row.name(), e);
      }
    }
  }

  /** The instrument said that something went wrong: nobody is there to start it again. */
  private static boolean faulty(MeasuringSession<?> session) {
    return session.phase() == Phase.IDLE
        || session.phase() == Phase.REFUSED && session.field().equals("instrument");
  }

  private void write(Active a) {
    Watching.Pending p = a.watching.take();
    long id = a.row.id();
    for (Watching.Event e : p.events()) {
      if (e.look != null) {
        e.kept = cut(keeper.keep(a.row.name(), a.watching.settings, e, a.session));
        e.look = null;
        e.before = null;
      }
    }
    if (p.points().isEmpty() && p.events().isEmpty() && p.gaps().isEmpty()) {
      a.unwritten = "";
      return;
    }
    List<Watching.Event> fresh = p.events().stream().filter(e -> e.id == null).toList();
    try {
      transaction.executeWithoutResult(
          status -> {
            store.write(id, p.points());
            mapper.saw(id, p.seenSeconds());
            p.gaps().forEach(g -> mapper.saveGap(id, gap(g)));
            p.events().forEach(e -> save(id, e));
          });
      a.unwritten = "";
    } catch (RuntimeException e) {
      // Nothing of it is on disk, so that no event has a number there yet.
      fresh.forEach(f -> f.id = null);
      a.watching.giveBack(p);
      a.unwritten = "what it saw cannot be written to disk and waits for that";
      throw e;
    }
  }

  private static GapRow gap(Watching.Gap g) {
    return new GapRow(g.fromMillis(), g.toMillis(), cut(g.why()));
  }

  private static String cut(String words) {
    return words.length() <= LONGEST_WORDS ? words : words.substring(0, LONGEST_WORDS);
  }

  private void save(long id, Watching.Event e) {
    Long known = e.id;
    EventRow row =
        new EventRow(
            known == null ? 0 : known, e.reading, e.fromMillis, e.toMillis, e.worst, e.kept);
    if (known == null) {
      WatchMapper.Inserted<EventRow> inserted = new WatchMapper.Inserted<>(row);
      mapper.insertEvent(id, inserted);
      e.id = inserted.id;
    } else {
      mapper.updateEvent(row);
    }
  }

  @Override
  public void destroy() {
    writer.shutdown();
    try {
      writer.awaitTermination(5, TimeUnit.SECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    for (Active a : all()) {
      a.watching.pause();
      write(a);
    }
  }
}
