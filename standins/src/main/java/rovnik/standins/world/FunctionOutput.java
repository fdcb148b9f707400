package rovnik.standins.world;

/** The function source: a voltage over time, with the small errors of its scales. */
public final class FunctionOutput {
  /** What it can put out. */
  public enum Shape {
    SIN,
    TRI,
    SQU,
    DC
  }

  private boolean on;
  private Shape shape = Shape.SIN;
  private double frequencyHz = 1e3;
  private double amplitudeVolts;
  private double offsetVolts;

  public synchronized boolean on() {
    return on;
  }

  public synchronized void setOn(boolean v) {
    on = v;
  }

  public synchronized Shape shape() {
    return shape;
  }

  public synchronized void setShape(Shape v) {
    shape = v;
  }

  public synchronized double frequencyHz() {
    return frequencyHz;
  }

  public synchronized void setFrequencyHz(double hz) {
    frequencyHz = hz;
  }

  public synchronized double amplitudeVolts() {
    return amplitudeVolts;
  }

  public synchronized void setAmplitudeVolts(double v) {
    amplitudeVolts = v;
  }

  public synchronized double offsetVolts() {
    return offsetVolts;
  }

  public synchronized void setOffsetVolts(double v) {
    offsetVolts = v;
  }

  public synchronized void reset() {
    on = false;
    shape = Shape.SIN;
    frequencyHz = 1e3;
    amplitudeVolts = 0;
    offsetVolts = 0;
  }

  synchronized double highestVolts() {
    return on ? mean() + swing() : 0;
  }

  synchronized double lowestVolts() {
    return on ? mean() - swing() : 0;
  }

  private double mean() {
    return offsetVolts * (1 + Truth.FUNCTION_SHARE_ERROR) + Truth.FUNCTION_OFFSET_ERROR_VOLTS;
  }

  private double swing() {
    return shape == Shape.DC ? 0 : amplitudeVolts * (1 + Truth.FUNCTION_SHARE_ERROR);
  }

  /** The voltage at a time. */
  synchronized double at(double seconds) {
    if (!on) {
      return 0;
    }
    double cycles = seconds * frequencyHz * (1 + Truth.FUNCTION_REFERENCE_ERROR);
    double x = cycles - Math.floor(cycles);
    double wave =
        switch (shape) {
          case SIN -> Math.sin(2 * Math.PI * x);
          case TRI -> x < 0.25 ? 4 * x : x < 0.75 ? 2 - 4 * x : 4 * x - 4;
          case SQU -> x < 0.5 ? 1 : -1;
          case DC -> 0;
        };
    return mean() + swing() * wave;
  }
}
