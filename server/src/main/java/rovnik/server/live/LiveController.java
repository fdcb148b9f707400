package rovnik.server.live;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.Refusal;
import rovnik.core.result.Outcome;
import rovnik.server.config.Conflict;
import rovnik.server.config.Json;
import rovnik.server.config.Refusals;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.results.FrameBytes;
import rovnik.server.results.OutcomeDto;
import rovnik.server.results.SoundFile;
import rovnik.server.runs.RunDtos;
import rovnik.server.runs.RunService;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Any measurement of any source: one way to set, start, hold, read and keep it. */
@RestController
@RequestMapping("/api/live/{source}/{measurement}")
class LiveController {
  private static final double LONGEST_RECORDING_SECONDS = 600;
  private static final double LONGEST_WAIT_SECONDS = 120;
  private final Sessions sessions;
  private final RunService runs;
  private final Json json;

  LiveController(Sessions sessions, RunService runs, Json json) {
    this.sessions = sessions;
    this.runs = runs;
    this.json = json;
  }

  /**
   * How to start.
   *
   * @param jobId whose path and limits apply; null to measure without a job
   * @param overrideReason why power shall flow although the level plan says no; kept with the run
   * @param answers fields of the questions that were answered, such as "dcCheck"
   * @param once hold after the first settled outcome
   */
  @Schema(name = "LiveStart")
  record Start(
      @Nullable Long jobId,
      @Nullable String overrideReason,
      @Nullable List<String> answers,
      @Nullable Boolean once) {}

  /**
   * What to keep.
   *
   * @param name null or empty for the next number
   * @param jobId the job that it is kept for, if it was measured without one
   */
  @Schema(name = "LiveKeep")
  record Keep(@Nullable String name, @Nullable Long jobId) {}

  /** Guided work: its kind as "kind", and what the kind is told. */
  @Schema(name = "GuidedStart")
  record GuidedStart(
      @Nullable Long jobId, @Nullable String overrideReason, @Nullable JsonNode work) {}

  /**
   * The newest outcome with what it was measured with.
   *
   * @param sequence grows by one with every frame
   * @param settled all that the settings ask for is in it
   * @param view further facts of its kind
   */
  @Schema(name = "LiveOutcome")
  record LiveOutcome(
      String source,
      String measurement,
      long sequence,
      long acquiredAtMillis,
      boolean settled,
      Object settings,
      @Nullable Object view,
      OutcomeDto outcome) {}

  /** A finding of guided work; its id grows with every one. */
  @Schema(name = "Finding")
  record FindingDto(long id, OutcomeDto outcome) {}

  private MeasuringSession<?> held(String source, String measurement, Client client) {
    MeasuringSession<?> session = sessions.session(source, measurement);
    session.require(client);
    return session;
  }

  @GetMapping
  SessionState state(@PathVariable String source, @PathVariable String measurement) {
    return sessions.session(source, measurement).state();
  }

  @PutMapping("/settings")
  SessionState settings(
      @PathVariable String source,
      @PathVariable String measurement,
      Client client,
      @RequestBody JsonNode settings) {
    MeasuringSession<?> session = held(source, measurement, client);
    apply(session, settings);
    return session.state();
  }

  /** Changes some of the settings: what is left out stays, null takes a part away (RFC 7396). */
  @PatchMapping("/settings")
  SessionState change(
      @PathVariable String source,
      @PathVariable String measurement,
      Client client,
      @RequestBody JsonNode part) {
    MeasuringSession<?> session = held(source, measurement, client);
    apply(session, json.merged(session.settings(), part));
    return session.state();
  }

  private <S> void apply(MeasuringSession<S> session, JsonNode settings) {
    session.apply(json.read(settings, session.measuring().settingsType()));
  }

  /** The job that applies from now on; one that is being measured stays with its own. */
  @Schema(name = "LiveJob")
  record Job(@Nullable Long jobId) {}

  @PutMapping("/job")
  SessionState choose(
      @PathVariable String source,
      @PathVariable String measurement,
      Client client,
      @RequestBody Job job) {
    MeasuringSession<?> session = held(source, measurement, client);
    session.choose(job.jobId());
    return session.state();
  }

  @PostMapping("/start")
  SessionState start(
      @PathVariable String source,
      @PathVariable String measurement,
      Client client,
      @RequestBody Start start) {
    MeasuringSession<?> session = held(source, measurement, client);
    session.start(
        start.jobId(),
        start.overrideReason(),
        start.answers() == null ? Set.of() : Set.copyOf(start.answers()),
        Boolean.TRUE.equals(start.once()));
    return session.state();
  }

  @PostMapping("/hold")
  SessionState hold(@PathVariable String source, @PathVariable String measurement, Client client) {
    MeasuringSession<?> session = held(source, measurement, client);
    session.hold();
    return session.state();
  }

  @PostMapping("/take-over")
  SessionState takeOver(
      @PathVariable String source, @PathVariable String measurement, Client client) {
    MeasuringSession<?> session = sessions.session(source, measurement);
    session.takeOver(client);
    return session.state();
  }

  /**
   * The newest outcome.
   *
   * @param settled wait until it has all that the present settings ask for
   * @param seconds how long to wait at most
   */
  @GetMapping("/outcome")
  LiveOutcome outcome(
      @PathVariable String source,
      @PathVariable String measurement,
      @RequestParam(defaultValue = "false") boolean settled,
      @RequestParam(defaultValue = "30") double seconds) {
    if (!(seconds > 0 && seconds <= LONGEST_WAIT_SECONDS)) {
      throw Refusals.range("seconds", 0, LONGEST_WAIT_SECONDS, "s");
    }
    MeasuringSession<?> session = sessions.session(source, measurement);
    Showing.Newest<?> read =
        settled ? session.settled(Duration.ofMillis((long) (1000 * seconds))) : session.newest();
    return new LiveOutcome(
        source,
        measurement,
        read.sequence(),
        read.acquiredAtMillis(),
        read.look().settled(),
        read.settings(),
        read.look().view(),
        OutcomeDto.whole(read.look().shown()));
  }

  /**
   * The newest samples of this measurement, measured in another way; nothing else changes.
   *
   * @param kind such as "density"
   * @param settings of that kind that shall be other than for all that the samples hold
   */
  @PostMapping(value = "/beside/{kind}", produces = MediaType.APPLICATION_JSON_VALUE)
  LiveOutcome beside(
      @PathVariable String source,
      @PathVariable String measurement,
      @PathVariable String kind,
      @RequestBody JsonNode settings) {
    Showing.Newest<?> newest = sessions.session(source, measurement).newest();
    return new LiveOutcome(
        source,
        kind,
        newest.sequence(),
        newest.acquiredAtMillis(),
        true,
        settings,
        null,
        OutcomeDto.whole(read(source, measurement, kind, settings)));
  }

  /** The same as a binary frame, for screens. */
  @PostMapping(value = "/beside/{kind}", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  byte[] besideAsFrame(
      @PathVariable String source,
      @PathVariable String measurement,
      @PathVariable String kind,
      @RequestBody JsonNode settings) {
    Showing.Newest<?> newest = sessions.session(source, measurement).newest();
    Outcome outcome = read(source, measurement, kind, settings);
    return FrameBytes.of(
        json.mapper(),
        outcome,
        arrays ->
            new Showing.Frame(
                source,
                kind,
                newest.sequence(),
                newest.acquiredAtMillis(),
                true,
                settings,
                null,
                OutcomeDto.head(outcome),
                arrays));
  }

  private Outcome read(String source, String measurement, String kind, JsonNode settings) {
    LiveKind as = sessions.kind(kind, "beside");
    return as.beside(sessions.session(source, measurement).samples(), settings);
  }

  /** What is heard of the newest look, as a WAV file. */
  @GetMapping(value = "/sound", produces = SoundFile.TYPE)
  ResponseEntity<byte[]> sound(@PathVariable String source, @PathVariable String measurement) {
    return SoundFile.of(
        source + "-" + measurement,
        sessions
            .session(source, measurement)
            .look()
            .sound()
            .orElseThrow(() -> Conflict.state("There is nothing to hear of this look.")));
  }

  /** Keeps a stretch of what is looked at as a recording: of a look, a stream, a recording. */
  @PostMapping("/recording")
  @ResponseStatus(HttpStatus.CREATED)
  RecordingDto cut(
      @PathVariable String source, @PathVariable String measurement, @RequestBody Cut wanted) {
    if (!(wanted.seconds() > 0 && wanted.seconds() <= LONGEST_RECORDING_SECONDS)) {
      throw Refusals.range("seconds", 0, LONGEST_RECORDING_SECONDS, "s");
    }
    String name = Refusals.named(wanted.name(), "name", "recording");
    return sessions
        .session(source, measurement)
        .cut(new Cut(name, wanted.fromSeconds(), wanted.seconds()));
  }

  @PostMapping("/keep")
  @ResponseStatus(HttpStatus.CREATED)
  RunDtos.Summary keep(
      @PathVariable String source, @PathVariable String measurement, @RequestBody Keep keep) {
    return runs.keep(sessions.session(source, measurement).kept(keep.jobId()), keep.name());
  }

  /** Starts guided work; its progress is in the state. */
  @PostMapping("/guided")
  @ResponseStatus(HttpStatus.ACCEPTED)
  SessionState startGuided(
      @PathVariable String source,
      @PathVariable String measurement,
      Client client,
      @RequestBody GuidedStart start) {
    MeasuringSession<?> session = held(source, measurement, client);
    if (!(start.work() instanceof ObjectNode work)) {
      throw new Refusal("work", "Say what shall be done, for example {\"kind\": \"harmonics\"}.");
    }
    List<GuidedKind> kinds = session.measuring().guidedKinds();
    String wanted = work.path("kind").asString("");
    GuidedKind kind =
        kinds.stream()
            .filter(k -> k.id().equals(wanted))
            .findFirst()
            .orElseThrow(
                () ->
                    new Refusal(
                        "kind",
                        "There is no guided work \""
                            + wanted
                            + "\" here; use one of "
                            + kinds.stream().map(GuidedKind::id).toList()
                            + "."));
    ObjectNode told = work.deepCopy();
    told.remove("kind");
    GuidedForm form = json.read(json.merged(kind.form(), told), kind.form().getClass());
    session.startGuided(form.work(), work, start.jobId(), start.overrideReason());
    return session.state();
  }

  /** Stops guided work after the look that is under way; what it found so far stays. */
  @DeleteMapping("/guided")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void stopGuided(@PathVariable String source, @PathVariable String measurement, Client client) {
    held(source, measurement, client).stopGuided();
  }

  @GetMapping("/finding")
  FindingDto finding(@PathVariable String source, @PathVariable String measurement) {
    var found = sessions.session(source, measurement).finding();
    return new FindingDto(found.id(), OutcomeDto.whole(found.outcome()));
  }

  @PostMapping("/finding/keep")
  @ResponseStatus(HttpStatus.CREATED)
  RunDtos.Summary keepFinding(
      @PathVariable String source, @PathVariable String measurement, @RequestBody Keep keep) {
    return runs.keep(sessions.session(source, measurement).keptFinding(keep.jobId()), keep.name());
  }
}
