package rovnik.core.watch;

import java.util.List;
import rovnik.core.Refusal;

/**
 * What a watch follows, and how.
 *
 * @param readings 1 to {@value #MOST_READINGS}, each once
 * @param everySeconds a point of the watch stands for all looks of this time, with the lowest and
 *     the highest of them; 0 for a point of each look
 * @param mostKept so many events are kept with what was seen around them
 * @param aroundSeconds of a receiver that streams, so much before and after an event is kept
 */
public record WatchSettings(
    List<Watched> readings, double everySeconds, int mostKept, double aroundSeconds) {
  public static final int MOST_READINGS = 100;
  public static final double LONGEST_SECONDS = 3600;
  public static final int MOST_KEPT = 1000;
  public static final double LONGEST_AROUND_SECONDS = 60;

  /** In less time a count grows by too little to say how fast. */
  private static final double LEAST_FOR_COUNT_SECONDS = 1;

  public WatchSettings {
    readings = List.copyOf(readings);
    if (readings.isEmpty() || readings.size() > MOST_READINGS) {
      throw new Refusal(
          "readings", "Choose 1 to " + MOST_READINGS + " readings that shall be watched.");
    }
    if (readings.stream().map(Watched::id).distinct().count() < readings.size()) {
      throw new Refusal("readings", "A reading is watched once. Take the second one away.");
    }
    if (!(everySeconds >= 0 && everySeconds <= LONGEST_SECONDS)) {
      throw new Refusal(
          "everySeconds", "A point stands for 0 (each look) to 3,600 s. Change the time.");
    }
    if (everySeconds < LEAST_FOR_COUNT_SECONDS && readings.stream().anyMatch(Watched::perHour)) {
      throw new Refusal(
          "everySeconds", "What is counted an hour needs points of 1 s or more. Take longer ones.");
    }
    if (mostKept < 0 || mostKept > MOST_KEPT) {
      throw new Refusal("mostKept", "0 to 1,000 events are kept with what was seen around them.");
    }
    if (!(aroundSeconds > 0 && aroundSeconds <= LONGEST_AROUND_SECONDS)) {
      throw new Refusal(
          "aroundSeconds", "Before and after an event up to 60 s are kept. Change the time.");
    }
  }
}
