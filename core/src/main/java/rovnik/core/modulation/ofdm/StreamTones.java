package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Tones of one HT or VHT stream in 20, 40, 80 or 160 MHz (IEEE 802.11-2020, 19.3.6 to 19.3.11 and
 * 21.3.6 to 21.3.10; what is wider than 20 MHz from memory). As they are sent, those of each 20 MHz
 * are turned by a number of quarters.
 *
 * @param width of the channel, in 20 MHz
 * @param all from the lowest to the highest, with the pilots; not to be changed
 * @param data the same without the pilots
 * @param pilots as before
 * @param pattern signs of the pilots, moved on by one from pilot to pilot and symbol to symbol
 * @param training before it is turned: 1 or -1 on each tone
 * @param quarters by which each tone is turned
 * @param interleaver of a symbol
 */
record StreamTones(
    int width,
    int[] all,
    int[] data,
    int[] pilots,
    int[] pattern,
    int[] training,
    int[] quarters,
    Interleaver interleaver) {
  private static final int[] PATTERN_OF_40 = {1, 1, 1, -1, -1, 1};
  private static final int[] PATTERN_OF_80 = {1, 1, 1, -1, -1, 1, 1, 1};
  private static final int[] PILOTS_OF_40 = {-53, -25, -11, 11, 25, 53};
  private static final int[] PILOTS_OF_80 = {-103, -75, -39, -11, 11, 39, 75, 103};

  /** Between the middles of both halves of 160 MHz and its own, tones. */
  private static final int HALF = 128;

  private static final int[] BETWEEN_OF_40 = {-1, -1, -1, 1, 0, 0, 0, -1, 1, 1, -1};
  private static final int[] MIDDLE_OF_80 = {1, -1, 1, -1, 0, 0, 0, 1, -1, -1, 1};
  private static final int[] BETWEEN_OF_80 = {-1, -1, -1, 1, 1, -1, 1, -1, 1, 1, -1};

  private static final StreamTones OF_20 =
      of(
          1,
          LegacyTones.PILOTS,
          new int[] {1, 1, 1, -1},
          IntStream.rangeClosed(-MixedTones.LAST, MixedTones.LAST)
              .map(MixedTones::training)
              .toArray(),
          Interleaver.LATER);

  private static final StreamTones OF_40 =
      of(
          2,
          PILOTS_OF_40,
          PATTERN_OF_40,
          joined(block(), BETWEEN_OF_40, block()),
          new Interleaver(18, 108));

  private static final StreamTones OF_80 =
      of(4, PILOTS_OF_80, PATTERN_OF_80, trainingOf80(), new Interleaver(26, 234));

  private static final StreamTones OF_160 =
      of(
          8,
          joined(moved(PILOTS_OF_80, -HALF), moved(PILOTS_OF_80, HALF)),
          PATTERN_OF_80,
          joined(trainingOf80(), new int[2 * HALF - trainingOf80().length], trainingOf80()),
          new Interleaver(26, 468, 2));

  /**
   * @param width 1, 2, 4 or 8
   */
  static StreamTones of(int width) {
    return switch (width) {
      case 1 -> OF_20;
      case 2 -> OF_40;
      case 4 -> OF_80;
      case 8 -> OF_160;
      default -> throw new IllegalArgumentException("no such width: " + width);
    };
  }

  /**
   * @param training from the lowest tone to the highest, 0 where there is none
   */
  private static StreamTones of(
      int width, int[] pilots, int[] pattern, int[] training, Interleaver interleaver) {
    int last = training.length / 2;
    int[] all = IntStream.rangeClosed(-last, last).filter(k -> training[k + last] != 0).toArray();
    List<Integer> own = new ArrayList<>();
    for (int k : pilots) {
      own.add(k);
    }
    return new StreamTones(
        width,
        all,
        Arrays.stream(all).filter(k -> !own.contains(k)).toArray(),
        pilots,
        pattern,
        Arrays.stream(all).map(k -> training[k + last]).toArray(),
        Arrays.stream(all).map(k -> quartersAt(k, width)).toArray(),
        interleaver);
  }

  /** The long training of clause 17 with something in its middle: it comes again and again. */
  private static int[] block() {
    int[] out = new int[2 * LegacyTones.LAST + 1];
    Arrays.setAll(out, i -> LegacyTones.longTraining(i - LegacyTones.LAST));
    out[LegacyTones.LAST] = 1;
    return out;
  }

  private static int[] trainingOf80() {
    int[] half = joined(block(), BETWEEN_OF_80, block());
    return joined(half, MIDDLE_OF_80, half);
  }

  private static int[] joined(int[]... parts) {
    return Arrays.stream(parts).flatMapToInt(Arrays::stream).toArray();
  }

  private static int[] moved(int[] tones, int by) {
    return Arrays.stream(tones).map(k -> k + by).toArray();
  }

  private static int quartersAt(int tone, int width) {
    int part = Math.floorDiv(tone + LegacyTones.TRANSFORM / 2 * width, LegacyTones.TRANSFORM);
    return PacketMaker.quarters(part, width);
  }

  /**
   * What a pilot is in a symbol with data, before it is turned.
   *
   * @param pilot which of them
   * @param symbol the first is 0
   * @param before symbols of the packet whose pilots change sign before it
   */
  int pilot(int pilot, int symbol, int before) {
    return pattern[(symbol + pilot) % pattern.length] * LegacyTones.sign(symbol + before);
  }
}
