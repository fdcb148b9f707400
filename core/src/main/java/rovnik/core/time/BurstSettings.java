package rovnik.core.time;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.result.Fact;

/**
 * What bursts are looked for with.
 *
 * @param centreHz middle of the band, at the reading plane; 0 for the middle of the record
 * @param bandHz that is looked at, 3 dB down at its edges
 * @param seconds length of the result
 * @param startSeconds where in the record it begins
 * @param overNoiseDb how far over the noise of the band a burst rises; NaN for as far as chance
 *     does not
 * @param leastSeconds shorter ones do not count; 0 for none
 * @param pauseSeconds shorter pauses are a part of the burst; 0 for none
 * @param period limits of the time from burst to burst, seconds
 * @param length limits of their length, seconds
 */
public record BurstSettings(
    double centreHz,
    double bandHz,
    double seconds,
    double startSeconds,
    double overNoiseDb,
    double leastSeconds,
    double pauseSeconds,
    Limit period,
    Limit length) {
  private static final double LONGEST_SECONDS = 60;

  public BurstSettings {
    if (!(bandHz >= 10 && bandHz <= 1e10)) {
      throw new Refusal("bandHz", "The band is 10 Hz to 10 GHz wide, such as 500 kHz.");
    }
    if (!(seconds > 0 && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "The result is more than 0 s and at most 60 s long.");
    }
    if (!(startSeconds >= 0)) {
      throw new Refusal("startSeconds", "The result begins at 0 s or later in the record.");
    }
    if (!(centreHz >= 0)) {
      throw new Refusal("centreHz", "Say where the band is, such as 212 MHz.");
    }
    if (!Double.isNaN(overNoiseDb) && !(overNoiseDb >= 3 && overNoiseDb <= 120)) {
      throw new Refusal(
          "overNoiseDb", "A burst rises 3 to 120 dB over the noise; leave it empty to find it.");
    }
    if (!(leastSeconds >= 0 && leastSeconds <= seconds)) {
      throw new Refusal("leastSeconds", "The shortest burst is no longer than the result.");
    }
    if (!(pauseSeconds >= 0 && pauseSeconds <= seconds)) {
      throw new Refusal("pauseSeconds", "The shortest pause is no longer than the result.");
    }
  }

  /** The settings in words, as runs keep and compare them. */
  public List<Fact> words() {
    List<Fact> out = new ArrayList<>();
    out.add(
        centreHz == 0
            ? Fact.of("centre", "middle of the record")
            : Fact.of("centre", centreHz, "Hz"));
    out.add(Fact.of("band", bandHz, "Hz"));
    out.add(Fact.of("result", seconds, "s"));
    if (startSeconds > 0) {
      out.add(Fact.of("begins at", startSeconds, "s"));
    }
    out.add(
        Double.isNaN(overNoiseDb)
            ? Fact.of("threshold", "found from the noise")
            : Fact.of("threshold over noise", overNoiseDb, "dB"));
    if (leastSeconds > 0) {
      out.add(Fact.of("shortest burst", leastSeconds, "s"));
    }
    if (pauseSeconds > 0) {
      out.add(Fact.of("shortest pause", pauseSeconds, "s"));
    }
    return List.copyOf(out);
  }
}
