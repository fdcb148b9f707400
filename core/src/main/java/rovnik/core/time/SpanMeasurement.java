package rovnik.core.time;

import java.util.List;
import rovnik.core.modulation.StretchMeasurement;
import rovnik.core.result.Fact;

/** What is measured of a stretch of a record over a span of frequencies. */
abstract class SpanMeasurement extends StretchMeasurement {
  /**
   * @param spanHz that is looked at; 0 for all that a record holds
   * @param usualHz that a record then holds, where one is taken for it
   */
  SpanMeasurement(
      String kind, String title, double spanHz, double usualHz, double seconds, List<Fact> words) {
    super(kind, title, spanHz == 0 ? usualHz : spanHz, seconds, words);
  }

  @Override
  public final String bandField() {
    return "spanHz";
  }
}
