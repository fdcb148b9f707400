package rovnik.server.spectrum;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rovnik.core.emission.SpectrumOutcome;
import rovnik.instruments.Instrument;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.GuidedKind;
import rovnik.server.live.Look;
import rovnik.server.live.LookSamples;
import rovnik.server.live.Measuring;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;
import rovnik.server.runs.KeptLook;

/** A recording seen as a spectrum: computed whole at every change, then still. */
final class RecordingMeasuring implements Measuring<SettingsDto> {
  private final long recording;
  private final RecordingService recordings;
  private final RecordingSpectra spectra;
  private SettingsDto settings = SettingsDto.FIRST;
  private JobDto job = JobDto.NONE;

  RecordingMeasuring(long recording, RecordingService recordings, RecordingSpectra spectra) {
    this.recording = recording;
    this.recordings = recordings;
    this.spectra = spectra;
  }

  long recording() {
    return recording;
  }

  @Override
  public String kind() {
    return SpectrumOutcome.KIND;
  }

  @Override
  public String sourceName() {
    return recordings.find(recording).name();
  }

  @Override
  public Class<SettingsDto> settingsType() {
    return SettingsDto.class;
  }

  @Override
  public SettingsDto first() {
    return spectra.whole(recordings.find(recording));
  }

  @Override
  public SettingsDto checked(SettingsDto wanted, JobDto with) {
    return SettingsDto.of(wanted.toCore(), wanted.viewToCore());
  }

  @Override
  public Object facts(SettingsDto now, JobDto with) {
    RecordingDto r = recordings.find(recording);
    return new SpectrumFacts(r.sampleRateHz(), r.sampleRateHz(), r.levelUnit());
  }

  @Override
  public void prepare(SettingsDto wanted, JobDto with, boolean afresh) {
    settings = wanted;
    job = with;
  }

  @Override
  public Look step(@Nullable Instrument none) {
    return spectra.look(recordings.find(recording), settings, job);
  }

  @Override
  public Optional<LookSamples> samples(Look look, SettingsDto with, JobDto of) {
    return Optional.of(spectra.samples(recordings.find(recording), with, of));
  }

  @Override
  public List<GuidedKind> guidedKinds() {
    return SpectrumWorks.ALL;
  }

  @Override
  public void fitsGuided() {
    throw Conflict.state("A recording stands still: guided work needs a receiver.");
  }

  @Override
  public KeptLook.Parts kept(Look look, SettingsDto with, JobDto of) {
    return new KeptLook.Parts(
        ((SpectrumLook) look).whole(),
        SpectrumOutcome.words(with.toCore()),
        null,
        recording,
        null,
        java.util.Map.of());
  }
}
