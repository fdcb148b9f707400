package rovnik.server.spectrum;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;
import rovnik.core.emission.SpectrumOutcome;
import rovnik.core.emission.ViewPlan;
import rovnik.core.result.Outcome;
import rovnik.server.measure.FileMeasurement;
import rovnik.server.recordings.RecordingService;

/** The spectrum of a recording, with all that a view can ask for. */
@Component
class RecordedSpectrum implements FileMeasurement<SettingsDto> {
  /** A script that names no number of averages wants the best that there is. */
  private static final int ALL_AVERAGES = 1_000_000;

  private final RecordingService recordings;
  private final RecordingSpectra spectra;

  RecordedSpectrum(RecordingService recordings, RecordingSpectra spectra) {
    this.recordings = recordings;
    this.spectra = spectra;
  }

  @Override
  public String kind() {
    return SpectrumOutcome.KIND;
  }

  @Override
  public String title() {
    return SpectrumOutcome.TITLE;
  }

  @Override
  public Set<Takes> takes() {
    return Set.of(Takes.IQ, Takes.SWEEP);
  }

  @Override
  public Class<SettingsDto> settingsType() {
    return SettingsDto.class;
  }

  @Override
  public SettingsDto defaults() {
    return SettingsDto.FIRST;
  }

  @Override
  public SettingsDto defaultsFor(Subject subject) {
    return spectra.whole(recordings.find(subject.recordingId())).averaging(ALL_AVERAGES);
  }

  @Override
  public SettingsDto withMarkers(SettingsDto settings, List<Double> hertz) {
    ViewDto view = settings.view() == null ? ViewDto.PLAIN : settings.view();
    List<ViewDto.ReadDto> reads = new ArrayList<>(view.reads() == null ? List.of() : view.reads());
    hertz.forEach(
        hz -> reads.add(new ViewDto.ReadDto(ViewPlan.ReadKind.LEVEL, hz, settings.spanHz() / 100)));
    return settings.with(view.reading(reads));
  }

  @Override
  public Outcome measure(Subject subject, SettingsDto settings) {
    return spectra.look(recordings.find(subject.recordingId()), settings, subject.job()).shown();
  }
}
