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
    return cell(time, false);
  }

  /** How that grows, in shares a symbol: the frequency pulse. */
  public double slopeAt(double time) {
    if (Math.abs(time) >= reach) {
      return 0;
    }
    if (ends()) {
      return shape.kind() == PulseShape.Kind.HALF_SINE ? Math.PI / 2 * Math.cos(Math.PI * time) : 1;
    }
    return cell(time, true);
  }

  private double cell(double time, boolean growth) {
    double place = (time + reach) * PLACES;
    int i = Math.min(value.length - 2, (int) place);
    double x = place - i;
    if (growth) {
      return slope[i] + x * (slope[i + 1] - slope[i]);
    }
    // Hermite's cubic: value and slope at both ends of the cell.
    double rise = value[i + 1] - value[i];
    double a = slope[i] / PLACES - rise;
    double b = rise - slope[i + 1] / PLACES;
    return value[i] + x * (rise + (1 - x) * (a * (1 - x) + b * x));
  }
}
