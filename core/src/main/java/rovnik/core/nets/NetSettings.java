package rovnik.core.nets;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.result.Fact;
import rovnik.core.time.BurstSettings;

/**
 * What bursts and nets are compared with.
 *
 * @param centreHz middle of the band of the bursts, at the reading plane
 * @param bandHz of the bursts, 3 dB down at its edges
 * @param seconds length of a look
 * @param nets name of the net at each channel of the oscilloscope, "" for a channel without one
 * @param coincidentSeconds what comes within this time of a burst's beginning may be its cause
 * @param togetherSeconds lags of one net may differ by this much to each side
 * @param restSeconds edges that follow one another faster are one activity
 * @param laterSeconds how much later signals reach the oscilloscope than the receiver, by cables
 * @param ranking nets of one ranking are compared; another number begins an empty one
 */
public record NetSettings(
    double centreHz,
    double bandHz,
    double seconds,
    List<String> nets,
    double coincidentSeconds,
    double togetherSeconds,
    double restSeconds,
    double laterSeconds,
    int ranking) {
  private static final int LONGEST_NAME = 80;
  private static final double LONGEST_SECONDS = 10;

  public NetSettings {
    nets = nets.stream().map(String::strip).toList();
    if (!(centreHz > 0)) {
      throw new Refusal("centreHz", "Say where the bursts are, such as 212 MHz.");
    }
    if (!(seconds > 0 && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "A look is more than 0 s and at most 10 s long.");
    }
    List<String> named = nets.stream().filter(n -> !n.isEmpty()).toList();
    if (named.isEmpty()) {
      throw new Refusal("net1", "Name the net that channel 1 touches, such as \"flash write\".");
    }
    for (String n : named) {
      if (n.length() > LONGEST_NAME) {
        throw new Refusal("net1", "A net's name has at most 80 characters.");
      }
    }
    if (named.stream().distinct().count() < named.size()) {
      throw new Refusal("net2", "Both channels touch the same net. Give them different names.");
    }
    if (!(togetherSeconds >= 1e-9 && togetherSeconds <= seconds / 8)) {
      throw new Refusal(
          "togetherSeconds", "Lags differ by 1 ns to an eighth of a look, such as 1 us.");
    }
    if (!(coincidentSeconds >= togetherSeconds && coincidentSeconds <= seconds / 4)) {
      throw new Refusal(
          "coincidentSeconds",
          "Coincident is what comes within at least the time that lags may differ by, and at most a"
              + " quarter of a look.");
    }
    if (!(restSeconds >= 0 && restSeconds <= seconds / 4)) {
      throw new Refusal("restSeconds", "A rest is at most a quarter of a look long.");
    }
    if (!(Math.abs(laterSeconds) <= 1e-3)) {
      throw new Refusal("laterSeconds", "Cables make a difference of at most 1 ms.");
    }
  }

  /** How the bursts themselves are found. */
  BurstSettings bursts() {
    return new BurstSettings(
        centreHz, bandHz, seconds, 0, Double.NaN, 0, 0, Limit.NONE, Limit.NONE);
  }

  /** True if what was found with others can be ranked together with what these find. */
  boolean rankedWith(NetSettings o) {
    return ranking == o.ranking
        && centreHz == o.centreHz
        && bandHz == o.bandHz
        && restSeconds == o.restSeconds
        && laterSeconds == o.laterSeconds;
  }

  /** The settings in words, as runs keep and compare them. */
  List<Fact> words() {
    List<Fact> out = new ArrayList<>();
    out.add(Fact.of("centre", centreHz, "Hz"));
    out.add(Fact.of("band", bandHz, "Hz"));
    out.add(Fact.of("look", seconds, "s"));
    for (int i = 0; i < nets.size(); i++) {
      out.add(Fact.of("channel " + (i + 1), nets.get(i).isEmpty() ? "-" : nets.get(i)));
    }
    out.add(Fact.of("coincident within", coincidentSeconds, "s"));
    out.add(Fact.of("lags alike within", togetherSeconds, "s"));
    out.add(Fact.of("rest", restSeconds, "s"));
    if (laterSeconds != 0) {
      out.add(Fact.of("reaches the oscilloscope later by", laterSeconds, "s"));
    }
    return List.copyOf(out);
  }
}
