package rovnik.core.spectrum;

import rovnik.core.Refusal;

/**
 * A spectrum on an even frequency grid, referred to a plane.
 *
 * @param startHz frequency of the first point at the plane
 * @param stepHz distance of two points, positive
 * @param level levels in {@code unit}; shared, not copied
 * @param unit "dBm" or "dBFS"
 * @param plane name of the plane that levels and frequencies are referred to
 * @param rbwHz 3-dB width of the resolution filter
 * @param enbwHz equivalent noise bandwidth of one point
 * @param segments number of averaged segments
 * @param window label of the window
 * @param detector label of the detector
 * @param calibrated false if levels are relative to full scale only
 */
public record Trace(
    double startHz,
    double stepHz,
    float[] level,
    String unit,
    String plane,
    double rbwHz,
    double enbwHz,
    int segments,
    String window,
    String detector,
    boolean calibrated) {

  /** A trace whose levels are known at its plane. */
  public Trace(
      double startHz,
      double stepHz,
      float[] level,
      String unit,
      String plane,
      double rbwHz,
      double enbwHz,
      int segments,
      String window,
      String detector) {
    this(startHz, stepHz, level, unit, plane, rbwHz, enbwHz, segments, window, detector, true);
  }

  public Trace {
    if (level.length == 0 || !(stepHz > 0)) {
      throw new Refusal("trace", "A trace needs at least one point and a positive step.");
    }
  }

  /** The same trace with other levels on the same points. */
  public Trace with(float[] other, String otherUnit) {
    return on(startHz, stepHz, other, otherUnit);
  }

  /** What is known of this trace, for other points of it. */
  Trace on(double start, double step, float[] other, String otherUnit) {
    return new Trace(
        start,
        step,
        other,
        otherUnit,
        plane,
        rbwHz,
        enbwHz,
        segments,
        window,
        detector,
        calibrated);
  }

  public int points() {
    return level.length;
  }

  public double frequencyHz(int point) {
    return startHz + point * stepHz;
  }

  public double stopHz() {
    return frequencyHz(level.length - 1);
  }

  /** Level at a frequency, linear in dB between points; NaN outside the trace. */
  public double levelAt(double frequencyHz) {
    double x = (frequencyHz - startHz) / stepHz;
    if (x < -1e-6 || x > level.length - 1 + 1e-6) {
      return Double.NaN;
    }
    int i = (int) Math.min(Math.max(Math.floor(x), 0), Math.max(level.length - 2, 0));
    if (level.length == 1) {
      return level[0];
    }
    double share = Math.min(Math.max(x - i, 0), 1);
    return level[i] + share * (level[i + 1] - level[i]);
  }
}
