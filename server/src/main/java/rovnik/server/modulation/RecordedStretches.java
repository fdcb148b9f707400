package rovnik.server.modulation;

import java.util.List;
import org.springframework.stereotype.Service;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.path.PathCorrection;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.server.jobs.JobDto;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;

/** Stretches of recordings, ready to be measured. */
@Service
public class RecordedStretches {
  private static final long BEGINNING = 1 << 17;
  private final RecordingService recordings;

  RecordedStretches(RecordingService recordings) {
    this.recordings = recordings;
  }

  /** So many samples as the measurement takes, from where it begins. */
  IqRecord record(RecordingDto r, RecordSettings<?> settings) {
    RecordMeasurement m = settings.measurement();
    double fs = r.sampleRateHz();
    long first = Math.min(r.samples(), Math.round(settings.startSeconds() * fs));
    return recordings.record(r.id(), first, m.samplesWanted(fs));
  }

  /** The beginning of a recording, long enough to tell what it is. */
  IqRecord beginning(RecordingDto r) {
    return recordings.record(r.id(), BEGINNING);
  }

  MeasurementContext context(RecordingDto r, JobDto job) {
    boolean calibrated = r.fullScaleDbm() != null;
    return new MeasurementContext(
        calibrated && !job.isNone() ? new PathCorrection(job.path().toCore()) : null,
        recordings.accuracy(r.id()),
        job.limits().toCore(),
        r.overload() ? List.of("clipped") : List.of());
  }

  RecordingDto find(long recording) {
    return recordings.find(recording);
  }
}
