package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.TreeSet;
import rovnik.core.Refusal;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.GoldSequence;
import rovnik.core.modulation.ofdm.OfdmDescription.Symbol;
import rovnik.core.modulation.ofdm.OfdmDescription.Tones;
import rovnik.core.modulation.ofdm.OfdmDescription.What;
import rovnik.core.modulation.ofdm.SymbolPlan.Role;

/**
 * A frame that is described, as it is searched, read and made.
 *
 * @param at where the transform of each symbol begins, from that of the first training
 * @param guard of each symbol
 * @param fields names of what comes before data
 * @param fieldOf which of these each symbol belongs to, -1 for one with data
 * @param users their names
 * @param of number of the user of a tone, by symbol with data; -1 for none
 * @param learned the signs of its training are not known and have to be learned
 */
record DescribedFrame(
    FramePlan plan,
    int[] at,
    int[] guard,
    List<String> fields,
    int[] fieldOf,
    List<String> users,
    List<int[]> of,
    boolean learned) {
  private static final int MOST_SYMBOLS = 4000;
  private static final int LEAST_KNOWN = 16;
  private static final double LARGEST = 1000;
  private static final double HALF = Math.sqrt(0.5);
  private static final long LARGEST_INIT = (1L << 31) - 1;
  private static final int FARTHEST_FROM = 1 << 20;

  private static Refusal wrong(String sentence) {
    return OfdmDescription.wrong(sentence);
  }

  static DescribedFrame of(int transform, int window, List<Symbol> symbols) {
    int times = ChannelSamples.TIMES;
    long all = symbols.stream().mapToLong(s -> Math.max(1, s.count())).sum();
    if (symbols.isEmpty() || all > MOST_SYMBOLS) {
      throw wrong("symbols has 1 to 4,000 of them, all counts together.");
    }
    int total = (int) all;
    int[] tones = tonesOf(symbols, transform);
    List<SymbolPlan> training = new ArrayList<>();
    List<SymbolPlan> data = new ArrayList<>();
    List<String> fields = new ArrayList<>();
    List<String> users = new ArrayList<>();
    List<int[]> of = new ArrayList<>();
    int[] at = new int[total];
    int[] guards = new int[total];
    int[] fieldOf = new int[total];
    int place = 0;
    int number = 0;
    int least = Integer.MAX_VALUE;
    int firstTraining = -1;
    for (Symbol s : symbols) {
      if (s.count() < 1 || s.guard() < 0 || s.guard() > transform) {
        throw wrong(s.name() + ": count is 1 or more, guard is 0 to " + transform + " samples.");
      }
      for (int i = 0; i < s.count(); i++) {
        place += s.guard() * times;
        Made made = made(s, i, place, tones, users);
        if (made.known() != null) {
          training.add(made.known());
          firstTraining = firstTraining < 0 ? place : firstTraining;
        }
        fieldOf[number] = -1;
        if (made.data() != null) {
          data.add(made.data());
          of.add(made.user());
        } else {
          if (!fields.contains(s.name())) {
            fields.add(s.name());
          }
          fieldOf[number] = fields.indexOf(s.name());
        }
        at[number] = place;
        guards[number++] = s.guard() * times;
        // Symbols that follow without a guard belong to the one before them.
        least = s.guard() > 0 ? Math.min(least, s.guard() * times) : least;
        place += transform * times;
      }
    }
    if (training.isEmpty()) {
      throw wrong("No symbol has known tones. Say in which the channel is learned.");
    }
    int known = training.stream().mapToInt(SymbolPlan::usedTones).sum();
    if (known < LEAST_KNOWN || training.stream().anyMatch(t -> t.usedTones() < 2)) {
      throw wrong(
          "At least 16 known tones are needed to find a frame by them, and 2 in each symbol that"
              + " has some.");
    }
    boolean learned = checkLearned(symbols, training);
    if (data.isEmpty()) {
      throw wrong("No symbol has data. Say which tones carry some.");
    }
    if (least == Integer.MAX_VALUE) {
      throw wrong("No symbol has a guard. A frame is found by what its guards repeat.");
    }
    if (window * times > least) {
      throw wrong(
          "window is longer than a guard has samples. Shorten the one, or lengthen the other.");
    }
    for (int i = 0; i < total; i++) {
      at[i] -= firstTraining;
    }
    int zero = firstTraining;
    FramePlan plan =
        new FramePlan(
            transform * times,
            (least - window * times) / 2, // the middle of what no other symbol reaches
            firstTraining,
            tones,
            training.stream().map(s -> s.moved(-zero)).toList(),
            data.stream().map(s -> s.moved(-zero)).toList());
    return new DescribedFrame(plan, at, guards, fields, fieldOf, users, of, learned);
  }

  /** True if training is to be learned: all of it then, from symbols that are alike. */
  private static boolean checkLearned(List<Symbol> symbols, List<SymbolPlan> training) {
    boolean any = false;
    boolean known = false;
    for (Symbol s : symbols) {
      boolean here = s.carries().stream().anyMatch(t -> t.what() == What.LEARNED);
      known |= s.carries().stream().anyMatch(t -> t.what() == What.KNOWN);
      any |= here;
      if (here && s.carries().stream().anyMatch(t -> t.what() != What.LEARNED)) {
        throw wrong(s.name() + ": tones whose signs are learned need a symbol of their own.");
      }
    }
    SymbolPlan first = training.get(0);
    for (SymbolPlan t : training) {
      if (any && (known || !Arrays.equals(t.roles(), first.roles()))) {
        throw wrong(
            "Signs are learned from symbols of the same tones, and where no others are known. Name"
                + " the same tones in each of them.");
      }
    }
    return any;
  }

  /** What one symbol is: what is known of it, and what is read; null where there is nothing. */
  private record Made(SymbolPlan known, SymbolPlan data, int[] user) {}

  private static Made made(Symbol s, int number, int at, int[] tones, List<String> users) {
    int n = tones.length;
    Role[] roles = new Role[n];
    Role[] known = new Role[n];
    double[] re = new double[n];
    double[] im = new double[n];
    Constellation[] points = new Constellation[n];
    int[] user = new int[n];
    Arrays.fill(roles, Role.NONE);
    Arrays.fill(known, Role.NONE);
    Arrays.fill(user, -1);
    int knowns = 0;
    int others = 0;
    for (Tones t : s.carries()) {
      int[] list = ToneList.of(t.tones(), s.name());
      boolean isData = t.what() == What.DATA;
      checkValues(s, t, list.length);
      int who = isData ? numberOf(t.user(), users) : -1;
      double sign =
          t.signs() == null || t.signs().isEmpty() ? 1 : t.signs().get(number % t.signs().size());
      double[][] values = isData ? null : values(t, list.length);
      Constellation own = isData ? constellationOf(s, t) : null;
      for (int i = 0; i < list.length; i++) {
        int k = Arrays.binarySearch(tones, list[i]);
        if (roles[k] != Role.NONE) {
          throw wrong(s.name() + ": tone " + list[i] + " is named twice. Name it once.");
        }
        if (isData) {
          roles[k] = Role.DATA;
          re[k] = Math.pow(10, t.levelDb() / 20);
          points[k] = own;
          user[k] = who;
          continue;
        }
        boolean pilot = t.what() == What.PILOTS;
        roles[k] = pilot ? Role.PILOT : Role.KNOWN;
        known[k] = pilot ? Role.NONE : Role.KNOWN;
        re[k] = sign * values[0][i];
        im[k] = sign * values[1][i];
        if (re[k] == 0 && im[k] == 0) {
          throw wrong(s.name() + ": tone " + list[i] + " is to be known, but is 0. Leave it out.");
        }
      }
      boolean trains = t.what() == What.KNOWN || t.what() == What.LEARNED;
      knowns += trains ? list.length : 0;
      others += trains ? 0 : list.length;
    }
    if (knowns == 0 && others == 0) {
      throw wrong(s.name() + " carries nothing. Say what its tones are.");
    }
    SymbolPlan own = knowns == 0 ? null : new SymbolPlan(at, known, re, im, points);
    SymbolPlan data = others == 0 ? null : new SymbolPlan(at, roles, re, im, points);
    return new Made(own, data, user);
  }

  private static int numberOf(String user, List<String> users) {
    String name = user == null ? "" : user;
    if (!users.contains(name)) {
      users.add(name);
    }
    return users.indexOf(name);
  }

  /** What the tones are that are known. */
  private static double[][] values(Tones t, int count) {
    double[] re = new double[count];
    double[] im = new double[count];
    if (t.gold() != null) {
      boolean[] bits = GoldSequence.bits(t.gold().init(), 2 * t.gold().from(), 2 * count);
      for (int i = 0; i < count; i++) {
        re[i] = bits[2 * i] ? -HALF : HALF;
        im[i] = bits[2 * i + 1] ? -HALF : HALF;
      }
      return new double[][] {re, im};
    }
    for (int i = 0; i < count; i++) {
      re[i] = t.re() == null ? 1 : t.re().get(i);
      im[i] = t.im() == null ? 0 : t.im().get(i);
    }
    return new double[][] {re, im};
  }

  private static Constellation constellationOf(Symbol s, Tones t) {
    if (t.re() == null) {
      return t.format().constellation();
    }
    try {
      return new Constellation(doubles(t.re()), doubles(t.im()));
    } catch (Refusal e) {
      throw wrong(s.name() + ": the points of its data are none. " + e.getMessage());
    }
  }

  private static double[] doubles(List<Double> values) {
    return values.stream().mapToDouble(Double::doubleValue).toArray();
  }

  private static void checkValues(Symbol s, Tones t, int tones) {
    if (t.what() == What.DATA) {
      checkData(s, t);
    } else {
      checkKnown(s, t, tones);
    }
    if (!within(t.re()) || !within(t.im())) {
      throw wrong(s.name() + ": re and im are -1,000 to 1,000, against data of mean power 1.");
    }
    if (t.signs() != null && t.signs().stream().anyMatch(v -> v != 1 && v != -1)) {
      throw wrong(s.name() + ": signs are 1 or -1.");
    }
  }

  private static void checkData(Symbol s, Tones t) {
    boolean own = t.re() != null;
    if (own && (t.format() != null || t.im() == null || t.im().size() != t.re().size())) {
      throw wrong(
          s.name()
              + ": data have a constellation by its name, or the points of one in re and im, as"
              + " many of each.");
    }
    if (!own && (t.format() == null || !t.format().plainPoints() || t.format().differential())) {
      throw wrong(s.name() + ": data need a format of points, such as QPSK or 64-QAM.");
    }
    if (t.gold() != null) {
      throw wrong(s.name() + ": a gold sequence is for known tones and pilots.");
    }
    if (!(Math.abs(t.levelDb()) <= 60)) {
      throw wrong(s.name() + ": levelDb is -60 to 60 dB.");
    }
  }

  private static void checkKnown(Symbol s, Tones t, int tones) {
    if (t.gold() != null) {
      if (t.re() != null || t.im() != null || t.what() == What.LEARNED) {
        throw wrong(s.name() + ": a gold sequence stands in place of re and im. Leave those out.");
      }
      if (t.gold().init() < 0
          || t.gold().init() > LARGEST_INIT
          || t.gold().from() < 0
          || t.gold().from() > FARTHEST_FROM) {
        throw wrong(s.name() + ": gold has init of 0 to 2,147,483,647 and from of 0 to 1,048,576.");
      }
      return;
    }
    boolean learned = t.what() == What.LEARNED;
    if (learned && t.im() != null) {
      throw wrong(
          s.name() + ": of tones whose signs are learned re says how strong they are; no im.");
    }
    if (learned && t.re() == null) {
      return;
    }
    if (t.re() == null || t.re().size() != tones || t.im() != null && t.im().size() != tones) {
      throw wrong(
          String.format(
              Locale.ROOT,
              "%s: %d tones are %s, but %d values are given. Give one for each tone, in their order.",
              s.name(),
              tones,
              t.what().label(),
              t.re() == null ? 0 : t.re().size()));
    }
  }

  private static boolean within(List<Double> values) {
    return values == null || values.stream().allMatch(v -> v != null && Math.abs(v) <= LARGEST);
  }

  private static int[] tonesOf(List<Symbol> symbols, int transform) {
    TreeSet<Integer> all = new TreeSet<>();
    for (Symbol s : symbols) {
      for (Tones t : s.carries()) {
        for (int k : ToneList.of(t.tones(), s.name())) {
          if (Math.abs(k) >= transform / 2) {
            throw wrong(
                String.format(
                    Locale.ROOT,
                    "%s: tone %d is outside: a transform of %d has tones from %d to %d.",
                    s.name(),
                    k,
                    transform,
                    1 - transform / 2,
                    transform / 2 - 1));
          }
          all.add(k);
        }
      }
    }
    return all.stream().mapToInt(Integer::intValue).toArray();
  }
}
