package rovnik.server.spectrum;

import java.time.Instant;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.signal.IqRecord;
import rovnik.server.config.Conflict;
import rovnik.server.live.MeasuringSession;
import rovnik.server.live.Sessions;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;

/** The newest samples of a receiver as a recording. */
@RestController
class SampleController {
  private final Sessions sessions;
  private final RecordingService recordings;

  SampleController(Sessions sessions, RecordingService recordings) {
    this.sessions = sessions;
    this.recordings = recordings;
  }

  /** Saves the newest samples, to be fetched as a SigMF pair. */
  @PostMapping("/api/live/{source}/spectrum/save")
  @ResponseStatus(HttpStatus.CREATED)
  RecordingDto save(@PathVariable String source) {
    MeasuringSession<?> session = sessions.session(source, "spectrum");
    if (session.measuring() instanceof RecordingMeasuring r) {
      return recordings.find(r.recording());
    }
    ReceiverMeasuring receiver = (ReceiverMeasuring) session.measuring();
    IqRecord record = receiver.recordOf((SpectrumLook) session.look());
    if (record == null) {
      throw Conflict.state("There are no samples: this source sends finished traces.");
    }
    return recordings.keep(
        receiver.sourceName(),
        "live",
        record,
        ((SpectrumLook) session.look()).setting().accuracy(),
        receiver.identity(),
        Instant.now());
  }
}
