package rovnik.core.spectrum;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;

/**
 * Several looks at one signal: each row makes its own trace of the spectra that come in. Powers are
 * linear. Rows may only do math on rows above them.
 */
public final class TraceStack {
  /** Values that one row may hold for its average: 16 MB. */
  private static final int MOST_VALUES = 1 << 21;

  /** Makes what a weighted row shows; asked once a row and spectrum. */
  public interface Weighted {
    void into(TraceMode mode, double[] out);
  }

  private final List<TraceRow> rows;
  private final int points;
  private final double[][] shown;
  private final RollingSpectrum[] rolling;
  private final int[] taken;
  private final double[] newest;

  /**
   * @param frozen for each frozen row what it shows, or null; other entries are not looked at
   * @throws Refusal if a row cannot be
   */
  public TraceStack(List<TraceRow> rows, int points, List<double[]> frozen) {
    if (rows.size() > TraceRow.MOST_ROWS) {
      throw new Refusal("traces", "A view has at most " + TraceRow.MOST_ROWS + " traces.");
    }
    this.rows = List.copyOf(rows);
    this.points = points;
    this.shown = new double[rows.size()][];
    this.rolling = new RollingSpectrum[rows.size()];
    this.taken = new int[rows.size()];
    this.newest = new double[points];
    for (int i = 0; i < rows.size(); i++) {
      TraceRow row = rows.get(i);
      if (row.mode().math() && (row.a() >= i || row.b() >= i)) {
        throw new Refusal("traces", "Trace " + (i + 1) + " can only differ traces above it.");
      }
      shown[i] = new double[points];
      switch (row.mode()) {
        case POWER_AVERAGE -> rolling[i] = rolling(Detector.RMS, row, i);
        case LOG_AVERAGE -> rolling[i] = rolling(Detector.LOG_AVERAGE, row, i);
        case FROZEN -> {
          double[] kept = i < frozen.size() ? frozen.get(i) : null;
          if (kept != null && kept.length == points) {
            shown[i] = kept.clone();
            taken[i] = 1;
          }
        }
        default -> {
          // one array is enough
        }
      }
    }
  }

  private RollingSpectrum rolling(Detector detector, TraceRow row, int index) {
    if ((long) row.count() * points > MOST_VALUES) {
      throw new Refusal(
          "traces",
          "Trace "
              + (index + 1)
              + " would hold "
              + row.count()
              + " spectra of "
              + points
              + " points. Take the fading average, or fewer.");
    }
    return new RollingSpectrum(detector, points, row.count());
  }

  public List<TraceRow> rows() {
    return rows;
  }

  /**
   * Adds one spectrum to all rows.
   *
   * @param power linear, {@code points} long, not changed
   * @throws Refusal if a row is weighted: there are no samples for it
   */
  public void take(double[] power) {
    take(
        power,
        (mode, out) -> {
          throw new Refusal(
              "traces",
              "The "
                  + mode.label()
                  + " trace needs the samples of a single record. Narrow the"
                  + " span, or take an IQ receiver.");
        });
  }

  /**
   * Adds one spectrum to all rows.
   *
   * @param power linear, {@code points} long, not changed
   * @param weighted makes the rows that come from samples, on the same scale
   */
  public void take(double[] power, Weighted weighted) {
    System.arraycopy(power, 0, newest, 0, points);
    for (int i = 0; i < rows.size(); i++) {
      if (rows.get(i).mode().weighted()) {
        weighted.into(rows.get(i).mode(), shown[i]);
        taken[i]++;
      } else {
        take(i);
      }
    }
  }

  /** Lets the weighted rows show what they have seen since the last spectrum. */
  public void weigh(Weighted weighted) {
    for (int i = 0; i < rows.size(); i++) {
      if (rows.get(i).mode().weighted()) {
        weighted.into(rows.get(i).mode(), shown[i]);
      }
    }
  }

  private void take(int i) {
    double[] out = shown[i];
    TraceRow row = rows.get(i);
    boolean first = taken[i] == 0;
    switch (row.mode()) {
      case LIVE -> System.arraycopy(newest, 0, out, 0, points);
      case POWER_AVERAGE, LOG_AVERAGE -> {
        rolling[i].take(newest, 1);
        rolling[i].powerInto(out);
      }
      case EXPONENTIAL_AVERAGE -> {
        // The first few count alike, so that the start does not hang on the very first.
        double weight = 1.0 / Math.min(taken[i] + 1, row.count());
        for (int k = 0; k < points; k++) {
          out[k] += weight * (newest[k] - out[k]);
        }
      }
      case HIGHEST -> {
        for (int k = 0; k < points; k++) {
          out[k] = first ? newest[k] : Math.max(out[k], newest[k]);
        }
      }
      case LOWEST -> {
        for (int k = 0; k < points; k++) {
          out[k] = first ? newest[k] : Math.min(out[k], newest[k]);
        }
      }
      case FROZEN -> {
        if (first) {
          System.arraycopy(newest, 0, out, 0, points);
        }
      }
      case RATIO -> {
        double[] a = shown[row.a()];
        double[] b = shown[row.b()];
        for (int k = 0; k < points; k++) {
          out[k] = a[k] / Math.max(b[k], 1e-30);
        }
      }
      case REST -> {
        double[] a = shown[row.a()];
        double[] b = shown[row.b()];
        for (int k = 0; k < points; k++) {
          out[k] = Math.max(a[k] - b[k], 0);
        }
      }
      default -> throw new IllegalStateException(row.mode() + " is made from samples");
    }
    taken[i]++;
  }

  /** Spectra that a row has taken. */
  public int taken(int row) {
    return taken[row];
  }

  /** Linear power of a row; the array is the row's own and changes with the next spectrum. */
  public double[] power(int row) {
    return shown[row];
  }

  /** What the frozen rows show, to be handed to a new stack of the same points. */
  public List<double[]> frozen() {
    List<double[]> kept = new ArrayList<>();
    for (int i = 0; i < rows.size(); i++) {
      kept.add(rows.get(i).mode() == TraceMode.FROZEN && taken[i] > 0 ? shown[i].clone() : null);
    }
    return kept;
  }
}
