package rovnik.server.modulation;

import java.util.Set;
import org.springframework.stereotype.Component;
import rovnik.core.modulation.analysis.WhatIsIt;
import rovnik.core.result.Outcome;
import rovnik.server.measure.FileMeasurement;
import rovnik.server.recordings.RecordingDto;

/** What carrier with data a recording holds. */
@Component
class RecordedWhatIsIt implements FileMeasurement<WhatIsItSettingsDto> {
  private final RecordedStretches recorded;

  RecordedWhatIsIt(RecordedStretches recorded) {
    this.recorded = recorded;
  }

  @Override
  public String kind() {
    return WhatIsIt.KIND;
  }

  @Override
  public String title() {
    return WhatIsIt.TITLE;
  }

  @Override
  public Set<Takes> takes() {
    return Set.of(Takes.IQ);
  }

  @Override
  public Class<WhatIsItSettingsDto> settingsType() {
    return WhatIsItSettingsDto.class;
  }

  @Override
  public WhatIsItSettingsDto defaults() {
    return WhatIsItSettingsDto.FIRST;
  }

  @Override
  public WhatIsItSettingsDto defaultsFor(Subject subject) {
    recorded.find(subject.recordingId()); // refuses what is not there
    return WhatIsItSettingsDto.FIRST;
  }

  @Override
  public Outcome measure(Subject subject, WhatIsItSettingsDto settings) {
    RecordingDto r = recorded.find(subject.recordingId());
    return settings.toCore().of(recorded.beginning(r), recorded.context(r, subject.job()));
  }
}
