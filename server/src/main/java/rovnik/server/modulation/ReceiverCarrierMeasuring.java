package rovnik.server.modulation;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.path.PathCorrection;
import rovnik.core.path.SourceLevel;
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

/** One carrier in the records of a receiver. */
final class ReceiverCarrierMeasuring implements Measuring<CarrierSettingsDto> {
  private final long instrument;
  private final BenchService bench;
  private final JobService jobs;

  // Touched by the instrument's thread only.
  private Plan plan;
  private @Nullable CarrierLook last;

  /** What records are taken and read with. */
  private record Plan(
      SingleCarrierMeasurement measurement, JobDto job, PathCorrection correction, IqSetup setup) {}

  ReceiverCarrierMeasuring(long instrument, BenchService bench, JobService jobs) {
    this.instrument = instrument;
    this.bench = bench;
    this.jobs = jobs;
  }

  @Override
  public String kind() {
    return SingleCarrierMeasurement.KIND;
  }

  @Override
  public String sourceName() {
    return bench.nameOf(instrument);
  }

  @Override
  public Class<CarrierSettingsDto> settingsType() {
    return CarrierSettingsDto.class;
  }

  @Override
  public CarrierSettingsDto first() {
    return CarrierSettingsDto.FIRST;
  }

  @Override
  public CarrierSettingsDto checked(CarrierSettingsDto wanted, JobDto job) {
    plan(wanted, job); // refuses what cannot be done
    return wanted;
  }

  private Plan plan(CarrierSettingsDto s, JobDto job) {
    if (!(s.centreHz() > 0)) {
      throw new Refusal("centreHz", "Say where the carrier is, such as 458.525 MHz.");
    }
    SingleCarrierMeasurement m = new SingleCarrierMeasurement(s.toCore());
    PathCorrection correction = new PathCorrection(job.path().toCore());
    double portHz = correction.planeToPortHz(s.centreHz());
    IqSetup setup =
        CarrierPlan.of(
            portHz,
            m.bandHz(),
            m.secondsWanted(),
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
  public Flow flow(CarrierSettingsDto settings, JobDto job) {
    SourceLevel level =
        job.isNone() ? SourceLevel.of(settings.referenceLevelDbm()) : bench.sourceLevel(job);
    return Flow.through(job, jobs.plan(job, level));
  }

  @Override
  public Object facts(CarrierSettingsDto settings, JobDto job) {
    return new CarrierSource(bench.capabilities(instrument).widestSpanHz(), true);
  }

  @Override
  public void prepare(CarrierSettingsDto settings, JobDto job, boolean afresh) {
    plan = plan(settings, job);
  }

  @Override
  public @Nullable Look step(@Nullable Instrument instrument) {
    last = taken((IqReceiver) instrument, plan, last);
    return last;
  }

  private CarrierLook taken(IqReceiver receiver, Plan with, @Nullable CarrierLook before) {
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
    return look(record, with, marks, before);
  }

  @Override
  public List<GuidedKind> guidedKinds() {
    return CarrierWorks.ALL;
  }

  @Override
  public Workbench workbench(
      Instrument instrument, CarrierSettingsDto settings, JobDto job, Workbench.Voice voice) {
    IqReceiver receiver = (IqReceiver) instrument;
    return new CarrierBench(
        reference -> taken(receiver, plan(settings.withReference(reference), job), null),
        bench,
        settings,
        job,
        voice);
  }

  private CarrierLook look(
      IqRecord record, Plan with, List<String> marks, @Nullable CarrierLook before) {
    return CarrierLook.of(
        with.measurement(),
        record,
        new MeasurementContext(
            with.correction(),
            bench.capabilities(instrument).accuracy(),
            with.job().limits().toCore(),
            marks),
        new CarrierLook.Facts(
            record.sampleRateHz(), record.sampleCount(), with.setup().attenuationDb()),
        before);
  }

  /** The record that stands still, read with other settings, if it would have been taken so. */
  @Override
  public @Nullable Look again(
      Look look, CarrierSettingsDto before, CarrierSettingsDto settings, JobDto job) {
    CarrierLook l = (CarrierLook) look;
    Plan now = plan(settings, job);
    IqSetup then = plan(before, job).setup();
    boolean alike =
        l.record() != null
            && then.centreHz() == now.setup().centreHz()
            && then.sampleRateHz() == now.setup().sampleRateHz()
            && then.samples() >= now.setup().samples()
            && then.attenuationDb() == now.setup().attenuationDb();
    return alike ? look(l.record(), now, l.outcome().marks(), l) : null;
  }

  @Override
  public KeptLook.Parts kept(Look look, CarrierSettingsDto settings, JobDto job) {
    CarrierLook l = (CarrierLook) look;
    if (!l.refused().isEmpty()) {
      throw Conflict.state("There is no result to keep. " + l.refused());
    }
    Map<String, String> conditions = new LinkedHashMap<>();
    conditions.put(
        "receiver attenuation", String.format(Locale.ROOT, "%.0f dB", l.facts().attenuationDb()));
    conditions.put("sample rate", Frequency.ofHertz(l.facts().sampleRateHz()).toString());
    return new KeptLook.Parts(
        l.outcome(),
        settings.toCore().words(),
        new KeptLook.Samples(l.record(), bench.capabilities(instrument).accuracy()),
        null,
        null,
        conditions);
  }
}
