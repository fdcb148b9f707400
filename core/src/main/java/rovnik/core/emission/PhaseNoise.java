package rovnik.core.emission;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.spectrum.NoiseStatistics;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Decibels;

/**
 * Single-sideband phase noise L(f) on a logarithmic axis of offsets, from spectra of one carrier
 * taken with finer and finer RBW towards it. Each offset takes the finest trace that reaches it;
 * both side bands are averaged in power.
 *
 * <p>What is there without the carrier as well is not its noise: it is taken off as power. Where it
 * is more than half of all, what is left of the carrier's cannot be told; L is an upper bound
 * there.
 *
 * @param offsetHz rising offsets
 * @param dbcPerHz L at each, lines and floor taken out; with the floor where that is more than half
 * @param floorDbcPerHz what is known not to be the carrier's, NaN if nothing is known
 * @param standardDb standard deviation of each L from its averaging
 * @param sharedBy how many neighbours stand on the same points, 1 or more
 * @param spurs lines that stand out of the curve
 */
public record PhaseNoise(
    double[] offsetHz,
    double[] dbcPerHz,
    double[] floorDbcPerHz,
    double[] standardDb,
    double[] sharedBy,
    List<Spur> spurs) {
  /** Points of one decade. */
  public static final int POINTS_A_DECADE = 24;

  /** Nearest usable offset of a trace, in RBW: closer the resolution filter itself is seen. */
  public static final double NEAREST_RBW = 5;

  /** A point that stands this far above the median of its neighbourhood is a line. */
  private static final double SPUR_DB = 7;

  /** A curve that falls by less over its last quarter of a decade has reached a floor. */
  private static final double FLAT_DB = 2.2;

  /** A line beside the carrier, in dBc. */
  public record Spur(double offsetHz, double dbc) {}

  /**
   * Joins spectra.
   *
   * @param traces of the same carrier in dBm, in any order
   * @param carrierHz as measured
   * @param carrierDbm its power
   */
  public static PhaseNoise of(List<Trace> traces, double carrierHz, double carrierDbm) {
    return of(traces, List.of(), carrierHz, carrierDbm);
  }

  /**
   * Joins spectra, and takes off what was there without the carrier.
   *
   * @param without spectra of the same offsets with the source off; if there are none, a curve that
   *     ends flat is taken for a floor of that density
   */
  public static PhaseNoise of(
      List<Trace> traces, List<Trace> without, double carrierHz, double carrierDbm) {
    double lowest = Double.POSITIVE_INFINITY;
    double highest = 0;
    for (Trace t : traces) {
      lowest = Math.min(lowest, NEAREST_RBW * t.rbwHz());
      highest = Math.max(highest, reach(t, carrierHz));
    }
    if (traces.isEmpty() || !(highest > lowest)) {
      throw new Refusal(
          "spanHz", "The spans do not reach far enough from the carrier. Widen them.");
    }
    int points = (int) Math.floor(POINTS_A_DECADE * Math.log10(highest / lowest)) + 1;
    double[] offset = new double[points];
    double[] level = new double[points];
    double[] floor = new double[points];
    double[] standard = new double[points];
    double[] shared = new double[points];
    List<Spur> spurs = new ArrayList<>();
    double ratio = Math.pow(10, 1.0 / POINTS_A_DECADE);
    for (int i = 0; i < points; i++) {
      offset[i] = lowest * Math.pow(ratio, i);
      double from = offset[i] / Math.sqrt(ratio);
      double to = offset[i] * Math.sqrt(ratio);
      Trace t = finest(traces, carrierHz, from, to);
      level[i] = cell(t, carrierHz, carrierDbm, from, to, spurs);
      floor[i] =
          without.isEmpty()
              ? Double.NaN
              : cell(
                  finest(without, carrierHz, from, to),
                  carrierHz,
                  carrierDbm,
                  from,
                  to,
                  new ArrayList<>());
      shared[i] = Math.max(1, t.enbwHz() / (to - from));
      standard[i] = NoiseStatistics.decibels(new NoiseStatistics(t).band(2 * (to - from)));
    }
    if (without.isEmpty()) {
      Arrays.fill(floor, plateau(level));
    }
    for (int i = 0; i < points; i++) {
      double share = Decibels.toPowerRatio(floor[i] - level[i]); // NaN if nothing is known
      if (share <= 0.5) {
        level[i] += Decibels.fromPowerRatio(1 - share);
        standard[i] *= Math.hypot(1, share) / (1 - share);
      }
    }
    return new PhaseNoise(offset, level, floor, standard, shared, merged(spurs));
  }

  /** Level of a flat end of the curve, NaN if it falls to its end. */
  private static double plateau(double[] level) {
    int part = POINTS_A_DECADE / 4;
    if (level.length < 4 * part) {
      return Double.NaN;
    }
    double sum = 0;
    for (int i = level.length - part; i < level.length; i++) {
      sum += Decibels.toPowerRatio(level[i]) / part;
    }
    double end = Decibels.fromPowerRatio(sum);
    return level[level.length - 1 - part] - level[level.length - 1] < FLAT_DB ? end : Double.NaN;
  }

  /** True where the floor is more than half of what is seen: L is an upper bound. */
  public boolean hidden(int point) {
    return floorDbcPerHz[point] > dbcPerHz[point] - 3.01;
  }

  /** The first offset from which the floor hides the carrier's noise; infinite if none does. */
  public double hiddenFromHz() {
    for (int i = 0; i < offsetHz.length; i++) {
      if (hidden(i)) {
        return offsetHz[i];
      }
    }
    return Double.POSITIVE_INFINITY;
  }

  /** Standard deviation of an integral of f^power L(f), as a share of it. */
  private double integralShare(double fromHz, double toHz, int power) {
    double sum = 0;
    double squares = 0;
    for (int i = 0; i < offsetHz.length; i++) {
      if (offsetHz[i] >= fromHz && offsetHz[i] <= toHz) {
        double part = Decibels.toPowerRatio(dbcPerHz[i]) * Math.pow(offsetHz[i], power + 1);
        sum += part;
        squares += sharedBy[i] * Math.pow(part * standardDb[i] * Math.log(10) / 10, 2);
      }
    }
    return sum > 0 ? Math.sqrt(squares) / sum : 0;
  }

  /** Standard deviation of the phase deviation or the jitter between two offsets, as a share. */
  public double phaseShare(double fromHz, double toHz) {
    return integralShare(fromHz, toHz, 0) / 2;
  }

  /** Standard deviation of the residual FM between two offsets, as a share. */
  public double residualFmShare(double fromHz, double toHz) {
    return integralShare(fromHz, toHz, 2) / 2;
  }

  private int near(double hz) {
    int near = 0;
    for (int i = 1; i < offsetHz.length; i++) {
      near = Math.abs(offsetHz[i] - hz) < Math.abs(offsetHz[near] - hz) ? i : near;
    }
    return near;
  }

  /** Standard deviation of L near an offset, dB. */
  public double standardAt(double hz) {
    return standardDb[near(hz)];
  }

  /** What is known not to be the carrier's at an offset, NaN if nothing is. */
  public double floorAt(double hz) {
    return floorDbcPerHz[near(hz)];
  }

  /** True if the floor hides what is at an offset. */
  public boolean hiddenAt(double hz) {
    return hidden(near(hz));
  }

  private static double reach(Trace t, double carrierHz) {
    return Math.min(t.stopHz() - carrierHz, carrierHz - t.startHz());
  }

  private static Trace finest(List<Trace> traces, double carrierHz, double from, double to) {
    Trace best = null;
    for (Trace t : traces) {
      boolean covers = from >= 0.8 * NEAREST_RBW * t.rbwHz() && to <= reach(t, carrierHz) * 1.1;
      if (covers && (best == null || t.rbwHz() < best.rbwHz())) {
        best = t;
      }
    }
    if (best != null) {
      return best;
    }
    throw new Refusal(
        "spanHz", "The spectra leave a gap in the offsets. Take one for each decade.");
  }

  /** Mean density of both side bands in a cell of offsets, lines taken out. */
  private static double cell(
      Trace t, double carrierHz, double carrierDbm, double from, double to, List<Spur> spurs) {
    double[] values = new double[2 * (int) Math.ceil((to - from) / t.stepHz() + 2)];
    double[] at = new double[values.length];
    int count = 0;
    for (int side : new int[] {-1, 1}) {
      double a = carrierHz + side * from;
      double b = carrierHz + side * to;
      int first = (int) Math.ceil((Math.min(a, b) - t.startHz()) / t.stepHz());
      int last = (int) Math.floor((Math.max(a, b) - t.startHz()) / t.stepHz());
      if (last < first) {
        // Narrower than the distance of points: between two of them.
        at[count] = side * Math.sqrt(from * to);
        values[count++] = between(t, carrierHz, at[count - 1]);
        continue;
      }
      for (int i = Math.max(first, 0); i <= Math.min(last, t.points() - 1); i++) {
        at[count] = t.frequencyHz(i) - carrierHz;
        values[count++] = t.level()[i];
      }
    }
    double[] sorted = Arrays.copyOf(values, count);
    Arrays.sort(sorted);
    double median = sorted[count / 2];
    double sum = 0;
    int kept = 0;
    int top = -1;
    for (int i = 0; i < count; i++) {
      if (values[i] > median + SPUR_DB && count >= 8) {
        top = top < 0 || values[i] > values[top] ? i : top;
      } else {
        sum += Decibels.toPowerRatio(values[i]);
        kept++;
      }
    }
    if (top >= 0) {
      spurs.add(new Spur(at[top], values[top] - carrierDbm));
    }
    return Decibels.fromPowerRatio(sum / kept / t.enbwHz()) - carrierDbm;
  }

  /** Level between two points, straight over the logarithm of the offset. */
  private static double between(Trace t, double carrierHz, double offset) {
    double place = (carrierHz + offset - t.startHz()) / t.stepHz();
    int i = (int) Math.max(0, Math.min(t.points() - 2, Math.floor(place)));
    double x0 = Math.log(Math.max(t.stepHz() / 2, Math.abs(t.frequencyHz(i) - carrierHz)));
    double x1 = Math.log(Math.max(t.stepHz() / 2, Math.abs(t.frequencyHz(i + 1) - carrierHz)));
    double share = x1 == x0 ? 0 : (Math.log(Math.abs(offset)) - x0) / (x1 - x0);
    return t.level()[i] + Math.max(0, Math.min(1, share)) * (t.level()[i + 1] - t.level()[i]);
  }

  /** One line may be seen in two cells. */
  private static List<Spur> merged(List<Spur> found) {
    List<Spur> spurs = new ArrayList<>();
    for (Spur s : found) {
      boolean known =
          spurs.stream().anyMatch(k -> Math.abs(k.offsetHz() / s.offsetHz() - 1) < 0.02);
      if (!known) {
        spurs.add(s);
      }
    }
    return List.copyOf(spurs);
  }

  /** L at an offset, straight on the logarithmic axis; NaN outside. */
  public double at(double hz) {
    int last = offsetHz.length - 1;
    if (hz < offsetHz[0] * (1 - 1e-9) || hz > offsetHz[last] * (1 + 1e-9)) {
      return Double.NaN;
    }
    int i = Math.min(Math.max(Arrays.binarySearch(offsetHz, hz), 0), last - 1);
    while (i < last - 1 && offsetHz[i + 1] < hz) {
      i++;
    }
    double share = Math.log(hz / offsetHz[i]) / Math.log(offsetHz[i + 1] / offsetHz[i]);
    return dbcPerHz[i] + share * (dbcPerHz[i + 1] - dbcPerHz[i]);
  }

  /** Root-mean-square phase deviation between two offsets, rad: sqrt(2 integral L df). */
  public double phaseRadians(double fromHz, double toHz) {
    return Math.sqrt(2 * integral(fromHz, toHz, 0));
  }

  /** Root-mean-square jitter in seconds: phase deviation / (2 pi f). */
  public double jitterSeconds(double fromHz, double toHz, double carrierHz) {
    return phaseRadians(fromHz, toHz) / (2 * Math.PI * carrierHz);
  }

  /** Residual FM, root mean square in hertz: sqrt(2 integral f^2 L df). */
  public double residualFmHz(double fromHz, double toHz) {
    return Math.sqrt(2 * integral(fromHz, toHz, 2));
  }

  /** Integral of f^power L(f) with L a power law between points: exact for straight curves. */
  private double integral(double fromHz, double toHz, int power) {
    double sum = 0;
    for (int i = 0; i + 1 < offsetHz.length; i++) {
      double a = Math.max(offsetHz[i], fromHz);
      double b = Math.min(offsetHz[i + 1], toHz);
      if (b <= a) {
        continue;
      }
      double la = Decibels.toPowerRatio(at(a)) * Math.pow(a, power);
      double lb = Decibels.toPowerRatio(at(b)) * Math.pow(b, power);
      double slope = Math.log(lb / la) / Math.log(b / a);
      sum +=
          Math.abs(slope + 1) < 1e-9 ? la * a * Math.log(b / a) : (lb * b - la * a) / (slope + 1);
    }
    return sum;
  }
}
