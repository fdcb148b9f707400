package rovnik.server.live;

import java.time.Instant;
import java.util.function.Consumer;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.Refusal;
import rovnik.server.live.SharedSource.Client;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;
import rovnik.server.runs.KeptLook;
import rovnik.server.runs.RunService;
import rovnik.server.spectrum.SettingsDto;

@RestController
@RequestMapping("/api/live/{source}")
class LiveController {
  private final LiveHub hub;
  private final RunService runs;
  private final RecordingService recordings;

  LiveController(LiveHub hub, RunService runs, RecordingService recordings) {
    this.hub = hub;
    this.runs = runs;
    this.recordings = recordings;
  }

  record Start(long jobId, String overrideReason) {}

  record Keep(String name) {}

  record GuidedStart(long jobId, String overrideReason, GuidedRequest work) {}

  record KeptRun(long id, String name) {}

  /** What only the holder may do. */
  private LiveState held(String source, Client client, Consumer<LiveSession> act) {
    LiveSession session = hub.session(source);
    session.require(client);
    act.accept(session);
    return session.state();
  }

  @GetMapping
  LiveState state(@PathVariable String source) {
    return hub.session(source).state();
  }

  /** Readings and lines of the newest frame, for scripts. */
  @GetMapping("/frame")
  Frame frame(@PathVariable String source) {
    return hub.session(source).newestHeader();
  }

  @PutMapping("/settings")
  LiveState settings(
      @PathVariable String source, Client client, @RequestBody SettingsDto settings) {
    return held(source, client, s -> s.apply(settings.toCore(), settings.viewToCore()));
  }

  @PostMapping("/start")
  LiveState start(@PathVariable String source, Client client, @RequestBody Start start) {
    return held(source, client, s -> s.start(start.jobId(), start.overrideReason()));
  }

  @PostMapping("/hold")
  LiveState hold(@PathVariable String source, Client client) {
    return held(source, client, LiveSession::hold);
  }

  @PostMapping("/take-over")
  LiveState takeOver(@PathVariable String source, Client client) {
    LiveSession session = hub.session(source);
    session.takeOver(client);
    return session.state();
  }

  @PostMapping("/keep")
  @ResponseStatus(HttpStatus.CREATED)
  KeptRun keep(@PathVariable String source, @RequestBody Keep keep) {
    var run = runs.keep(hub.session(source).look(), keep.name());
    return new KeptRun(run.id(), run.name());
  }

  /** Starts guided work; its progress is in the state. */
  @PostMapping("/guided")
  @ResponseStatus(HttpStatus.ACCEPTED)
  LiveState startGuided(
      @PathVariable String source, Client client, @RequestBody GuidedStart start) {
    Guided work = start.work() == null ? null : start.work().toWork();
    if (work == null) {
      throw new Refusal("work", "Say what shall be done, for example {\"kind\": \"harmonics\"}.");
    }
    return held(source, client, s -> s.startGuided(work, start.jobId(), start.overrideReason()));
  }

  /** Stops guided work after the acquisition that is under way. */
  @DeleteMapping("/guided")
  LiveState stopGuided(@PathVariable String source, Client client) {
    return held(source, client, LiveSession::stopGuided);
  }

  @GetMapping("/finding")
  FindingDto finding(@PathVariable String source) {
    return hub.session(source).finding();
  }

  @PostMapping("/finding/keep")
  @ResponseStatus(HttpStatus.CREATED)
  KeptRun keepFinding(@PathVariable String source, @RequestBody Keep keep) {
    var run = runs.keep(hub.session(source).findingLook(), keep.name());
    return new KeptRun(run.id(), run.name());
  }

  /** Saves the newest samples, to be fetched as a SigMF pair. */
  @PostMapping("/save")
  @ResponseStatus(HttpStatus.CREATED)
  RecordingDto save(@PathVariable String source) {
    KeptLook look = hub.session(source).look();
    return look.record() == null
        ? recordings.find(look.recordingId())
        : recordings.keep(look.sourceName(), "live", look.record(), look.identity(), Instant.now());
  }
}
