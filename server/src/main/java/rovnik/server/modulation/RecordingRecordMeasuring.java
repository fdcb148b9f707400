package rovnik.server.modulation;

import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.instruments.Instrument;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.Cut;
import rovnik.server.live.Look;
import rovnik.server.live.LookSamples;
import rovnik.server.live.Measuring;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.runs.KeptLook;

/**
 * What is measured of a stretch of a recording: computed whole at every change, then still.
 *
 * @param <S> settings
 */
final class RecordingRecordMeasuring<S extends RecordSettings<S>> implements Measuring<S> {
  private final RecordKind<S> kind;
  private final long recording;
  private final RecordedStretches recorded;
  private S settings;
  private JobDto job = JobDto.NONE;
  private @Nullable RecordLook last;

  RecordingRecordMeasuring(RecordKind<S> kind, long recording, RecordedStretches recorded) {
    this.kind = kind;
    this.settings = kind.first().ofWhole();
    this.recording = recording;
    this.recorded = recorded;
  }

  @Override
  public String kind() {
    return kind.kind();
  }

  @Override
  public String sourceName() {
    return recorded.find(recording).name();
  }

  @Override
  public Class<S> settingsType() {
    return kind.settingsType();
  }

  @Override
  public S first() {
    recorded.find(recording); // refuses what is not there
    return kind.first().ofWhole();
  }

  @Override
  public S checked(S wanted, JobDto with) {
    wanted.measurement(); // refuses what cannot be
    return wanted;
  }

  @Override
  public Object facts(S now, JobDto with) {
    return new RecordSource(recorded.find(recording).sampleRateHz(), false);
  }

  @Override
  public void prepare(S wanted, JobDto with, boolean afresh) {
    settings = wanted;
    job = with;
  }

  @Override
  public Look step(@Nullable Instrument none) {
    RecordingDto r = recorded.find(recording);
    MeasurementContext context = recorded.context(r, job);
    last =
        recorded.each(
            r,
            settings,
            context,
            s ->
                RecordLook.of(
                    s.measurement(),
                    s.gathering(),
                    s.record(),
                    context,
                    new RecordLook.Facts(r.sampleRateHz(), s.samples(), null, null),
                    last));
    return last;
  }

  @Override
  public Optional<LookSamples> samples(Look look, S with, JobDto of) {
    RecordingDto r = recorded.find(recording);
    return Optional.of(
        new LookSamples(
            recorded.stretch(r, with.startSeconds(), ((RecordLook) look).facts().samples()),
            recorded.context(r, of),
            with.centreHz(),
            with.measurement().bandHz()));
  }

  @Override
  public RecordingDto cut(Cut wanted, @Nullable Look look) {
    return recorded.cut(recording, wanted);
  }

  @Override
  public KeptLook.Parts kept(Look look, S with, JobDto of) {
    RecordLook l = (RecordLook) look;
    if (!l.refused().isEmpty()) {
      throw Conflict.state("There is no result to keep. " + l.refused());
    }
    return new KeptLook.Parts(
        l.outcome(), with.measurement().words(), null, recording, null, Map.of());
  }
}
