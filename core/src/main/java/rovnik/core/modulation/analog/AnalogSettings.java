package rovnik.core.modulation.analog;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.result.Fact;
import rovnik.core.units.Frequency;

/**
 * What an analog carrier is measured with.
 *
 * @param kind what follows the message
 * @param centreHz where it is, at the reading plane; 0 for the middle of the record
 * @param bandHz channel that is looked at
 * @param seconds length of the result
 * @param startSeconds where in the record it begins
 * @param audio what the demodulated signal passes
 * @param highestAmount most that passes: depth (1 for 100 %), deviation in Hz or radians; NaN for
 *     none
 * @param leastSinadDb least that passes, NaN for none
 */
public record AnalogSettings(
    Kind kind,
    double centreHz,
    double bandHz,
    double seconds,
    double startSeconds,
    AudioFilter audio,
    double highestAmount,
    double leastSinadDb) {
  /** What follows the message. */
  public enum Kind {
    AM("AM", "AM depth", "%", 100),
    FM("FM", "Deviation", "Hz", 1),
    PM("PM", "Phase deviation", "rad", 1);

    private final String label;
    private final String amount;
    private final String unit;
    private final double scale;

    Kind(String label, String amount, String unit, double scale) {
      this.label = label;
      this.amount = amount;
      this.unit = unit;
      this.scale = scale;
    }

    public String label() {
      return label;
    }

    String amount() {
      return amount;
    }

    String unit() {
      return unit;
    }

    /** What the amount is shown in, over what it is kept in. */
    double scale() {
      return scale;
    }
  }

  private static final double LONGEST_SECONDS = 60;

  public AnalogSettings {
    if (!(bandHz >= 10 && bandHz <= 1e10)) {
      throw new Refusal("bandHz", "The channel is 10 Hz to 10 GHz wide, such as 25 kHz.");
    }
    if (!(seconds > 0 && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "The result is more than 0 s and at most 60 s long.");
    }
    if (!(startSeconds >= 0)) {
      throw new Refusal("startSeconds", "The result begins at 0 s or later in the record.");
    }
    if (!(centreHz >= 0)) {
      throw new Refusal("centreHz", "Say where the carrier is, such as 164.2 MHz.");
    }
    if (audio.highHz() > bandHz / 2 || audio.lowHz() >= bandHz / 2) {
      throw new Refusal(
          "audioHighHz",
          "A channel of "
              + Frequency.ofHertz(bandHz)
              + " holds audio up to "
              + Frequency.ofHertz(bandHz / 2)
              + " at most.");
    }
  }

  /** The settings in words, as runs keep and compare them. */
  public List<Fact> words() {
    List<Fact> out = new ArrayList<>();
    out.add(Fact.of("modulation", kind.label()));
    out.add(
        centreHz == 0
            ? Fact.of("centre", "middle of the record")
            : Fact.of("centre", centreHz, "Hz"));
    out.add(Fact.of("channel", bandHz, "Hz"));
    out.add(Fact.of("result", seconds, "s"));
    if (startSeconds > 0) {
      out.add(Fact.of("begins at", startSeconds, "s"));
    }
    out.add(Fact.of("audio filter", audio.words()));
    if (!Double.isNaN(highestAmount)) {
      out.add(
          Fact.of(
              kind.amount().toLowerCase(java.util.Locale.ROOT) + " at most",
              kind.scale() * highestAmount,
              kind.unit()));
    }
    if (!Double.isNaN(leastSinadDb)) {
      out.add(Fact.of("SINAD at least", leastSinadDb, "dB"));
    }
    return List.copyOf(out);
  }
}
