package rovnik.instruments;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.result.Fact;

/** What every connected instrument can do. All calls may raise an {@link InstrumentFault}. */
public interface Instrument extends AutoCloseable {
  /** Its answer to *IDN?. */
  String identity();

  /** Back to its own default state (*RST). */
  void reset();

  /** Empties its error queue and returns what was in it. */
  List<String> errors();

  /** What the Bench can switch, with its present state; asks the instrument. */
  default List<Control> controls() {
    return List.of();
  }

  /**
   * Switches a control.
   *
   * @throws rovnik.core.Refusal if there is no such control, or it cannot be that
   */
  default void set(String control, String value) {
    throw new Refusal("control", "There is nothing called \"" + control + "\" to switch here.");
  }

  /** What else is worth knowing at the Bench, and does not change by itself. */
  default List<Fact> facts() {
    return List.of();
  }

  /** What the user should know of its present state, each with what can be done about it. */
  default List<Hint> hints() {
    return List.of();
  }

  /** Its state in a few words, as kept with a run; "" if it has none. */
  default String condition() {
    return "";
  }

  /** Ends the connection; any thread may, and a call that waits for an answer ends with a fault. */
  @Override
  void close();
}
