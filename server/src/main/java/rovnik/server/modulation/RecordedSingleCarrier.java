package rovnik.server.modulation;

import java.util.Set;
import org.springframework.stereotype.Component;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.result.Outcome;
import rovnik.server.measure.FileMeasurement;
import rovnik.server.recordings.RecordingDto;

/** One carrier of a recording. */
@Component
class RecordedSingleCarrier implements FileMeasurement<CarrierSettingsDto> {
  private final RecordedCarriers recorded;

  RecordedSingleCarrier(RecordedCarriers recorded) {
    this.recorded = recorded;
  }

  @Override
  public String kind() {
    return SingleCarrierMeasurement.KIND;
  }

  @Override
  public String title() {
    return SingleCarrierMeasurement.TITLE;
  }

  @Override
  public Set<Takes> takes() {
    return Set.of(Takes.IQ);
  }

  @Override
  public Class<CarrierSettingsDto> settingsType() {
    return CarrierSettingsDto.class;
  }

  @Override
  public CarrierSettingsDto defaults() {
    return CarrierSettingsDto.FIRST;
  }

  @Override
  public CarrierSettingsDto defaultsFor(Subject subject) {
    return recorded.whole(subject.recordingId());
  }

  @Override
  public Outcome measure(Subject subject, CarrierSettingsDto settings) {
    RecordingDto r = recorded.find(subject.recordingId());
    return new SingleCarrierMeasurement(settings.toCore())
        .of(recorded.record(r, settings), recorded.context(r, subject.job()));
  }
}
