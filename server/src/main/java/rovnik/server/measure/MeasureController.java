package rovnik.server.measure;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.Refusal;
import rovnik.core.result.Outcome;
import rovnik.core.signal.Sound;
import rovnik.server.config.Conflict;
import rovnik.server.config.Json;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.measure.FileMeasurement.Subject;
import rovnik.server.measure.FileMeasurement.Takes;
import rovnik.server.results.OutcomeDto;
import rovnik.server.results.SoundFile;
import rovnik.server.runs.RunDtos;
import rovnik.server.runs.RunService;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The catalogue of measurements, and measuring what is on file. */
@RestController
@RequestMapping("/api")
class MeasureController {
  private final List<FileMeasurement<?>> measurements;
  private final RunService runs;
  private final JobService jobs;
  private final SettingsSchema schemas;
  private final Json json;

  MeasureController(
      List<FileMeasurement<?>> measurements,
      RunService runs,
      JobService jobs,
      SettingsSchema schemas,
      Json json) {
    this.measurements =
        measurements.stream().sorted(Comparator.comparing(FileMeasurement::kind)).toList();
    this.runs = runs;
    this.jobs = jobs;
    this.schemas = schemas;
    this.json = json;
  }

  /**
   * A measurement that there is.
   *
   * @param takes what it can be made of: iq, sweep, network, waveform
   * @param settings JSON schema of its settings, with defaults
   */
  @Schema(name = "Measurement")
  record MeasurementDto(String kind, String title, List<String> takes, JsonNode settings) {}

  /**
   * What to measure.
   *
   * @param measurement its kind; null for the usual one of the file
   * @param settings what differs from the defaults for this file; null for nothing
   * @param referencePlane plane of the job's path to read at; null for the job's own
   * @param jobId whose path and limits apply; null for none
   * @param markers frequencies at which the kind reads something
   */
  @Schema(name = "MeasureRequest")
  record Request(
      @Nullable String measurement,
      @Nullable JsonNode settings,
      @Nullable Integer referencePlane,
      @Nullable Long jobId,
      @Nullable List<Marker> markers) {
    static final Request NONE = new Request(null, null, null, null, null);
  }

  /** A place to read at. */
  @Schema(name = "MeasureMarker")
  record Marker(double hertz) {}

  /** The outcome with the settings that it was measured with. */
  @Schema(name = "MeasuredOutcome")
  record Measured(String measurement, JsonNode settings, OutcomeDto outcome) {}

  @GetMapping("/measurements")
  List<MeasurementDto> all() {
    return measurements.stream()
        .map(
            m ->
                new MeasurementDto(
                    m.kind(),
                    m.title(),
                    m.takes().stream()
                        .map(t -> t.name().toLowerCase(Locale.ROOT))
                        .sorted()
                        .toList(),
                    schemas.of(m.settingsType(), m.defaults())))
        .toList();
  }

  @PostMapping("/recordings/{id}/measure")
  Measured recording(
      @PathVariable long id, @RequestBody(required = false) @Nullable Request request) {
    Request r = request == null ? Request.NONE : request;
    FileMeasurement<?> m = find(r.measurement(), "spectrum", Takes.IQ);
    return measure(asked(m, r, new Subject(id, null, job(r)), null));
  }

  /** What is heard of a recording, as a WAV file: of measurements that have a sound. */
  @PostMapping(value = "/recordings/{id}/sound", produces = SoundFile.TYPE)
  ResponseEntity<byte[]> sound(
      @PathVariable long id, @RequestBody(required = false) @Nullable Request request) {
    Request r = request == null ? Request.NONE : request;
    FileMeasurement<?> m = find(r.measurement(), "audio", Takes.IQ);
    return sound(asked(m, r, new Subject(id, null, job(r)), null), "recording-" + id);
  }

  @PostMapping("/networks/{id}/measure")
  Measured network(
      @PathVariable long id, @RequestBody(required = false) @Nullable Request request) {
    Request r = request == null ? Request.NONE : request;
    FileMeasurement<?> m = find(r.measurement(), "network", Takes.NETWORK);
    return measure(asked(m, r, new Subject(null, id, job(r)), null));
  }

  /**
   * The same computation on what a run has kept; its own settings, path and limits are the
   * defaults.
   */
  @PostMapping("/runs/{id}/measure")
  Measured run(@PathVariable long id, @RequestBody(required = false) @Nullable Request request) {
    return measure(again(id, request == null ? Request.NONE : request));
  }

  /** What is heard of the samples of a run, as a WAV file, by the run's own settings or others. */
  @PostMapping(value = "/runs/{id}/sound", produces = SoundFile.TYPE)
  ResponseEntity<byte[]> soundOfRun(
      @PathVariable long id, @RequestBody(required = false) @Nullable Request request) {
    return sound(again(id, request == null ? Request.NONE : request), "run-" + id);
  }

  /** The same as a link, by the run's own settings. */
  @GetMapping(value = "/runs/{id}/sound", produces = SoundFile.TYPE)
  ResponseEntity<byte[]> soundOfRun(@PathVariable long id) {
    return soundOfRun(id, null);
  }

  private Asked<?> again(long id, Request r) {
    RunDtos.Attachments kept = runs.summary(id).attachments();
    boolean network = kept.networkId() != null;
    if (!network && kept.recordingId() == null) {
      throw Conflict.state(
          "This run has kept no samples and no S-parameters: its numbers cannot be measured again.");
    }
    RunService.Again again = runs.again(id);
    FileMeasurement<?> m =
        network
            ? find(r.measurement(), "network", Takes.NETWORK)
            : find(r.measurement(), again.measurement(), Takes.IQ);
    JobDto job =
        JobDto.NONE.with(
            r.referencePlane() == null ? again.path() : again.path().atPlane(r.referencePlane()),
            again.limits());
    if (r.jobId() != null) {
      job = job(r);
    }
    boolean own = m.kind().equals(again.measurement());
    return asked(
        m,
        r,
        new Subject(kept.recordingId(), kept.networkId(), job),
        own ? m.ofLive(again.settings()) : null);
  }

  private JobDto job(Request r) {
    if (r.jobId() == null) {
      if (r.referencePlane() != null) {
        throw new Refusal("referencePlane", "A plane belongs to a path: name its job with jobId.");
      }
      return JobDto.NONE;
    }
    JobDto job = jobs.find(r.jobId());
    return r.referencePlane() == null
        ? job
        : job.with(plane(job, r.referencePlane()), job.limits());
  }

  private static rovnik.server.jobs.PathDto plane(JobDto job, int plane) {
    var path = new rovnik.server.jobs.PathDto(job.path().elements(), plane, job.path().revision());
    path.toCore(); // refuses a plane that is not there
    return path;
  }

  private FileMeasurement<?> find(@Nullable String wanted, String usual, Takes takes) {
    String kind = wanted == null ? usual : wanted;
    return measurements.stream()
        .filter(m -> m.kind().equals(kind) && m.takes().contains(takes))
        .findFirst()
        .orElseThrow(
            () ->
                new Refusal(
                    "measurement",
                    "There is no measurement \""
                        + kind
                        + "\" for this file; use one of "
                        + measurements.stream()
                            .filter(m -> m.takes().contains(takes))
                            .map(FileMeasurement::kind)
                            .toList()
                        + "."));
  }

  /** What is to be measured of what, with all its settings. */
  private record Asked<S>(FileMeasurement<S> measurement, Subject subject, S settings) {
    Outcome outcome() {
      return measurement.measure(subject, settings);
    }

    Optional<Sound> sound() {
      return measurement.sound(subject, settings);
    }
  }

  private <S> Asked<S> asked(
      FileMeasurement<S> m, Request r, Subject subject, @Nullable JsonNode before) {
    JsonNode base = json.tree(m.defaultsFor(subject));
    if (before instanceof ObjectNode kept) {
      base = json.merged(base, kept);
    }
    S settings =
        json.read(
            r.settings() == null || r.settings().isNull() ? base : json.merged(base, r.settings()),
            m.settingsType());
    if (r.markers() != null) {
      settings = m.withMarkers(settings, r.markers().stream().map(Marker::hertz).toList());
    }
    return new Asked<>(m, subject, settings);
  }

  private Measured measure(Asked<?> a) {
    return new Measured(
        a.measurement().kind(), json.tree(a.settings()), OutcomeDto.whole(a.outcome()));
  }

  private static ResponseEntity<byte[]> sound(Asked<?> a, String name) {
    return SoundFile.of(
        name,
        a.sound()
            .orElseThrow(
                () ->
                    new Refusal(
                        "measurement",
                        a.measurement().title()
                            + " has no sound. Use the measurement \"audio\".")));
  }
}
