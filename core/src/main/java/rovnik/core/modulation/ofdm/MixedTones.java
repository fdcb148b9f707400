package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import rovnik.core.Refusal;

/**
 * Tones of symbols in 20 MHz with two more on each side than those of clause 17 have, and codings
 * of one stream: IEEE 802.11-2020 clauses 19 (HT) and 21 (VHT).
 */
final class MixedTones {
  /** Farthest tone. */
  static final int LAST = 28;

  /** Tones with data. */
  static final int DATA = 52;

  /** Outermost values of the training, from -28 on, then from 27 on (equation 19-23). */
  private static final int[] OUTER = {1, 1, -1, -1};

  /** The same in SIGNAL and its repetition where that is repeated (clause 27). From memory. */
  private static final int[] OUTER_OF_SIGNAL = {-1, -1, -1, 1};

  private static final int[] ALL = tones(true);
  private static final int[] DATA_TONES = tones(false);

  private MixedTones() {}

  private static int[] tones(boolean pilots) {
    int[] out = new int[2 * LAST];
    int count = 0;
    for (int k = -LAST; k <= LAST; k++) {
      if (k != 0 && (pilots || !LegacyTones.isPilot(k))) {
        out[count++] = k;
      }
    }
    return Arrays.copyOf(out, count);
  }

  /** From the lowest to the highest, with the pilots; not to be changed. */
  static int[] all() {
    return ALL;
  }

  /** The same without the pilots. */
  static int[] data() {
    return DATA_TONES;
  }

  /** A tone of the training before the data: 1, -1 or 0. */
  static int training(int tone) {
    return Math.abs(tone) <= LegacyTones.LAST ? LegacyTones.longTraining(tone) : outer(tone, OUTER);
  }

  /** An outermost tone of a SIGNAL that is repeated: 1, -1 or 0. */
  static int ofSignal(int tone) {
    return Math.abs(tone) <= LegacyTones.LAST ? 0 : outer(tone, OUTER_OF_SIGNAL);
  }

  private static int outer(int tone, int[] values) {
    return values[tone < 0 ? tone + LAST : tone - LAST + 3];
  }

  /**
   * Codings there are for one stream: the first ones of {@link HeCodings}. In 20 MHz the last of
   * VHT would not fill a symbol with whole bits.
   */
  static int codings(boolean vht, int width) {
    return vht ? width == 1 ? 9 : 10 : 8;
  }

  static Coding coding(boolean vht, int width, int mcs) {
    int count = codings(vht, width);
    if (mcs < 0 || mcs >= count) {
      throw new Refusal(
          "mcs",
          vht
              ? "One VHT stream in " + 20 * width + " MHz has MCS 0 to " + (count - 1) + "."
              : "One HT stream has MCS 0 to 7; others are several streams.");
    }
    return HeCodings.coding(mcs);
  }
}
