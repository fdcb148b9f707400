package rovnik.core.modulation;

import java.util.List;
import java.util.Optional;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Sound;
import rovnik.core.signal.TracesBeside;
import rovnik.core.spectrum.MeasurementContext;

/** What is measured of one record around one carrier. */
public interface RecordMeasurement {
  /** Stable key of the kind. */
  String kind();

  /** The name as shown. */
  String title();

  /** Band that a record must hold around the expected carrier. */
  double bandHz();

  /** The setting that this band follows from. */
  default String bandField() {
    return "bandHz";
  }

  /** How long a record must be for the length that is set. */
  double secondsWanted();

  /** Samples that a record needs for that. */
  default long samplesWanted(double sampleRateHz) {
    return (long) Math.ceil(secondsWanted() * sampleRateHz);
  }

  /** The settings in words. */
  List<Fact> words();

  /**
   * Measures a record.
   *
   * @throws rovnik.core.Refusal if it is no such signal
   */
  Outcome of(IqRecord record, MeasurementContext context);

  /**
   * A stretch of what was taken that is worth keeping.
   *
   * @param name what it is, such as "trigger 3"
   * @param atSeconds what it is kept for: where samples are missing, this side of them counts
   */
  record Kept(String name, double fromSeconds, double atSeconds, double toSeconds) {}

  /** What several records show together. */
  @FunctionalInterface
  interface Gathering {
    /**
     * Takes one more.
     *
     * @return what all of them show
     */
    Outcome add(IqRecord record, MeasurementContext context);

    /** Takes one that others follow: what all show is not asked for yet. */
    default void take(IqRecord record, MeasurementContext context) {
      add(record, context);
    }

    /** Takes one that others follow, and says what all so far show. */
    default Outcome more(IqRecord record, MeasurementContext context) {
      return add(record, context);
    }

    /** What became complete since this was asked last and is worth keeping by itself. */
    default List<Kept> toKeep() {
      return List.of();
    }

    /**
     * What an oscilloscope took beside the record that is added next; without it, there was none.
     */
    default void beside(TracesBeside traces) {}

    /** True if all that the settings ask for is in it. */
    default boolean settled() {
      return true;
    }

    /** What is heard since this was asked last, where it is heard as samples come. */
    default Optional<Sound> toHear() {
      return Optional.empty();
    }

    /** The newest stretch that all is measured of, where that is more than the last record. */
    default Optional<IqRecord> window() {
      return Optional.empty();
    }

    /** What can be heard of all of them, where there is such. */
    default Optional<Sound> sound() {
      return Optional.empty();
    }
  }

  /** Begins anew; where each record stands by itself there is nothing to gather. */
  default Gathering gathering() {
    return this::of;
  }

  /**
   * Begins anew after other settings.
   *
   * @param before what was gathered with them: what of it still holds goes on
   */
  default Gathering gathering(Gathering before) {
    return gathering();
  }

  /** What an oscilloscope takes at the same time, where that is a part of it. */
  default Optional<TracesBeside.Wanted> beside() {
    return Optional.empty();
  }

  /** True if a record that stands still may be read with other settings. */
  default boolean readsAgain() {
    return beside().isEmpty();
  }

  /** True if it is measured of samples that go on without end and, if possible, without gaps. */
  default boolean ongoing() {
    return false;
  }

  /** True if it is measured of such samples where there are any, and of single records else. */
  default boolean goesOn() {
    return ongoing();
  }

  /** Begins with samples that go on. */
  default Gathering stream() {
    return gathering();
  }

  /**
   * How so long a stretch of a recording is measured from digests of its parts, where that is
   * quicker and as good.
   *
   * @param like a record of it, without samples
   */
  default Optional<Digesting> digesting(IqRecord like, MeasurementContext context, long samples) {
    return Optional.empty();
  }

  /** Longest stretch of a recording that is taken at once; longer ones are gathered. */
  default long blockSamples() {
    return Long.MAX_VALUE;
  }
}
