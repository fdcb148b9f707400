package rovnik.server.live;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.result.Outcome;
import tools.jackson.databind.JsonNode;

/** Opens measurements of one kind; a bean of each kind registers itself by being there. */
public interface LiveKind {
  /** Stable key, such as "spectrum". */
  String kind();

  /** True if this kind can look at the source, such as "i3" or "r7". */
  boolean fits(String source);

  /** What it measures of the source. */
  Measuring<?> open(String source);

  /** Types that its settings, facts and views have: they are described with the interface. */
  default List<Class<?>> described() {
    return List.of();
  }

  /**
   * Measures the samples that a look of another kind was made of.
   *
   * @param settings what shall be other than for all of them
   */
  default Outcome beside(LookSamples of, JsonNode settings) {
    throw new Refusal(
        "beside", "\"" + kind() + "\" is not read from the samples of another measurement.");
  }

  /** The session was made: for what goes on between sessions and the rest of this kind. */
  default void opened(MeasuringSession<?> session) {}
}
