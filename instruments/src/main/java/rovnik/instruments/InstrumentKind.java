package rovnik.instruments;

import java.util.Arrays;
import java.util.Locale;
import rovnik.core.Refusal;

/** The kinds of instrument that Rovnik drives. */
public enum InstrumentKind {
  IQ_RECEIVER("IQ receiver"),
  SWEPT_ANALYZER("Swept analyzer"),
  NETWORK_ANALYZER("Network analyzer"),
  SIGNAL_SOURCE("Signal source"),
  SIGNAL_GENERATOR("Vector generator"),
  FUNCTION_SOURCE("Function source"),
  OSCILLOSCOPE("Oscilloscope"),
  STEP_ATTENUATOR("Switched pad"),
  NOISE_SOURCE("Noise source"),
  PART_HOLDER("Plugged part"),
  TESTED_RECEIVER("Receiver under test");

  private final String label;

  InstrumentKind(String label) {
    this.label = label;
  }

  public String label() {
    return label;
  }

  /** Reads "iq-receiver" or "IQ_RECEIVER". */
  public static InstrumentKind parse(String text) {
    try {
      return valueOf(text.toUpperCase(Locale.ROOT).replace('-', '_'));
    } catch (IllegalArgumentException | NullPointerException e) {
      throw new Refusal(
          "kind",
          "There is no kind \""
              + text
              + "\"; use one of "
              + String.join(
                  ", ",
                  Arrays.stream(values())
                      .map(k -> k.name().toLowerCase(Locale.ROOT).replace('_', '-'))
                      .toList())
              + ".");
    }
  }
}
