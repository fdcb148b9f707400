package rovnik.server.runs;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import rovnik.core.Refusal;
import rovnik.core.emission.EmissionResult;
import rovnik.core.limits.Reading;
import rovnik.core.limits.Verdict;
import rovnik.core.runs.RunComparison;
import rovnik.core.runs.RunFacts;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.Trace;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.LimitsDto;
import rovnik.server.jobs.PathDto;
import rovnik.server.recordings.RecordingService;
import rovnik.server.runs.RunMapper.RunRow;
import rovnik.server.runs.RunMapper.TraceRow;
import rovnik.server.spectrum.ReadingDto;
import rovnik.server.spectrum.SettingsDto;
import rovnik.server.spectrum.TableDto;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Kept runs: written once in one transaction, never changed but for name and note. */
@Service
public class RunService {
  private static final int PICTURE_POINTS = 96;

  private final RunMapper mapper;
  private final RecordingService recordings;
  private final JsonMapper json;
  private final TransactionTemplate transaction;

  RunService(
      RunMapper mapper,
      RecordingService recordings,
      JsonMapper json,
      TransactionTemplate transaction) {
    this.mapper = mapper;
    this.recordings = recordings;
    this.json = json;
    this.transaction = transaction;
  }

  /** Keeps a look; when this returns, the run is on disk. */
  public RunDtos.Summary keep(KeptLook look, String wantedName) {
    return keep(look, wantedName, null);
  }

  /**
   * Keeps a look of a network analyzer.
   *
   * @param networkId its S-parameters as a file, null if it has none
   */
  public RunDtos.Summary keep(KeptLook look, String wantedName, Long networkId) {
    OffsetDateTime now = OffsetDateTime.now(ZoneOffset.UTC);
    EmissionResult emission = look.result();
    SpectrumResult result = emission.base();
    String name =
        wantedName == null || wantedName.isBlank()
            ? "Run " + (mapper.countOfJob(look.job().id()) + 1)
            : checkedName(wantedName);
    Long id =
        transaction.execute(
            status -> {
              Long acquisition = look.recordingId();
              if (look.record() != null) {
                acquisition =
                    recordings
                        .keep(name, "run", look.record(), look.identity(), Instant.from(now))
                        .id();
              }
              List<ReadingDto> readings = result.readings().stream().map(ReadingDto::of).toList();
              RunMapper.NewRun run =
                  new RunMapper.NewRun(
                      new RunRow(
                          0,
                          look.job().id(),
                          acquisition,
                          name,
                          now,
                          json.writeValueAsString(SettingsDto.of(look.settings(), look.view())),
                          json.writeValueAsString(look.job().path()),
                          json.writeValueAsString(look.job().limits()),
                          json.writeValueAsString(look.conditions()),
                          json.writeValueAsString(readings),
                          json.writeValueAsString(result.peaks()),
                          look.sourceName(),
                          look.identity(),
                          look.overrideReason(),
                          worst(result.readings()).name(),
                          json.writeValueAsString(
                              new RunDtos.Extras(
                                  emission.tables().stream().map(TableDto::of).toList(),
                                  emission.limitLines())),
                          networkId,
                          ""));
              mapper.insert(run);
              mapper.insertTrace(run.id, 0, row("", result.trace()));
              for (int i = 0; i < look.rows().size(); i++) {
                KeptLook.Row more = look.rows().get(i);
                mapper.insertTrace(run.id, i + 1, row(more.label(), more.trace()));
              }
              return run.id;
            });
    return summary(find(id));
  }

  private static Verdict worst(List<Reading> readings) {
    Verdict worst = Verdict.NONE;
    for (Verdict v :
        List.of(
            Verdict.FAIL,
            Verdict.FAIL_UNSURE,
            Verdict.INVALID,
            Verdict.PASS_UNSURE,
            Verdict.PASS)) {
      if (worst == Verdict.NONE && readings.stream().anyMatch(r -> r.verdict() == v)) {
        worst = v;
      }
    }
    return worst;
  }

  private static TraceRow row(String label, Trace t) {
    FloatBlob blob = FloatBlob.of(t.level());
    return new TraceRow(
        label,
        t.startHz(),
        t.stepHz(),
        t.unit(),
        t.plane(),
        t.rbwHz(),
        t.enbwHz(),
        t.segments(),
        t.window(),
        t.detector(),
        t.points(),
        blob.crc32(),
        blob.deflated());
  }

  private Trace trace(long runId) {
    return trace(mapper.trace(runId));
  }

  private static Trace trace(TraceRow r) {
    return new Trace(
        r.startHz(),
        r.stepHz(),
        new FloatBlob(r.levelDeflated(), r.crc32()).floats(r.points()),
        r.unit(),
        r.plane(),
        r.rbwHz(),
        r.enbwHz(),
        r.segments(),
        r.windowName(),
        r.detector());
  }

  private RunRow find(long id) {
    RunRow row = mapper.find(id);
    if (row == null) {
      throw Conflict.notFound("run", id);
    }
    return row;
  }

  public List<RunDtos.Summary> ofJob(long jobId) {
    return mapper.ofJob(jobId).stream().map(this::summary).toList();
  }

  private RunDtos.Summary summary(RunRow r) {
    Trace trace = trace(r.id());
    Verdict verdict = Verdict.valueOf(r.verdict());
    return new RunDtos.Summary(
        r.id(),
        r.jobId(),
        r.name(),
        r.note(),
        r.keptAt().toInstant().toString(),
        verdict.name(),
        verdict.label(),
        headline(readings(r)),
        trace.unit(),
        picture(trace.level()),
        r.networkId());
  }

  /** The first reading that has a value, short. */
  private static String headline(List<ReadingDto> readings) {
    return readings.stream()
        .filter(r -> r.value() != null && r.unit().startsWith("dB"))
        .findFirst()
        .map(r -> String.format(Locale.ROOT, "%.1f %s", r.value(), r.unit()))
        .orElse("");
  }

  /** Highest level of each piece of the trace. */
  private static float[] picture(float[] level) {
    int n = Math.min(PICTURE_POINTS, level.length);
    float[] picture = new float[n];
    for (int i = 0; i < n; i++) {
      float highest = Float.NEGATIVE_INFINITY;
      for (int k = i * level.length / n; k < (i + 1) * level.length / n; k++) {
        highest = Math.max(highest, level[k]);
      }
      picture[i] = Math.round(highest * 10) / 10f;
    }
    return picture;
  }

  public RunDtos.Detail detail(long id) {
    RunRow r = find(id);
    Verdict verdict = Verdict.valueOf(r.verdict());
    return new RunDtos.Detail(
        r.id(),
        r.jobId(),
        r.acquisitionId(),
        r.name(),
        r.note(),
        r.keptAt().toInstant().toString(),
        verdict.name(),
        verdict.label(),
        json.readValue(r.settingsJson(), SettingsDto.class),
        json.readValue(r.pathJson(), PathDto.class),
        json.readValue(r.limitsJson(), LimitsDto.class),
        conditions(r),
        r.sourceName(),
        r.identity(),
        r.overrideReason(),
        trace(id),
        peaks(r),
        readings(r),
        mapper.moreTraces(id).stream().map(t -> new RunDtos.RowDto(t.label(), trace(t))).toList(),
        json.readValue(r.extrasJson(), RunDtos.Extras.class),
        r.networkId());
  }

  public Trace traceOf(long id) {
    find(id);
    return trace(id);
  }

  private List<ReadingDto> readings(RunRow r) {
    return json.readValue(r.readingsJson(), new TypeReference<List<ReadingDto>>() {});
  }

  private List<Peak> peaks(RunRow r) {
    return json.readValue(r.peaksJson(), new TypeReference<List<Peak>>() {});
  }

  private Map<String, String> conditions(RunRow r) {
    return json.readValue(r.conditionsJson(), new TypeReference<Map<String, String>>() {});
  }

  private static String checkedName(String name) {
    if (name.isBlank() || name.length() > 200) {
      throw new Refusal("name", "Give the run a name of 1 to 200 characters.");
    }
    return name.strip();
  }

  @Transactional
  public RunDtos.Summary describe(long id, String name, String note) {
    find(id);
    if (name != null) {
      mapper.rename(id, checkedName(name));
    }
    if (note != null) {
      if (note.length() > 10_000) {
        throw new Refusal("note", "A note holds at most 10,000 characters.");
      }
      mapper.saveNote(id, note);
    }
    return summary(find(id));
  }

  @Transactional
  public void remove(long id) {
    find(id);
    mapper.delete(id);
  }

  /** Compares two runs: second minus first. */
  public RunDtos.Comparison compare(long firstId, long secondId) {
    RunRow first = find(firstId);
    RunRow second = find(secondId);
    RunComparison c = RunComparison.of(facts(first), facts(second));
    String source = changedSource(first, second);
    List<RunDtos.LineDto> lines = new ArrayList<>();
    for (RunComparison.Line l : c.lines()) {
      lines.add(
          new RunDtos.LineDto(
              l.frequencyHz(),
              l.firstLevel(),
              l.secondLevel(),
              l.presence(),
              words(l.presence(), source)));
    }
    return new RunDtos.Comparison(
        summary(first),
        summary(second),
        c.difference() == null ? List.of() : List.of(c.difference()),
        c.changes(),
        lines);
  }

  /** The one source that is on in one run and off in the other, or "". */
  private String changedSource(RunRow first, RunRow second) {
    Map<String, String> a = conditions(first);
    Map<String, String> b = conditions(second);
    List<String> switched =
        a.keySet().stream()
            .filter(k -> b.containsKey(k) && a.get(k).equals("off") != b.get(k).equals("off"))
            .toList();
    return switched.size() == 1 ? switched.get(0) : "";
  }

  private static String words(RunComparison.Presence presence, String source) {
    return switch (presence) {
      case ONLY_FIRST, ONLY_SECOND ->
          source.isEmpty()
              ? (presence == RunComparison.Presence.ONLY_FIRST ? "only in A" : "only in B")
              : "comes and goes with " + source;
      case BOTH -> source.isEmpty() ? "in both" : "stays: not from " + source;
      case BOTH_LEVEL_MOVED -> "in both, level moved";
    };
  }

  private RunFacts facts(RunRow r) {
    Trace trace = trace(r.id());
    PathDto path = json.readValue(r.pathJson(), PathDto.class);
    return new RunFacts(
        json.readValue(r.settingsJson(), SettingsDto.class).toCore(),
        trace.unit().equals("dBm") ? path.toCore() : null,
        conditions(r),
        trace,
        peaks(r),
        readings(r).stream().map(ReadingDto::toCore).toList());
  }
}
