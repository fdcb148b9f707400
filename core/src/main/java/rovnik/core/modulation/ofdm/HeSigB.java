package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;

/**
 * HE-SIG-B (IEEE 802.11ax-2021, 27.3.11.8; from memory): which units a channel is divided into, and
 * whose they are. In channels wider than 20 MHz one half of it is sent in every first, the other in
 * every second 20 MHz.
 *
 * @param wrong why it cannot be believed, "" if it can
 * @param parts bit by bit
 * @param users of those units that carry data
 */
record HeSigB(String wrong, List<HeaderBits.Part> parts, List<SharedUser> users) {
  static final int UNIT_BITS = 8;
  static final int USER_BITS = 21;
  static final int CHECK_BITS = 4;

  /** Behind each block: its check and its tail. */
  static final int ENDING = CHECK_BITS + ConvolutionalCode.TAIL_BITS;

  static final int USERS_OF_BLOCK = 2;

  /** Station of a unit that is left empty. */
  private static final int NOBODY = 2046;

  private static final String SHORT = "HE-SIG-B is too short for what it names";
  private static final String WRONG = "the check of HE-SIG-B does not fit";

  /** How many parts it has. */
  static int halves(int width) {
    return Math.min(2, width);
  }

  /** Which 20 MHz a half is about. */
  static int[] partsOf(int width, int half) {
    int[] out = new int[Math.max(1, width / 2)];
    Arrays.setAll(out, i -> half + 2 * i);
    return out;
  }

  /** True if it says whether the 26 tones in the middle of 80 MHz are in use. */
  static boolean hasMiddle(int width) {
    return width >= 4;
  }

  /**
   * A unit within 20 MHz.
   *
   * @param size its tones; it may be part of one that is wider
   * @param index among those of its size
   * @param users that are named for it here
   */
  record Placed(int size, int index, int users) {}

  /** Units by the number that stands for them; null for none that is known. */
  static List<Placed> unitsOf(int number) {
    List<Placed> out = new ArrayList<>();
    int low = number & 7;
    if (number < 16) {
      pair(out, 0, (number & 8) != 0);
      pair(out, 1, (number & 4) != 0);
      out.add(new Placed(26, 4, 1));
      pair(out, 2, (number & 2) != 0);
      pair(out, 3, (number & 1) != 0);
    } else if (number < 32) {
      boolean lower = number >= 24;
      out.add(lower ? new Placed(106, 0, low + 1) : new Placed(52, 0, 1));
      out.add(lower ? new Placed(52, 2, 1) : new Placed(52, 1, 1));
      out.add(lower ? new Placed(52, 3, 1) : new Placed(106, 1, low + 1));
    } else if (number < 96) {
      boolean lower = number >= 64;
      int pairs = number >> 3 & 3;
      if (lower) {
        out.add(new Placed(106, 0, low + 1));
      } else {
        pair(out, 0, (pairs & 2) != 0);
        pair(out, 1, (pairs & 1) != 0);
      }
      out.add(new Placed(26, 4, 1));
      if (lower) {
        pair(out, 2, (pairs & 2) != 0);
        pair(out, 3, (pairs & 1) != 0);
      } else {
        out.add(new Placed(106, 1, low + 1));
      }
    } else if (number < 112) {
      out.add(new Placed(106, 0, (number >> 2 & 3) + 1));
      out.add(new Placed(106, 1, (number & 3) + 1));
    } else if (number == 112) {
      for (int i = 0; i < 4; i++) {
        out.add(new Placed(52, i, 1));
      }
    } else if (number == 113) {
      out.add(new Placed(242, 0, 0));
    } else if (number == 114 || number == 115) {
      out.add(new Placed(number == 114 ? 484 : 996, 0, 0));
    } else if (number >= 128 && number < 192) {
      out.add(new Placed(106, 0, (number >> 3 & 7) + 1));
      out.add(new Placed(26, 4, 1));
      out.add(new Placed(106, 1, low + 1));
    } else if (number >= 192 && number < 216) {
      int[] sizes = {242, 484, 996};
      out.add(new Placed(sizes[number - 192 >> 3], 0, low + 1));
    } else {
      return null;
    }
    return out;
  }

  private static void pair(List<Placed> out, int pair, boolean joined) {
    if (joined) {
      out.add(new Placed(52, pair, 1));
      return;
    }
    int first = 2 * pair + (pair > 1 ? 1 : 0);
    out.add(new Placed(26, first, 1));
    out.add(new Placed(26, first + 1, 1));
  }

  /**
   * What its bits say.
   *
   * @param width of the channel, in 20 MHz
   * @param halves bits of each half, with what fills the last symbol
   */
  static HeSigB of(int width, List<byte[]> halves) {
    List<HeaderBits.Part> parts = new ArrayList<>();
    List<SharedUser> users = new ArrayList<>();
    String wrong = "";
    for (int half = 0; half < halves.size() && wrong.isEmpty(); half++) {
      String name = halves.size() == 1 ? "HE-SIG-B" : "HE-SIG-B " + (half + 1);
      wrong = new Half(width, half, new HeaderBits(name, halves.get(half)), parts, users).read();
    }
    return new HeSigB(wrong, List.copyOf(parts), List.copyOf(users));
  }

  /** One half of it, as it is read from its first bit on. */
  private record Half(
      int width, int half, HeaderBits bits, List<HeaderBits.Part> parts, List<SharedUser> users) {

    String read() {
      int[] of = partsOf(width, half);
      int length = UNIT_BITS * of.length + (hasMiddle(width) ? 1 : 0);
      if (bits.bits().length < length + ENDING) {
        return SHORT;
      }
      List<Place> places = new ArrayList<>();
      for (int i = 0; i < of.length; i++) {
        List<Placed> placed = unitsOf(bits.number(UNIT_BITS * i, UNIT_BITS));
        if (placed == null) {
          return fits(0, length) ? "HE-SIG-B names units that are not known" : WRONG;
        }
        parts.add(
            bits.part(
                width == 1 ? "Units" : "Units in its 20 MHz number " + (of[i] + 1),
                UNIT_BITS * i,
                UNIT_BITS,
                words(placed)));
        for (Placed p : placed) {
          List<ResourceUnit> units = ResourceUnit.inPart(PacketFormat.HE, width, of[i], p.size());
          if (p.index() >= units.size()) {
            return "HE-SIG-B names units that are wider than its channel";
          }
          for (int u = 0; u < p.users(); u++) {
            places.add(new Place(units.get(p.index()), p.users() > 1));
          }
        }
      }
      if (hasMiddle(width)) {
        parts.add(bits.either("26 tones in the middle", length - 1, "in use", "not in use"));
        if (bits.isOne(length - 1) && (width == 8 || half == 0)) {
          places.add(new Place(ResourceUnit.middle26(width, width == 8 ? half : 0), false));
        }
      }
      return ended(0, length) ? readUsers(places, length + ENDING) : WRONG;
    }

    /**
     * Whom a field of a user is about.
     *
     * @param several users have the same unit
     */
    private record Place(ResourceUnit unit, boolean several) {}

    private String readUsers(List<Place> places, int from) {
      int at = from;
      for (int first = 0; first < places.size(); first += USERS_OF_BLOCK) {
        int count = Math.min(USERS_OF_BLOCK, places.size() - first);
        if (bits.bits().length < at + count * USER_BITS + ENDING) {
          return SHORT;
        }
        for (int u = 0; u < count; u++) {
          user(places.get(first + u), at + u * USER_BITS);
        }
        if (!ended(at, count * USER_BITS)) {
          return WRONG;
        }
        at += count * USER_BITS + ENDING;
      }
      return "";
    }

    private void user(Place place, int at) {
      int station = bits.number(at, 11);
      int mcs = bits.number(at + 15, 4);
      boolean known = mcs <= HeCodings.LAST_OF_HE;
      parts.add(bits.part("Station", at, 11, station == NOBODY ? "nobody" : "" + station));
      if (place.several()) {
        parts.add(bits.numbered("Streams of all of its users", at + 11, 4));
      } else {
        parts.add(bits.part("Streams", at + 11, 3, "" + (bits.number(at + 11, 3) + 1)));
        parts.add(bits.either("Beamformed", at + 14, "yes", "no"));
      }
      parts.add(bits.part("MCS", at + 15, 4, known ? HeCodings.coding(mcs).words() : "" + mcs));
      parts.add(bits.either("Two carriers alike", at + 19, "yes", "no"));
      parts.add(bits.either("Code", at + 20, "LDPC", "convolutional"));
      if (station != NOBODY) {
        users.add(
            new SharedUser(
                station,
                place.unit(),
                why(place, at, known),
                known ? HeCodings.coding(mcs) : null,
                bits.isOne(at + 20),
                0));
      }
    }

    private String why(Place place, int at, boolean known) {
      return place.several()
          ? "several users on one unit"
          : bits.number(at + 11, 3) > 0
              ? bits.number(at + 11, 3) + 1 + " streams"
              : bits.isOne(at + 19) ? "sent twice on two carriers" : known ? "" : "unknown MCS";
    }

    private boolean ended(int from, int count) {
      boolean fits = fits(from, count);
      int check = from + count;
      parts.add(bits.part("Check", check, CHECK_BITS, fits ? "fits" : "does not fit"));
      int tail = check + CHECK_BITS;
      boolean zero = bits.number(tail, ConvolutionalCode.TAIL_BITS) == 0;
      parts.add(bits.part("Tail", tail, ConvolutionalCode.TAIL_BITS, zero ? "right" : "wrong"));
      return fits;
    }

    /** True if the bits behind some are the check of them. */
    private boolean fits(int from, int count) {
      byte[] own = Arrays.copyOfRange(bits.bits(), from, from + count + CHECK_BITS);
      return new HeaderBits("", own).fits(count, CHECK_BITS);
    }

    private static String words(List<Placed> placed) {
      return placed.stream()
          .map(p -> p.size() + (p.users() == 0 ? " (nobody here)" : ""))
          .collect(Collectors.joining(" + "));
    }
  }
}
