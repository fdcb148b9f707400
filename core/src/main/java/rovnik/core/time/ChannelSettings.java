package rovnik.core.time;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.result.Fact;

/**
 * Which channels are looked at, and how.
 *
 * @param centreHz middle of the own channel, at the reading plane; 0 for the middle of the record
 * @param spanHz that is looked at, around it; 0 for all that the record holds
 * @param channelHz from one channel to the next
 * @param bandHz in which the power of a channel is taken; 0 for two thirds of that distance
 * @param firstHz middle of channel 1, at the reading plane; 0 to count from the own channel, which
 *     is 0 then
 * @param seconds of one look
 * @param startSeconds where in the record it begins
 * @param overNoiseDb how far over the noise a channel is used; NaN for as far as chance does not
 * @param neighbours limit of what the channels beside the own one have, in dB of it
 */
public record ChannelSettings(
    double centreHz,
    double spanHz,
    double channelHz,
    double bandHz,
    double firstHz,
    double seconds,
    double startSeconds,
    double overNoiseDb,
    Limit neighbours) {
  static final int MOST_CHANNELS = 1000;

  private static final double LONGEST_SECONDS = 60;
  private static final double USUAL_SHARE = 2.0 / 3;

  public ChannelSettings {
    if (!(centreHz >= 0)) {
      throw new Refusal("centreHz", "Say where the own channel is, such as 164.2 MHz.");
    }
    if (!(spanHz == 0 || spanHz >= 1e3 && spanHz <= 1e10)) {
      throw new Refusal("spanHz", "The span is 1 kHz to 10 GHz wide, such as 500 kHz.");
    }
    if (!(channelHz >= 100 && channelHz <= 1e9)) {
      throw new Refusal("channelHz", "Channels are 100 Hz to 1 GHz apart, such as 25 kHz.");
    }
    if (!(bandHz == 0 || bandHz >= channelHz / 20 && bandHz <= channelHz)) {
      throw new Refusal(
          "bandHz",
          "The power of a channel is taken in a twentieth of their distance to all of it; 0 takes"
              + " two thirds.");
    }
    if (!(firstHz >= 0 && firstHz <= 1e12)) {
      throw new Refusal(
          "firstHz", "Channel 1 is at a frequency, such as 164 MHz; 0 counts from the own one.");
    }
    if (!(seconds > 0 && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "A look is more than 0 s and at most 60 s long.");
    }
    if (!(startSeconds >= 0)) {
      throw new Refusal("startSeconds", "The look begins at 0 s or later in the record.");
    }
    if (!Double.isNaN(overNoiseDb) && !(overNoiseDb >= 1 && overNoiseDb <= 120)) {
      throw new Refusal(
          "overNoiseDb", "A channel is 1 to 120 dB over the noise; leave it empty to find it.");
    }
  }

  /** In which the power of a channel is taken. */
  double width() {
    return bandHz > 0 ? bandHz : USUAL_SHARE * channelHz;
  }

  /** The settings in words, as runs keep and compare them. */
  public List<Fact> words() {
    List<Fact> out = new ArrayList<>();
    out.add(
        centreHz == 0
            ? Fact.of("own channel", "middle of the record")
            : Fact.of("own channel", centreHz, "Hz"));
    out.add(spanHz == 0 ? Fact.of("span", "the record's") : Fact.of("span", spanHz, "Hz"));
    out.add(Fact.of("channels apart", channelHz, "Hz"));
    out.add(Fact.of("power in", width(), "Hz"));
    out.add(
        firstHz == 0 ? Fact.of("counted from", "the own") : Fact.of("channel 1", firstHz, "Hz"));
    out.add(Fact.of("look", seconds, "s"));
    if (startSeconds > 0) {
      out.add(Fact.of("begins at", startSeconds, "s"));
    }
    out.add(
        Double.isNaN(overNoiseDb)
            ? Fact.of("used", "over what chance does")
            : Fact.of("used over noise", overNoiseDb, "dB"));
    return List.copyOf(out);
  }
}
