package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;

/**
 * How an HE channel is divided among users, and the HE-SIG-B that says so: one stream each, units
 * that nobody has told as such.
 */
final class SentDivision {
  private static final String FIELD = "users";
  private static final List<Integer> SIZES = List.of(26, 52, 106, 242, 484, 996);
  private static final int LAST_STATION = 2045;
  private static final int NOBODY = 2046;
  private static final double MOST_DB = 12;
  private static final int MOST_SYMBOLS = 16;
  private static final int LAST_OF_B = 5;
  private static final int EMPTY_OF_242 = 113;
  private static final int EMPTY_OF_484 = 114;
  private static final int EMPTY_OF_996 = 115;
  private static final int ONE_OF_484 = 200;
  private static final int ONE_OF_996 = 208;

  /** Numbers of units within 20 MHz, each for one user. */
  private static final int SMALL = 200;

  private final int width;
  private final List<Own> users;

  /** A user and its unit. */
  record Own(SentUser user, ResourceUnit unit) {
    HePlan.Share share() {
      return new HePlan.Share(
          unit, HeCodings.coding(user.mcs()), Math.pow(10, user.levelDb() / 20));
    }
  }

  /**
   * @param width of the channel, in 20 MHz
   */
  SentDivision(int width, List<SentUser> users) {
    this.width = width;
    this.users = owners(width, users, FIELD);
    halves(); // refuses what no division has
  }

  /**
   * Users with their units, which must be there and may not overlap.
   *
   * @param field at which is said what is wrong
   */
  static List<Own> owners(int width, List<SentUser> users, String field) {
    try {
      if (users.isEmpty()) {
        throw wrong("Name at least one user.");
      }
      List<Own> out = users.stream().map(u -> new Own(u, unitOf(width, u))).toList();
      checkTones(out);
      return out;
    } catch (Refusal r) {
      throw new Refusal(field, r.getMessage());
    }
  }

  private static Refusal wrong(String sentence) {
    return new Refusal(FIELD, sentence);
  }

  private static ResourceUnit unitOf(int width, SentUser u) {
    if (!SIZES.contains(u.tones())) {
      throw wrong("A user among several has 26, 52, 106, 242, 484 or 996 tones.");
    }
    List<ResourceUnit> all = ResourceUnit.of(PacketFormat.HE, width, u.tones());
    if (u.place() < 1 || u.place() > all.size()) {
      throw wrong(
          all.isEmpty()
              ? String.format(
                  Locale.ROOT, "%d MHz have no unit of %d tones.", 20 * width, u.tones())
              : String.format(
                  Locale.ROOT,
                  "%d MHz have %d units of %d tones: place is 1 to %d, from the lowest.",
                  20 * width,
                  all.size(),
                  u.tones(),
                  all.size()));
    }
    if (u.station() < 0 || u.station() > LAST_STATION) {
      throw wrong("station is 0 to 2045.");
    }
    if (u.mcs() < 0 || u.mcs() > HeCodings.LAST_OF_HE) {
      throw wrong("HE has MCS 0 to 11.");
    }
    if (!(Math.abs(u.levelDb()) <= MOST_DB)) {
      throw wrong("levelDb is -12 to 12 dB.");
    }
    return all.get(u.place() - 1);
  }

  private static void checkTones(List<Own> users) {
    int[] all = users.stream().flatMapToInt(u -> Arrays.stream(u.unit.all())).sorted().toArray();
    for (int i = 1; i < all.length; i++) {
      if (all[i] == all[i - 1]) {
        throw wrong("Two users have tone " + all[i] + ". Give them units that do not overlap.");
      }
    }
  }

  List<Own> users() {
    return users;
  }

  List<HePlan.Share> shares() {
    return users.stream().map(Own::share).toList();
  }

  /** What a half of HE-SIG-B names: a number for each of its 20 MHz, and whose the units are. */
  private record Half(List<Integer> numbers, List<Own> of, boolean middle) {}

  private List<Half> halves() {
    List<Half> out = new ArrayList<>();
    for (int half = 0; half < HeSigB.halves(width); half++) {
      List<Integer> numbers = new ArrayList<>();
      List<Own> of = new ArrayList<>();
      for (int part : HeSigB.partsOf(width, half)) {
        numbers.add(number(part, of));
      }
      boolean middle = false;
      for (int p = 0; p < width / 4; p++) {
        Own own = ofUnit(ResourceUnit.middle26(width, p));
        middle |= own != null && (width == 4 || p == half);
        if (own != null && (width == 4 ? half == 0 : p == half)) {
          of.add(own);
        }
      }
      out.add(new Half(numbers, of, middle));
    }
    return out;
  }

  private Own ofUnit(ResourceUnit unit) {
    for (Own u : users) {
      if (Arrays.equals(u.unit.all(), unit.all())) {
        return u;
      }
    }
    return null;
  }

  /** The number of a division of 20 MHz; who has its units is added, null for nobody. */
  private int number(int part, List<Own> of) {
    for (int size : new int[] {996, 484}) {
      List<ResourceUnit> wide = ResourceUnit.inPart(PacketFormat.HE, width, part, size);
      Own own = wide.isEmpty() ? null : ofUnit(wide.get(0));
      if (own != null) {
        boolean first = part % (size == 996 ? 4 : 2) == 0;
        if (first) {
          of.add(own);
          return size == 996 ? ONE_OF_996 : ONE_OF_484;
        }
        return size == 996 ? EMPTY_OF_996 : EMPTY_OF_484;
      }
    }
    long here = users.stream().filter(u -> isIn(u, part)).count();
    if (here == 0) {
      return EMPTY_OF_242;
    }
    int best = -1;
    List<Own> whose = List.of();
    for (int number = 0; number < SMALL; number++) {
      List<HeSigB.Placed> placed = HeSigB.unitsOf(number);
      if (placed == null || placed.stream().anyMatch(p -> p.users() != 1)) {
        continue;
      }
      List<Own> own = new ArrayList<>();
      placed.forEach(p -> own.add(ofUnit(unit(part, p))));
      long had = own.stream().filter(u -> u != null).count();
      if (had == here && (best < 0 || own.size() < whose.size())) {
        best = number;
        whose = own;
      }
    }
    if (best < 0) {
      throw wrong(
          "No division of 20 MHz has these units side by side. Choose others in its number "
              + (part + 1)
              + ".");
    }
    of.addAll(whose);
    return best;
  }

  private ResourceUnit unit(int part, HeSigB.Placed p) {
    return ResourceUnit.inPart(PacketFormat.HE, width, part, p.size()).get(p.index());
  }

  private boolean isIn(Own u, int part) {
    int size = u.unit.size();
    return size <= ResourceUnit.OF_20
        && ResourceUnit.inPart(PacketFormat.HE, width, part, size).stream()
            .anyMatch(x -> Arrays.equals(x.all(), u.unit.all()));
  }

  private byte[] bitsOf(Half half) {
    List<Integer> fields = new ArrayList<>();
    half.numbers.forEach(n -> fields.addAll(List.of(n, HeSigB.UNIT_BITS)));
    if (HeSigB.hasMiddle(width)) {
      fields.addAll(List.of(half.middle ? 1 : 0, 1));
    }
    List<byte[]> blocks = new ArrayList<>();
    blocks.add(sealed(fields));
    for (int i = 0; i < half.of.size(); i += HeSigB.USERS_OF_BLOCK) {
      fields.clear();
      for (Own u : half.of.subList(i, Math.min(half.of.size(), i + HeSigB.USERS_OF_BLOCK))) {
        fields.addAll(List.of(u == null ? NOBODY : u.user.station(), 11, 0, 3, 0, 1));
        fields.addAll(List.of(u == null ? 0 : u.user.mcs(), 4, 0, 1));
        fields.addAll(List.of(u != null && UserPacket.lowDensity(u.unit, u.user.mcs()) ? 1 : 0, 1));
      }
      blocks.add(sealed(fields));
    }
    byte[] out = new byte[blocks.stream().mapToInt(b -> b.length).sum()];
    int at = 0;
    for (byte[] b : blocks) {
      System.arraycopy(b, 0, out, at, b.length);
      at += b.length;
    }
    return out;
  }

  /** With check and tail. */
  private static byte[] sealed(List<Integer> fields) {
    byte[] own = HeaderBits.bitsOf(fields.stream().mapToInt(Integer::intValue).toArray());
    byte[] out = Arrays.copyOf(own, own.length + HeSigB.ENDING);
    System.arraycopy(HeaderBits.check(own, own.length), 0, out, own.length, HeSigB.CHECK_BITS);
    return out;
  }

  /**
   * HE-SIG-B as it is sent.
   *
   * @param mcs of it
   * @param coded bits of each half, in the order of the tones
   */
  record Sent(int mcs, int symbols, List<byte[]> coded) {}

  Sent sent() {
    List<byte[]> halves = halves().stream().map(this::bitsOf).toList();
    int most = halves.stream().mapToInt(b -> b.length).max().orElse(0);
    for (int mcs = 0; mcs <= LAST_OF_B; mcs++) {
      Coding coding = HeCodings.coding(mcs);
      int each = coding.dataBits(MixedTones.DATA);
      int symbols = (most + each - 1) / each;
      if (symbols <= MOST_SYMBOLS) {
        List<byte[]> coded = new ArrayList<>();
        for (byte[] b : halves) {
          byte[] all = Arrays.copyOf(b, symbols * each);
          coded.add(Interleaver.LATER.spread(coding.code().encode(all), coding.bitsPerTone()));
        }
        return new Sent(mcs, symbols, coded);
      }
    }
    throw wrong("So many users do not fit into HE-SIG-B. Send to fewer.");
  }
}
