package rovnik.core.network;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;

/**
 * Between what a fixture can be trusted: empty it shows its floor, shorted its own loss. A reading
 * near either says more of the fixture than of the part.
 *
 * @param empty S21 with nothing in it
 * @param shorted S21 with its clips joined
 */
public record FixtureWindow(NetworkData empty, NetworkData shorted) {
  /** Empty it must be below, shorted above these (common practice for choke fixtures). */
  public static final double HIGHEST_EMPTY_DB = -46;

  public static final double LOWEST_SHORTED_DB = -0.7;

  /** This near to a bound the fixture adds more than 1 dB to what is read. */
  public static final double FLOOR_WITHIN_DB = 20;

  public FixtureWindow {
    if (empty.ports() != 2 || shorted.ports() != 2) {
      throw new Refusal("fixture", "A fixture is measured between two ports.");
    }
  }

  /** What is wrong with the fixture itself, "" if nothing. */
  public static String trouble(NetworkData n, boolean isEmpty) {
    double worst = isEmpty ? Double.NEGATIVE_INFINITY : Double.POSITIVE_INFINITY;
    double at = 0;
    for (int p = 0; p < n.points(); p++) {
      double db = n.magnitudeDb(p, 2, 1);
      if (isEmpty ? db > worst : db < worst) {
        worst = db;
        at = n.frequencyHz()[p];
      }
    }
    boolean good = isEmpty ? worst <= HIGHEST_EMPTY_DB : worst >= LOWEST_SHORTED_DB;
    return good
        ? ""
        : String.format(
            Locale.ROOT,
            isEmpty
                ? "Empty, the fixture still passes %.1f dB at %.3g MHz; it should be below %.0f dB."
                    + " Shorten its leads or put a screen between its ends."
                : "Shorted, the fixture loses %.1f dB at %.3g MHz; it should lose less than %.1f dB."
                    + " Shorten its leads and tighten its clips.",
            isEmpty ? worst : -worst,
            at / 1e6,
            isEmpty ? HIGHEST_EMPTY_DB : -LOWEST_SHORTED_DB);
  }

  /** Lowest S21 in dB that can be trusted, a point of {@code like}. */
  public double[] lowestDb(NetworkData like) {
    NetworkData e = NetworkChange.on(empty, like);
    double[] db = new double[like.points()];
    for (int p = 0; p < db.length; p++) {
      db[p] = e.magnitudeDb(p, 2, 1) + FLOOR_WITHIN_DB;
    }
    return db;
  }

  /** Highest S21 in dB that can be trusted. */
  public double[] highestDb(NetworkData like) {
    NetworkData s = NetworkChange.on(shorted, like);
    double[] db = new double[like.points()];
    for (int p = 0; p < db.length; p++) {
      db[p] = Math.min(0, s.magnitudeDb(p, 2, 1));
    }
    return db;
  }

  /** Frequencies of the first and the last point of a stretch. */
  public record Stretch(double fromHz, double toHz) {
    boolean holds(double hertz) {
      return hertz >= fromHz && hertz <= toHz;
    }
  }

  /**
   * What of a network is read against the window.
   *
   * @param share of its points that lie outside, 0 to 1
   * @param near where they lie; stretches with but a few points between them are one
   */
  public record Finding(double share, List<Stretch> near) {
    /** Whether a reading at this frequency says more of the fixture than of the part. */
    public boolean doubts(double hertz) {
      return near.stream().anyMatch(s -> s.holds(hertz));
    }
  }

  /** Where a network lies too near to what the fixture does by itself. */
  public Finding of(NetworkData n) {
    double[] low = lowestDb(n);
    double[] high = highestDb(n);
    int gap = 1 + n.points() / 100;
    int out = 0;
    int first = -1;
    int last = -1;
    List<Stretch> near = new ArrayList<>();
    for (int p = 0; p < n.points(); p++) {
      double db = n.magnitudeDb(p, 2, 1);
      if (db >= low[p] && db <= high[p]) {
        continue;
      }
      out++;
      if (first >= 0 && p - last > gap) {
        near.add(stretch(n, first, last));
        first = p;
      }
      first = first < 0 ? p : first;
      last = p;
    }
    if (first >= 0) {
      near.add(stretch(n, first, last));
    }
    return new Finding((double) out / n.points(), List.copyOf(near));
  }

  private static Stretch stretch(NetworkData n, int first, int last) {
    return new Stretch(n.frequencyHz()[first], n.frequencyHz()[last]);
  }
}
