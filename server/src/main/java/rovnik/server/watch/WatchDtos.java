package rovnik.server.watch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.limits.Limit;
import rovnik.core.watch.Followed;
import rovnik.core.watch.WatchSettings;
import rovnik.core.watch.Watched;

/** What is sent of watches. */
public final class WatchDtos {
  private WatchDtos() {}

  /**
   * A number that could be watched.
   *
   * @param value newest, null if it cannot be read now
   * @param lower limit that its measurement judges it by, null for none
   */
  @Schema(name = "WatchCandidate")
  record Candidate(
      String id,
      String label,
      @Nullable Double value,
      String unit,
      String plane,
      @Nullable Double lower,
      @Nullable Double upper) {
    static Candidate of(Followed f) {
      return new Candidate(
          f.id(),
          f.label(),
          orNull(f.value()),
          f.unit(),
          f.plane(),
          orNull(f.limit().lower()),
          orNull(f.limit().upper()));
    }
  }

  /**
   * Something that is measured now.
   *
   * @param title of the measurement
   */
  @Schema(name = "Watchable")
  record Watchable(
      String source,
      String sourceName,
      String measurement,
      String title,
      List<Candidate> readings) {}

  /**
   * A number to watch.
   *
   * @param id as the candidates have it
   * @param perHour it is a count, and what it grows by in an hour is watched
   * @param lower null for no limit on this side
   * @param hysteresis so far inside it is back, in its unit; null for 0
   */
  @Schema(name = "NewWatchReading")
  public record NewReading(
      @Nullable String id,
      @Nullable Boolean perHour,
      @Nullable Double lower,
      @Nullable Double upper,
      @Nullable Double hysteresis) {}

  /**
   * A watch to begin, over a measurement that runs.
   *
   * @param source such as "i3"
   * @param measurement its kind
   * @param everySeconds a point stands for so long, 0 for each look; null for 1
   * @param mostKept so many events are kept with their looks; null for 20
   * @param aroundSeconds of a receiver that streams, so much before and after an event is kept;
   *     null for 1
   */
  @Schema(name = "NewWatch")
  public record New(
      @Nullable String name,
      @Nullable String source,
      @Nullable String measurement,
      @Nullable List<NewReading> readings,
      @Nullable Double everySeconds,
      @Nullable Integer mostKept,
      @Nullable Double aroundSeconds) {}

  /** A number that is watched; null where there is no limit. */
  @Schema(name = "WatchReading")
  record ReadingDto(
      String id,
      String label,
      String unit,
      String plane,
      boolean perHour,
      @Nullable Double lower,
      @Nullable Double upper,
      double hysteresis) {
    static ReadingDto of(Watched w) {
      return new ReadingDto(
          w.id(),
          w.label(),
          w.unit(),
          w.plane(),
          w.perHour(),
          orNull(w.limit().lower()),
          orNull(w.limit().upper()),
          w.hysteresis());
    }

    Watched toCore() {
      return new Watched(
          id, label, unit, plane, perHour, new Limit(orNan(lower), orNan(upper)), hysteresis);
    }
  }

  /** What a watch follows and how. */
  @Schema(name = "WatchPlan")
  record Plan(List<ReadingDto> readings, double everySeconds, int mostKept, double aroundSeconds) {
    static Plan of(WatchSettings s) {
      return new Plan(
          s.readings().stream().map(ReadingDto::of).toList(),
          s.everySeconds(),
          s.mostKept(),
          s.aroundSeconds());
    }

    WatchSettings toCore() {
      return new WatchSettings(
          readings.stream().map(ReadingDto::toCore).toList(),
          everySeconds,
          mostKept,
          aroundSeconds);
    }
  }

  /**
   * A watch.
   *
   * @param title what is measured, in words
   * @param endedMillis null while it goes on
   * @param standing "" if looks come; else why nothing is seen now, or why it ended
   * @param unwritten why what it saw is not on disk yet; "" if it is
   */
  @Schema(name = "Watch")
  record Dto(
      long id,
      long jobId,
      String name,
      String source,
      String sourceName,
      String measurement,
      String title,
      Plan plan,
      long beganMillis,
      @Nullable Long endedMillis,
      String standing,
      String unwritten) {}

  /** What to keep: null or empty for the next number. */
  @Schema(name = "WatchKeep")
  record Keep(@Nullable String name) {}

  static @Nullable Double orNull(double v) {
    return Double.isFinite(v) ? v : null;
  }

  static double orNan(@Nullable Double v) {
    return v == null ? Double.NaN : v;
  }
}
