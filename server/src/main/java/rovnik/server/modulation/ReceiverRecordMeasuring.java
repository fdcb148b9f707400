package rovnik.server.modulation;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.path.PathCorrection;
import rovnik.core.path.SourceLevel;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.units.Frequency;
import rovnik.instruments.Instrument;
import rovnik.instruments.iq.CarrierPlan;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.server.bench.BenchService;
import rovnik.server.config.Conflict;
import rovnik.server.gate.Flow;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.live.GuidedKind;
import rovnik.server.live.Look;
import rovnik.server.live.Measuring;
import rovnik.server.live.Workbench;
import rovnik.server.runs.KeptLook;

/**
 * What is measured of one record after the other of a receiver.
 *
 * @param <S> settings
 */
final class ReceiverRecordMeasuring<S extends RecordSettings<S>> implements Measuring<S> {
  /** What is left free above the highest level, and how far up to go where it was cut off. */
  private static final double ROOM_DB = 1;

  private static final double AFTER_OVERLOAD_DB = 10;

  private final RecordKind<S> kind;
  private final long instrument;
  private final BenchService bench;
  private final JobService jobs;

  // Touched by the instrument's thread only.
  private Plan plan;
  private RecordMeasurement.Gathering gathering = (record, context) -> Outcome.words("", "", "");
  private @Nullable RecordLook last;

  /** What records are taken and read with. */
  private record Plan(
      RecordMeasurement measurement, JobDto job, PathCorrection correction, IqSetup setup) {}

  ReceiverRecordMeasuring(
      RecordKind<S> kind, long instrument, BenchService bench, JobService jobs) {
    this.kind = kind;
    this.instrument = instrument;
    this.bench = bench;
    this.jobs = jobs;
  }

  @Override
  public String kind() {
    return kind.kind();
  }

  @Override
  public String sourceName() {
    return bench.nameOf(instrument);
  }

  @Override
  public Class<S> settingsType() {
    return kind.settingsType();
  }

  @Override
  public S first() {
    return kind.first();
  }

  @Override
  public S checked(S wanted, JobDto job) {
    plan(wanted, job); // refuses what cannot be done
    return wanted;
  }

  private Plan plan(S s, JobDto job) {
    RecordMeasurement m = s.measurement();
    return plan(s, job, m.bandHz(), m.secondsWanted());
  }

  private Plan plan(S s, JobDto job, double bandHz, double seconds) {
    if (!(s.centreHz() > 0)) {
      throw new Refusal("centreHz", "Say where the carrier is, such as 458.525 MHz.");
    }
    RecordMeasurement m = s.measurement();
    PathCorrection correction = new PathCorrection(job.path().toCore());
    double portHz = correction.planeToPortHz(s.centreHz());
    IqSetup setup =
        CarrierPlan.of(
            portHz,
            bandHz,
            seconds,
            s.referenceLevelDbm() + correction.gainToPortDb(s.centreHz()),
            bench.capabilities(instrument));
    return new Plan(m, job, correction, setup);
  }

  @Override
  public void fits(JobDto job) {
    bench.refuseOtherPort(job, instrument);
  }

  /** What the source puts out; without a job, the highest level that the user expects. */
  @Override
  public Flow flow(S settings, JobDto job) {
    SourceLevel level =
        job.isNone() ? SourceLevel.of(settings.referenceLevelDbm()) : bench.sourceLevel(job);
    return Flow.through(job, jobs.plan(bench.asItIs(job), level));
  }

  @Override
  public Object facts(S settings, JobDto job) {
    return new RecordSource(bench.capabilities(instrument).widestSpanHz(), true);
  }

  @Override
  public void prepare(S settings, JobDto job, boolean afresh) {
    plan = plan(settings, job);
    gathering = plan.measurement().gathering();
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
    IqRecord taken = receiver.acquire();
    // The receiver uses its array again, and this record is read again and kept.
    IqRecord record =
        new IqRecord(
            taken.iq().clone(),
            taken.sampleRateHz(),
            taken.centreHz(),
            taken.fullScaleDbm(),
            taken.overload());
    List<String> marks = new ArrayList<>();
    if (record.overload()) {
      marks.add("overload");
    }
    if (receiver.protectionTripped()) {
      marks.add("input protection tripped");
    }
    return look(record, with, into, marks, before);
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
            Plan with = plan(settings, job, bandHz, seconds);
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

  private MeasurementContext context(Plan with, List<String> marks) {
    return new MeasurementContext(
            with.correction(),
            bench.capabilities(instrument).accuracy(),
            with.job().limits().toCore(),
            marks)
        .with(with.job().knownRates());
  }

  private RecordLook look(
      IqRecord record,
      Plan with,
      RecordMeasurement.Gathering into,
      List<String> marks,
      @Nullable RecordLook before) {
    return RecordLook.of(
        with.measurement(),
        into,
        record,
        context(with, marks),
        new RecordLook.Facts(
            record.sampleRateHz(),
            record.sampleCount(),
            with.setup().attenuationDb(),
            fitting(record, with)),
        before);
  }

  /** A whole number of dBm, a little above the highest level; after overload well above it. */
  private static @Nullable Double fitting(IqRecord record, Plan with) {
    double most = 0;
    float[] iq = record.iq();
    for (int n = 0; n < iq.length; n += 2) {
      most = Math.max(most, iq[n] * iq[n] + iq[n + 1] * iq[n + 1]);
    }
    if (!(most > 0) || !record.calibrated()) {
      return null;
    }
    PathCorrection c = with.correction();
    double gain = c == null ? 0 : c.gainToPortDb(c.portToPlaneHz(record.centreHz()));
    double peak = 10 * Math.log10(most) + record.fullScaleDbm() - gain;
    return Math.ceil(peak + (record.overload() ? AFTER_OVERLOAD_DB : ROOM_DB));
  }

  /** The record that stands still, read with other settings, if it would have been taken so. */
  @Override
  public @Nullable Look again(Look look, S before, S settings, JobDto job) {
    RecordLook l = (RecordLook) look;
    Plan now = plan(settings, job);
    IqSetup then = plan(before, job).setup();
    boolean alike =
        l.record() != null
            && then.centreHz() == now.setup().centreHz()
            && then.sampleRateHz() == now.setup().sampleRateHz()
            && then.samples() >= now.setup().samples()
            && then.attenuationDb() == now.setup().attenuationDb();
    return alike
        ? look(l.record(), now, now.measurement().gathering(), l.outcome().marks(), l)
        : null;
  }

  @Override
  public KeptLook.Parts kept(Look look, S settings, JobDto job) {
    RecordLook l = (RecordLook) look;
    if (!l.refused().isEmpty()) {
      throw Conflict.state("There is no result to keep. " + l.refused());
    }
    Map<String, String> conditions = new LinkedHashMap<>();
    conditions.put(
        "receiver attenuation", String.format(Locale.ROOT, "%.0f dB", l.facts().attenuationDb()));
    conditions.put("sample rate", Frequency.ofHertz(l.facts().sampleRateHz()).toString());
    return new KeptLook.Parts(
        l.outcome(),
        settings.measurement().words(),
        new KeptLook.Samples(l.record(), bench.capabilities(instrument).accuracy()),
        null,
        null,
        conditions);
  }
}
