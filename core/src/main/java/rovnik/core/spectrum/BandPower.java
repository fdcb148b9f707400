package rovnik.core.spectrum;

import rovnik.core.units.Decibels;

/**
 * Power in bands of one trace: the sum of the points' densities, each level divided by the ENBW.
 * The running sum is made once, so that many bands of one trace are cheap. A point stands for one
 * step around it; points at the edges count by the share that lies inside.
 */
public final class BandPower {
  private final Trace trace;

  /** Power below the left edge of each point's cell, in the linear unit of the trace, in hertz. */
  private final double[] below;

  public BandPower(Trace trace) {
    this(trace, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
  }

  /** For bands between two frequencies only: what lies outside is not looked at. */
  BandPower(Trace trace, double fromHz, double toHz) {
    this.trace = trace;
    float[] level = trace.level();
    this.below = new double[level.length + 1];
    double first = (fromHz - lowestHz()) / trace.stepHz() - 1;
    double last = (toHz - lowestHz()) / trace.stepHz() + 1;
    for (int i = 0; i < level.length; i++) {
      boolean wanted = i >= first && i <= last;
      below[i + 1] = wanted ? below[i] + Decibels.toPowerRatio(level[i]) : below[i];
    }
  }

  public Trace trace() {
    return trace;
  }

  /** Left edge of the first point's cell. */
  public double lowestHz() {
    return trace.startHz() - trace.stepHz() / 2;
  }

  /** Right edge of the last point's cell. */
  public double highestHz() {
    return trace.stopHz() + trace.stepHz() / 2;
  }

  /** Power between two frequencies, linear (mW for a trace in dBm); what lies outside is 0. */
  public double linear(double lowHz, double highHz) {
    return (sumBelow(highHz) - sumBelow(lowHz)) * trace.stepHz() / trace.enbwHz();
  }

  /** Power between two frequencies in the trace's unit. */
  public double level(double lowHz, double highHz) {
    return Decibels.fromPowerRatio(linear(lowHz, highHz));
  }

  private double sumBelow(double hz) {
    double cell = (hz - lowestHz()) / trace.stepHz();
    if (cell <= 0) {
      return 0;
    }
    int whole = (int) Math.min(cell, below.length - 1);
    if (whole == below.length - 1) {
      return below[whole];
    }
    return below[whole] + (cell - whole) * (below[whole + 1] - below[whole]);
  }

  /** Frequency below which the given share (0 to 1) of all power lies. */
  public double frequencyAtShare(double share) {
    double wanted = share * below[below.length - 1];
    int low = 0;
    int high = below.length - 1;
    while (high - low > 1) {
      int mid = (low + high) >>> 1;
      if (below[mid] <= wanted) {
        low = mid;
      } else {
        high = mid;
      }
    }
    double cell = below[high] - below[low];
    double inside = cell > 0 ? (wanted - below[low]) / cell : 0.5;
    return lowestHz() + (low + inside) * trace.stepHz();
  }
}
