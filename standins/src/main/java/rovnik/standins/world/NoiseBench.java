package rovnik.standins.world;

import java.util.List;

/**
 * A noise source on the bench and what is plugged between it and the receiver. The receiver's own
 * noise is made with a source at 290 K before it; here is only what comes on top of that.
 */
public final class NoiseBench implements PortSignal {
  public static final String THROUGH = "Through";
  public static final String PREAMPLIFIER = "Shore preamplifier";
  public static final List<String> PARTS = List.of(THROUGH, PREAMPLIFIER);

  private final World world;
  private volatile boolean hot;
  private volatile String part = PREAMPLIFIER;

  public NoiseBench(World world) {
    this.world = world;
  }

  public void setHot(boolean on) {
    hot = on;
  }

  public boolean hot() {
    return hot;
  }

  public void plug(String name) {
    part = name;
  }

  public String plugged() {
    return part;
  }

  @Override
  public double levelAtPortDbm() {
    return -60;
  }

  /** Noise at the port above that of a source at 290 K, in units of kT. */
  double excess(double hz) {
    double source = hot ? Math.pow(10, Truth.NOISE_SOURCE_ENR_DB / 10) : 0;
    if (part.equals(THROUGH)) {
      return source;
    }
    double gain = Math.pow(10, preampGainDb(hz) / 10);
    double figure = Math.pow(10, Truth.PREAMP_NOISE_FIGURE_DB / 10);
    return (figure + source) * gain - 1;
  }

  /** Gain of the preamplifier; outside of its band it falls 12 dB an octave. */
  static double preampGainDb(double hz) {
    double slope = Truth.PREAMP_FALL_DB / (Truth.PREAMP_TO_HZ - Truth.PREAMP_FROM_HZ);
    double inBand = Math.min(Math.max(hz, Truth.PREAMP_FROM_HZ), Truth.PREAMP_TO_HZ);
    double away = Math.abs(Math.log(hz / inBand) / Math.log(2));
    return Truth.PREAMP_GAIN_DB - slope * (inBand - 458e6) - 12 * away;
  }

  @Override
  public Clock clock() {
    return world.clock();
  }

  @Override
  public void receive(double[] iq, int samples, double centreHz, double rateHz) {
    double kt = Math.pow(10, Truth.THERMAL_DBM_PER_HZ / 10);
    Noise noise = world.noise();
    double sigma = Math.sqrt(Math.max(0, excess(centreHz)) * kt * rateHz / 2);
    noise.add(iq, 2 * samples, sigma);
  }
}
