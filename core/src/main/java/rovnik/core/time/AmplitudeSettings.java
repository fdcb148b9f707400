package rovnik.core.time;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.result.Fact;
import rovnik.core.signal.Window;

/**
 * What amplitude, frequency and phase over time, and the spectrum at an instant, are made with.
 *
 * @param centreHz middle of the band, at the reading plane; 0 for the middle of the record
 * @param bandHz that is looked at, 6 dB down at its edges; 0 for all that the record holds
 * @param seconds length of the result
 * @param startSeconds where in the record it begins
 * @param instantSeconds of the spectrum, in the record; NaN for where the level is highest
 * @param stretchSeconds that the spectrum is made of; 0 for as long as the level stays there
 * @param window of the spectrum
 */
public record AmplitudeSettings(
    double centreHz,
    double bandHz,
    double seconds,
    double startSeconds,
    double instantSeconds,
    double stretchSeconds,
    Window window) {
  private static final double LONGEST_SECONDS = 60;

  public AmplitudeSettings {
    if (!(centreHz >= 0)) {
      throw new Refusal("centreHz", "Say where the band is, such as 212 MHz.");
    }
    if (!(bandHz == 0 || bandHz >= 10 && bandHz <= 1e10)) {
      throw new Refusal("bandHz", "The band is 10 Hz to 10 GHz wide, such as 500 kHz.");
    }
    if (!(seconds > 0 && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "The result is more than 0 s and at most 60 s long.");
    }
    if (!(startSeconds >= 0)) {
      throw new Refusal("startSeconds", "The result begins at 0 s or later in the record.");
    }
    if (Double.isInfinite(instantSeconds) || instantSeconds < 0) {
      throw new Refusal("instantSeconds", "The instant is a time in the record.");
    }
    if (!(stretchSeconds >= 0 && stretchSeconds <= seconds)) {
      throw new Refusal("stretchSeconds", "The spectrum is made of no more than the result.");
    }
  }

  /** The settings in words, as runs keep and compare them. */
  public List<Fact> words() {
    List<Fact> out = new ArrayList<>();
    out.add(
        centreHz == 0
            ? Fact.of("centre", "middle of the record")
            : Fact.of("centre", centreHz, "Hz"));
    out.add(bandHz == 0 ? Fact.of("band", "the record's") : Fact.of("band", bandHz, "Hz"));
    out.add(Fact.of("result", seconds, "s"));
    if (startSeconds > 0) {
      out.add(Fact.of("begins at", startSeconds, "s"));
    }
    out.add(
        Double.isNaN(instantSeconds)
            ? Fact.of("instant", "of the highest level")
            : Fact.of("instant", instantSeconds, "s"));
    out.add(
        stretchSeconds == 0
            ? Fact.of("stretch", "as long as the level stays")
            : Fact.of("stretch", stretchSeconds, "s"));
    out.add(Fact.of("window", window.label()));
    return List.copyOf(out);
  }
}
