package rovnik.server.bench;

import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;
import java.util.function.LongConsumer;
import java.util.function.LongFunction;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.core.network.NetworkData;
import rovnik.core.path.ElementKind;
import rovnik.core.path.LevelPlan;
import rovnik.core.path.SourceLevel;
import rovnik.core.path.Supply;
import rovnik.core.result.Fact;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.instruments.Control;
import rovnik.instruments.Drivers;
import rovnik.instruments.Hint;
import rovnik.instruments.Instrument;
import rovnik.instruments.InstrumentKind;
import rovnik.instruments.Values;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.dialect.YamlFile;
import rovnik.instruments.iq.IqCapabilities;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.SharedIqReceiver;
import rovnik.instruments.network.NetworkCapabilities;
import rovnik.instruments.parts.PartHolder;
import rovnik.instruments.scpi.ScpiConnection;
import rovnik.instruments.scpi.Timeouts;
import rovnik.instruments.source.FunctionSource;
import rovnik.instruments.source.FunctionState;
import rovnik.instruments.source.GeneratorCapabilities;
import rovnik.instruments.source.KnownWaveform;
import rovnik.instruments.source.SignalGenerator;
import rovnik.instruments.source.SignalSource;
import rovnik.instruments.source.SourceState;
import rovnik.instruments.sweep.SweepCapabilities;
import rovnik.instruments.tested.TestedCapabilities;
import rovnik.server.bench.InstrumentMapper.InstrumentRow;
import rovnik.server.config.Conflict;
import rovnik.server.config.Refusals;
import rovnik.server.config.ServerSettings;
import rovnik.server.config.UserFiles;
import rovnik.server.gate.Flow;
import rovnik.server.gate.PowerGate;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.jobs.PathElementDto;
import rovnik.server.results.Nulls;
import rovnik.server.results.SeriesDto;

/** The instruments that Rovnik knows, each with its owner loop. */
@Service
public class BenchService implements UserFiles {
  private static final class Place {
    private final InstrumentRow row;
    private InstrumentLoop loop;
    private volatile SourceState source;
    private volatile FunctionState function;
    private volatile Supply.Accuracy voltage;
    private volatile List<Control> controls = List.of();
    private volatile List<Fact> facts = List.of();
    private volatile List<Hint> hints = List.of();
    private volatile String condition = "";

    Place(InstrumentRow row) {
      this.row = row;
    }
  }

  private final InstrumentMapper mapper;
  private final JobService jobs;
  private final DialectLibrary dialects;
  private final Map<Long, Place> places = new ConcurrentHashMap<>();
  private final List<Runnable> listeners = new CopyOnWriteArrayList<>();
  private final List<LongConsumer> removals = new CopyOnWriteArrayList<>();
  private final PowerGate gate;
  private final Supplies supplies;
  private final AllowedAddresses allowed;
  private volatile Supplier<Set<Long>> jobsUnderWay = Set::of;
  private volatile LongFunction<Optional<KnownWaveform>> waveforms = id -> Optional.empty();

  BenchService(
      InstrumentMapper mapper,
      JobService jobs,
      PowerGate gate,
      AllowedAddresses allowed,
      ServerSettings settings) {
    this.allowed = allowed;
    this.mapper = mapper;
    this.jobs = jobs;
    this.gate = gate;
    this.supplies = new Supplies(jobs);
    this.dialects = new DialectLibrary(settings.data().resolve("dialects"));
    mapper.all().forEach(this::place);
  }

  /** Calls back when a source or pad was switched: averages from before no longer hold. */
  public void onSwitched(Runnable listener) {
    listeners.add(listener);
  }

  /** Asks for the jobs that are measured now: what they measure is hooked up. */
  public void onAskJobs(Supplier<Set<Long>> asked) {
    jobsUnderWay = asked;
  }

  /** Says how waveforms that generators hold are found by their ids. */
  public void onAskWaveforms(LongFunction<Optional<KnownWaveform>> finder) {
    waveforms = finder;
  }

  private void place(InstrumentRow row) {
    Place place = new Place(row);
    places.put(row.id(), place);
    place.loop =
        new InstrumentLoop(
            row.name(), row.wanted(), () -> connect(row), i -> refresh(places.get(row.id()), i));
  }

  private Instrument connect(InstrumentRow row) {
    allowed.check(row.host());
    Dialect dialect = dialects.find(row.dialect());
    Instrument made =
        Drivers.connect(row.host(), row.port(), row.kind(), dialect, Timeouts.DEFAULT);
    if (made instanceof SignalGenerator generator) {
      generator.waveforms(id -> waveforms.apply(id));
    }
    return made instanceof IqReceiver receiver ? new SharedIqReceiver(receiver) : made;
  }

  private static String refresh(Place place, Instrument instrument) {
    if (instrument instanceof SignalSource source) {
      place.source = source.state();
    }
    if (instrument instanceof FunctionSource source) {
      place.voltage = source.accuracy();
      place.function = source.state();
    }
    place.controls = instrument.controls();
    place.facts = instrument.facts();
    place.hints = instrument.hints();
    place.condition = instrument.condition();
    // An instrument without controls is asked who it is, so that a dead one is noticed.
    return place.condition.isEmpty() ? instrument.identity() : "";
  }

  @PreDestroy
  void close() {
    places.values().forEach(p -> p.loop.close());
  }

  @Override
  public List<YamlFile.Broken> broken() {
    return dialects.broken();
  }

  /** The kinds of instrument that can be added, with their dialects. */
  public List<KindDto> kinds() {
    Map<String, Dialect> known = dialects.all();
    return Arrays.stream(InstrumentKind.values())
        .map(
            k ->
                new KindDto(
                    k,
                    k.label(),
                    known.values().stream()
                        .filter(d -> d.kind() == k)
                        .map(d -> new KindDto.DialectDto(d.id(), d.label()))
                        .toList()))
        .toList();
  }

  /** Asks an address who answers there, and which dialects know it. */
  public FoundDto findAt(String host, int port) {
    checkAddress(host, port);
    String identity;
    try (ScpiConnection connection = ScpiConnection.open(host, port, Timeouts.DEFAULT)) {
      identity = connection.ask("*IDN?");
    }
    List<Dialect> known = dialects.thatKnow(identity);
    Dialect best = known.isEmpty() ? null : known.get(0);
    String[] parts = identity.split(",");
    return new FoundDto(
        identity,
        parts.length > 1 ? parts[1].strip() : identity,
        best == null ? null : best.kind(),
        best == null ? null : best.id());
  }

  public List<InstrumentDto> all() {
    return places.values().stream()
        .sorted((a, b) -> Long.compare(a.row.id(), b.row.id()))
        .map(this::dto)
        .toList();
  }

  private static boolean here(Place p) {
    ConnectionState state = p.loop.state();
    return state != ConnectionState.LOST && state != ConnectionState.DISCONNECTED;
  }

  private InstrumentDto dto(Place p) {
    boolean here = here(p);
    return new InstrumentDto(
        p.row.id(),
        p.row.name(),
        p.row.kind(),
        p.row.kind().label(),
        p.row.host(),
        p.row.port(),
        p.row.dialect(),
        p.loop.state(),
        p.loop.message(),
        p.loop.identity(),
        here ? p.controls.stream().map(InstrumentDto.ControlDto::of).toList() : List.of(),
        here ? p.facts.stream().map(SeriesDto.FactDto::of).toList() : List.of(),
        here ? hints(p).stream().map(InstrumentDto.HintDto::of).toList() : List.of(),
        p.row.kind() == InstrumentKind.IQ_RECEIVER ? inputs(p) : null);
  }

  private List<Hint> hints(Place p) {
    return p.function == null ? p.hints : supplies.hints(p.row.id(), p.function, p.voltage);
  }

  private @Nullable Integer inputs(Place p) {
    try {
      return IqCapabilities.of(dialects.find(p.row.dialect())).inputs();
    } catch (Refusal brokenDialect) {
      return null; // the connection says what is wrong with it
    }
  }

  private Place find(long id) {
    Place place = places.get(id);
    if (place == null) {
      throw Conflict.notFound("instrument", id);
    }
    return place;
  }

  public InstrumentDto one(long id) {
    return dto(find(id));
  }

  /** Adds an instrument; nothing is sent to it until it is connected. */
  public InstrumentDto add(
      String name, InstrumentKind kind, String host, int port, String dialect, boolean wanted) {
    String called = Refusals.named(name, "name", "instrument");
    checkAddress(host, port);
    if (kind == null) {
      throw new Refusal("kind", "Choose what kind of instrument it is.");
    }
    if (dialects.find(dialect).kind() != kind) {
      throw new Refusal("dialect", "That dialect is for another kind of instrument.");
    }
    InstrumentMapper.NewInstrument added =
        new InstrumentMapper.NewInstrument(
            new InstrumentRow(0, called, kind, host, port, dialect, wanted));
    mapper.insert(added);
    place(new InstrumentRow(added.id, called, kind, host, port, dialect, wanted));
    return one(added.id);
  }

  private void checkAddress(String host, int port) {
    if (host == null || !host.matches("[A-Za-z0-9.:_-]{1,255}")) {
      throw new Refusal(
          "host", "The host must be a name or an IP address, such as 192.168.1.20 or analyzer-2.");
    }
    if (port < 1 || port > 65535) {
      throw new Refusal("port", "The port must be 1 to 65535; SCPI often uses 5025.");
    }
    allowed.check(host);
  }

  /** Moves an instrument to another address, as the demo does when its ports change. */
  public void moveTo(long id, String host, int port) {
    Place old = find(id);
    if (old.row.host().equals(host) && old.row.port() == port) {
      return;
    }
    mapper.setAddress(id, host, port);
    old.loop.close();
    InstrumentRow r = old.row;
    place(new InstrumentRow(id, r.name(), r.kind(), host, port, r.dialect(), r.wanted()));
  }

  public void remove(long id) {
    find(id).loop.close();
    places.remove(id);
    mapper.delete(id);
    removals.forEach(l -> l.accept(id));
  }

  /** Calls back with the id of each instrument that was removed. */
  public void onRemove(LongConsumer listener) {
    removals.add(listener);
  }

  public InstrumentDto setConnected(long id, boolean wanted) {
    Place place = find(id);
    mapper.setWanted(id, wanted);
    place.loop.setWanted(wanted);
    if (wanted) {
      awaitConnection(place);
    }
    return dto(place);
  }

  /** Gives a fresh connection a moment, so that the answer already shows how it went. */
  private static void awaitConnection(Place place) {
    for (int i = 0; i < 40; i++) {
      ConnectionState s = place.loop.state();
      if (s != ConnectionState.DISCONNECTED && s != ConnectionState.CONNECTING) {
        return;
      }
      java.util.concurrent.locks.LockSupport.parkNanos(50_000_000);
    }
  }

  /** Asks who it is. */
  public String identify(long id) {
    return find(id).loop.call(Instrument::identity);
  }

  public InstrumentDto reset(long id) {
    Place place = find(id);
    place.loop.call(
        i -> {
          i.reset();
          return refresh(place, i);
        });
    return dto(place);
  }

  /** What Rovnik noted of late, and what is in the instrument's own error queue now. */
  public List<String> errors(long id) {
    Place place = find(id);
    List<String> errors = new ArrayList<>(place.loop.errors());
    errors.addAll(place.loop.call(Instrument::errors));
    return errors;
  }

  /** The owner loop of an instrument. */
  public InstrumentLoop loop(long id) {
    return find(id).loop;
  }

  public InstrumentKind kind(long id) {
    return find(id).row.kind();
  }

  /** Those of a kind, in the order in which they came. */
  public List<Long> ofKind(InstrumentKind kind) {
    return places.values().stream()
        .filter(p -> p.row.kind() == kind)
        .map(p -> p.row.id())
        .sorted()
        .toList();
  }

  /** The words that an instrument understands. */
  public Dialect dialect(long id) {
    return dialects.find(find(id).row.dialect());
  }

  /**
   * Measuring without a job: straight at the instrument's port. What it stands is all that is
   * known.
   */
  public JobDto withoutJob(long id) {
    Place place = find(id);
    Double damage = dialects.find(place.row.dialect()).facts().get("damageDbm");
    return JobDto.without(
        PathElementDto.plain("Input", ElementKind.SOURCE, -300.0, null, null),
        PathElementDto.plain(place.row.name() + " IN", ElementKind.PORT, null, damage, id));
  }

  /** The owner loop of a receiver. */
  public InstrumentLoop receiver(long id) {
    Place place = find(id);
    if (place.row.kind() != InstrumentKind.IQ_RECEIVER
        && place.row.kind() != InstrumentKind.SWEPT_ANALYZER) {
      throw new Refusal(
          "source", place.row.name() + " is not a receiver. Choose one at the Bench.");
    }
    return place.loop;
  }

  /** The owner loop of a network analyzer. */
  public InstrumentLoop analyzer(long id) {
    Place place = find(id);
    if (place.row.kind() != InstrumentKind.NETWORK_ANALYZER) {
      throw new Refusal("source", place.row.name() + " is no network analyzer.");
    }
    return place.loop;
  }

  /** What a network analyzer can do, from its dialect; it need not be connected. */
  public NetworkCapabilities networkCapabilities(long id) {
    return NetworkCapabilities.of(dialect(id));
  }

  /** Puts a part of measured data among those that can be plugged in. */
  public InstrumentDto loadPart(long id, String name, NetworkData part) {
    return with(id, PartHolder.class, "a place for parts", holder -> holder.load(name, part));
  }

  /** Whether it delivers finished traces instead of samples. */
  public boolean sweeps(long id) {
    return find(id).row.kind() == InstrumentKind.SWEPT_ANALYZER;
  }

  /** What the swept analyzer can do, from its dialect; it need not be connected. */
  public SweepCapabilities sweepCapabilities(long id) {
    return SweepCapabilities.of(dialect(id));
  }

  public String nameOf(long id) {
    return find(id).row.name();
  }

  /** What the receiver can do, from its dialect; it need not be connected. */
  public IqCapabilities capabilities(long id) {
    return IqCapabilities.of(dialect(id));
  }

  /** State of all sources and pads in words, by name: part of what is kept with a run. */
  public Map<String, String> conditions() {
    Map<String, String> words = new LinkedHashMap<>();
    places.values().stream()
        .sorted(Comparator.comparingLong(p -> p.row.id()))
        .filter(p -> !p.condition.isEmpty() && here(p))
        .forEach(p -> words.put(p.row.name(), p.condition));
    return words;
  }

  /** What the source behind a path says it puts out; unknown if it is off or does not say. */
  public SourceLevel sourceLevel(JobDto job) {
    Long id = job.path().sourceInstrument();
    Place place = id == null ? null : places.get(id);
    SourceState state = place == null ? null : place.source;
    FunctionState fed = place == null ? null : place.function;
    if (fed != null && fed.on()) {
      // What it feeds sends what the path says.
      return SourceLevel.of(Nulls.orNan(job.path().elements().get(0).outputLevelDbm()));
    }
    return state == null || !state.on() ? SourceLevel.UNKNOWN : levelOf(state);
  }

  /** How far off the level and frequency of the source behind a path may be. */
  public InstrumentAccuracy sourceAccuracy(JobDto job) {
    Long id = job.path().sourceInstrument();
    Place place = id == null ? null : places.get(id);
    Map<String, Double> facts =
        place == null ? Map.of() : dialects.find(place.row.dialect()).facts();
    return new InstrumentAccuracy(
        facts.getOrDefault("levelAccuracyDb", Double.NaN),
        facts.getOrDefault("frequencyAccuracy", Double.NaN));
  }

  /** What a receiver under test tells, from its dialect; it need not be connected. */
  public TestedCapabilities testedCapabilities(long id) {
    return TestedCapabilities.of(dialect(id));
  }

  /** A job with what the instruments at its combiners send now. */
  public JobDto asItIs(JobDto job) {
    return job.with(job.path().withSides(this::sideLevelDbm), job.limits());
  }

  private @Nullable Double sideLevelDbm(long id) {
    Place place = places.get(id);
    SourceState state = place == null || !here(place) ? null : place.source;
    return state == null || !state.on() ? null : state.levelDbm() + state.crestDb();
  }

  /** A job whose path ends elsewhere than at a receiver cannot be measured with that. */
  public void refuseOtherPort(JobDto job, long receiver) {
    Long port = job.path().portInstrument();
    if (port == null) {
      throw Conflict.state(
          "The path of this job ends at no instrument. Click its last element and choose the"
              + " receiver that the cable goes to.");
    }
    if (port != receiver) {
      throw Conflict.state(
          "The path of this job ends at "
              + nameOf(port)
              + ". Choose that receiver, or change the last element of the path.");
    }
  }

  /** Changes what is on the bench: averages from before no longer hold. */
  private <I> InstrumentDto with(long id, Class<I> kind, String what, Consumer<I> change) {
    Place place = find(id);
    place.loop.call(
        i -> {
          if (!kind.isInstance(i)) {
            throw new Refusal("kind", place.row.name() + " is not " + what + ".");
          }
          change.accept(kind.cast(i));
          return refresh(place, i);
        });
    listeners.forEach(Runnable::run);
    return dto(place);
  }

  /** Sends a waveform to the memory of a generator; what it puts out does not change. */
  public void load(long id, KnownWaveform waveform, float[] iq) {
    with(id, SignalGenerator.class, "a vector generator", g -> g.load(waveform, iq));
  }

  /** What a generator can do, from its dialect; it need not be connected. */
  public GeneratorCapabilities generatorCapabilities(long id) {
    Place place = find(id);
    if (place.row.kind() != InstrumentKind.SIGNAL_GENERATOR) {
      throw new Refusal("generator", place.row.name() + " is not a vector generator.");
    }
    return GeneratorCapabilities.of(dialects.find(place.row.dialect()));
  }

  /** State of the noise source that a path begins at, NaN if it begins elsewhere; dB. */
  public double excessNoiseDb(JobDto job) {
    Long id = job.path().sourceInstrument();
    Place place = id == null ? null : places.get(id);
    return place == null || place.row.kind() != InstrumentKind.NOISE_SOURCE
        ? Double.NaN
        : place.facts.stream().mapToDouble(Fact::value).findFirst().orElse(Double.NaN);
  }

  /** What is plugged in at a place for parts, "" if that is not known. */
  public String plugged(long id) {
    Place place = places.get(id);
    return place == null || place.row.kind() != InstrumentKind.PART_HOLDER || !here(place)
        ? ""
        : place.condition;
  }

  /**
   * Switches controls of an instrument, first those that raise no power. Before power flows the
   * gate asks the level plan of the job, or of the jobs that are measured with the instrument; what
   * would overload something is put back and refused.
   *
   * @param values what each control shall be, by its id
   * @param jobId the job that the instrument works for; null if none was named
   * @param overrideReason why to do it all the same; null or "" if there is no reason to
   */
  public InstrumentDto control(
      long id, Map<String, String> values, @Nullable Long jobId, @Nullable String overrideReason) {
    Place place = find(id);
    place.loop.call(
        i -> {
          try {
            if (i instanceof SignalSource source) {
              switchSource(place, source, values, jobId, overrideReason);
            } else if (i instanceof FunctionSource source) {
              supplies.turn(id, source, values, flow -> ask(place, flow, overrideReason));
            } else {
              values.forEach(i::set);
            }
          } finally {
            refresh(place, i);
          }
          return "";
        });
    listeners.forEach(Runnable::run);
    return dto(place);
  }

  /** A source comes on, or up, last of all, and only through the gate. */
  private void switchSource(
      Place place,
      SignalSource source,
      Map<String, String> values,
      @Nullable Long jobId,
      @Nullable String overrideReason) {
    SourceState before = source.state();
    Runnable putBack = source.restorer();
    Map<String, String> rest = new LinkedHashMap<>(values);
    String output = rest.remove(SignalSource.OUTPUT);
    boolean willBeOn = output == null ? before.on() : Values.onOff(output);
    String level = rest.get(SignalSource.LEVEL);
    boolean drives = rest.keySet().stream().anyMatch(source::levelOpen);
    if (drives && before.on()) {
      source.setOn(false); // nothing flows while it is not known how much
    } else if (level != null && willBeOn) {
      ask(
          place,
          new SourceLevel(Values.number(level), before.crestDb(), before.set()),
          jobId,
          overrideReason);
    }
    boolean done = false;
    try {
      rest.forEach(source::set);
      if (willBeOn && (drives || !before.on())) {
        ask(place, levelOf(source.state()), jobId, overrideReason);
      }
      if (source.state().on() != willBeOn) {
        source.setOn(willBeOn);
      }
      done = true;
    } finally {
      if (!done) {
        putBack.run();
        if (source.state().on() != before.on()) {
          source.setOn(before.on());
        }
      }
    }
  }

  private static SourceLevel levelOf(SourceState s) {
    return new SourceLevel(s.levelDbm(), s.crestDb(), s.set());
  }

  private void ask(
      Place place, SourceLevel level, @Nullable Long jobId, @Nullable String overrideReason) {
    ask(place, flow(place, level, jobId), overrideReason);
  }

  private void ask(Place place, Flow flow, @Nullable String overrideReason) {
    try {
      gate.ask("i" + place.row.id(), flow, overrideReason);
    } catch (Conflict levels) {
      throw Conflict.levels(place.row.name() + " was not switched: " + levels.getMessage());
    }
  }

  /** Lowest and highest level that a source can be set to; refused if it cannot be set. */
  public double[] sourceRangeDbm(long id) {
    Dialect dialect = dialect(id);
    return new double[] {dialect.fact("lowestLevelDbm"), dialect.fact("highestLevelDbm")};
  }

  /** What would flow from a source at a level: through the job's path, or those in use. */
  private Flow flow(Place place, SourceLevel level, @Nullable Long jobId) {
    Set<Long> asked = jobId == null ? jobsUnderWay.get() : Set.of(jobId);
    for (long id : asked) {
      JobDto job = asItIs(jobs.find(id));
      Long own = place.row.id();
      boolean beside = own.equals(job.path().sideInstrument());
      if (beside) {
        double peaks = level.meanDbm() + level.crestDb();
        job =
            job.with(
                job.path().withSides(i -> own.equals(i) ? peaks : sideLevelDbm(i)), job.limits());
      }
      if (beside || own.equals(job.path().sourceInstrument())) {
        LevelPlan plan = jobs.plan(job, beside ? sourceLevel(job) : level);
        String trouble = plan.blocking().isEmpty() ? "" : plan.blocking().get(0).sentence();
        if (!trouble.isEmpty()) {
          return new Flow(job.pathVersion(), trouble, level.meanDbm() + level.crestDb());
        }
      }
    }
    return new Flow(
        new JobDto.PathVersion(0, 0),
        ownLimit(place, level.meanDbm()),
        level.meanDbm() + level.crestDb());
  }

  /** What the source itself may put out, from its data sheet. */
  private String ownLimit(Place place, double levelDbm) {
    Double highest = dialects.find(place.row.dialect()).facts().get("highestLevelDbm");
    return highest == null || levelDbm <= highest
        ? ""
        : String.format(
            Locale.ROOT,
            "%s would put out %.1f dBm, more than the %.1f dBm of its data sheet.",
            place.row.name(),
            levelDbm,
            highest);
  }
}
