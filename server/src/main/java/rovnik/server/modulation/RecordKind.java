package rovnik.server.modulation;

import java.util.List;
import rovnik.instruments.InstrumentKind;
import rovnik.server.bench.BenchService;
import rovnik.server.jobs.JobService;
import rovnik.server.live.GuidedKind;
import rovnik.server.live.LiveKind;
import rovnik.server.live.Measuring;
import rovnik.server.live.Sources;

/**
 * Opens a measurement of single records for receivers and recordings.
 *
 * @param <S> its settings
 */
public class RecordKind<S extends RecordSettings<S>> implements LiveKind {
  private final String kind;
  private final S first;
  private final List<GuidedKind> works;
  private final BenchService bench;
  private final JobService jobs;
  private final RecordedStretches recorded;

  /**
   * @param first settings to begin with
   * @param works guided work that it offers
   */
  public RecordKind(
      String kind,
      S first,
      List<GuidedKind> works,
      BenchService bench,
      JobService jobs,
      RecordedStretches recorded) {
    this.kind = kind;
    this.first = first;
    this.works = works;
    this.bench = bench;
    this.jobs = jobs;
    this.recorded = recorded;
  }

  @Override
  public String kind() {
    return kind;
  }

  S first() {
    return first;
  }

  @SuppressWarnings("unchecked") // it is the class of its own settings
  Class<S> settingsType() {
    return (Class<S>) first.getClass();
  }

  List<GuidedKind> works() {
    return works;
  }

  @Override
  public boolean fits(String source) {
    return Sources.isRecording(source)
        || bench.kind(Sources.id(source)) == InstrumentKind.IQ_RECEIVER;
  }

  @Override
  public List<Class<?>> described() {
    return List.of(settingsType(), RecordSource.class, RecordLook.View.class);
  }

  @Override
  public Measuring<?> open(String source) {
    long id = Sources.id(source);
    if (Sources.isRecording(source)) {
      recorded.find(id);
      return new RecordingRecordMeasuring<>(this, id, recorded);
    }
    return new ReceiverRecordMeasuring<>(this, id, bench, jobs);
  }
}
