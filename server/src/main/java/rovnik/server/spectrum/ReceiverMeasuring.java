package rovnik.server.spectrum;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rovnik.core.emission.EmissionMeasurement;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.SpectrumOutcome;
import rovnik.core.path.PathCorrection;
import rovnik.core.path.SourceLevel;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.TraceRow;
import rovnik.core.units.Frequency;
import rovnik.instruments.Instrument;
import rovnik.instruments.iq.IqCapabilities;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.sweep.SweepCapabilities;
import rovnik.server.bench.BenchService;
import rovnik.server.config.Conflict;
import rovnik.server.gate.Flow;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.live.GuidedKind;
import rovnik.server.live.Look;
import rovnik.server.live.LookSamples;
import rovnik.server.live.Measuring;
import rovnik.server.live.Workbench;
import rovnik.server.runs.KeptLook;

/** Spectra of a receiver, by records or by its own sweeps. */
final class ReceiverMeasuring implements Measuring<SettingsDto> {
  private final long instrument;
  private final BenchService bench;
  private final JobService jobs;

  // Touched by the instrument's thread only.
  private Setting setting;
  private Engine engine;

  /** Samples of the newest looks, shared with whoever keeps them. */
  private final Object samplesLock = new Object();

  private Sampled newest = Sampled.NONE;

  /** What was held when the newest came is not shown: then this is what stands still. */
  private Sampled older = Sampled.NONE;

  /** A copy of what a look was made of: the receiver's own array is filled anew. */
  private record Sampled(
      @Nullable SpectrumLook look, @Nullable SpectrumLayout layout, float[] samples) {
    static final Sampled NONE = new Sampled(null, null, new float[0]);

    boolean of(SpectrumLook other) {
      return look != null && look.record() == other.record();
    }
  }

  ReceiverMeasuring(long instrument, BenchService bench, JobService jobs) {
    this.instrument = instrument;
    this.bench = bench;
    this.jobs = jobs;
  }

  @Override
  public String kind() {
    return SpectrumOutcome.KIND;
  }

  @Override
  public String sourceName() {
    return bench.nameOf(instrument);
  }

  String identity() {
    return bench.one(instrument).identity();
  }

  @Override
  public Class<SettingsDto> settingsType() {
    return SettingsDto.class;
  }

  @Override
  public SettingsDto first() {
    return SettingsDto.FIRST;
  }

  @Override
  public SettingsDto checked(SettingsDto wanted, JobDto job) {
    SettingsDto checked = SettingsDto.of(wanted.toCore(), wanted.viewToCore());
    engine(make(checked, job)); // refuses what cannot be done
    return checked;
  }

  private Setting make(SettingsDto s, JobDto job) {
    return new Setting(
        s.toCore(),
        s.viewToCore(),
        job,
        new PathCorrection(job.path().toCore()),
        bench.sweeps(instrument)
            ? bench.sweepCapabilities(instrument).accuracy()
            : bench.capabilities(instrument).accuracy());
  }

  private Engine engine(Setting wanted) {
    return bench.sweeps(instrument)
        ? Engine.of(wanted, bench.sweepCapabilities(instrument))
        : Engine.of(wanted, bench.capabilities(instrument));
  }

  @Override
  public void fits(JobDto job) {
    bench.refuseOtherPort(job, instrument);
  }

  /** What the source puts out; without a job, the highest level that the user expects. */
  @Override
  public Flow flow(SettingsDto settings, JobDto job) {
    SourceLevel level =
        job.isNone() ? SourceLevel.of(settings.referenceLevelDbm()) : bench.sourceLevel(job);
    return Flow.through(job, jobs.plan(bench.asItIs(job), level));
  }

  @Override
  public Object facts(SettingsDto settings, JobDto job) {
    if (bench.sweeps(instrument)) {
      SweepCapabilities able = bench.sweepCapabilities(instrument);
      double widest = able.highestHz() - able.lowestHz();
      return new SpectrumFacts(widest, widest, "dBm");
    }
    IqCapabilities able = bench.capabilities(instrument);
    return new SpectrumFacts(able.highestHz() - able.lowestHz(), able.widestSpanHz(), "dBm");
  }

  // On the instrument's thread.

  @Override
  public void prepare(SettingsDto settings, JobDto job, boolean afresh) {
    Engine before = setting == null || afresh ? null : engine;
    setting = make(settings, job);
    engine = engine(setting);
    if (before != null) {
      engine.follow(before);
    }
  }

  @Override
  public @Nullable Look step(@Nullable Instrument receiver) {
    SpectrumLook next = engine.next(receiver);
    if (next != null) {
      remember(next);
    }
    return next;
  }

  private void remember(SpectrumLook next) {
    synchronized (samplesLock) {
      IqRecord record = next.record();
      float[] samples = older.samples();
      if (record != null) {
        samples = samples.length == record.iq().length ? samples : new float[record.iq().length];
        System.arraycopy(record.iq(), 0, samples, 0, samples.length);
      }
      older = newest;
      newest = new Sampled(next, engine.layout(), samples);
    }
  }

  /** What a look was made of, if it is one of the newest. */
  private Sampled sampled(SpectrumLook look) {
    return newest.of(look) ? newest : older.of(look) ? older : Sampled.NONE;
  }

  /** The record of a look, if it is one of the newest; null if there is none. */
  @Nullable IqRecord recordOf(SpectrumLook look) {
    synchronized (samplesLock) {
      IqRecord r = sampled(look).look() == null ? null : look.record();
      return r == null
          ? null
          : new IqRecord(
              sampled(look).samples().clone(),
              r.sampleRateHz(),
              r.centreHz(),
              r.fullScaleDbm(),
              r.overload());
    }
  }

  @Override
  public double seenSeconds(Look look) {
    IqRecord r = ((SpectrumLook) look).record();
    return r == null ? Double.NaN : r.sampleCount() / r.sampleRateHz();
  }

  @Override
  public Optional<LookSamples> samples(Look look, SettingsDto settings, JobDto job) {
    synchronized (samplesLock) {
      SpectrumLook shown = (SpectrumLook) look;
      // Where newer ones came meanwhile, the newest is what will be shown.
      SpectrumLook of = sampled(shown).look() == null ? newest.look() : shown;
      return Optional.ofNullable(of == null ? null : recordOf(of))
          .map(r -> of.setting().samples(r, of.marks()));
    }
  }

  /**
   * Reads what the view asks for from the look that stands still; traces that it does not have come
   * with the next acquisition.
   */
  @Override
  public @Nullable Look again(Look look, SettingsDto before, SettingsDto settings, JobDto job) {
    SpectrumLook l = (SpectrumLook) look;
    Setting now = make(settings, job);
    if (!l.setting().settings().equals(now.settings())) {
      return null;
    }
    SpectrumLayout layout;
    synchronized (samplesLock) {
      Sampled of = sampled(l).look() == null ? newest : sampled(l);
      layout = of.layout();
    }
    EmissionResult result =
        EmissionMeasurement.of(
            SpectrumMeasurement.bare(l.result().base()),
            now.settings(),
            now.view(),
            now.context(l.marks(), l.spoiled()),
            layout,
            recordOf(l));
    List<String> wanted = now.view().traces().stream().map(TraceRow::label).toList();
    boolean two = now.view().second() != null;
    List<Reading> readings = new ArrayList<>(result.readings());
    l.result().readings().stream().filter(r -> two && SecondTrace.made(r)).forEach(readings::add);
    SpectrumLook again =
        l.with(
            now,
            new EmissionResult(
                new SpectrumResult(result.base().trace(), result.base().peaks(), readings),
                result.tables(),
                result.limitLines()),
            l.rows().stream()
                .filter(r -> two && SecondTrace.made(r) || wanted.contains(r.label()))
                .toList());
    return again;
  }

  @Override
  public KeptLook.Parts kept(Look look, SettingsDto settings, JobDto job) {
    SpectrumLook l = (SpectrumLook) look;
    Map<String, String> conditions = new LinkedHashMap<>();
    conditions.put(
        "receiver attenuation", String.format(Locale.ROOT, "%.0f dB", l.facts().attenuationDb()));
    if (l.facts().sampleRateHz() > 0) {
      conditions.put("sample rate", Frequency.ofHertz(l.facts().sampleRateHz()).toString());
    } else {
      conditions.put("sweep time", String.format(Locale.ROOT, "%.3g s", l.facts().recordSeconds()));
    }
    IqRecord record = recordOf(l);
    return new KeptLook.Parts(
        l.whole(),
        SpectrumOutcome.words(settings.toCore()),
        record == null ? null : new KeptLook.Samples(record, l.setting().accuracy()),
        null,
        null,
        conditions);
  }

  // Guided work.

  @Override
  public List<GuidedKind> guidedKinds() {
    return SpectrumWorks.ALL;
  }

  @Override
  public void fitsGuided() {
    if (bench.sweeps(instrument)) {
      throw Conflict.state(
          "Guided work needs an IQ receiver. Choose one as the source, and as the end of the path.");
    }
  }

  @Override
  public Workbench workbench(
      Instrument receiver, SettingsDto settings, JobDto job, Workbench.Voice voice) {
    return new SpectrumBench((IqReceiver) receiver, bench, make(settings, job), voice);
  }
}
