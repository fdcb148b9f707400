package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import rovnik.core.Refusal;

/**
 * Tones that one HE or EHT user has: a resource unit of 26, 52, 106, 242, 484 or 996 tones, or of
 * several times 996. IEEE 802.11ax-2021, 27.3.2 and 27.3.10, and IEEE 802.11be, 36.3.2; from
 * memory.
 */
final class ResourceUnit {
  /** The smallest one, in which larger ones are counted. */
  static final int SMALLEST = 26;

  /** One for each 20 MHz; what is larger is made of these. */
  static final int OF_20 = 242;

  private static final int OF_40 = 484;
  private static final int OF_80 = 996;

  /** Tones of 80 MHz, from one middle to the next. */
  private static final int STEP_OF_80 = 1024;

  /** Within 242 tones of a wider channel: first tones, and how many. */
  private static final int[] AT_26 = {1, 27, 55, 81, 108, 135, 161, 189, 215};

  private static final int[] AT_52 = {1, 55, 135, 189};
  private static final int[] AT_106 = {1, 135};

  /** There, in those that begin with an even tone: pilots of the smallest, two for each. */
  private static final int[] PILOTS_26 = {
    6, 20, 32, 46, 60, 74, 86, 100, 114, 128, 140, 154, 166, 180, 194, 208, 220, 234
  };

  private static final int[] PILOTS_106 = {6, 32, 74, 100, 140, 166, 208, 234};

  /** The same of 20 MHz: first and last tones below the middle; the others are their mirror. */
  private static final int[][] NARROW_26 = {{-121, -96}, {-95, -70}, {-68, -43}, {-42, -17}};

  private static final int[][] NARROW_52 = {{-121, -70}, {-68, -17}};
  private static final int[][] NARROW_106 = {{-122, -17}};
  private static final int[] NARROW_PILOTS = {22, 36, 48, 62, 76, 90, 102, 116};
  private static final int[] NARROW_PILOTS_106 = {22, 48, 90, 116};

  /** Of 996 tones, from the middle on to both sides. */
  private static final int[] PILOTS_996 = {24, 92, 158, 226, 266, 334, 400, 468};

  /** Around the middle: with nothing on the nearest ones. */
  private static final int[] MIDDLE = {4, 16};

  private static final int MIDDLE_PILOT = 10;

  /** First tones of each 242, by width. */
  private static final int[] STARTS_40 = {-244, 3};

  private static final int[] STARTS_80_HE = {-500, -258, 17, 259};
  private static final int[] STARTS_80_EHT = {-500, -253, 12, 259};

  /** Signs of pilots, by how many there are; moved on by one from pilot to pilot and symbol. */
  private static final int[] SIGNS_OF_2 = {1, -1};

  private static final int[] SIGNS_OF_4 = {1, 1, 1, -1};
  private static final int[] SIGNS_OF_8 = {1, 1, 1, -1, -1, 1, 1, 1};
  private static final int[] SIGNS = {1, 1, 1, -1, -1, 1, 1, 1, 1, 1, 1, -1, -1, 1, 1, 1};

  private static final int[] WIDTHS = {1, 2, 4, 8, 16};
  private static final ResourceUnit[] WHOLE =
      Arrays.stream(WIDTHS).mapToObj(ResourceUnit::made).toArray(ResourceUnit[]::new);

  private final int size;
  private final int[] tones;
  private final int[] data;
  private final int[] pilots;
  private final int[] signs;

  private ResourceUnit(int[] tones, int[] pilots) {
    this.size = tones.length;
    this.tones = tones;
    this.pilots = pilots.clone();
    Arrays.sort(this.pilots);
    this.data = Arrays.stream(tones).filter(k -> !isPilot(k)).toArray();
    this.signs =
        switch (pilots.length) {
          case 2 -> SIGNS_OF_2;
          case 4 -> SIGNS_OF_4;
          case 8 -> SIGNS_OF_8;
          default -> SIGNS;
        };
  }

  /**
   * All of a channel.
   *
   * @param width in 20 MHz: 1, 2, 4, 8 or 16
   */
  static ResourceUnit whole(int width) {
    int i = Arrays.binarySearch(WIDTHS, width);
    if (i < 0) {
      throw new IllegalArgumentException("no tones in " + 20 * width + " MHz");
    }
    return WHOLE[i];
  }

  private static ResourceUnit made(int width) {
    return switch (width) {
      case 1 ->
          new ResourceUnit(
              both(IntStream.rangeClosed(2, 122)), both(IntStream.of(NARROW_PILOTS_106)));
      case 2 -> joined(List.of(within(-244), within(3)));
      default ->
          joined(IntStream.range(0, width / 4).mapToObj(p -> of80(middle(width, p))).toList());
    };
  }

  /** Numbers and their mirrors, rising. */
  private static int[] both(IntStream above) {
    int[] one = above.toArray();
    return Arrays.stream(one).flatMap(k -> IntStream.of(-k, k)).sorted().toArray();
  }

  private static int[] moved(int[] tones, int by) {
    return Arrays.stream(tones).map(k -> k + by).toArray();
  }

  /** Middle of one of the 80 MHz of a wide channel. */
  private static int middle(int width, int part) {
    return STEP_OF_80 * part - STEP_OF_80 * (width / 4 - 1) / 2;
  }

  private static ResourceUnit of80(int middle) {
    return new ResourceUnit(
        moved(both(IntStream.rangeClosed(3, 500)), middle),
        moved(both(IntStream.of(PILOTS_996)), middle));
  }

  /** 242 tones that begin somewhere in a wider channel. */
  private static ResourceUnit within(int start) {
    return new ResourceUnit(
        IntStream.range(start, start + OF_20).toArray(), pilots(start, PILOTS_106));
  }

  /** Pilots are even tones: where the first one is odd they are mirrored. */
  private static int[] pilots(int start, int[] places) {
    boolean odd = (start & 1) == 1;
    return Arrays.stream(places).map(o -> start + (odd ? OF_20 - 1 - o : o)).toArray();
  }

  private static ResourceUnit joined(List<ResourceUnit> of) {
    return new ResourceUnit(
        of.stream().flatMapToInt(u -> Arrays.stream(u.tones)).sorted().toArray(),
        of.stream().flatMapToInt(u -> Arrays.stream(u.pilots)).toArray());
  }

  /**
   * The units of a size in a channel, from the lowest.
   *
   * @param format HE or EHT
   * @param width of the channel, in 20 MHz
   * @param size 26, 52, 106, 242, 484, 996, 1992 or 3984
   */
  static List<ResourceUnit> of(PacketFormat format, int width, int size) {
    List<ResourceUnit> out = new ArrayList<>();
    for (int part = 0; part < width; part++) {
      for (ResourceUnit u : inPart(format, width, part, size)) {
        boolean again = !out.isEmpty() && out.get(out.size() - 1).tones[0] == u.tones[0];
        if (!again) {
          out.add(u);
        }
      }
    }
    for (int p = 0; p < width / 4 && size == SMALLEST && format == PacketFormat.HE; p++) {
      out.add(middle26(width, p));
    }
    out.sort(Comparator.comparingInt(u -> u.tones[0]));
    return out;
  }

  /**
   * Those that lie in one of the channel's 20 MHz, or of which that is a part.
   *
   * @param part from the lowest, the first is 0
   */
  static List<ResourceUnit> inPart(PacketFormat format, int width, int part, int size) {
    return switch (size) {
      case SMALLEST, 52, 106 -> width == 1 ? narrow(size) : small(start(format, width, part), size);
      case OF_20 -> List.of(width == 1 ? whole(1) : within(start(format, width, part)));
      case OF_40 -> width < 2 ? List.of() : List.of(of40(format, width, part / 2 * 2));
      case OF_80 -> width < 4 ? List.of() : List.of(of80(middle(width, part / 4)));
      case 2 * OF_80, 4 * OF_80 -> ofSeveral80(width, part, size / OF_80);
      default ->
          throw new Refusal(
              "tones",
              "A unit has 26, 52, 106, 242, 484, 996, 1992 or 3984 tones, not " + size + ".");
    };
  }

  private static List<ResourceUnit> ofSeveral80(int width, int part, int count) {
    if (width < 4 * count) {
      return List.of();
    }
    int first = part / (4 * count) * count;
    return List.of(
        joined(
            IntStream.range(first, first + count).mapToObj(p -> of80(middle(width, p))).toList()));
  }

  private static ResourceUnit of40(PacketFormat format, int width, int lower) {
    return joined(
        List.of(within(start(format, width, lower)), within(start(format, width, lower + 1))));
  }

  private static int start(PacketFormat format, int width, int part) {
    if (width == 2) {
      return STARTS_40[part];
    }
    int[] starts = format == PacketFormat.HE ? STARTS_80_HE : STARTS_80_EHT;
    return middle(width, part / 4) + starts[part % 4];
  }

  /** The one of 26 tones around the middle of 80 MHz, which HE has. */
  static ResourceUnit middle26(int width, int part) {
    return new ResourceUnit(
        moved(both(IntStream.rangeClosed(MIDDLE[0], MIDDLE[1])), middle(width, part)),
        moved(both(IntStream.of(MIDDLE_PILOT)), middle(width, part)));
  }

  private static List<ResourceUnit> small(int start, int size) {
    int[] at = size == SMALLEST ? AT_26 : size == 52 ? AT_52 : AT_106;
    int[] all = pilots(start, size == 106 ? PILOTS_106 : PILOTS_26);
    List<ResourceUnit> out = new ArrayList<>();
    for (int from : at) {
      out.add(range(start + from, start + from + size - 1, all));
    }
    return out;
  }

  private static ResourceUnit range(int first, int last, int[] pilots) {
    return new ResourceUnit(
        IntStream.rangeClosed(first, last).toArray(),
        Arrays.stream(pilots).filter(k -> k >= first && k <= last).toArray());
  }

  private static List<ResourceUnit> narrow(int size) {
    int[][] below = size == SMALLEST ? NARROW_26 : size == 52 ? NARROW_52 : NARROW_106;
    int[] all = both(IntStream.of(size == 106 ? NARROW_PILOTS_106 : NARROW_PILOTS));
    List<ResourceUnit> out = new ArrayList<>();
    for (int[] r : below) {
      out.add(range(r[0], r[1], all));
      out.add(range(-r[1], -r[0], all));
    }
    if (size == SMALLEST) {
      out.add(
          new ResourceUnit(
              both(IntStream.rangeClosed(MIDDLE[0], MIDDLE[1])), both(IntStream.of(MIDDLE_PILOT))));
    }
    out.sort(Comparator.comparingInt(u -> u.tones[0]));
    return out;
  }

  int size() {
    return size;
  }

  /** How far they reach from the middle, over the width of the channel. */
  double reach(int width) {
    int farthest = Math.max(-tones[0], tones[size - 1]);
    return (farthest + 0.5) / (HePlan.USUAL_TRANSFORM * width);
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

  /** How its coded bits are spread; null where there is no such code. */
  Interleaver interleaver() {
    return switch (size) {
      case SMALLEST -> Interleaver.OF_26;
      case 52 -> Interleaver.OF_52;
      case 106 -> Interleaver.OF_106;
      case OF_20 -> Interleaver.HE;
      default -> null;
    };
  }

  /** Tones with data in each of the first three parts of the last symbol. */
  int dataOfPart() {
    return switch (size) {
      case SMALLEST -> 6;
      case 52 -> 12;
      case 106 -> 24;
      case OF_20 -> 60;
      case OF_40 -> 120;
      case OF_80 -> 240;
      default -> 492 * (size / OF_80) / 2;
    };
  }

  /** "106 tones, -122 to -17". */
  String words() {
    return (size + " tones, " + tones[0] + " to " + tones[size - 1]).replace('-', '\u2212');
  }
}
