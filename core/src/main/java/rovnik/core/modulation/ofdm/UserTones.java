package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * Tones of one HE or EHT user that has the whole of a channel: IEEE 802.11ax-2021, 27.3.10, and
 * IEEE 802.11be, 36.3.2; from memory. 242 tones in 20 MHz, 484 in 40, and 996 in each 80.
 */
final class UserTones {
  private static final int[] PILOTS_OF_20 = {22, 48, 90, 116};
  private static final int[] PILOTS_OF_40 = {10, 36, 78, 104, 144, 170, 212, 238};
  private static final int[] PILOTS_OF_80 = {24, 92, 158, 226, 266, 334, 400, 468};

  /** Moved on by one from pilot to pilot and from symbol to symbol. */
  private static final int[] SIGNS_OF_20 = {1, 1, 1, -1, -1, 1, 1, 1};

  private static final int[] SIGNS = {1, 1, 1, -1, -1, 1, 1, 1, 1, 1, 1, -1, -1, 1, 1, 1};

  /** Tones of 80 MHz, from one middle to the next. */
  private static final int OF_80 = 1024;

  private static final UserTones[] ALL = {
    new UserTones(1, 2, 122, PILOTS_OF_20, SIGNS_OF_20),
    new UserTones(2, 3, 244, PILOTS_OF_40, SIGNS),
    new UserTones(4, 3, 500, PILOTS_OF_80, SIGNS),
    new UserTones(8, 3, 500, PILOTS_OF_80, SIGNS),
    new UserTones(16, 3, 500, PILOTS_OF_80, SIGNS)
  };

  private final int width;
  private final int[] tones;
  private final int[] data;
  private final int[] pilots;
  private final int[] signs;

  /**
   * @param width of the channel, in 20 MHz
   * @param first nearest tone to the middle of each part
   * @param last farthest
   * @param pilots above the middle, from there on
   */
  private UserTones(int width, int first, int last, int[] pilots, int[] signs) {
    this.width = width;
    this.signs = signs;
    int parts = Math.max(1, width / 4);
    IntStream middles = IntStream.range(0, parts).map(p -> OF_80 * p - OF_80 * (parts - 1) / 2);
    int[] of = middles.toArray();
    this.pilots = placed(of, Arrays.stream(pilots));
    this.tones = placed(of, IntStream.rangeClosed(first, last));
    this.data = Arrays.stream(tones).filter(k -> !isPilot(k)).toArray();
  }

  private static int[] placed(int[] middles, IntStream above) {
    int[] one = above.toArray();
    return Arrays.stream(middles)
        .flatMap(m -> Arrays.stream(one).flatMap(k -> IntStream.of(m - k, m + k)))
        .sorted()
        .toArray();
  }

  /**
   * Of a channel.
   *
   * @param width in 20 MHz: 1, 2, 4, 8 or 16
   */
  static UserTones of(int width) {
    for (UserTones t : ALL) {
      if (t.width == width) {
        return t;
      }
    }
    throw new IllegalArgumentException("no tones in " + 20 * width + " MHz");
  }

  /** Length of the transform at the rate of the channel. */
  int transform() {
    return 256 * width;
  }

  /** How far they reach from the middle, over the width of the channel. */
  double reach() {
    return (tones[tones.length - 1] + 0.5) / transform();
  }

  /** From the lowest to the highest, with the pilots; not to be changed. */
  int[] all() {
    return tones;
  }

  /** The same without the pilots. */
  int[] data() {
    return data;
  }

  boolean isPilot(int tone) {
    return Arrays.binarySearch(pilots, tone) >= 0;
  }

  /**
   * What a pilot is in a symbol with data.
   *
   * @param pilot which of them, from the lowest
   * @param symbol the first is 0
   * @param before symbols of the packet whose pilots change sign before it
   */
  int pilot(int pilot, int symbol, int before) {
    return signs[(symbol + pilot) % signs.length] * LegacyTones.sign(symbol + before);
  }
}
