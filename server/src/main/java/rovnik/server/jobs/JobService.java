package rovnik.server.jobs;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.LongConsumer;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import rovnik.core.Refusal;
import rovnik.core.formats.GainTableCsv;
import rovnik.core.path.ElementKind;
import rovnik.core.path.LevelPlan;
import rovnik.core.path.SignalPath;
import rovnik.server.config.Conflict;
import rovnik.server.networks.NetworkService;

/** Jobs with their device under test, path and limits. */
@Service
public class JobService {
  /** Where nothing else is known, levels are planned at this frequency. */
  private static final double FALLBACK_HZ = 100e6;

  private final JobMapper mapper;
  private final List<LongConsumer> listeners = new CopyOnWriteArrayList<>();

  private final NetworkService networks;

  JobService(JobMapper mapper, NetworkService networks) {
    this.mapper = mapper;
    this.networks = networks;
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
    LimitsDto limits = mapper.limits(id);
    return new JobDto(
        id,
        row.name(),
        row.dut(),
        new PathDto(mapper.elements(id), path.readingPlane(), path.revision()),
        limits == null ? LimitsDto.NONE : limits);
  }

  /** A new job with the shortest path there can be. */
  @Transactional
  public JobDto create(String name, String dut) {
    JobMapper.NewJob job = new JobMapper.NewJob(named(name, "name", "job"));
    mapper.insertJob(job);
    mapper.insertDut(job.id, dut == null || dut.isBlank() ? "Device under test" : dut.strip());
    mapper.savePath(job.id, 0, 0);
    PathElementDto source =
        new PathElementDto(
            "DUT",
            ElementKind.SOURCE,
            "number",
            0.0,
            "",
            null,
            0,
            null,
            null,
            true,
            null,
            0.0,
            null,
            null);
    PathElementDto port =
        new PathElementDto(
            "Receiver IN",
            ElementKind.PORT,
            "number",
            0.0,
            "",
            null,
            0,
            null,
            20.0,
            false,
            null,
            null,
            null,
            null);
    savePath(job.id, new PathDto(List.of(source, port), 0, 0));
    return find(job.id);
  }

  @Transactional
  public JobDto rename(long id, String name, String dut) {
    find(id);
    mapper.rename(id, named(name, "name", "job"));
    mapper.renameDut(id, named(dut, "dut", "device under test"));
    return find(id);
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
    find(id);
    limits.toCore();
    mapper.saveLimits(id, limits);
    tell(id);
    return find(id);
  }

  /**
   * The level plan of a job.
   *
   * @param sourceLevelDbm what the source says it puts out, NaN if it does not say
   */
  public LevelPlan plan(JobDto job, double sourceLevelDbm) {
    SignalPath path = job.path().toCore();
    double expected = path.source().outputLevelDbm();
    double level = sourceLevelDbm > expected ? sourceLevelDbm : expected;
    return LevelPlan.of(path, planningHz(job), level);
  }

  /** The plan as sent. */
  public LevelPlanDto planDto(JobDto job, double sourceLevelDbm) {
    return LevelPlanDto.of(job.path().toCore(), plan(job, sourceLevelDbm), planningHz(job));
  }

  private static double planningHz(JobDto job) {
    return job.limits().nominalHz() == null ? FALLBACK_HZ : job.limits().nominalHz();
  }

  private static String named(String text, String field, String what) {
    if (text == null || text.isBlank() || text.length() > 200) {
      throw new Refusal(field, "Give the " + what + " a name of 1 to 200 characters.");
    }
    return text.strip();
  }

  private void tell(long id) {
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCommit() {
            listeners.forEach(l -> l.accept(id));
          }
        });
  }
}
