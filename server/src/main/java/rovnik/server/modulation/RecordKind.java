package rovnik.server.modulation;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.Sound;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.instruments.InstrumentKind;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.Oscilloscopes;
import rovnik.server.config.Json;
import rovnik.server.jobs.JobService;
import rovnik.server.live.GuidedKind;
import rovnik.server.live.LiveKind;
import rovnik.server.live.LookSamples;
import rovnik.server.live.Measuring;
import rovnik.server.live.Sources;
import rovnik.server.measure.FileMeasurement;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;
import rovnik.server.recordings.Rings;
import rovnik.server.setups.SettingsFile;
import tools.jackson.databind.JsonNode;

/**
 * A measurement of single records, wherever it is made: live, of recordings, and from setups.
 *
 * @param <S> its settings
 */
public final class RecordKind<S extends RecordSettings<S>>
    implements LiveKind, FileMeasurement<S>, SettingsFile.Checked {
  /** What all of them need. */
  @Component
  public record Parts(
      BenchService bench,
      JobService jobs,
      RecordedStretches recorded,
      RecordingService recordings,
      Rings rings,
      Oscilloscopes scopes,
      Json json) {}

  private static final double MOST_BESIDE_SECONDS = 60;

  private final RecordMeasurement named;
  private final S first;
  private final List<GuidedKind> works;
  private final Parts parts;

  /**
   * @param first settings to begin with
   * @param works guided work that it offers
   */
  public RecordKind(S first, List<GuidedKind> works, Parts parts) {
    this.named = first.measurement();
    this.first = first;
    this.works = works;
    this.parts = parts;
  }

  @Override
  public String kind() {
    return named.kind();
  }

  @Override
  public String title() {
    return named.title();
  }

  S first() {
    return first;
  }

  @Override
  @SuppressWarnings("unchecked") // it is the class of its own settings
  public Class<S> settingsType() {
    return (Class<S>) first.getClass();
  }

  List<GuidedKind> works() {
    return works;
  }

  @Override
  public Object checked(JsonNode settings) {
    // What an older file does not say is as it was then: as it is at first.
    Json json = parts.json();
    S s = json.read(json.merged(first(), settings), settingsType());
    s.measurement(); // refuses what cannot be
    return s;
  }

  @Override
  public Outcome beside(LookSamples of, JsonNode settings) {
    if (named.ongoing() || named.beside().isPresent()) {
      return LiveKind.super.beside(of, settings);
    }
    Json json = parts.json();
    S all = first.ofSamples(of, Math.min(MOST_BESIDE_SECONDS, of.seconds()));
    S s = json.read(json.merged(all, settings), settingsType());
    return s.measurement().gathering().add(of.record(), of.context());
  }

  // Of a recording

  @Override
  public Set<Takes> takes() {
    return named.beside().isEmpty() ? Set.of(Takes.IQ) : Set.of();
  }

  @Override
  public S defaults() {
    return first;
  }

  @Override
  public S defaultsFor(Subject subject) {
    parts.recorded().find(subject.recordingId()); // refuses what is not there
    return first.ofWhole();
  }

  @Override
  public Outcome measure(Subject subject, S settings) {
    RecordedStretches recorded = parts.recorded();
    RecordingDto r = recorded.find(subject.recordingId());
    MeasurementContext context = recorded.context(r, subject.job());
    return recorded.each(r, settings, context, s -> s.gathering().add(s.record(), context));
  }

  @Override
  public Optional<Sound> sound(Subject subject, S settings) {
    RecordedStretches recorded = parts.recorded();
    RecordingDto r = recorded.find(subject.recordingId());
    MeasurementContext context = recorded.context(r, subject.job());
    return recorded.each(
        r,
        settings,
        context,
        s -> {
          s.gathering().add(s.record(), context);
          return s.gathering().sound();
        });
  }

  // Live

  @Override
  public boolean fits(String source) {
    return Sources.isRecording(source) && named.beside().isEmpty()
        || !Sources.isRecording(source)
            && parts.bench().kind(Sources.id(source)) == InstrumentKind.IQ_RECEIVER;
  }

  @Override
  public List<Class<?>> described() {
    return List.of(settingsType(), RecordSource.class, RecordLook.View.class);
  }

  @Override
  public Measuring<?> open(String source) {
    long id = Sources.id(source);
    if (Sources.isRecording(source)) {
      parts.recorded().find(id);
      return new RecordingRecordMeasuring<>(this, id, parts.recorded());
    }
    if (named.ongoing() || named.goesOn() && parts.bench().capabilities(id).streams()) {
      return new StreamRecordMeasuring<>(this, id, parts);
    }
    return new ReceiverRecordMeasuring<>(this, id, parts);
  }
}
