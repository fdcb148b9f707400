package rovnik.core.modulation.analysis;

/** Cosine and sine of an angle that grows evenly, times a gain. */
final class Turner {
  /** Steps after which rounding is taken off. */
  private static final int AFRESH = 256;

  private final double start;
  private final double step;
  private final double gain;
  private final double stepCos;
  private final double stepSin;
  private int steps;
  double cos;
  double sin;

  Turner(double start, double step, double gain) {
    this.start = start;
    this.step = step;
    this.gain = gain;
    this.stepCos = Math.cos(step);
    this.stepSin = Math.sin(step);
    this.cos = gain * Math.cos(start);
    this.sin = gain * Math.sin(start);
  }

  void next() {
    steps++;
    if (steps % AFRESH == 0) {
      cos = gain * Math.cos(start + step * steps);
      sin = gain * Math.sin(start + step * steps);
    } else {
      double c = cos * stepCos - sin * stepSin;
      sin = cos * stepSin + sin * stepCos;
      cos = c;
    }
  }
}
