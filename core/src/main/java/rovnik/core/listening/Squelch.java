package rovnik.core.listening;

import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.modulation.analog.ToneSquelch;

/**
 * When a channel is heard.
 *
 * @param by what opens it
 * @param value level in dBm or dBFS, quieting in dB, or the tone in Hz
 */
public record Squelch(By by, double value) {
  public static final Squelch OPEN = new Squelch(By.NONE, 0);

  /** A tone that is typed may be so far off one of the list. */
  private static final double TYPED = 0.05;

  /** What opens a squelch. */
  public enum By {
    NONE("none"),
    LEVEL("level"),
    QUIETING("quieting"),
    TONE("tone");

    private final String label;

    By(String label) {
      this.label = label;
    }

    public String label() {
      return label;
    }
  }

  public Squelch {
    if (by == By.LEVEL && !(Math.abs(value) <= 250)) {
      throw new Refusal("squelch", "The squelch opens at a level of -250 to 250 dBm or dBFS.");
    }
    if (by == By.QUIETING && !(value > 0 && value <= 60)) {
      throw new Refusal(
          "squelch", "The squelch opens where noise is 0 to 60 dB less than without a carrier.");
    }
    if (by == By.TONE && !(Math.abs(ToneSquelch.nearest(value) - value) <= TYPED)) {
      throw new Refusal(
          "squelch",
          String.format(
              Locale.ROOT,
              "%s Hz is no tone of the list; the nearest is %.1f Hz.",
              value,
              ToneSquelch.nearest(value)));
    }
  }

  String words(String levelUnit) {
    return switch (by) {
      case NONE -> "open";
      case LEVEL -> String.format(Locale.ROOT, "above %.1f %s", value, levelUnit);
      case QUIETING -> String.format(Locale.ROOT, "%.1f dB quieting", value);
      case TONE -> String.format(Locale.ROOT, "tone of %.1f Hz", value);
    };
  }
}
