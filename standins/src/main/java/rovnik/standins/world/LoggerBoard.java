package rovnik.standins.world;

/**
 * The logger board under a near-field probe over its regulator: a short burst whenever the flash is
 * written.
 */
final class LoggerBoard implements PortSignal {
  /** How fast the burst comes and goes. */
  private static final double EDGE_SECONDS = 0.3e-6;

  private final Clock clock;
  private volatile String place = "regulator";

  LoggerBoard(Clock clock) {
    this.clock = clock;
  }

  @Override
  public Clock clock() {
    return clock;
  }

  /** A hand moves the probe. */
  void hold(String wanted) {
    place = wanted;
  }

  String place() {
    return place;
  }

  @Override
  public double levelAtPortDbm() {
    return Truth.LOGGER_DBM - Truth.LOGGER_PLACES_DB.get(place);
  }

  @Override
  public void receive(double[] iq, int samples, double centreHz, double rateHz) {
    double start = clock.seconds();
    double offset = Truth.LOGGER_HZ - centreHz;
    double a = World.amplitude(levelAtPortDbm()) * World.bandShape(offset, rateHz);
    double every = Truth.LOGGER_EVERY_SECONDS;
    long first = (long) Math.floor(start / every) - 1;
    long last = (long) Math.floor((start + samples / rateHz) / every) + 1;
    for (long k = first; k <= last && a > 0; k++) {
      double from = k * every + Truth.LOGGER_LAG_SECONDS;
      double to = from + Truth.LOGGER_LENGTH_SECONDS;
      int low = (int) Math.max(0, Math.floor((from - EDGE_SECONDS - start) * rateHz));
      int high = (int) Math.min(samples, Math.ceil((to + EDGE_SECONDS - start) * rateHz));
      for (int n = low; n < high; n++) {
        double t = start + n / rateHz;
        double up = Math.min(1, Math.max(0, (t - from) / EDGE_SECONDS + 0.5));
        double down = Math.min(1, Math.max(0, (to - t) / EDGE_SECONDS + 0.5));
        double cycles = offset * t;
        double angle = 2 * Math.PI * (cycles - Math.floor(cycles));
        double v = a * Math.min(up, down);
        iq[2 * n] += v * Math.cos(angle);
        iq[2 * n + 1] += v * Math.sin(angle);
      }
    }
    clock.pass(samples / rateHz);
  }
}
