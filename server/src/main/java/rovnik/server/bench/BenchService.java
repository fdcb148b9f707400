package rovnik.server.bench;

import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.core.network.NetworkData;
import rovnik.core.path.LevelPlan;
import rovnik.instruments.Drivers;
import rovnik.instruments.Instrument;
import rovnik.instruments.InstrumentKind;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.iq.IqCapabilities;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.network.NetworkCapabilities;
import rovnik.instruments.noise.NoiseSource;
import rovnik.instruments.parts.PartHolder;
import rovnik.instruments.scpi.Timeouts;
import rovnik.instruments.source.SignalSource;
import rovnik.instruments.source.SourceState;
import rovnik.instruments.source.StepAttenuator;
import rovnik.instruments.sweep.SweepCapabilities;
import rovnik.server.bench.InstrumentMapper.InstrumentRow;
import rovnik.server.config.Conflict;
import rovnik.server.config.ServerSettings;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;

/** The instruments that Rovnik knows, each with its owner loop. */
@Service
public class BenchService {
  private static final class Place {
    private final InstrumentRow row;
    private InstrumentLoop loop;
    private volatile SourceState source;
    private volatile Double attenuationDb;
    private volatile InstrumentDto.NoiseDto noise;
    private volatile InstrumentDto.PartsDto parts;

    Place(InstrumentRow row) {
      this.row = row;
    }
  }

  private final InstrumentMapper mapper;
  private final JobService jobs;
  private final DialectLibrary dialects;
  private final Map<Long, Place> places = new ConcurrentHashMap<>();
  private final List<Runnable> listeners = new CopyOnWriteArrayList<>();

  BenchService(InstrumentMapper mapper, JobService jobs, ServerSettings settings) {
    this.mapper = mapper;
    this.jobs = jobs;
    this.dialects = new DialectLibrary(settings.data().resolve("dialects"));
    mapper.all().forEach(this::place);
  }

  /** Calls back when a source or pad was switched: averages from before no longer hold. */
  public void onSwitched(Runnable listener) {
    listeners.add(listener);
  }

  private void place(InstrumentRow row) {
    Place place = new Place(row);
    places.put(row.id(), place);
    place.loop =
        new InstrumentLoop(
            row.name(), row.wanted(), () -> connect(row), i -> refresh(places.get(row.id()), i));
  }

  private Instrument connect(InstrumentRow row) {
    Dialect dialect = dialects.find(row.dialect());
    return Drivers.connect(row.host(), row.port(), row.kind(), dialect, Timeouts.DEFAULT);
  }

  private static String refresh(Place place, Instrument instrument) {
    if (instrument instanceof SignalSource source) {
      place.source = source.state();
    } else if (instrument instanceof StepAttenuator pad) {
      place.attenuationDb = pad.attenuationDb();
    } else if (instrument instanceof NoiseSource source) {
      place.noise = new InstrumentDto.NoiseDto(source.hot(), source.excessNoiseDb());
    } else if (instrument instanceof PartHolder holder) {
      place.parts = new InstrumentDto.PartsDto(holder.parts(), holder.plugged());
    } else {
      return instrument.identity();
    }
    return "";
  }

  @PreDestroy
  void close() {
    places.values().forEach(p -> p.loop.close());
  }

  /** Ids of the dialects by kind. */
  public Map<String, List<String>> dialects() {
    Map<String, List<String>> byKind = new LinkedHashMap<>();
    dialects
        .all()
        .values()
        .forEach(d -> byKind.computeIfAbsent(d.kind().name(), k -> new ArrayList<>()).add(d.id()));
    return byKind;
  }

  public List<InstrumentDto> all() {
    return places.values().stream()
        .sorted((a, b) -> Long.compare(a.row.id(), b.row.id()))
        .map(this::dto)
        .toList();
  }

  private InstrumentDto dto(Place p) {
    SourceState s = p.source;
    ConnectionState state = p.loop.state();
    boolean here = state != ConnectionState.LOST && state != ConnectionState.DISCONNECTED;
    return new InstrumentDto(
        p.row.id(),
        p.row.name(),
        p.row.kind(),
        p.row.kind().label(),
        p.row.host(),
        p.row.port(),
        p.row.dialect(),
        state,
        p.loop.message(),
        p.loop.identity(),
        s == null || !here
            ? null
            : new InstrumentDto.SourceDto(
                s.on(), s.modulated(), s.driveHigh(), s.frequencyHz(), s.levelDbm()),
        here ? p.attenuationDb : null,
        here ? p.noise : null,
        here ? p.parts : null,
        p.row.kind() == InstrumentKind.IQ_RECEIVER ? inputs(p) : null);
  }

  private Integer inputs(Place p) {
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
    if (name == null || name.isBlank()) {
      throw new Refusal("name", "Give the instrument a name.");
    }
    if (host == null || !host.matches("[A-Za-z0-9.:_-]{1,255}")) {
      throw new Refusal(
          "host", "The host must be a name or an IP address, such as 192.168.1.20 or analyzer-2.");
    }
    if (port < 1 || port > 65535) {
      throw new Refusal("port", "The port must be 1 to 65535; SCPI often uses 5025.");
    }
    if (kind == null) {
      throw new Refusal("kind", "Choose what kind of instrument it is.");
    }
    if (dialects.find(dialect).kind() != kind) {
      throw new Refusal("dialect", "That dialect is for another kind of instrument.");
    }
    InstrumentMapper.NewInstrument added =
        new InstrumentMapper.NewInstrument(
            new InstrumentRow(0, name.strip(), kind, host, port, dialect, wanted));
    mapper.insert(added);
    place(new InstrumentRow(added.id, name.strip(), kind, host, port, dialect, wanted));
    return one(added.id);
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
    return NetworkCapabilities.of(dialects.find(find(id).row.dialect()));
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
    return SweepCapabilities.of(dialects.find(find(id).row.dialect()));
  }

  public String nameOf(long id) {
    return find(id).row.name();
  }

  /** What the receiver can do, from its dialect; it need not be connected. */
  public IqCapabilities capabilities(long id) {
    return IqCapabilities.of(dialects.find(find(id).row.dialect()));
  }

  public boolean clearProtection(long id) {
    return receiver(id)
        .call(
            i -> {
              if (!(i instanceof IqReceiver r)) {
                throw new Refusal("source", "This instrument has no input protection to clear.");
              }
              r.clearProtection();
              return true;
            });
  }

  /** State of all sources and pads in words, by name: part of what is kept with a run. */
  public Map<String, String> conditions() {
    Map<String, String> words = new LinkedHashMap<>();
    for (InstrumentDto i : all()) {
      if (i.source() != null) {
        words.put(i.name(), places.get(i.id()).source.text());
      } else if (i.attenuationDb() != null) {
        words.put(i.name(), Math.round(i.attenuationDb()) + " dB");
      } else if (i.noise() != null) {
        words.put(i.name(), i.noise().hot() ? "hot" : "cold");
      } else if (i.parts() != null) {
        words.put(i.name(), i.parts().plugged());
      }
    }
    return words;
  }

  /** Level that the source behind a path says it puts out, NaN if it is off or not known. */
  public double sourceLevelDbm(JobDto job) {
    Long id = job.path().sourceInstrument();
    Place place = id == null ? null : places.get(id);
    SourceState state = place == null ? null : place.source;
    return state == null || !state.on() ? Double.NaN : state.levelDbm();
  }

  /** Switches a noise source hot or cold. */
  public InstrumentDto setHot(long id, boolean hot) {
    return with(id, NoiseSource.class, "a noise source", source -> source.setHot(hot));
  }

  /** Plugs a part in. */
  public InstrumentDto plug(long id, String part) {
    if (part == null || part.isBlank()) {
      throw new Refusal("part", "Name the part to plug in.");
    }
    return with(id, PartHolder.class, "a place for parts", holder -> holder.plug(part));
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

  /** State of the noise source that a path begins at, null if it begins elsewhere. */
  public InstrumentDto.NoiseDto noiseOf(JobDto job) {
    Long id = job.path().sourceInstrument();
    Place place = id == null ? null : places.get(id);
    return place == null ? null : place.noise;
  }

  public InstrumentDto setAttenuation(long id, double db) {
    return with(id, StepAttenuator.class, "a switched pad", pad -> pad.setAttenuationDb(db));
  }

  /**
   * Switches a source. Before power flows the level plan of the job is checked with the level that
   * the source will have; it stays off if something would be overloaded.
   *
   * @param overrideReason why to do it all the same, or ""
   */
  public InstrumentDto setSource(
      long id,
      Boolean on,
      Boolean modulated,
      Boolean driveHigh,
      Long jobId,
      String overrideReason) {
    Place place = find(id);
    place.loop.call(
        i -> {
          if (!(i instanceof SignalSource source)) {
            throw new Refusal("source", place.row.name() + " is not a source.");
          }
          try {
            switchSource(place, source, on, modulated, driveHigh, jobId, overrideReason);
          } finally {
            refresh(place, i);
          }
          return "";
        });
    listeners.forEach(Runnable::run);
    return dto(place);
  }

  /** Sets the level of a source, with the level plan checked for the new level first. */
  public void setSourceLevel(long id, double levelDbm, Long jobId, String overrideReason) {
    Place place = find(id);
    place.loop.call(
        i -> {
          if (!(i instanceof SignalSource source)) {
            throw new Refusal("source", place.row.name() + " is not a source.");
          }
          String trouble = trouble(place, levelDbm, jobId);
          if (!trouble.isEmpty() && (overrideReason == null || overrideReason.isBlank())) {
            throw Conflict.levels(place.row.name() + " was not turned up: " + trouble);
          }
          source.setLevelDbm(levelDbm);
          return refresh(place, i);
        });
    listeners.forEach(Runnable::run);
  }

  /** Lowest and highest level that a source can be set to; refused if it cannot be set. */
  public double[] sourceRangeDbm(long id) {
    Dialect dialect = dialects.find(find(id).row.dialect());
    return new double[] {dialect.fact("lowestLevelDbm"), dialect.fact("highestLevelDbm")};
  }

  private void switchSource(
      Place place,
      SignalSource source,
      Boolean on,
      Boolean modulated,
      Boolean driveHigh,
      Long jobId,
      String overrideReason) {
    SourceState before = source.state();
    boolean willBeOn = on == null ? before.on() : on;
    if (modulated != null) {
      source.setModulated(modulated);
    }
    if (driveHigh != null && driveHigh != before.driveHigh()) {
      source.setOn(false);
      source.setDriveHigh(driveHigh);
    }
    if (willBeOn && (!before.on() || driveHigh != null)) {
      String trouble = trouble(place, source.state().levelDbm(), jobId);
      if (!trouble.isEmpty() && (overrideReason == null || overrideReason.isBlank())) {
        if (source.state().driveHigh() != before.driveHigh()) {
          source.setDriveHigh(before.driveHigh());
        }
        source.setOn(before.on());
        throw Conflict.levels(place.row.name() + " was not switched: " + trouble);
      }
    }
    source.setOn(willBeOn);
  }

  private String trouble(Place place, double levelDbm, Long jobId) {
    if (jobId == null) {
      return "";
    }
    JobDto job = jobs.find(jobId);
    if (!Long.valueOf(place.row.id()).equals(job.path().sourceInstrument())) {
      return "";
    }
    LevelPlan plan = jobs.plan(job, levelDbm);
    return plan.blocking().isEmpty() ? "" : plan.blocking().get(0).sentence();
  }
}
