package rovnik.core.result;

import rovnik.core.Refusal;

/**
 * Where the values of a series stand: on even steps, or each on a place of its own.
 *
 * @param quantity "Frequency", "Offset", "Distance", ...
 * @param unit "Hz", "m", "s", or "" for a count
 * @param logarithmic true if it is best drawn over decades
 * @param start place of the first value, if the steps are even
 * @param step distance of two values; 0 if each has a place of its own
 * @param points number of values
 * @param own rising places of the values, not copied; null if the steps are even
 */
public record Axis(
    String quantity,
    String unit,
    boolean logarithmic,
    double start,
    double step,
    int points,
    double[] own) {

  public static final String FREQUENCY = "Frequency";

  public Axis {
    if (own != null && own.length != points) {
      throw new Refusal("x", "An axis needs one place for each value.");
    }
  }

  public static Axis even(String quantity, String unit, double start, double step, int points) {
    return new Axis(quantity, unit, false, start, step, points, null);
  }

  public static Axis own(String quantity, String unit, double[] places) {
    return new Axis(
        quantity, unit, false, places.length == 0 ? 0 : places[0], 0, places.length, places);
  }

  /** The same over decades. */
  public Axis overDecades() {
    return new Axis(quantity, unit, true, start, step, points, own);
  }

  public double at(int i) {
    return own == null ? start + i * step : own[i];
  }

  public double first() {
    return at(0);
  }

  public double last() {
    return at(points - 1);
  }

  /** All places; the own ones are not copied. */
  public double[] places() {
    if (own != null) {
      return own;
    }
    double[] all = new double[points];
    for (int i = 0; i < points; i++) {
      all[i] = at(i);
    }
    return all;
  }

  /** True if both measure the same quantity in the same unit. */
  public boolean like(Axis other) {
    return quantity.equals(other.quantity) && unit.equals(other.unit);
  }
}
