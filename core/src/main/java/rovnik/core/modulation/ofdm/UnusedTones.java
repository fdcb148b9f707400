package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * What is on the units that nobody was given, over the mean of those in use: IEEE 802.11ax-2021,
 * 27.3.19.4.4, from memory. As many units of 26 tones beside the used ones as these have may be 2
 * dB below the error that their coding allows, as many more 12 dB, as many more 22 dB; nothing has
 * to be below -35 dB.
 */
final class UnusedTones {
  private static final double[] STEPS_DB = {2, 12, 22};
  private static final double FLOOR_DB = -35;

  /** Variance of the power of a point over the square of its mean: of many levels 0.4. */
  private static final double POINTS = 0.4;

  /**
   * One unit.
   *
   * @param number among all of 26 tones, from the lowest, which is 1
   * @param tones that it has
   * @param db mean of its tones over the mean of those in use
   * @param allowedDb not a number if that is not known
   * @param values that the mean is of
   * @param used values that it is compared with
   */
  record Unit(int number, int[] tones, double db, double allowedDb, double values, double used) {
    double marginDb() {
      return allowedDb - db;
    }

    /** Of the mean of so much noise, and of so many points, standard, dB. */
    double scatterDb() {
      return 10 / Math.log(10) * Math.sqrt(1 / values + POINTS / used);
    }
  }

  private UnusedTones() {}

  /**
   * Looks at them.
   *
   * @param reader has read the data of the plan
   * @param watched all units of 26 tones
   */
  static List<Unit> of(
      SymbolReader reader,
      FramePlan plan,
      List<ResourceUnit> watched,
      List<? extends UserData> users) {
    double[] power = new double[watched.size()];
    double used = 0;
    for (SymbolPlan s : plan.data()) {
      reader.transform(s.at());
      for (int u = 0; u < power.length; u++) {
        for (int tone : watched.get(u).all()) {
          power[u] += reader.powerOf(tone) / watched.get(u).size();
        }
      }
      for (int tone : plan.tones()) {
        used += reader.powerOf(tone) / plan.tones().length;
      }
    }
    boolean[] taken = new boolean[power.length];
    for (int u = 0; u < taken.length; u++) {
      int[] own = watched.get(u).all();
      taken[u] = Arrays.stream(own).anyMatch(k -> plan.indexOf(k) >= 0);
    }
    // Most is allowed by the user with the lowest coding.
    double error = Double.NEGATIVE_INFINITY;
    for (UserData u : users) {
      error = Math.max(error, u.coding().errorLimitDb());
    }
    List<Unit> out = new ArrayList<>();
    for (int u = 0; u < power.length; u++) {
      if (!taken[u]) {
        ResourceUnit unit = watched.get(u);
        out.add(
            new Unit(
                u + 1,
                unit.all(),
                10 * Math.log10(Math.max(1e-15, power[u] / used)),
                allowed(taken, u, error),
                (double) unit.size() * plan.data().size(),
                (double) plan.tones().length * plan.data().size()));
      }
    }
    return out;
  }

  private static double allowed(boolean[] taken, int unit, double error) {
    double most = FLOOR_DB;
    int first = 0;
    while (first < taken.length) {
      int last = first;
      while (taken[first] && last + 1 < taken.length && taken[last + 1]) {
        last++;
      }
      if (taken[first]) {
        int count = last - first + 1;
        int away = unit < first ? first - unit : unit - last;
        int step = (away - 1) / count;
        most = Math.max(most, step < STEPS_DB.length ? error - STEPS_DB[step] : FLOOR_DB);
      }
      first = last + 1;
    }
    return most;
  }
}
