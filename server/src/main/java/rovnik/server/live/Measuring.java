package rovnik.server.live;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.signal.Sound;
import rovnik.instruments.Instrument;
import rovnik.server.config.Conflict;
import rovnik.server.gate.Flow;
import rovnik.server.jobs.JobDto;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.runs.KeptLook;

/**
 * What a {@link MeasuringSession} measures. The session owns job, phase, hold, gate and publishing;
 * this does the rest. Unless said otherwise methods may be called from any thread.
 *
 * @param <S> settings as sent and stored, an immutable record
 */
public interface Measuring<S> {
  /** Stable key of the kind, such as "spectrum". */
  String kind();

  /** Name of the source as shown. */
  String sourceName();

  Class<S> settingsType();

  /** Settings to begin with. */
  S first();

  /**
   * Settings as they will be used.
   *
   * @throws Refusal or {@link Conflict} if this source cannot do them with this job
   */
  S checked(S wanted, JobDto job);

  /** A job that its path does not fit is refused with a {@link Conflict}. */
  default void fits(JobDto job) {}

  /** What would flow with these settings. */
  default Flow flow(S settings, JobDto job) {
    return Flow.NONE;
  }

  /** What the user must answer before power flows: sentences by their field. */
  default Map<String, String> questions(S settings, JobDto job) {
    return Map.of();
  }

  /** On the instrument's thread: what follows is measured so. */
  void prepare(S settings, JobDto job, boolean afresh);

  /**
   * On the instrument's thread: one turn.
   *
   * @param instrument null for a recording
   * @return what there is to show, or null if there is nothing yet
   */
  @Nullable Look step(@Nullable Instrument instrument);

  /** Who hears what is heard as samples come, on the instrument's thread. */
  default void heardBy(Consumer<Sound> ears) {}

  /** When the next turn makes sense, in terms of {@link System#nanoTime}; 0 for at once. */
  default long dueNanos() {
    return 0;
  }

  /** On the instrument's thread: something more is wanted although one look was enough. */
  default boolean wantsMore() {
    return false;
  }

  /** Work is under way that must not stop when nobody watches. */
  default boolean busy() {
    return false;
  }

  /** Measuring has ended before its time: held or refused. */
  default void cutOff() {}

  /** The instrument failed; if it comes back, measuring goes on. */
  default void lost() {}

  /**
   * Reads a look that stands still in the way that new settings ask for.
   *
   * @return null if it was not acquired for these settings
   */
  default @Nullable Look again(Look look, S before, S settings, JobDto job) {
    return null;
  }

  /** Further facts of the state; an immutable record. */
  Object facts(S settings, JobDto job);

  /** The look as a run keeps it: outcome, attachments, conditions; the session adds the rest. */
  KeptLook.Parts kept(Look look, S settings, JobDto job);

  /**
   * Keeps a stretch of what is looked at as a recording, without a gap.
   *
   * @param look the newest; null if there is none
   */
  default RecordingDto cut(Cut wanted, @Nullable Look look) {
    throw Conflict.state("No samples are held here. Keep a run instead.");
  }

  /**
   * The newest samples, for what else there is to see in them.
   *
   * @param look the newest
   * @param settings that it was taken with
   */
  default Optional<LookSamples> samples(Look look, S settings, JobDto job) {
    return Optional.empty();
  }

  /** How long the samples of a look alone last; NaN where that cannot be told. */
  default double seenSeconds(Look look) {
    return Double.NaN;
  }

  /** Kinds of guided work that it offers. */
  default List<GuidedKind> guidedKinds() {
    return List.of();
  }

  /** On the instrument's thread: a bench for guided work. */
  default Workbench workbench(
      Instrument instrument, S settings, JobDto job, Workbench.Voice voice) {
    throw Conflict.state("There is no guided work here.");
  }

  /** Guided work cannot be done with this source: says why. */
  default void fitsGuided() {}
}
