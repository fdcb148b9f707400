package rovnik.server.watch;

import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import rovnik.core.Refusal;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.units.Moment;
import rovnik.core.watch.WatchEvent;
import rovnik.core.watch.WatchGap;
import rovnik.core.watch.WatchOutcome;
import rovnik.core.watch.WatchPoint;
import rovnik.core.watch.WatchSettings;
import rovnik.core.watch.WatchStretch;
import rovnik.server.jobs.JobService;
import rovnik.server.runs.KeptLook;
import rovnik.server.runs.RunDtos;
import rovnik.server.runs.RunService;
import rovnik.server.watch.WatchMapper.WatchRow;
import tools.jackson.databind.json.JsonMapper;

/** What watches saw, going on or not. */
@Service
public class WatchHistory {
  private static final int COLUMNS_OF_RUN = 2000;

  private final WatchMapper mapper;
  private final WatchStore store;
  private final JobService jobs;
  private final RunService runs;
  private final JsonMapper json;

  WatchHistory(
      WatchMapper mapper, WatchStore store, JobService jobs, RunService runs, JsonMapper json) {
    this.mapper = mapper;
    this.store = store;
    this.jobs = jobs;
    this.runs = runs;
    this.json = json;
  }

  /**
   * What a stretch of a watch came to.
   *
   * @param fromMillis null for its beginning
   * @param toMillis null for its end, or now
   * @param columns so many lowest and highest values are drawn at most
   */
  Outcome outcome(long id, @Nullable Long fromMillis, @Nullable Long toMillis, int columns) {
    WatchRow row = mapper.one(id);
    long end = row.endedMillis() == null ? System.currentTimeMillis() : row.endedMillis();
    long from = fromMillis == null ? row.beganMillis() : Math.max(row.beganMillis(), fromMillis);
    long to = toMillis == null ? end : Math.min(end, toMillis);
    if (to <= from) {
      throw new Refusal("toMillis", "The stretch is empty: it must end after it begins.");
    }
    List<WatchStretch> stretches = store.stretches(id, from, to);
    return new WatchOutcome(
            new WatchOutcome.About(row.name(), row.title(), from, to, share(row, end)),
            json.readValue(row.planJson(), WatchDtos.Plan.class).toCore(),
            stretches,
            mapper.events(id, from, to).stream()
                .map(
                    e ->
                        new WatchEvent(
                            e.reading(),
                            e.fromMillis(),
                            e.toMillis() == null ? Long.MAX_VALUE : e.toMillis(),
                            e.worst(),
                            e.kept()))
                .toList(),
            mapper.gaps(id, from, to).stream()
                .map(
                    g ->
                        new WatchGap(
                            g.fromMillis(),
                            g.toMillis() == null ? Long.MAX_VALUE : g.toMillis(),
                            g.why()))
                .toList(),
            columns)
        .outcome();
  }

  /** Of all its time, what its looks had samples of; NaN where nobody counted. */
  private static double share(WatchRow row, long endMillis) {
    Double seen = row.seenSeconds();
    return seen == null ? Double.NaN : 1000 * seen / (endMillis - row.beganMillis());
  }

  /**
   * A watch that is over, from elsewhere.
   *
   * @param what is measured, in words
   */
  public record Past(
      long jobId,
      String name,
      String source,
      String sourceName,
      String measurement,
      String what,
      WatchSettings settings,
      long beganMillis,
      long endedMillis,
      List<WatchPoint> points,
      List<WatchEvent> events,
      List<WatchGap> gaps) {}

  /** Takes a watch that is over; it is read like any other. */
  @Transactional
  public long take(Past p) {
    WatchMapper.Inserted<WatchRow> inserted =
        new WatchMapper.Inserted<>(
            new WatchRow(
                0,
                p.jobId(),
                p.name(),
                p.source(),
                p.sourceName(),
                p.measurement(),
                p.what(),
                "{}",
                json.writeValueAsString(WatchDtos.Plan.of(p.settings())),
                "[]",
                "",
                0,
                p.beganMillis(),
                p.endedMillis(),
                "",
                null));
    mapper.insert(inserted);
    long id = inserted.id;
    store.write(id, p.points());
    for (WatchEvent e : p.events()) {
      mapper.insertEvent(
          id,
          new WatchMapper.Inserted<>(
              new WatchMapper.EventRow(
                  0, e.reading(), e.fromMillis(), e.toMillis(), e.worst(), e.kept())));
    }
    p.gaps()
        .forEach(
            g -> mapper.saveGap(id, new WatchMapper.GapRow(g.fromMillis(), g.toMillis(), g.why())));
    return id;
  }

  /** Keeps a stretch as a run. */
  RunDtos.Summary keep(
      long id, @Nullable Long fromMillis, @Nullable Long toMillis, @Nullable String name) {
    WatchRow row = mapper.one(id);
    Outcome outcome = outcome(id, fromMillis, toMillis, COLUMNS_OF_RUN);
    WatchDtos.Plan plan = json.readValue(row.planJson(), WatchDtos.Plan.class);
    return runs.keep(
        new KeptLook(
            jobs.find(row.jobId()),
            plan,
            null,
            KeptLook.Parts.of(
                outcome,
                List.of(
                    Fact.of("watched", row.title()),
                    Fact.of("since", Moment.ofMillis(row.beganMillis()) + " UTC"),
                    Fact.of("a point", plan.everySeconds(), "s"))),
            row.sourceName(),
            "",
            row.overrideReason()),
        name);
  }

  /** All points of a stretch, for a file. */
  void each(long id, @Nullable Long fromMillis, @Nullable Long toMillis, Consumer<WatchPoint> to) {
    store.each(
        id, fromMillis == null ? 0 : fromMillis, toMillis == null ? Long.MAX_VALUE : toMillis, to);
  }
}
