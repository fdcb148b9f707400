package rovnik.server.jobs;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import rovnik.core.Refusal;
import rovnik.core.formats.GainTableCsv;
import rovnik.core.path.ElementKind;
import rovnik.core.path.LevelPlan;
import rovnik.core.path.SignalPath;
import rovnik.core.path.SourceLevel;
import rovnik.server.config.Conflict;
import rovnik.server.config.Refusals;
import rovnik.server.networks.NetworkService;
import tools.jackson.databind.json.JsonMapper;

/** Jobs with their device under test, path and limits. */
@Service
public class JobService {
  /** Where nothing else is known, levels are planned at this frequency. */
  private static final double FALLBACK_HZ = 100e6;

  private static final String CARRIER = "carrier";

  /** What is known stands beside what is demanded. */
  private static final String RATES = "rates";

  private static final int MOST_RATES = 100;

  private final JobMapper mapper;
  private final NetworkService networks;
  private final JsonMapper json;
  private final List<LongConsumer> listeners = new CopyOnWriteArrayList<>();
  private final List<LongConsumer> removals = new CopyOnWriteArrayList<>();
  private final List<LongConsumer> beforeRemoval = new CopyOnWriteArrayList<>();

  JobService(JobMapper mapper, NetworkService networks, JsonMapper json) {
    this.mapper = mapper;
    this.networks = networks;
    this.json = json;
  }

  /** Calls back with the id of each job that was removed. */
  public void onRemove(LongConsumer listener) {
    removals.add(listener);
  }

  /** Calls back within the transaction that removes a job, so that what hangs on it goes along. */
  public void beforeRemove(LongConsumer listener) {
    beforeRemoval.add(listener);
  }

  /**
   * Limits of a job of one kind; null if there are none. All limits of a job are stored here, each
   * kind in the form that it is sent in.
   */
  public <T> @Nullable T limits(long id, String kind, Class<T> type) {
    String text = mapper.limits(id, kind);
    return text == null ? null : json.readValue(text, type);
  }

  /** Stores limits of one kind, which were checked before. */
  @Transactional
  public void saveLimits(long id, String kind, Object limits) {
    find(id);
    mapper.saveLimits(id, kind, json.writeValueAsString(limits));
    tell(id);
  }

  /** Calls back with the id of each job whose path or limits changed. */
  public void onChange(LongConsumer listener) {
    listeners.add(listener);
  }

  public List<JobDto> all() {
    return mapper.jobs().stream().map(r -> find(r.id())).toList();
  }

  /** The job; not found is a {@link Conflict}. */
  public JobDto find(long id) {
    JobMapper.JobRow row = mapper.job(id);
    if (row == null) {
      throw Conflict.notFound("job", id);
    }
    JobMapper.PathRow path = mapper.path(id);
    LimitsDto limits = limits(id, CARRIER, LimitsDto.class);
    KnownRateDto[] rates = limits(id, RATES, KnownRateDto[].class);
    return new JobDto(
        id,
        row.name(),
        row.dut(),
        new PathDto(mapper.elements(id), path.readingPlane(), path.revision()),
        limits == null ? LimitsDto.NONE : limits,
        rates == null ? List.of() : List.of(rates),
        row.archived());
  }

  /** A new job with the shortest path there can be. */
  @Transactional
  public JobDto create(String name, String dut) {
    JobMapper.NewJob job = new JobMapper.NewJob(Refusals.named(name, "name", "job"));
    mapper.insertJob(job);
    boolean unnamed = dut == null || dut.isBlank();
    mapper.insertDut(
        job.id, unnamed ? "Device under test" : Refusals.named(dut, "dut", "device under test"));
    mapper.savePath(job.id, 0, 0);
    PathElementDto source = PathElementDto.plain("DUT", ElementKind.SOURCE, 0.0, null, null);
    PathElementDto port = PathElementDto.plain("Receiver IN", ElementKind.PORT, null, 20.0, null);
    savePath(job.id, new PathDto(List.of(source, port), 0, 0));
    return find(job.id);
  }

  /** Changes what is given; null leaves a thing as it is. */
  @Transactional
  public JobDto change(
      long id, @Nullable String name, @Nullable String dut, @Nullable Boolean archived) {
    find(id);
    if (name != null) {
      mapper.rename(id, Refusals.named(name, "name", "job"));
    }
    if (dut != null) {
      mapper.renameDut(id, Refusals.named(dut, "dut", "device under test"));
    }
    if (archived != null) {
      mapper.archive(id, archived);
    }
    return find(id);
  }

  /** What hangs on a job, in words; "" if nothing does. */
  public String belongings(long id) {
    find(id);
    List<String> all = new ArrayList<>();
    count(all, mapper.runs(id), "run");
    count(all, mapper.setups(id), "setup");
    int watches = mapper.watches(id);
    if (watches > 0) {
      all.add(watches + (watches == 1 ? " long watch" : " long watches"));
    }
    return String.join(" and ", all);
  }

  private static void count(List<String> all, int n, String what) {
    if (n > 0) {
      all.add(n + " " + what + (n == 1 ? "" : "s"));
    }
  }

  /**
   * Removes a job.
   *
   * @param withBelongings false refuses if runs, setups or watches hang on it, and names them
   */
  @Transactional
  public void remove(long id, boolean withBelongings) {
    JobDto job = find(id);
    String belongings = belongings(id);
    if (!belongings.isEmpty() && !withBelongings) {
      throw Conflict.named(
          "belongings",
          "\""
              + job.name()
              + "\" has "
              + belongings
              + ", which would go with it. Archive the job, or say that they shall go"
              + " (belongings=true).");
    }
    beforeRemoval.forEach(l -> l.accept(id));
    mapper.delete(id);
    afterCommit(() -> removals.forEach(l -> l.accept(id)));
  }

  /** Stores a path if it makes sense; the revision grows. */
  @Transactional
  public JobDto savePath(long id, PathDto wanted) {
    PathDto path =
        new PathDto(
            wanted.elements().stream().map(e -> withFile(e, planningHz(find(id)))).toList(),
            wanted.readingPlane(),
            wanted.revision());
    SignalPath checked = path.toCore();
    JobDto before = find(id);
    mapper.savePath(id, checked.readingPlane(), before.path().revision() + 1);
    mapper.deleteElements(id);
    for (int i = 0; i < path.elements().size(); i++) {
      mapper.insertElement(id, i, path.elements().get(i));
    }
    tell(id);
    return find(id);
  }

  /** A file gives an element its gain, and its match as well. */
  private PathElementDto withFile(PathElementDto e, double hertz) {
    if (!"file".equals(e.gainKind())) {
      return e;
    }
    if (e.networkId() == null) {
      throw new Refusal(
          "networkId", "Choose the Touchstone file that holds the gain of " + e.name());
    }
    return e.of(
        GainTableCsv.write(networks.gain(e.networkId())),
        networks.returnLossDb(e.networkId(), hertz));
  }

  /** Moves the reading plane: no element changes, an override stays valid. */
  @Transactional
  public JobDto moveReadingPlane(long id, int plane) {
    PathDto path = find(id).path();
    new PathDto(path.elements(), plane, path.revision()).toCore();
    mapper.savePath(id, plane, path.revision());
    tell(id);
    return find(id);
  }

  @Transactional
  public JobDto saveLimits(long id, LimitsDto limits) {
    limits.toCore();
    saveLimits(id, CARRIER, limits);
    return find(id);
  }

  /** Stores which clocks and intervals of the device under test are known. */
  @Transactional
  public JobDto saveRates(long id, List<KnownRateDto> rates) {
    if (rates.size() > MOST_RATES) {
      throw new Refusal("rates", "A job knows at most " + MOST_RATES + " rates.");
    }
    if (rates.stream().anyMatch(Objects::isNull)) {
      throw new Refusal("rates", "A rate is {\"name\": ..., \"hertz\": ...}; one is null.");
    }
    rates.forEach(KnownRateDto::toCore); // refuses what cannot be
    saveLimits(id, RATES, rates);
    return find(id);
  }

  /**
   * The level plan of a job.
   *
   * @param source what the source says it puts out
   */
  public LevelPlan plan(JobDto job, SourceLevel source) {
    SignalPath path = job.path().toCore();
    return LevelPlan.of(path, planningHz(job), source.orExpected(path.source().outputLevelDbm()));
  }

  /** The plan as sent. */
  public LevelPlanDto planDto(JobDto job, SourceLevel source) {
    return LevelPlanDto.of(job.path().toCore(), plan(job, source), planningHz(job));
  }

  private static double planningHz(JobDto job) {
    return job.limits().nominalHz() == null ? FALLBACK_HZ : job.limits().nominalHz();
  }

  private void tell(long id) {
    afterCommit(() -> listeners.forEach(l -> l.accept(id)));
  }

  private static void afterCommit(Runnable work) {
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCommit() {
            work.run();
          }
        });
  }
}
