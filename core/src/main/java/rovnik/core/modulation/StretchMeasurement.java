package rovnik.core.modulation;

import java.util.List;
import rovnik.core.result.Fact;

/** What is measured of a stretch of a record, by settings that do not change. */
public abstract class StretchMeasurement implements RecordMeasurement {
  private final String kind;
  private final String title;
  private final double bandHz;
  private final double seconds;
  private final List<Fact> words;

  /**
   * @param bandHz that a record must hold
   * @param seconds that it must last
   * @param words the settings in words
   */
  protected StretchMeasurement(
      String kind, String title, double bandHz, double seconds, List<Fact> words) {
    this.kind = kind;
    this.title = title;
    this.bandHz = bandHz;
    this.seconds = seconds;
    this.words = List.copyOf(words);
  }

  @Override
  public final String kind() {
    return kind;
  }

  @Override
  public final String title() {
    return title;
  }

  @Override
  public final double bandHz() {
    return bandHz;
  }

  @Override
  public final double secondsWanted() {
    return seconds;
  }

  @Override
  public final List<Fact> words() {
    return words;
  }
}
