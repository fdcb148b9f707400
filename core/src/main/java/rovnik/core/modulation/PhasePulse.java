package rovnik.core.modulation;

/**
 * What one symbol of a keyed format does to the phase: from 0 long before it to 1 long after it,
 * the integral of its frequency pulse (Anderson, Aulin and Sundberg, Digital Phase Modulation,
 * 1986, from memory). Time is in symbols.
 */
public final class PhasePulse {
  private static final int PLACES = 256;

  private final PulseShape shape;
  private final double reach;
  private final double[] value;
  private final double[] slope;

  public PhasePulse(PulseShape shape) {
    this.shape = shape;
    this.reach = shape.keyedReach();
    int cells = (int) Math.rint(2 * reach * PLACES);
    this.value = new double[cells + 1];
    this.slope = new double[cells + 1];
    if (ends()) {
      return;
    }
    for (int i = 0; i <= cells; i++) {
      slope[i] = shape.keyedAt((double) i / PLACES - reach);
    }
    for (int i = 1; i <= cells; i++) {
      // Simpson's rule.
      double middle = shape.keyedAt((i - 0.5) / PLACES - reach);
      value[i] = value[i - 1] + (slope[i - 1] + 4 * middle + slope[i]) / 6 / PLACES;
    }
    double all = value[cells];
    for (int i = 0; i <= cells; i++) {
      value[i] /= all;
      slope[i] /= all;
    }
  }

  /** Whether the shape ends within its symbol, with a closed form. */
  private boolean ends() {
    return reach == 0.5;
  }

  /** Symbols to each side that one reaches. */
  public double reach() {
    return reach;
  }

  /** The share of its turn that a symbol has made. */
  public double at(double time) {
    if (time <= -reach) {
      return 0;
    }
    if (time >= reach) {
      return 1;
    }
    if (ends()) {
      return shape.kind() == PulseShape.Kind.HALF_SINE
          ? (1 + Math.sin(Math.PI * time)) / 2
          : time + 0.5;
    }
    double place = (time + reach) * PLACES;
    int i = Math.min(value.length - 2, (int) place);
    double x = place - i;
    // Hermite's cubic: value and slope at both ends of the cell.
    double rise = value[i + 1] - value[i];
    double a = slope[i] / PLACES - rise;
    double b = rise - slope[i + 1] / PLACES;
    return value[i] + x * (rise + (1 - x) * (a * (1 - x) + b * x));
  }

  /** How that grows where a shape ends within its symbol, in shares a symbol. */
  private double slopeAt(double time) {
    if (Math.abs(time) >= reach) {
      return 0;
    }
    return shape.kind() == PulseShape.Kind.HALF_SINE ? Math.PI / 2 * Math.cos(Math.PI * time) : 1;
  }

  /**
   * What symbols together have turned the phase by.
   *
   * @param turns of each symbol, whose middle is at its own number
   * @param from first symbol that counts, at least 0
   * @param to last one, within the turns
   */
  public double turned(double[] turns, double time, int from, int to) {
    double sum = 0;
    if (ends()) {
      for (int k = from; k <= to; k++) {
        sum += turns[k] * at(time - k);
      }
      return sum;
    }
    // All of them stand at the same place within a cell.
    double place = (time - from + reach) * PLACES;
    int i = (int) Math.floor(place);
    double x = place - i;
    double y = 1 - x;
    double ofHigh = x * x * (3 - 2 * x);
    double ofRise = x * y * y / PLACES;
    double ofFall = -x * x * y / PLACES;
    for (int k = from; k <= to; k++, i -= PLACES) {
      if (i < 0) {
        break; // those that are still to come
      }
      sum +=
          i >= value.length - 1
              ? turns[k]
              : turns[k]
                  * (value[i]
                      + ofHigh * (value[i + 1] - value[i])
                      + ofRise * slope[i]
                      + ofFall * slope[i + 1]);
    }
    return sum;
  }

  /** How that grows, a symbol. */
  public double growth(double[] turns, double time, int from, int to) {
    double sum = 0;
    if (ends()) {
      for (int k = from; k <= to; k++) {
        sum += turns[k] * slopeAt(time - k);
      }
      return sum;
    }
    double place = (time - from + reach) * PLACES;
    int i = (int) Math.floor(place);
    double x = place - i;
    for (int k = from; k <= to && i >= 0; k++, i -= PLACES) {
      if (i < value.length - 1) {
        sum += turns[k] * (slope[i] + x * (slope[i + 1] - slope[i]));
      }
    }
    return sum;
  }
}
