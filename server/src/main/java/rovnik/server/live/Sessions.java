package rovnik.server.live;

import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.InstrumentLoop;
import rovnik.server.config.Conflict;
import rovnik.server.config.ServerSettings;
import rovnik.server.gate.PowerGate;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.recordings.RecordingService;
import rovnik.server.runs.KeptLook;
import rovnik.server.runs.KeptRun;
import rovnik.server.runs.RunService;
import tools.jackson.databind.json.JsonMapper;

/** All measurements under way, by source and kind. */
@Service
public class Sessions {
  private static final Logger LOG = LoggerFactory.getLogger(Sessions.class);

  private final Map<String, LiveKind> kinds;
  private final BenchService bench;
  private final JobService jobs;
  private final PowerGate gate;
  private final RunService runs;
  private final long frameNanos;
  private final JsonMapper json;
  private final Map<String, Hold> holds = new ConcurrentHashMap<>();
  private final Map<String, MeasuringSession<?>> sessions = new ConcurrentHashMap<>();

  Sessions(
      List<LiveKind> kinds,
      BenchService bench,
      JobService jobs,
      PowerGate gate,
      RecordingService recordings,
      RunService runs,
      ServerSettings settings,
      JsonMapper json) {
    this.kinds = kinds.stream().collect(Collectors.toMap(LiveKind::kind, k -> k));
    this.bench = bench;
    this.jobs = jobs;
    this.gate = gate;
    this.runs = runs;
    this.frameNanos = 1_000_000_000L / settings.framesPerSecond();
    this.json = json;
    bench.onSwitched(() -> all().forEach(MeasuringSession::restartAverage));
    bench.onAskJobs(this::jobsUnderWay);
    jobs.onChange(id -> tell(id, MeasuringSession::jobChanged));
    jobs.onRemove(id -> tell(id, MeasuringSession::jobRemoved));
    bench.onRemove(id -> close(Sources.instrument(id)));
    recordings.onRemove(id -> close(Sources.recording(id)));
  }

  /**
   * Tells all sessions of a job, instruments first: what may have to stop must not wait for what is
   * only computed, and whatever one of them meets, the others are told.
   */
  private void tell(long job, Consumer<MeasuringSession<?>> news) {
    all().stream()
        .filter(s -> Objects.equals(s.jobId(), job))
        .sorted(Comparator.comparing(s -> !Sources.isInstrument(s.source())))
        .forEach(
            s -> {
              try {
                news.accept(s);
              } catch (RuntimeException e) {
                LOG.warn("{} did not take the change of its job", s.source(), e);
              }
            });
  }

  /** The source is no more: nothing of it stays. */
  private void close(String source) {
    sessions.entrySet().removeIf(e -> e.getValue().source().equals(source));
    holds.remove(source);
  }

  private Collection<MeasuringSession<?>> all() {
    return sessions.values();
  }

  /** Jobs that are measured now. */
  private Set<Long> jobsUnderWay() {
    return all().stream()
        .filter(s -> s.phase().going())
        .map(MeasuringSession::jobId)
        .filter(Objects::nonNull)
        .collect(Collectors.toSet());
  }

  /** What is measured for a job with instruments, held or not. */
  public List<MeasuringSession<?>> measuredFor(long job) {
    return all().stream()
        .filter(s -> s.phase() == Phase.RUNNING || s.phase() == Phase.HELD)
        .filter(s -> Objects.equals(s.jobId(), job))
        .filter(s -> Sources.isInstrument(s.source()))
        .sorted(Comparator.comparing((MeasuringSession<?> s) -> s.source() + s.measuring().kind()))
        .<MeasuringSession<?>>map(s -> s)
        .toList();
  }

  /** The session of a source and a kind; opened if it is the first time. */
  public MeasuringSession<?> session(String source, String measurement) {
    Sources.id(source);
    LiveKind kind = kind(measurement, "measurement");
    return sessions.computeIfAbsent(source + "/" + measurement, key -> open(source, kind));
  }

  /** A kind by its key, from a field of that name. */
  LiveKind kind(String key, String field) {
    LiveKind kind = kinds.get(key);
    if (kind == null) {
      throw new Refusal(
          field,
          "There is no measurement \""
              + key
              + "\"; use one of "
              + kinds.keySet().stream().sorted().toList()
              + ".");
    }
    return kind;
  }

  private <S> MeasuringSession<?> open(String source, LiveKind kind) {
    if (!kind.fits(source)) {
      throw new Refusal(
          "source",
          "The source "
              + source
              + " cannot be measured with \""
              + kind.kind()
              + "\". Choose another instrument or recording.");
    }
    @SuppressWarnings("unchecked") // the settings are of one type throughout a session
    Measuring<S> measuring = (Measuring<S>) kind.open(source);
    boolean instrument = Sources.isInstrument(source);
    InstrumentLoop loop = instrument ? bench.loop(Sources.id(source)) : null;
    MeasuringSession<S> session =
        new MeasuringSession<>(
            source,
            measuring,
            loop,
            holds.computeIfAbsent(source, s -> new Hold()),
            gate,
            jobs,
            instrument ? new AtBench(Sources.id(source)) : new OnFile(measuring.sourceName()),
            frameNanos,
            json);
    kind.opened(session);
    return session;
  }

  /**
   * Refuses to switch an instrument that somebody else measures with: the instrument itself, or one
   * in the path of the job that is measured.
   */
  public void requireFree(long instrument, Client client) {
    for (MeasuringSession<?> s : all()) {
      boolean own = s.source().equals(Sources.instrument(instrument));
      if ((own || s.job().uses(instrument)) && s.heldByOther(client)) {
        throw Conflict.held(
            bench.nameOf(instrument)
                + " is in use: "
                + s.measuring().sourceName()
                + " measures with it and is held by "
                + s.holder().name()
                + ". Take it over first.");
      }
    }
  }

  /**
   * Switches controls of an instrument for a client: nobody else may hold it, the gate is asked.
   */
  public void control(
      long instrument, Map<String, String> values, Long job, String reason, Client client) {
    requireFree(instrument, client);
    bench.control(instrument, values, job, reason);
  }

  private final class AtBench implements MeasuringSession.Bench {
    private final long instrument;

    AtBench(long instrument) {
      this.instrument = instrument;
    }

    @Override
    public Map<String, String> conditions() {
      return bench.conditions();
    }

    @Override
    public String identity() {
      return bench.one(instrument).identity();
    }

    @Override
    public void control(
        long other, Map<String, String> values, Long job, String reason, Client client) {
      Sessions.this.control(other, values, job, reason, client);
    }

    @Override
    public void keep(KeptLook look, String name) {
      runs.keep(look, name);
    }

    @Override
    public KeptRun kept(long run) {
      return runs.kept(run);
    }

    @Override
    public JobDto withoutJob() {
      return bench.withoutJob(instrument);
    }
  }

  private record OnFile(String name) implements MeasuringSession.Bench {
    @Override
    public Map<String, String> conditions() {
      return Map.of("recording", name);
    }

    @Override
    public String identity() {
      return "recording " + name;
    }

    @Override
    public void control(
        long instrument, Map<String, String> values, Long job, String reason, Client client) {
      throw Conflict.state("A recording switches nothing.");
    }

    @Override
    public void keep(KeptLook look, String name) {
      throw Conflict.state("Guided work on a recording keeps nothing by itself.");
    }

    @Override
    public KeptRun kept(long run) {
      throw Conflict.state("Guided work on a recording reads no runs.");
    }

    @Override
    public JobDto withoutJob() {
      return JobDto.NONE;
    }
  }
}
