package rovnik.core.result;

import java.util.List;
import rovnik.core.Refusal;

/**
 * One set of values over an axis.
 *
 * @param id stable key, unique within an outcome
 * @param label as shown, "" for one that needs no name
 * @param role what it is to the others
 * @param plane that its values are referred to, "" if they belong to none
 * @param calibrated true if levels are known at the plane, false if they are relative to full scale
 * @param x where the values stand
 * @param quantity "Level", "Magnitude", "Phase", ...
 * @param unit of the values
 * @param values as many as the axis has points
 * @param facts how it was made: RBW, averages, window, ...
 */
public record Series(
    String id,
    String label,
    Role role,
    String plane,
    boolean calibrated,
    Axis x,
    String quantity,
    String unit,
    Values values,
    List<Fact> facts) {

  /** What a series is to the others of its outcome. */
  public enum Role {
    /** Measured; the first of them is the main one. */
    DATA,
    /** What data is seen beside, such as what is there without the signal: drawn with it. */
    BESIDE,
    /** A limit that data is held to. */
    LIMIT,
    /** A stroke at a place, such as the edge of an occupied band. */
    EDGE;

    /** True if it is drawn as the line that it is. */
    public boolean line() {
      return this == LIMIT || this == EDGE;
    }
  }

  public Series {
    if (x.points() != values.points()) {
      throw new Refusal(
          "series",
          id + " has " + values.points() + " values for " + x.points() + " places on its axis.");
    }
    facts = List.copyOf(facts);
  }

  /** Measured numbers over an axis, at no plane in particular. */
  public static Series curve(String id, String label, Axis x, double[] y, String unit) {
    return new Series(
        id, label, Role.DATA, "", true, x, "Level", unit, new Values.Real(y), List.of());
  }

  /** Points in the complex plane, one after the other, over what is 1 by itself. */
  public static Series points(String id, String label, Axis x, double[] re, double[] im) {
    return new Series(
        id, label, Role.DATA, "", true, x, "Amplitude", "", new Values.Complex(re, im), List.of());
  }

  /** Measured numbers over places of their own on a frequency axis. */
  public static Series curve(String id, String label, double[] hz, double[] y, String unit) {
    return curve(id, label, Axis.own(Axis.FREQUENCY, "Hz", hz), y, unit);
  }

  /** A limit line over frequency. */
  public static Series limit(String id, String label, double[] hz, double[] y, String unit) {
    return curve(id, label, hz, y, unit).as(Role.LIMIT);
  }

  public Series as(Role other) {
    return new Series(id, label, other, plane, calibrated, x, quantity, unit, values, facts);
  }

  public Series named(String newId, String newLabel) {
    return new Series(newId, newLabel, role, plane, calibrated, x, quantity, unit, values, facts);
  }

  public Series of(String otherQuantity) {
    return new Series(id, label, role, plane, calibrated, x, otherQuantity, unit, values, facts);
  }

  /** The same over an axis that says what it is. */
  public Series over(Axis axis) {
    return new Series(id, label, role, plane, calibrated, axis, quantity, unit, values, facts);
  }

  /** With other numbers in another unit on the same places. */
  public Series with(double[] y, String otherUnit) {
    return new Series(
        id, label, role, plane, calibrated, x, quantity, otherUnit, new Values.Real(y), facts);
  }

  public boolean real() {
    return values instanceof Values.Real;
  }

  /** The numbers of a real series. */
  public double[] y() {
    if (values instanceof Values.Real r) {
      return r.y();
    }
    throw new IllegalStateException(id + " is not a series of real numbers");
  }

  /** A known number, NaN if it is not there. */
  public double fact(String name) {
    return facts.stream()
        .filter(f -> f.label().equals(name))
        .mapToDouble(Fact::value)
        .findFirst()
        .orElse(Double.NaN);
  }

  /** Value of a real series at a place, straight between its points; NaN outside. */
  public double valueAt(double place) {
    double[] y = y();
    int n = y.length;
    double slack = 1e-6 * Math.abs(x.step());
    if (n == 0 || place < x.first() - slack || place > x.last() + slack) {
      return Double.NaN;
    }
    if (n == 1) {
      return y[0];
    }
    int i;
    if (x.own() == null) {
      i = (int) Math.floor((place - x.start()) / x.step());
    } else {
      int found = java.util.Arrays.binarySearch(x.own(), place);
      i = found >= 0 ? found : -found - 2;
    }
    i = Math.max(0, Math.min(n - 2, i));
    double width = x.at(i + 1) - x.at(i);
    double share = width == 0 ? 0 : Math.max(0, Math.min(1, (place - x.at(i)) / width));
    return y[i] + share * (y[i + 1] - y[i]);
  }
}
