package rovnik.instruments.source;

import java.util.List;
import rovnik.instruments.Control;

/**
 * One of several outputs that play in step: I and Q on their way to the modulator, and a third of
 * its own.
 *
 * @param key "i", "q" or "third"
 * @param label as shown
 * @param gainDb that it is turned down by, 0 or less
 * @param delaySeconds by which it comes later
 * @param offsetVolts that are added
 */
public record BasebandOutput(
    String key, String label, double gainDb, double delaySeconds, double offsetVolts) {
  /** Keys of the outputs, with their labels. */
  public static final List<String[]> KINDS =
      List.of(
          new String[] {"i", "output I"},
          new String[] {"q", "output Q"},
          new String[] {"third", "third output"});

  public static final String GAIN = "gain-of-";
  public static final String DELAY = "delay-of-";
  public static final String OFFSET = "offset-of-";

  List<Control> controls(GeneratorCapabilities can) {
    return List.of(
        Control.number(GAIN + key, label + ", gain", gainDb, "dB", can.lowestOutputGainDb(), 0)
            .further(),
        Control.number(
                DELAY + key, label + ", later by", delaySeconds, "s", 0, can.longestDelaySeconds())
            .further(),
        Control.number(
                OFFSET + key,
                label + ", offset",
                offsetVolts,
                "V",
                -can.widestOffsetVolts(),
                can.widestOffsetVolts())
            .further());
  }
}
