package rovnik.standins.world;

/** One of the generator's baseband outputs: I, Q, or the third; full scale is half a volt. */
public final class Connector {
  static final double FULL_SCALE_VOLTS = 0.5;

  public double gainDb;
  public double delaySeconds;
  public double offsetVolts;

  double gain() {
    return World.amplitude(gainDb);
  }

  void reset() {
    gainDb = 0;
    delaySeconds = 0;
    offsetVolts = 0;
  }
}
