package rovnik.core.time;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.result.Fact;

/**
 * What hops are looked for with.
 *
 * @param centreHz middle of the span, at the reading plane; 0 for the middle of the record
 * @param spanHz that is looked at; 0 for all that the record holds
 * @param channelHz from one channel to the next
 * @param firstHz middle of channel 1, at the reading plane; 0 for the lowest that is seen
 * @param channels that there are; 0 for as many as reach to the highest that is seen
 * @param seconds of one look
 * @param startSeconds where in the record it begins
 * @param leastSeconds shorter ones do not count
 * @param overNoiseDb how far over the noise of a channel a hop rises; NaN for as far as chance does
 *     not
 * @param dwell limits of how long a hop stays on its channel, seconds
 */
public record HopSettings(
    double centreHz,
    double spanHz,
    double channelHz,
    double firstHz,
    int channels,
    double seconds,
    double startSeconds,
    double leastSeconds,
    double overNoiseDb,
    Limit dwell) {
  private static final double LONGEST_SECONDS = 600;
  static final int MOST_CHANNELS = 1000;

  public HopSettings {
    if (!(centreHz >= 0)) {
      throw new Refusal("centreHz", "Say where the span is, such as 2.441 GHz.");
    }
    if (!(spanHz == 0 || spanHz >= 1e3 && spanHz <= 1e10)) {
      throw new Refusal("spanHz", "The span is 1 kHz to 10 GHz wide, such as 80 MHz.");
    }
    if (!(channelHz >= 100 && channelHz <= 1e9)) {
      throw new Refusal("channelHz", "Channels are 100 Hz to 1 GHz apart, such as 2 MHz.");
    }
    if (!(firstHz >= 0 && firstHz <= 1e12)) {
      throw new Refusal(
          "firstHz", "Channel 1 is at a frequency, such as 2.402 GHz, or 0 to find it.");
    }
    if (!(channels >= 0 && channels <= MOST_CHANNELS)) {
      throw new Refusal(
          "channels", "There are at most " + MOST_CHANNELS + " channels; 0 to find how many.");
    }
    if (!(seconds > 0 && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "A look is more than 0 s and at most 600 s long.");
    }
    if (!(startSeconds >= 0)) {
      throw new Refusal("startSeconds", "The look begins at 0 s or later in the record.");
    }
    if (!(leastSeconds > 0 && leastSeconds <= seconds / 4)) {
      throw new Refusal(
          "leastSeconds",
          "The shortest hop is more than 0 s and at most a quarter of the look, such as 200 us.");
    }
    if (!Double.isNaN(overNoiseDb) && !(overNoiseDb >= 1 && overNoiseDb <= 120)) {
      throw new Refusal(
          "overNoiseDb", "A hop rises 1 to 120 dB over the noise; leave it empty to find it.");
    }
  }

  /** The settings in words, as runs keep and compare them. */
  public List<Fact> words() {
    List<Fact> out = new ArrayList<>();
    out.add(
        centreHz == 0
            ? Fact.of("centre", "middle of the record")
            : Fact.of("centre", centreHz, "Hz"));
    out.add(spanHz == 0 ? Fact.of("span", "the record's") : Fact.of("span", spanHz, "Hz"));
    out.add(Fact.of("channels apart", channelHz, "Hz"));
    out.add(
        firstHz == 0
            ? Fact.of("channel 1", "the lowest seen")
            : Fact.of("channel 1", firstHz, "Hz"));
    if (channels > 0) {
      out.add(Fact.of("channels", channels, ""));
    }
    out.add(Fact.of("look", seconds, "s"));
    if (startSeconds > 0) {
      out.add(Fact.of("begins at", startSeconds, "s"));
    }
    out.add(Fact.of("shortest hop", leastSeconds, "s"));
    out.add(
        Double.isNaN(overNoiseDb)
            ? Fact.of("threshold", "found from the noise")
            : Fact.of("threshold over noise", overNoiseDb, "dB"));
    return List.copyOf(out);
  }
}
