package rovnik.core.listening;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.modulation.analog.AudioFilter;
import rovnik.core.result.Fact;
import rovnik.core.units.Frequency;

/**
 * How a channel is heard.
 *
 * @param mode how it is demodulated
 * @param centreHz carrier, with one side band the one that is suppressed, at the reading plane; 0
 *     for the middle of the record
 * @param bandHz channel; with one side band how far that reaches
 * @param seconds length of the result
 * @param startSeconds where in the record it begins
 * @param audio what the sound passes
 * @param squelch when it is heard
 */
public record ListenSettings(
    Mode mode,
    double centreHz,
    double bandHz,
    double seconds,
    double startSeconds,
    AudioFilter audio,
    Squelch squelch) {
  public static final double LONGEST_SECONDS = 300;

  /** Nobody hears more. */
  static final double HIGHEST_HZ = 20e3;

  /** Filters that are slower ring for seconds. */
  private static final double LOWEST_HZ = 10;

  private static final double LOWEST_END_HZ = 100;
  private static final double SHORTEST_SECONDS = 5e-3;

  public ListenSettings {
    if (!(bandHz >= 100 && bandHz <= 1e6)) {
      throw new Refusal("bandHz", "The channel is 100 Hz to 1 MHz wide, such as 12.5 kHz.");
    }
    if (!(seconds >= SHORTEST_SECONDS && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "The result is 5 ms to 300 s long.");
    }
    if (!(startSeconds >= 0)) {
      throw new Refusal("startSeconds", "The result begins at 0 s or later in the record.");
    }
    if (!(centreHz >= 0)) {
      throw new Refusal("centreHz", "Say where the carrier is, such as 164.2 MHz.");
    }
    double most = mode.oneSideBand() ? bandHz : bandHz / 2;
    if (audio.highHz() > most || audio.lowHz() >= most) {
      throw new Refusal(
          "audioHighHz",
          "A channel of "
              + Frequency.ofHertz(bandHz)
              + " holds sound up to "
              + Frequency.ofHertz(most)
              + " at most.");
    }
    if (audio.lowHz() > 0 && audio.lowHz() < LOWEST_HZ) {
      throw new Refusal("audioLowHz", "The sound begins at 0 (all), or at 10 Hz or more.");
    }
    if (audio.highHz() > 0 && audio.highHz() < LOWEST_END_HZ) {
      throw new Refusal("audioHighHz", "The sound ends at 0 (all), or at 100 Hz or more.");
    }
    boolean ofFm = squelch.by() == Squelch.By.QUIETING || squelch.by() == Squelch.By.TONE;
    if (ofFm && mode != Mode.FM) {
      throw new Refusal(
          "squelchBy", "Quieting and tones open the squelch of FM. Take a level, or none.");
    }
  }

  /** Highest frequency that is heard. */
  double highestHz() {
    double most = Math.min(HIGHEST_HZ, mode.oneSideBand() ? bandHz : bandHz / 2);
    return audio.highHz() > 0 ? Math.min(1.2 * audio.highHz(), most) : most;
  }

  /** The settings in words, as runs keep and compare them. */
  public List<Fact> words() {
    List<Fact> out = new ArrayList<>();
    out.add(Fact.of("heard as", mode.label()));
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
    out.add(Fact.of("squelch", squelch.words("dBm or dBFS")));
    return List.copyOf(out);
  }
}
