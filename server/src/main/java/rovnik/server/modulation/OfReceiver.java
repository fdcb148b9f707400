package rovnik.server.modulation;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.path.PathCorrection;
import rovnik.core.path.SourceLevel;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.units.Frequency;
import rovnik.instruments.iq.CarrierPlan;
import rovnik.instruments.iq.IqCapabilities;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.server.bench.BenchService;
import rovnik.server.config.Conflict;
import rovnik.server.gate.Flow;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.live.Look;
import rovnik.server.live.LookSamples;
import rovnik.server.live.Measuring;
import rovnik.server.runs.KeptLook;

/**
 * What measurements of a receiver's samples have in common, however these are taken.
 *
 * @param <S> settings
 */
abstract class OfReceiver<S extends RecordSettings<S>> implements Measuring<S> {
  /** What is left free above the highest level, and how far up to go where it was cut off. */
  private static final double ROOM_DB = 1;

  private static final double AFTER_OVERLOAD_DB = 10;

  private static final String OVERLOAD = "overload";
  private static final String TRIPPED = "input protection tripped";

  protected final RecordKind<S> kind;
  protected final long instrument;
  protected final BenchService bench;
  protected final JobService jobs;

  /**
   * What records are taken and read with.
   *
   * @param scopeId oscilloscope beside the receiver; null for the only one
   */
  record Plan(
      RecordMeasurement measurement,
      JobDto job,
      PathCorrection correction,
      IqSetup setup,
      @Nullable Long scopeId) {
    Plan with(IqSetup other) {
      return new Plan(measurement, job, correction, other, scopeId);
    }
  }

  OfReceiver(RecordKind<S> kind, long instrument, BenchService bench, JobService jobs) {
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

  /** How it is measured with these settings, or why it cannot be. */
  protected abstract Plan plan(S settings, JobDto job);

  /** A plan for a band and a length. */
  protected final Plan plan(S s, JobDto job, double bandHz, double seconds, IqCapabilities able) {
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
            m.bandField(),
            seconds,
            s.referenceLevelDbm() + correction.gainToPortDb(s.centreHz()),
            able);
    return new Plan(m, job, correction, setup, s.oscilloscopeId());
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

  protected final IqCapabilities able() {
    return bench.capabilities(instrument);
  }

  protected final MeasurementContext context(Plan with, List<String> marks) {
    return new MeasurementContext(
            with.correction(), able().accuracy(), with.job().limits().toCore(), marks)
        .with(with.job().knownRates());
  }

  /** Why what was just taken must not be trusted. */
  protected static List<String> marks(IqReceiver receiver, boolean overload) {
    List<String> marks = new ArrayList<>();
    if (overload) {
      marks.add(OVERLOAD);
    }
    if (receiver.protectionTripped()) {
      marks.add(TRIPPED);
    }
    return marks;
  }

  protected final RecordLook look(
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
  protected static @Nullable Double fitting(IqRecord record, Plan with) {
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
        l.outcome(), settings.measurement().words(), samples(l), null, null, conditions);
  }

  /** A record that stands still, read with other settings, if it would have been taken so. */
  protected final @Nullable Look read(Look look, S before, S settings, JobDto job) {
    RecordLook l = (RecordLook) look;
    Plan now = plan(settings, job);
    IqSetup then = plan(before, job).setup();
    boolean alike =
        l.record() != null
            && now.measurement().readsAgain()
            && then.centreHz() == now.setup().centreHz()
            && then.sampleRateHz() == now.setup().sampleRateHz()
            && then.samples() >= now.setup().samples()
            && then.attenuationDb() == now.setup().attenuationDb();
    return alike
        ? look(l.record(), now, now.measurement().gathering(), l.outcome().marks(), l)
        : null;
  }

  @Override
  public Optional<LookSamples> samples(Look look, S settings, JobDto job) {
    RecordLook l = (RecordLook) look;
    return Optional.ofNullable(l.record())
        .map(
            r -> {
              Plan with = plan(settings, job);
              return new LookSamples(
                  r, context(with, ofSamples(l)), settings.centreHz(), with.measurement().bandHz());
            });
  }

  /** What spoiled the newest samples, whatever the last result was of. */
  private static List<String> ofSamples(RecordLook look) {
    boolean ofResult = look.refused().isEmpty();
    List<String> told = look.outcome().marks();
    List<String> marks = new ArrayList<>();
    if (look.record().overload() || ofResult && told.contains(OVERLOAD)) {
      marks.add(OVERLOAD);
    }
    if (ofResult && told.contains(TRIPPED)) {
      marks.add(TRIPPED);
    }
    return marks;
  }

  /** Samples that a run keeps with it; null for none. */
  protected KeptLook.@Nullable Samples samples(RecordLook look) {
    return new KeptLook.Samples(look.record(), able().accuracy());
  }
}
