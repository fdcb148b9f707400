package rovnik.core.spectrum;

import rovnik.core.Refusal;

/**
 * One row of a view with several traces.
 *
 * @param mode what it does
 * @param count spectra in an average, 1 to 256; 1 where the mode has none
 * @param a row that math takes first, from 0; 0 where the mode has none
 * @param b row that math takes second
 */
public record TraceRow(TraceMode mode, int count, int a, int b) {
  /** Rows of one view. */
  public static final int MOST_ROWS = 6;

  public static final int MOST_COUNT = 256;

  public TraceRow {
    if (mode == null) {
      throw new Refusal("traces", "Choose what the trace shall show, for example HIGHEST.");
    }
    if (count < 1 || count > MOST_COUNT) {
      throw new Refusal("traces", "A trace averages 1 to " + MOST_COUNT + " spectra.");
    }
    if (a < 0 || b < 0 || a >= MOST_ROWS || b >= MOST_ROWS) {
      throw new Refusal("traces", "A difference is taken of two of the traces 1 to 6.");
    }
  }

  public static TraceRow of(TraceMode mode, int count) {
    return new TraceRow(mode, count, 0, 0);
  }

  public static TraceRow math(TraceMode mode, int a, int b) {
    return new TraceRow(mode, 1, a, b);
  }

  /** The name as shown. */
  public String label() {
    if (mode.math()) {
      String unit = mode == TraceMode.RATIO ? "dB" : "power";
      return (a + 1) + " \u2212 " + (b + 1) + " in " + unit;
    }
    return mode.counted() ? mode.label() + " " + count : mode.label();
  }
}
