package rovnik.server.modulation;

import java.util.Set;
import rovnik.core.result.Outcome;
import rovnik.server.measure.FileMeasurement;
import rovnik.server.recordings.RecordingDto;

/**
 * Such a measurement of a recording.
 *
 * @param first settings to begin with
 */
public record RecordedMeasurement<S extends RecordSettings<S>>(
    String kind, String title, Class<S> settingsType, S first, RecordedStretches recorded)
    implements FileMeasurement<S> {

  @Override
  public Set<Takes> takes() {
    return Set.of(Takes.IQ);
  }

  @Override
  public S defaults() {
    return first;
  }

  @Override
  public S defaultsFor(Subject subject) {
    recorded.find(subject.recordingId()); // refuses what is not there
    return first.ofWhole();
  }

  @Override
  public Outcome measure(Subject subject, S settings) {
    RecordingDto r = recorded.find(subject.recordingId());
    return settings
        .measurement()
        .of(recorded.record(r, settings), recorded.context(r, subject.job()));
  }
}
