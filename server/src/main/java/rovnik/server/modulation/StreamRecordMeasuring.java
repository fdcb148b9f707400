package rovnik.server.modulation;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Sound;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.instruments.Instrument;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.Cut;
import rovnik.server.live.Look;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;
import rovnik.server.recordings.Rings;
import rovnik.server.recordings.SampleRing;
import rovnik.server.runs.KeptLook;

/**
 * What is measured of a receiver's stream: blocks without gaps, the newest of which stay in a ring
 * on disk. What the measurement finds worth keeping becomes recordings, and so does what the user
 * asks for.
 *
 * @param <S> settings
 */
final class StreamRecordMeasuring<S extends RecordSettings<S>> extends OfReceiver<S> {
  /** A block lasts about this long, so that what it shows is fresh. */
  private static final double BLOCK_SECONDS = 0.02;

  private static final int LEAST_BLOCK = 1024;

  /** Times of the band that a block lasts at least. */
  private static final double LEAST_TIMES = 60;

  /** Looks follow one another no faster. */
  private static final long LOOK_NANOS = 50_000_000;

  private static final DateTimeFormatter CLOCK =
      DateTimeFormatter.ofPattern("HH:mm:ss").withZone(ZoneOffset.UTC);

  private final RecordingService recordings;
  private final Rings rings;

  // Touched by the instrument's thread only.
  private Plan plan;
  private RecordMeasurement.Gathering gathering = (record, context) -> Outcome.words("", "", "");
  private @Nullable RecordLook last;
  private long lookedNanos;

  /** In a block since the last look. */
  private boolean overloaded;

  private Consumer<Sound> ears = sound -> {};
  private volatile double originSeconds = Double.NaN;
  private String identity = "";
  private int keptWanted;
  private int mostKept;
  private int asked;
  private List<Saved> saved = new CopyOnWriteArrayList<>();

  // Read by others, too.
  private volatile @Nullable Held held;

  /** The ring, and what its samples are. */
  private record Held(SampleRing ring, IqSetup setup, IqRecord newest, Instant endedAt) {
    Held after(IqRecord block) {
      return new Held(ring, setup, block, Instant.now());
    }

    long number(double seconds) {
      return Math.round(seconds * setup.sampleRateHz());
    }

    double seconds(long number) {
      return number / setup.sampleRateHz();
    }

    /** How long before its newest sample another one was taken, seconds. */
    double ago(long number) {
      return newest.startSeconds() - seconds(number);
    }
  }

  /**
   * A stretch that became a recording, or why it did not.
   *
   * @param trouble "" if it did
   */
  private record Saved(String name, double fromSeconds, double seconds, String trouble) {}

  StreamRecordMeasuring(RecordKind<S> kind, long instrument, RecordKind.Parts parts) {
    super(kind, instrument, parts.bench(), parts.jobs());
    this.recordings = parts.recordings();
    this.rings = parts.rings();
  }

  @Override
  protected Plan plan(S s, JobDto job) {
    if (!able().streams()) {
      throw new Refusal(
          "source",
          sourceName()
              + " takes single records only, with pauses between them. Choose a receiver that"
              + " streams, or open a recording.");
    }
    RecordMeasurement m = s.measurement();
    double seconds = Math.max(BLOCK_SECONDS, LEAST_TIMES / m.bandHz());
    Plan p = plan(s, job, m.bandHz(), seconds, able().streaming());
    IqSetup setup = p.setup();
    int samples = Math.max(LEAST_BLOCK, setup.samples());
    return p.with(
        new IqSetup(setup.centreHz(), setup.sampleRateHz(), samples, setup.attenuationDb()));
  }

  private static long ringSamples(Plan p) {
    return Rings.samples(p.measurement().secondsWanted(), p.setup().sampleRateHz());
  }

  @Override
  public S checked(S wanted, JobDto job) {
    Plan p = plan(wanted, job);
    Held present = held;
    long there = present == null ? 0 : present.ring().capacity();
    if (ringSamples(p) > there) {
      try {
        rings.require(ringSamples(p) - there);
      } catch (Conflict noRoom) {
        throw new Refusal(
            "seconds",
            "There is no room for so long a ring at this rate. " + noRoom.getMessage(),
            noRoom);
      }
    }
    return wanted;
  }

  @Override
  public Object facts(S settings, JobDto job) {
    return new RecordSource((able().streams() ? able().streaming() : able()).widestSpanHz(), true);
  }

  @Override
  public void prepare(S settings, JobDto job, boolean afresh) {
    plan = plan(settings, job);
    gathering = plan.measurement().stream();
    mostKept = settings.mostKept();
    keptWanted = settings.keptWanted();
    asked = 0;
    saved = new CopyOnWriteArrayList<>();
    lookedNanos = 0;
    originSeconds = Double.NaN;
    Held present = held;
    if (present == null
        || !present.setup().equals(plan.setup())
        || present.ring().capacity() != ringSamples(plan)) {
      held = null;
      free(present);
    }
  }

  private static void free(@Nullable Held ring) {
    if (ring != null) {
      try {
        ring.ring().close();
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
  }

  @Override
  public @Nullable Look step(@Nullable Instrument instrument) {
    IqReceiver receiver = (IqReceiver) instrument;
    IqRecord taken = receiver.streamed(plan.setup());
    if (identity.isEmpty()) {
      identity = receiver.identity();
    }
    hold(taken);
    overloaded |= taken.overload();
    IqRecord block = sinceItBegan(taken);
    long now = System.nanoTime();
    if (now - lookedNanos < LOOK_NANOS && last != null && last.refused().isEmpty()) {
      gathering.take(block, context(plan, List.of()));
      passOn();
      return null;
    }
    lookedNanos = now;
    RecordLook look =
        look(block.copied(), plan, goingOn(gathering), marks(receiver, overloaded), last);
    passOn();
    boolean all = asked >= keptWanted && gathering.settled();
    IqRecord window = gathering.window().orElse(null);
    boolean anew = window == null || last == null || window != last.record();
    if (!anew && look.refused().isEmpty() && last.refused().isEmpty()) {
      return null; // nothing was measured since
    }
    overloaded = false;
    RecordLook longer = window == null ? look : look.of(window, fitting(window, plan));
    last = longer.with(withSaved(look.outcome()), all);
    return last;
  }

  /** What others follow: each look says what all so far show. */
  private static RecordMeasurement.Gathering goingOn(RecordMeasurement.Gathering of) {
    return new RecordMeasurement.Gathering() {
      @Override
      public Outcome add(IqRecord record, MeasurementContext context) {
        return of.more(record, context);
      }

      @Override
      public Optional<Sound> sound() {
        return of.sound();
      }
    };
  }

  @Override
  public void heardBy(Consumer<Sound> listener) {
    ears = listener;
  }

  private void passOn() {
    keep();
    gathering.toHear().ifPresent(ears);
  }

  /** The receiver counts from when it was switched on; what is shown begins at 0 s. */
  private IqRecord sinceItBegan(IqRecord r) {
    originSeconds = Double.isNaN(originSeconds) ? r.startSeconds() : originSeconds;
    return r.since(originSeconds);
  }

  private void hold(IqRecord block) {
    Held present = held;
    if (present == null) {
      present = new Held(rings.ring(ringSamples(plan)), plan.setup(), block, Instant.now());
    }
    try {
      present.ring().append(block.iq(), present.number(block.startSeconds()), block.overload());
    } catch (IOException e) {
      throw new Refusal("seconds", "The ring cannot be written: " + e.getMessage(), e);
    }
    held = present.after(like(block));
  }

  private static IqRecord withOverload(IqRecord r, boolean overload) {
    return new IqRecord(
        r.iq(), r.sampleRateHz(), r.centreHz(), r.fullScaleDbm(), overload, r.startSeconds());
  }

  /** A record without samples that says what they are. */
  private static IqRecord like(IqRecord r) {
    return new IqRecord(
        new float[0],
        r.sampleRateHz(),
        r.centreHz(),
        r.fullScaleDbm(),
        r.overload(),
        r.endSeconds());
  }

  /** What the measurement found becomes recordings, beside what goes on. */
  private void keep() {
    for (RecordMeasurement.Kept k : gathering.toKeep()) {
      asked++;
      if (asked > mostKept) {
        continue;
      }
      Held now = held;
      List<Saved> into = saved;
      double origin = originSeconds;
      long from = now.number(origin + k.fromSeconds());
      long to = now.number(origin + k.toSeconds());
      SampleRing.Stretch stretch = now.ring().around(now.number(origin + k.atSeconds()), from, to);
      Instant began = now.endedAt().minusNanos((long) (1e9 * now.ago(from)));
      String name = k.name() + " of " + sourceName() + ", " + CLOCK.format(began) + " UTC";
      rings.later(() -> into.add(saved(now, name, stretch, origin)));
    }
  }

  private Saved saved(Held from, String name, SampleRing.@Nullable Stretch stretch, double origin) {
    if (stretch == null) {
      return new Saved(name, Double.NaN, 0, "samples are missing there, or newer ones came");
    }
    double begins = from.seconds(stretch.first()) - origin;
    double lasts = from.seconds(stretch.samples());
    try {
      return new Saved(kept(from, name, stretch).name(), begins, lasts, "");
    } catch (RuntimeException e) {
      return new Saved(name, begins, lasts, e.getMessage());
    }
  }

  private RecordingDto kept(Held from, String name, SampleRing.Stretch stretch) {
    return recordings.keep(
        name,
        "file",
        withOverload(from.newest(), stretch.overload()),
        stretch.samples(),
        from.ring().read(stretch),
        able().accuracy(),
        identity,
        from.endedAt().minusNanos((long) (1e9 * from.ago(stretch.first()))));
  }

  @Override
  public RecordingDto cut(Cut wanted, @Nullable Look look) {
    Held now = held;
    if (now == null) {
      throw Conflict.state("The ring holds nothing yet. Start the measurement first.");
    }
    Double begins = wanted.fromSeconds();
    long samples = Math.max(1, now.number(wanted.seconds()));
    long from = begins == null ? 0 : now.number(originSeconds + begins);
    SampleRing.Stretch found =
        begins == null
            ? now.ring().newest(samples)
            : now.ring().around(from + samples / 2, from, from + samples);
    if (found == null) {
      throw new Refusal(
          "fromSeconds", "The ring does not hold that: samples are missing, or newer ones came.");
    }
    return kept(now, wanted.name(), found);
  }

  private Outcome withSaved(Outcome o) {
    List<Saved> all = saved;
    if (all.isEmpty()) {
      return o;
    }
    List<ResultTable> tables = new ArrayList<>(o.tables());
    tables.add(
        new ResultTable(
            "recordings",
            "Kept as recordings",
            List.of(
                new Column("Recording", ""), new Column("Begins", "s"), new Column("Lasts", "s")),
            all.stream()
                .map(
                    s ->
                        new Row(
                            List.of(
                                Cell.of(
                                    s.trouble().isEmpty()
                                        ? s.name()
                                        : s.name() + ": not kept, " + s.trouble()),
                                Cell.of(s.fromSeconds()),
                                Cell.of(s.seconds())),
                            Verdict.NONE))
                .toList()));
    return new Outcome(
        o.kind(), o.title(), o.summary(), o.series(), tables, o.readings(), o.marks(), o.spoiled());
  }

  /** What goes on and on keeps its samples as recordings, as many as one wants. */
  @Override
  protected KeptLook.@Nullable Samples samples(RecordLook look) {
    return plan.measurement().ongoing() ? null : super.samples(look);
  }

  @Override
  public @Nullable Look again(Look look, S before, S settings, JobDto job) {
    return settings.measurement().ongoing() ? null : read(look, before, settings, job);
  }
}
