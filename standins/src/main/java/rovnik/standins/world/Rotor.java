package rovnik.standins.world;

/** A phase that turns evenly: cosine and sine without computing them anew for each sample. */
final class Rotor {
  private static final int ANEW = 1024;
  private final double start;
  private final double step;
  private final double stepCos;
  private final double stepSin;
  private int taken;
  double cos;
  double sin;

  /**
   * @param start first phase
   * @param step from sample to sample
   */
  Rotor(double start, double step) {
    this.start = start;
    this.step = step;
    this.stepCos = Math.cos(step);
    this.stepSin = Math.sin(step);
    set();
  }

  private void set() {
    double angle = Math.IEEEremainder(start + step * (double) taken, 2 * Math.PI);
    cos = Math.cos(angle);
    sin = Math.sin(angle);
  }

  /** To the next sample. */
  void turn() {
    if ((++taken & ANEW - 1) == 0) {
      set(); // rounding must not add up
      return;
    }
    double c = cos * stepCos - sin * stepSin;
    sin = sin * stepCos + cos * stepSin;
    cos = c;
  }
}
