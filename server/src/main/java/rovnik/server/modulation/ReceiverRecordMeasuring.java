package rovnik.server.modulation;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.instruments.Instrument;
import rovnik.instruments.iq.IqReceiver;
import rovnik.server.bench.Oscilloscopes;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.Cut;
import rovnik.server.live.GuidedKind;
import rovnik.server.live.Look;
import rovnik.server.live.Workbench;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;

/**
 * What is measured of one record after the other of a receiver.
 *
 * @param <S> settings
 */
final class ReceiverRecordMeasuring<S extends RecordSettings<S>> extends OfReceiver<S> {
  private final RecordingService recordings;
  private final Oscilloscopes scopes;

  // Touched by the instrument's thread only.
  private Plan plan;
  private RecordMeasurement.Gathering gathering = (record, context) -> Outcome.words("", "", "");
  private @Nullable RecordLook last;

  ReceiverRecordMeasuring(RecordKind<S> kind, long instrument, RecordKind.Parts parts) {
    super(kind, instrument, parts.bench(), parts.jobs());
    this.recordings = parts.recordings();
    this.scopes = parts.scopes();
  }

  @Override
  protected Plan plan(S s, JobDto job) {
    RecordMeasurement m = s.measurement();
    m.beside().ifPresent(wanted -> scopes.require(s.oscilloscopeId(), wanted));
    return plan(s, job, m.bandHz(), m.secondsWanted(), able());
  }

  @Override
  public Object facts(S settings, JobDto job) {
    return new RecordSource(able().widestSpanHz(), true);
  }

  @Override
  public void prepare(S settings, JobDto job, boolean afresh) {
    plan = plan(settings, job);
    gathering = plan.measurement().gathering(gathering);
  }

  @Override
  public @Nullable Look step(@Nullable Instrument instrument) {
    last = taken((IqReceiver) instrument, plan, gathering, last);
    return last;
  }

  private RecordLook taken(
      IqReceiver receiver,
      Plan with,
      RecordMeasurement.Gathering into,
      @Nullable RecordLook before) {
    receiver.configure(with.setup());
    Optional<Oscilloscopes.Armed> beside =
        with.measurement().beside().map(wanted -> scopes.arm(with.scopeId(), wanted));
    IqRecord record = (beside.isEmpty() ? receiver.acquire() : receiver.acquireNow()).copied();
    beside.flatMap(Oscilloscopes.Armed::taken).ifPresent(into::beside);
    return look(record, with, into, marks(receiver, record.overload()), before);
  }

  @Override
  public List<GuidedKind> guidedKinds() {
    return kind.works();
  }

  @Override
  public Workbench workbench(Instrument instrument, S settings, JobDto job, Workbench.Voice voice) {
    IqReceiver receiver = (IqReceiver) instrument;
    RecordBench.Looks looks =
        new RecordBench.Looks() {
          @Override
          public RecordLook take(double referenceLevelDbm) {
            Plan with = plan(settings.withReference(referenceLevelDbm), job);
            return taken(receiver, with, with.measurement().gathering(), null);
          }

          @Override
          public RecordBench.Taken record(double bandHz, double seconds) {
            Plan with = plan(settings, job, bandHz, seconds, able());
            receiver.configure(with.setup());
            IqRecord record = receiver.acquire();
            List<String> marks = record.overload() ? List.of("overload") : List.of();
            return new RecordBench.Taken(record, context(with, marks));
          }

          @Override
          public double widestHz() {
            return receiver.capabilities().widestSpanHz();
          }
        };
    return new RecordBench<>(looks, bench, settings, job, voice);
  }

  @Override
  public double seenSeconds(Look look) {
    IqRecord r = ((RecordLook) look).record();
    return r == null ? 0 : r.sampleCount() / r.sampleRateHz();
  }

  /** Where the record of a look ends is what came last. */
  @Override
  public RecordingDto cut(Cut wanted, @Nullable Look look) {
    IqRecord r = look == null ? null : ((RecordLook) look).record();
    if (r == null) {
      throw Conflict.state("Nothing was taken yet. Start the measurement first.");
    }
    Double from = wanted.fromSeconds();
    double begins = from == null ? Math.max(0, r.endSeconds() - wanted.seconds()) : from;
    return recordings.keep(
        wanted.name(),
        "file",
        r.cut(begins, wanted.seconds()),
        able().accuracy(),
        sourceName(),
        Instant.now());
  }

  @Override
  public @Nullable Look again(Look look, S before, S settings, JobDto job) {
    return read(look, before, settings, job);
  }
}
