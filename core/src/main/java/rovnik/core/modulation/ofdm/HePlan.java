package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.ofdm.SymbolPlan.Role;

/**
 * An HE or EHT packet as a frame: behind SIGNAL, the same again and what says more come a short
 * training, its own training and the data of one user or of several, each on its unit.
 *
 * @param width of the channel, in 20 MHz; samples are so many times those of 20 MHz
 * @param before symbols of usual length from the repeated SIGNAL to the short training, with it
 * @param signs so many symbols have pilots before the data
 * @param parts how often the training repeats itself within a transform
 * @param guard of training and data, samples at 20 MS/s
 */
record HePlan(int width, int before, int signs, int parts, int guard) {
  private static final int TIMES = ChannelSamples.TIMES;

  /** Samples of a symbol without its guard, at 20 MS/s. */
  static final int USUAL_TRANSFORM = 256;

  /**
   * What is on a unit.
   *
   * @param coding of its data; null if those are not read
   * @param level of training, pilots and data, over others
   */
  record Share(ResourceUnit unit, Coding coding, double level) {}

  /** A short training is as long as a symbol with pilots, of which SIGNAL is one more. */
  HePlan(int width, int before, int parts, int guard) {
    this(width, before, before, parts, guard);
  }

  /** The same behind so many more symbols. */
  HePlan later(int symbols) {
    return new HePlan(width, before + symbols, signs + symbols, parts, guard);
  }

  /** Samples of the training, at 20 MS/s. */
  int ofTraining() {
    return guard + USUAL_TRANSFORM / parts;
  }

  /** Where its transform begins, from the packet's first training, in samples read of 20 MHz. */
  int training() {
    return LegacyPlan.end(before) + guard * TIMES;
  }

  /** Symbols of data that fit behind SIGNAL if it names so many of usual length. */
  int room(int usual) {
    int samples = (usual - before) * LegacyPacket.SYMBOL - ofTraining();
    return Math.max(0, samples / (USUAL_TRANSFORM + guard));
  }

  /** The packet, as if all of its training were 1. */
  FramePlan of(List<Share> shares, int symbols) {
    int[] tones =
        shares.stream().flatMapToInt(s -> Arrays.stream(s.unit().all())).sorted().toArray();
    int begin = USUAL_TRANSFORM / parts * TIMES * width;
    int each = (USUAL_TRANSFORM + guard) * TIMES * width;
    List<SymbolPlan> data = new ArrayList<>(symbols);
    Alike alike = alike(tones, shares);
    for (int s = 0; s < symbols; s++) {
      data.add(alike.symbol(begin + s * each + guard * TIMES * width, s, signs));
    }
    return new FramePlan(
        USUAL_TRANSFORM * TIMES * width,
        guard * TIMES * width / 2,
        (LegacyPlan.PREAMBLE.head() + training()) * width,
        tones,
        alike.units(),
        List.of(trainingOf(tones, alike.level())),
        data);
  }

  private SymbolPlan trainingOf(int[] tones, double[] level) {
    Role[] roles = new Role[tones.length];
    double all = 0;
    double used = 0;
    for (int k = 0; k < tones.length; k++) {
      boolean has = tones[k] % parts == 0;
      roles[k] = has ? Role.KNOWN : Role.NONE;
      used += has ? level[k] * level[k] : 0;
      all += level[k] * level[k];
    }
    // Fewer tones have the power of all.
    double[] re = new double[tones.length];
    double factor = Math.sqrt(all / used);
    Arrays.setAll(re, k -> roles[k] == Role.KNOWN ? factor * level[k] : 0);
    return new SymbolPlan(0, parts, roles, re, new double[tones.length], new Constellation[0]);
  }

  /**
   * What all symbols with data have alike, and where the pilots of each unit are.
   *
   * @param level of each tone
   * @param units number of the unit of each tone
   */
  private record Alike(
      List<Share> shares,
      Role[] roles,
      Constellation[] points,
      double[] level,
      int[] units,
      int[][] pilots) {
    SymbolPlan symbol(int at, int number, int before) {
      double[] own = level.clone();
      for (int u = 0; u < pilots.length; u++) {
        ResourceUnit unit = shares.get(u).unit();
        for (int p = 0; p < pilots[u].length; p++) {
          own[pilots[u][p]] *= unit.pilot(p, number, before);
        }
      }
      return new SymbolPlan(at, roles, own, new double[own.length], points);
    }
  }

  private static Alike alike(int[] tones, List<Share> shares) {
    Role[] roles = new Role[tones.length];
    Constellation[] points = new Constellation[tones.length];
    double[] level = new double[tones.length];
    int[] units = new int[tones.length];
    int[][] pilots = new int[shares.size()][];
    for (int u = 0; u < pilots.length; u++) {
      Share s = shares.get(u);
      int[] own = s.unit().all();
      int[] at = Arrays.stream(own).map(k -> Arrays.binarySearch(tones, k)).toArray();
      pilots[u] = Arrays.stream(at).filter(k -> s.unit().isPilot(tones[k])).toArray();
      for (int k : at) {
        boolean isPilot = s.unit().isPilot(tones[k]);
        boolean read = s.coding() != null;
        roles[k] = isPilot ? Role.PILOT : read ? Role.DATA : Role.NONE;
        points[k] = isPilot || !read ? null : s.coding().constellation();
        level[k] = s.level();
        units[k] = u;
      }
    }
    return new Alike(shares, roles, points, level, units, pilots);
  }
}
