package rovnik.core.places;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.result.Fact;
import rovnik.core.time.BurstSettings;

/**
 * Where a probe is held, and what is looked at there.
 *
 * @param centreHz middle of the band, at the reading plane
 * @param bandHz that is looked at, 3 dB down at its edges
 * @param seconds length of a look
 * @param place name of where the probe is
 * @param acrossMetres from the left edge of the board
 * @param upMetres from its lower edge
 * @param state of the board, such as "before" and "with shield": places are compared from one to
 *     the other
 * @param map places of one map are compared; another number begins an empty one
 */
public record PlaceSettings(
    double centreHz,
    double bandHz,
    double seconds,
    String place,
    double acrossMetres,
    double upMetres,
    String state,
    int map) {
  private static final int LONGEST_NAME = 60;
  private static final double LARGEST_METRES = 2;

  public PlaceSettings {
    place = place.strip();
    state = state.strip();
    if (place.isEmpty() || place.length() > LONGEST_NAME) {
      throw new Refusal("place", "Name the place of the probe, in at most 60 characters.");
    }
    if (state.isEmpty() || state.length() > LONGEST_NAME) {
      throw new Refusal("state", "Name the state of the board, such as \"before\".");
    }
    if (!(acrossMetres >= 0 && acrossMetres <= LARGEST_METRES)) {
      throw new Refusal("acrossMetres", "A board is at most 2 m wide; count from its left edge.");
    }
    if (!(upMetres >= 0 && upMetres <= LARGEST_METRES)) {
      throw new Refusal("upMetres", "A board is at most 2 m high; count from its lower edge.");
    }
    if (!(centreHz > 0)) {
      throw new Refusal("centreHz", "Say what is looked at, such as 212 MHz.");
    }
  }

  /** How it is looked for what comes and goes in the band. */
  BurstSettings bursts() {
    return new BurstSettings(
        centreHz, bandHz, seconds, 0, Double.NaN, 0, 0, Limit.NONE, Limit.NONE);
  }

  /** True if what was found with others belongs on the same map. */
  boolean sameMap(PlaceSettings o) {
    return map == o.map && centreHz == o.centreHz && bandHz == o.bandHz;
  }

  /** The settings in words, as runs keep and compare them. */
  List<Fact> words() {
    return List.of(
        Fact.of("centre", centreHz, "Hz"),
        Fact.of("band", bandHz, "Hz"),
        Fact.of("look", seconds, "s"),
        Fact.of("place", place),
        Fact.of("across", acrossMetres, "m"),
        Fact.of("up", upMetres, "m"),
        Fact.of("state", state));
  }
}
