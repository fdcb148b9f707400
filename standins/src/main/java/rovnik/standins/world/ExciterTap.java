package rovnik.standins.world;

/**
 * The buoy transmitter's exciter at its test point, seen through a probe whose switch divides the
 * voltage by 1 or 10.
 */
public final class ExciterTap implements PortSignal {
  private final World world;
  private volatile int divides = 10;

  public ExciterTap(World world) {
    this.world = world;
  }

  /** The switch on the probe. */
  public void setDivides(int by) {
    divides = by;
  }

  public int divides() {
    return divides;
  }

  private double probeDb() {
    return 20 * Math.log10(divides);
  }

  @Override
  public double levelAtPortDbm() {
    return world.transmitting() ? Truth.EXCITER_DBM - probeDb() : -200;
  }

  @Override
  public Clock clock() {
    return world.clock();
  }

  @Override
  public void receive(double[] iq, int samples, double centreHz, double rateHz) {
    if (!world.transmitting()) {
      return;
    }
    double level = Truth.EXCITER_DBM - probeDb();
    double offset = Truth.BUOY_HZ - centreHz;
    world.tone(iq, samples, rateHz, offset + Truth.SPUR_OFFSET_HZ, level + Truth.EXCITER_SPUR_DBC);
    world.tone(
        iq, samples, rateHz, offset + Truth.BUOY_HZ, level + Truth.EXCITER_SECOND_HARMONIC_DBC);
    if (!world.data()) {
      world.tone(iq, samples, rateHz, offset, level);
      return;
    }
    double amplitude = World.amplitude(level) * World.bandShape(offset, rateHz);
    double start = world.timeSeconds();
    double[] b = new double[2];
    for (int n = 0; n < samples; n++) {
      double t = start + n / rateHz;
      world.symbols().at(t * Truth.SYMBOL_RATE_HZ, b);
      double angle = 2 * Math.PI * offset * n / rateHz;
      double c = amplitude * Math.cos(angle);
      double s = amplitude * Math.sin(angle);
      iq[2 * n] += b[0] * c - b[1] * s;
      iq[2 * n + 1] += b[0] * s + b[1] * c;
    }
  }
}
