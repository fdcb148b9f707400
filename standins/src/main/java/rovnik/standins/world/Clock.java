package rovnik.standins.world;

/** The time of what is received; it passes only while samples are made, or missed. */
public final class Clock {
  private double seconds;

  public synchronized double seconds() {
    return seconds;
  }

  public synchronized void pass(double more) {
    seconds += more;
  }
}
