package rovnik.core.modulation.analysis;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.modulation.SingleCarrier;

/**
 * A linear filter of the receiver that takes echoes, ripple and group delay off before symbols are
 * read: weights half a symbol apart.
 *
 * @param mode what is done
 * @param reach symbols to each side
 * @param taps of one that is held, each real and imaginary, the earliest first; empty of the others
 */
public record Equalizer(Mode mode, int reach, List<List<Double>> taps) {
  /** Whether there is one, and where its weights come from. */
  public enum Mode {
    OFF("off"),
    TRAINED("trained"),
    HELD("held");

    private final String label;

    Mode(String label) {
      this.label = label;
    }

    public String label() {
      return label;
    }
  }

  public static final int MOST_REACH = 16;
  public static final int USUAL_REACH = 5;
  public static final Equalizer OFF = new Equalizer(Mode.OFF, USUAL_REACH, List.of());

  public Equalizer {
    taps = taps == null ? List.of() : List.copyOf(taps);
    if (reach < 1 || reach > MOST_REACH) {
      throw new Refusal(
          "equalizerReach", "The equalizer reaches 1 to " + MOST_REACH + " symbols to each side.");
    }
    if (mode == Mode.HELD) {
      if (taps.size() < 5 || taps.size() % 4 != 1 || taps.size() > 4 * MOST_REACH + 1) {
        throw new Refusal(
            "equalizerTaps",
            "An equalizer that is held needs its weights, four for each symbol it reaches and one in"
                + " the middle. Train it first, then hold it.");
      }
      for (List<Double> t : taps) {
        if (t.size() != 2 || !Double.isFinite(t.get(0)) || !Double.isFinite(t.get(1))) {
          throw new Refusal("equalizerTaps", "Each weight is two numbers, real and imaginary.");
        }
      }
    }
  }

  boolean off() {
    return mode == Mode.OFF;
  }

  void fits(SingleCarrier carrier) {
    if (!off() && !carrier.format().plainPoints()) {
      throw new Refusal(
          "equalizer",
          "There is no equalizer for " + carrier.format().label() + " here. Switch it off.");
    }
  }

  /** "trained, 5 symbols to each side". */
  String words() {
    int reaches = mode == Mode.HELD ? taps.size() / 4 : reach;
    return off() ? mode.label() : mode.label() + ", " + reaches + " symbols to each side";
  }
}
