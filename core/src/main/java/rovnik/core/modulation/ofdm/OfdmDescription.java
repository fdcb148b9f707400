package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.TreeSet;
import rovnik.core.Refusal;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.ofdm.SymbolPlan.Role;

/**
 * Any OFDM whose symbols are told: which tones of them are known, pilots or data.
 *
 * @param name what it is called
 * @param source where it comes from, "" if nobody says
 * @param spacingHz from tone to tone
 * @param transform tones that the transform has: spacing times this is its rate
 * @param evmLimitPercent highest EVM that passes, null for none
 * @param symbols in their order
 */
public record OfdmDescription(
    String name,
    String source,
    double spacingHz,
    int transform,
    Double evmLimitPercent,
    List<Symbol> symbols) {
  private static final int SHORTEST_TRANSFORM = 16;
  private static final int LONGEST_TRANSFORM = 16_384;
  private static final int MOST_SYMBOLS = 4000;
  private static final int LEAST_KNOWN = 16;
  private static final double LARGEST = 1000;
  private static final int LONGEST_NAME = 80;

  /**
   * One symbol, or several that are alike.
   *
   * @param name of the field that it belongs to
   * @param count how many follow each other
   * @param guard samples before each that repeat its end, at the rate of the transform
   * @param carries what its tones are; those that are not named carry nothing
   */
  public record Symbol(String name, int count, int guard, List<Tones> carries) {
    public Symbol {
      carries = List.copyOf(carries);
    }
  }

  /**
   * Tones that are of one kind.
   *
   * @param what known, pilots or data
   * @param tones such as "-26..26 not -21, -7, 0, 7, 21"
   * @param re real parts of known tones and pilots, in the order of the tones; of data null
   * @param im imaginary parts; null for none
   * @param signs 1 or -1 by symbol, over and over: what is known is times this; null for all 1
   * @param format of data
   * @param levelDb of data over a mean power of 1
   * @param user whose data they are, "" for one user
   */
  public record Tones(
      What what,
      String tones,
      List<Double> re,
      List<Double> im,
      List<Integer> signs,
      Format format,
      double levelDb,
      String user) {
    public Tones {
      re = re == null ? null : List.copyOf(re);
      im = im == null ? null : List.copyOf(im);
      signs = signs == null ? null : List.copyOf(signs);
    }
  }

  /** What tones are there for. */
  public enum What {
    KNOWN("known"),
    PILOTS("pilots"),
    DATA("data");

    private final String label;

    What(String label) {
      this.label = label;
    }

    public String label() {
      return label;
    }
  }

  public OfdmDescription {
    symbols = List.copyOf(symbols);
    if (name.isBlank() || name.length() > LONGEST_NAME) {
      throw wrong("Give the description a name of up to 80 characters.");
    }
    if (!(spacingHz >= 100 && spacingHz <= 10e6)) {
      throw wrong("spacingHz, from tone to tone, is 100 Hz to 10 MHz.");
    }
    if (transform < SHORTEST_TRANSFORM
        || transform > LONGEST_TRANSFORM
        || Integer.bitCount(transform) != 1) {
      throw wrong("transform is a power of two from 16 to 16,384; leave tones empty to fill it.");
    }
    if (evmLimitPercent != null && !(evmLimitPercent > 0 && evmLimitPercent <= 100)) {
      throw wrong("evmLimitPercent is over 0 and up to 100.");
    }
    frame(transform, symbols); // refuses what cannot be
  }

  private static Refusal wrong(String sentence) {
    return new Refusal("description", sentence);
  }

  /** Rate of the transform. */
  public double rateHz() {
    return spacingHz * transform;
  }

  /** From the carrier to the edge of the farthest tone. */
  public double reachHz() {
    return (frame().plan().farthest() + 0.5) * spacingHz;
  }

  /**
   * A frame as it is searched and read.
   *
   * @param at where the transform of each symbol begins, from that of the first training
   * @param guard of each symbol
   * @param fields names of what comes before data
   * @param fieldOf which of these each symbol belongs to, -1 for one with data
   * @param users their names
   * @param of number of the user of a tone, by symbol with data; -1 for none
   */
  record Frame(
      FramePlan plan,
      int[] at,
      int[] guard,
      List<String> fields,
      int[] fieldOf,
      List<String> users,
      List<int[]> of) {}

  Frame frame() {
    return frame(transform, symbols);
  }

  private static Frame frame(int transform, List<Symbol> symbols) {
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
    if (data.isEmpty()) {
      throw wrong("No symbol has data. Say which tones carry some.");
    }
    if (least == Integer.MAX_VALUE) {
      throw wrong("No symbol has a guard. A frame is found by what its guards repeat.");
    }
    for (int i = 0; i < total; i++) {
      at[i] -= firstTraining;
    }
    int zero = firstTraining;
    FramePlan plan =
        new FramePlan(
            transform * times,
            least / 2,
            firstTraining,
            tones,
            training.stream().map(s -> s.moved(-zero)).toList(),
            data.stream().map(s -> s.moved(-zero)).toList());
    return new Frame(plan, at, guards, fields, fieldOf, users, of);
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
      for (int i = 0; i < list.length; i++) {
        int k = Arrays.binarySearch(tones, list[i]);
        if (roles[k] != Role.NONE) {
          throw wrong(s.name() + ": tone " + list[i] + " is named twice. Name it once.");
        }
        switch (t.what()) {
          case DATA -> {
            roles[k] = Role.DATA;
            re[k] = Math.pow(10, t.levelDb() / 20);
            points[k] = t.format().constellation();
            user[k] = who;
          }
          default -> {
            roles[k] = t.what() == What.PILOTS ? Role.PILOT : Role.KNOWN;
            known[k] = t.what() == What.PILOTS ? Role.NONE : Role.KNOWN;
            re[k] = sign * t.re().get(i);
            im[k] = t.im() == null ? 0 : sign * t.im().get(i);
            if (re[k] == 0 && im[k] == 0) {
              throw wrong(
                  s.name() + ": tone " + list[i] + " is to be known, but is 0. Leave it out.");
            }
          }
        }
        knowns += t.what() == What.KNOWN ? 1 : 0;
        others += t.what() == What.KNOWN ? 0 : 1;
      }
    }
    if (knowns > 0 && knowns < LEAST_KNOWN) {
      throw wrong(s.name() + ": at least 16 known tones are needed to find a frame by them.");
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

  private static void checkValues(Symbol s, Tones t, int tones) {
    if (t.what() == What.DATA) {
      if (t.format() == null || !t.format().plainPoints() || t.format().differential()) {
        throw wrong(s.name() + ": data need a format of points, such as QPSK or 64-QAM.");
      }
      if (!(Math.abs(t.levelDb()) <= 60)) {
        throw wrong(s.name() + ": levelDb is -60 to 60 dB.");
      }
      return;
    }
    if (t.re() == null || t.re().size() != tones || t.im() != null && t.im().size() != tones) {
      throw wrong(
          String.format(
              Locale.ROOT,
              "%s: %d tones are %s, but %d values are given. Give one for each tone, in their order.",
              s.name(),
              tones,
              t.what() == What.PILOTS ? "pilots" : "known",
              t.re() == null ? 0 : t.re().size()));
    }
    if (!within(t.re()) || t.im() != null && !within(t.im())) {
      throw wrong(s.name() + ": re and im are -1,000 to 1,000, against data of mean power 1.");
    }
    if (t.signs() != null && t.signs().stream().anyMatch(v -> v != 1 && v != -1)) {
      throw wrong(s.name() + ": signs are 1 or -1.");
    }
  }

  private static boolean within(List<Double> values) {
    return values.stream().allMatch(v -> Math.abs(v) <= LARGEST);
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
