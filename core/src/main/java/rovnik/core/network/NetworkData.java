package rovnik.core.network;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Deque;
import rovnik.core.Refusal;
import rovnik.core.path.Gain;
import rovnik.core.units.Decibels;

/**
 * S-parameters of a network over frequency.
 *
 * <p>The values lie in one array, point after point, row after row: S(row, column) of a point is at
 * {@link #at}, its real part first. Port numbers in this class count from 1, as on the part.
 *
 * @param ports number of ports
 * @param referenceOhm real reference impedance of each port
 * @param frequencyHz rising frequencies
 * @param s {@code 2 * ports * ports * points} numbers
 */
public record NetworkData(int ports, double[] referenceOhm, double[] frequencyHz, double[] s) {

  /** Most ports that a file may have. */
  public static final int MOST_PORTS = 32;

  public NetworkData {
    if (ports < 1 || ports > MOST_PORTS || referenceOhm.length != ports) {
      throw new Refusal("ports", "A network has 1 to " + MOST_PORTS + " ports, each with its z0.");
    }
    if (frequencyHz.length == 0 || s.length != 2 * ports * ports * frequencyHz.length) {
      throw new Refusal(
          "s", "A network needs at least one frequency and all S-parameters at each.");
    }
    for (double ohm : referenceOhm) {
      if (!(ohm > 0) || Double.isInfinite(ohm)) {
        throw new Refusal(
            "z0", "A reference impedance must be more than 0 ohm; it is " + ohm + ".");
      }
    }
    for (int i = 1; i < frequencyHz.length; i++) {
      if (!(frequencyHz[i] > frequencyHz[i - 1])) {
        throw new Refusal(
            "frequencyHz", "The frequencies must rise; point " + (i + 1) + " does not.");
      }
    }
  }

  public int points() {
    return frequencyHz.length;
  }

  /** Index of the real part of S(row, column) at a point; ports count from 1. */
  public int at(int point, int row, int column) {
    return 2 * ((point * ports + row - 1) * ports + column - 1);
  }

  public double re(int point, int row, int column) {
    return s[at(point, row, column)];
  }

  public double im(int point, int row, int column) {
    return s[at(point, row, column) + 1];
  }

  /** |S(row, column)| at a point. */
  public double magnitude(int point, int row, int column) {
    int at = at(point, row, column);
    return Math.hypot(s[at], s[at + 1]);
  }

  /** 20 log10 |S(row, column)| at a point. */
  public double magnitudeDb(int point, int row, int column) {
    return Decibels.fromAmplitudeRatio(magnitude(point, row, column));
  }

  /** "S21", or "S10,1" where one digit is not enough. */
  public static String name(int row, int column) {
    return row < 10 && column < 10 ? "S" + row + column : "S" + row + "," + column;
  }

  /**
   * Gain from one port to another as a table for a path. Points that straight lines between their
   * neighbours reach within {@code withinDb} are left out, so that a long file stays a short table.
   *
   * @throws Refusal if the network does not have both ports or passes nothing
   */
  public Gain.Table gain(int from, int to, double withinDb) {
    if (from == to || Math.min(from, to) < 1 || Math.max(from, to) > ports) {
      throw new Refusal(
          "gain",
          "A gain leads from one port to another; this file has "
              + (ports == 1 ? "only port 1." : "ports 1 to " + ports + "."));
    }
    double[] db = new double[points()];
    for (int i = 0; i < db.length; i++) {
      db[i] = magnitudeDb(i, to, from);
      if (magnitude(i, to, from) == 0) {
        throw new Refusal(
            "gain",
            name(to, from) + " is zero at " + frequencyHz[i] + " Hz: nothing passes there.");
      }
    }
    int[] kept = thinned(db, withinDb);
    return new Gain.Table(
        Arrays.stream(kept).mapToDouble(i -> frequencyHz[i]).toArray(),
        Arrays.stream(kept).mapToDouble(i -> db[i]).toArray());
  }

  /** Points that Douglas and Peucker's thinning keeps, with its stretches on a stack. */
  private int[] thinned(double[] db, double withinDb) {
    BitSet kept = new BitSet(db.length);
    kept.set(0);
    kept.set(db.length - 1);
    Deque<int[]> stretches = new ArrayDeque<>();
    stretches.push(new int[] {0, db.length - 1});
    while (!stretches.isEmpty()) {
      int[] stretch = stretches.pop();
      int worst = farthest(db, stretch[0], stretch[1], withinDb);
      if (worst >= 0) {
        kept.set(worst);
        stretches.push(new int[] {stretch[0], worst});
        stretches.push(new int[] {worst, stretch[1]});
      }
    }
    return kept.stream().toArray();
  }

  /** The point farthest from the straight line between two others, -1 if all lie within. */
  private int farthest(double[] db, int first, int last, double withinDb) {
    int worst = -1;
    double most = withinDb;
    double slope = (db[last] - db[first]) / (frequencyHz[last] - frequencyHz[first]);
    for (int i = first + 1; i < last; i++) {
      double off = Math.abs(db[first] + slope * (frequencyHz[i] - frequencyHz[first]) - db[i]);
      if (off > most) {
        most = off;
        worst = i;
      }
    }
    return worst;
  }
}
