package rovnik.server.receiver;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.path.SignalPath;
import rovnik.core.path.SourceLevel;
import rovnik.core.receiver.Heard;
import rovnik.core.receiver.LevelAtReceiver;
import rovnik.core.receiver.Quality;
import rovnik.core.receiver.Reception;
import rovnik.instruments.Instrument;
import rovnik.instruments.tested.BitCounts;
import rovnik.instruments.tested.TestedCapabilities;
import rovnik.instruments.tested.TestedReceiver;
import rovnik.server.bench.BenchService;
import rovnik.server.gate.Flow;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.live.GuidedKind;
import rovnik.server.live.Look;
import rovnik.server.live.Measuring;
import rovnik.server.live.PathGenerators;
import rovnik.server.live.Workbench;
import rovnik.server.results.Nulls;
import rovnik.server.runs.KeptLook;

/** A receiver under test, look after look. */
final class ReceiverMeasuring implements Measuring<ReceiverSettings> {
  private static final int HISTORY = 240;
  private static final int LEAST_BITS = 1024;
  private final long instrument;
  private final BenchService bench;
  private final JobService jobs;

  // Touched by the instrument's thread only.
  private ReceiverSettings settings = ReceiverSettings.FIRST;
  private @Nullable JobDto job;
  private Quality counted = Quality.nothing("");
  private final List<Quality> history = new ArrayList<>();

  ReceiverMeasuring(long instrument, BenchService bench, JobService jobs) {
    this.instrument = instrument;
    this.bench = bench;
    this.jobs = jobs;
  }

  @Override
  public String kind() {
    return Reception.KIND;
  }

  @Override
  public String sourceName() {
    return bench.nameOf(instrument);
  }

  @Override
  public Class<ReceiverSettings> settingsType() {
    return ReceiverSettings.class;
  }

  @Override
  public ReceiverSettings first() {
    return ReceiverSettings.FIRST;
  }

  @Override
  public ReceiverSettings checked(ReceiverSettings wanted, JobDto of) {
    return wanted.checked();
  }

  @Override
  public void fits(JobDto of) {
    bench.refuseOtherPort(of, instrument);
  }

  @Override
  public Flow flow(ReceiverSettings wanted, JobDto of) {
    return of.isNone()
        ? Flow.NONE
        : Flow.through(of, jobs.plan(bench.asItIs(of), bench.sourceLevel(of)));
  }

  @Override
  public Object facts(ReceiverSettings wanted, JobDto of) {
    TestedCapabilities can = bench.testedCapabilities(instrument);
    return new ReceiverSource(
        can.countsBits(), can.bitRate(), can.packetBits(), can.givesAudio(), can.hasSquelch());
  }

  @Override
  public void prepare(ReceiverSettings wanted, JobDto of, boolean afresh) {
    settings = wanted;
    job = of;
    forget();
  }

  private void forget() {
    counted = Quality.nothing("");
    history.clear();
  }

  @Override
  public @Nullable Look step(@Nullable Instrument receiver) {
    return look((TestedReceiver) receiver, settings.seconds(), settings, job);
  }

  private ReceiverLook look(
      TestedReceiver receiver, double seconds, ReceiverSettings with, JobDto of) {
    TestedCapabilities can = receiver.capabilities();
    Heard heard = null;
    Quality now;
    double toneHz = Double.NaN;
    if (can.countsBits()) {
      int bits = (int) Math.min(can.mostBits(), Math.max(LEAST_BITS, seconds * can.bitRate()));
      BitCounts c = receiver.count(bits);
      now =
          c.bits() == 0
              ? Quality.nothing("it is not in step with the test sequence")
              : Quality.ofBits(c.bits(), c.errors(), c.packets(), c.wrongPackets());
    } else {
      double[] audio = receiver.audio((int) Math.round(seconds * can.audioRateHz()));
      heard = Heard.of(audio, can.audioRateHz(), with.filter());
      now = heard.quality();
      if (can.hasSquelch()) {
        boolean open = receiver.squelchOpen();
        boolean muted = !open && !"off".equals(receiver.squelch());
        now = now.squelched(open, muted ? "the squelch mutes it" : now.lost());
      }
      toneHz = receiver.toneHz();
    }
    counted = counted.plus(now);
    history.add(now);
    if (history.size() > HISTORY) {
      history.remove(0);
    }
    LevelAtReceiver at = of == null || of.isNone() ? null : at(receiver.frequencyHz(), of);
    double level = at == null ? Double.NaN : bench.sourceLevel(of).meanDbm() + at.gainDb();
    Reception reception =
        new Reception(
            with.model(can),
            at,
            level,
            counted,
            List.copyOf(history),
            heard,
            toneHz,
            Nulls.orNan(with.highestErrorRatio()),
            Nulls.orNan(with.leastSinadDb()));
    return new ReceiverLook(reception.outcome(), now);
  }

  private LevelAtReceiver at(double receiverHz, JobDto of) {
    SignalPath path = of.path().toCore();
    double sourceHz = path.frequencyBetween(path.planes() - 1, 0, receiverHz);
    return new LevelAtReceiver(path, sourceHz, bench.sourceAccuracy(of));
  }

  @Override
  public List<GuidedKind> guidedKinds() {
    return ReceiverWorks.ALL;
  }

  @Override
  public Workbench workbench(
      Instrument receiver, ReceiverSettings with, JobDto of, Workbench.Voice voice) {
    if (of.isNone()) {
      throw new Refusal(
          "job", "Choose a job whose path leads from a generator to this receiver first.");
    }
    TestedReceiver tested = (TestedReceiver) receiver;
    return new ReceiverBench(
        of,
        voice,
        new PathGenerators(bench, of, voice),
        at(tested.frequencyHz(), of),
        with.model(tested.capabilities()),
        tested.capabilities().packetBits(),
        seconds -> {
          forget(); // each look of the work is at a level of its own
          return look(tested, seconds, with, of);
        },
        with);
  }

  @Override
  public KeptLook.Parts kept(Look look, ReceiverSettings with, JobDto of) {
    SourceLevel level = bench.sourceLevel(of);
    return KeptLook.Parts.of(
            ((ReceiverLook) look).outcome(), with.words(bench.testedCapabilities(instrument)))
        .with(
            Double.isNaN(level.meanDbm())
                ? Map.of()
                : Map.of("generator", String.format(Locale.ROOT, "%.2f dBm", level.meanDbm())));
  }
}
