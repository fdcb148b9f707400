package rovnik.server.runs;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.runs.RunComparison;
import rovnik.core.runs.RunFacts;
import rovnik.server.access.SignedIn;
import rovnik.server.config.Conflict;
import rovnik.server.config.Refusals;
import rovnik.server.jobs.JobService;
import rovnik.server.jobs.LimitsDto;
import rovnik.server.jobs.PathDto;
import rovnik.server.networks.NetworkService;
import rovnik.server.recordings.RecordingService;
import rovnik.server.results.OutcomeDto;
import rovnik.server.results.SeriesDto;
import rovnik.server.runs.RunMapper.RunRow;
import rovnik.server.runs.RunMapper.TapeRow;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Kept runs of any kind: written once in one transaction, never changed but for name and note. */
@Service
public class RunService {
  /** Form of the settings that are written now. */
  static final int VERSION = 1;

  private static final int LONGEST_NOTE = 10_000;

  private final RunMapper mapper;
  private final RecordingService recordings;
  private final NetworkService networks;
  private final JsonMapper json;
  private final TransactionTemplate transaction;

  RunService(
      RunMapper mapper,
      RecordingService recordings,
      NetworkService networks,
      JobService jobs,
      JsonMapper json,
      TransactionTemplate transaction) {
    this.mapper = mapper;
    this.recordings = recordings;
    this.networks = networks;
    this.json = json;
    this.transaction = transaction;
    jobs.beforeRemove(id -> mapper.ofJob(id).forEach(r -> removeRun(r)));
  }

  /** Keeps a look with all that belongs to it; when this returns, the run is on disk. */
  public RunDtos.Summary keep(KeptLook look, @Nullable String wantedName) {
    OffsetDateTime now = OffsetDateTime.now(ZoneOffset.UTC);
    KeptLook.Parts parts = look.parts();
    String name =
        wantedName == null || wantedName.isBlank()
            ? "Run " + (mapper.countOfJob(look.job().id()) + 1)
            : Refusals.named(wantedName, "name", "run");
    Long id =
        transaction.execute(
            status ->
                insert(
                    look.job().id(),
                    name,
                    now,
                    SignedIn.nameNow(),
                    new RunDtos.Attachments(recording(look, name, now), network(parts, name)),
                    new RunRow(
                        VERSION,
                        json.writeValueAsString(look.settings()),
                        look.work() == null ? null : json.writeValueAsString(look.work()),
                        json.writeValueAsString(
                            parts.words().stream().map(SeriesDto.FactDto::of).toList()),
                        json.writeValueAsString(look.job().path()),
                        json.writeValueAsString(look.job().limits()),
                        json.writeValueAsString(parts.conditions()),
                        look.sourceName(),
                        look.identity(),
                        look.overrideReason(),
                        json.writeValueAsString(OutcomeDto.head(parts.outcome()))),
                    parts.outcome()));
    return summary(tape(id));
  }

  private @Nullable Long recording(KeptLook look, String name, OffsetDateTime now) {
    KeptLook.Parts parts = look.parts();
    KeptLook.Samples samples = parts.samples();
    return samples == null
        ? parts.recordingId()
        : Long.valueOf(
            recordings
                .keep(
                    name,
                    "run",
                    samples.record(),
                    samples.accuracy(),
                    look.identity(),
                    Instant.from(now))
                .id());
  }

  private @Nullable Long network(KeptLook.Parts parts, String name) {
    return parts.network() == null
        ? null
        : Long.valueOf(
            networks.keep(name, parts.network(), "S-parameters of the run \"" + name + "\"").id());
  }

  /** Writes a run; within a transaction. */
  long insert(
      long job,
      String name,
      OffsetDateTime keptAt,
      String keptBy,
      RunDtos.Attachments attachments,
      RunRow row,
      Outcome outcome) {
    RunPicture picture = RunPicture.of(outcome);
    RunMapper.NewRun run =
        new RunMapper.NewRun(
            new TapeRow(
                0,
                job,
                outcome.kind(),
                name,
                keptAt,
                keptBy,
                outcome.verdict().name(),
                picture.headline(),
                picture.unit(),
                json.writeValueAsString(picture.points()),
                attachments.recordingId(),
                attachments.networkId(),
                ""),
            row);
    mapper.insert(run);
    RunArrays.of(outcome).blobs().forEach((array, blob) -> mapper.insertArray(run.id, array, blob));
    return run.id;
  }

  private TapeRow tape(long id) {
    TapeRow row = mapper.tape(id);
    if (row == null) {
      throw Conflict.notFound("run", id);
    }
    return row;
  }

  public List<RunDtos.Summary> ofJob(long jobId) {
    return mapper.ofJob(jobId).stream().map(this::summary).toList();
  }

  public RunDtos.Summary summary(long id) {
    return summary(tape(id));
  }

  private RunDtos.Summary summary(TapeRow r) {
    Verdict verdict = Verdict.valueOf(r.verdict());
    return new RunDtos.Summary(
        r.id(),
        r.jobId(),
        r.kind(),
        r.name(),
        r.note(),
        r.keptAt().toInstant().toString(),
        r.keptBy(),
        verdict,
        verdict.label(),
        r.headline(),
        r.unit(),
        json.readValue(r.pictureJson(), float[].class),
        new RunDtos.Attachments(r.acquisitionId(), r.networkId()));
  }

  public RunDtos.Detail detail(long id) {
    RunDtos.Summary summary = summary(id);
    RunRow r = mapper.find(id);
    return new RunDtos.Detail(
        summary,
        r.version(),
        json.readTree(r.settingsJson()),
        r.workJson() == null ? null : json.readTree(r.workJson()),
        words(r),
        json.readValue(r.pathJson(), PathDto.class),
        json.readValue(r.limitsJson(), LimitsDto.class),
        conditions(r),
        r.sourceName(),
        r.identity(),
        r.overrideReason(),
        OutcomeDto.whole(outcome(id, r)));
  }

  /** What a run led to. */
  public Outcome outcome(long id) {
    tape(id);
    return outcome(id, mapper.find(id));
  }

  /** A run for work that compares with it. */
  public KeptRun kept(long id) {
    TapeRow tape = tape(id);
    RunRow r = mapper.find(id);
    return new KeptRun(tape.name(), r.sourceName(), outcome(id, r));
  }

  private Outcome outcome(long id, RunRow r) {
    return json.readValue(r.outcomeJson(), OutcomeDto.class)
        .toCore(RunArrays.of(mapper.arrays(id)));
  }

  private List<SeriesDto.FactDto> words(RunRow r) {
    return json.readValue(r.wordsJson(), new TypeReference<List<SeriesDto.FactDto>>() {});
  }

  private Map<String, String> conditions(RunRow r) {
    return json.readValue(r.conditionsJson(), new TypeReference<Map<String, String>>() {});
  }

  @Transactional
  public RunDtos.Summary describe(long id, @Nullable String name, @Nullable String note) {
    tape(id);
    if (name != null) {
      mapper.rename(id, Refusals.named(name, "name", "run"));
    }
    if (note != null) {
      if (note.length() > LONGEST_NOTE) {
        throw new Refusal("note", "A note holds at most 10,000 characters.");
      }
      mapper.saveNote(id, note);
    }
    return summary(id);
  }

  @Transactional
  public void remove(long id) {
    removeRun(tape(id));
  }

  /** Removes a run, and its samples if nothing else stands on them. */
  private void removeRun(TapeRow run) {
    mapper.delete(run.id());
    Long samples = run.acquisitionId();
    if (samples != null && mapper.countOfAcquisition(samples) == 0) {
      recordings.removeKept(samples);
    }
  }

  /** Compares two runs: second minus first. */
  public RunDtos.Comparison compare(long firstId, long secondId) {
    RunFacts first = facts(firstId);
    RunFacts second = facts(secondId);
    RunComparison c = RunComparison.of(first, second);
    String source = changedSource(first.conditions(), second.conditions());
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
        summary(firstId),
        summary(secondId),
        c.difference().stream().map(SeriesDto::whole).toList(),
        c.changes(),
        lines);
  }

  /** The one source that is on in one run and off in the other, or "". */
  private static String changedSource(Map<String, String> a, Map<String, String> b) {
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

  private RunFacts facts(long id) {
    tape(id);
    RunRow r = mapper.find(id);
    Outcome outcome = outcome(id, r);
    boolean calibrated = outcome.main().map(s -> s.calibrated()).orElse(true);
    return new RunFacts(
        words(r).stream().map(SeriesDto.FactDto::toCore).toList(),
        calibrated ? json.readValue(r.pathJson(), PathDto.class).toCore() : null,
        conditions(r),
        outcome);
  }

  /**
   * What a run is measured again with.
   *
   * @param measurement the kind that the settings are of
   */
  public record Again(String measurement, JsonNode settings, PathDto path, LimitsDto limits) {}

  public Again again(long id) {
    String own = tape(id).kind();
    RunRow r = mapper.find(id);
    JsonNode settings = json.readTree(r.settingsJson());
    // Guided work has a kind of its own; its settings are those of what it was done with.
    String kind = r.workJson() == null ? own : settings.has("sweep") ? "network" : "spectrum";
    return new Again(
        kind,
        settings,
        json.readValue(r.pathJson(), PathDto.class),
        json.readValue(r.limitsJson(), LimitsDto.class));
  }
}
