package rovnik.standins.world;

/**
 * The dock oscillator behind a short cable, fed from the function source. Its output follows the
 * supply linearly from a threshold on, and its frequency is pushed a little; what is beyond its
 * damage voltage kills it for good.
 */
public final class OscillatorLine implements PortSignal {
  private final World world;
  private final FunctionOutput supply;
  private boolean dead;
  private double phase;

  public OscillatorLine(World world, FunctionOutput supply) {
    this.world = world;
    this.supply = supply;
  }

  private static double gainDb(double hz) {
    return -Truth.GENERATOR_CABLE_DB_AT_1_GHZ * Math.sqrt(hz / 1e9);
  }

  /** Amplitude against that at its nominal supply. */
  private static double share(double volts) {
    double above = volts - Truth.OSCILLATOR_STARTS_VOLTS;
    return above <= 0 ? 0 : above / (Truth.OSCILLATOR_VOLTS - Truth.OSCILLATOR_STARTS_VOLTS);
  }

  private void wear() {
    dead |= supply.highestVolts() > Truth.OSCILLATOR_DAMAGE_VOLTS || supply.lowestVolts() < -0.3;
  }

  @Override
  public double levelAtPortDbm() {
    double most = share(supply.highestVolts());
    return most == 0
        ? -200
        : Truth.OSCILLATOR_DBM + 20 * Math.log10(most) + gainDb(Truth.OSCILLATOR_HZ);
  }

  @Override
  public Clock clock() {
    return world.clock();
  }

  @Override
  public void receive(double[] iq, int samples, double centreHz, double rateHz) {
    wear();
    double start = world.timeSeconds();
    for (int h = 1; h <= 2 && !dead; h++) {
      double hz = h * Truth.OSCILLATOR_HZ * (1 + Truth.OSCILLATOR_ERROR);
      double offset = hz - centreHz;
      double shape = World.bandShape(offset, rateHz);
      double dbm = Truth.OSCILLATOR_DBM + (h == 1 ? 0 : Truth.OSCILLATOR_HARMONIC_DBC) + gainDb(hz);
      double a = shape * World.amplitude(dbm);
      double wander = phase;
      for (int n = 0; n < samples && a > 0; n++) {
        double t = start + n / rateHz;
        double volts = supply.at(t);
        wander +=
            2
                * Math.PI
                * Truth.OSCILLATOR_PUSHING_HZ_PER_VOLT
                * (volts - Truth.OSCILLATOR_VOLTS)
                / rateHz;
        double cycles = offset * t;
        double angle = 2 * Math.PI * (cycles - Math.floor(cycles)) + h * wander;
        double level = a * Math.pow(share(volts), h);
        iq[2 * n] += level * Math.cos(angle);
        iq[2 * n + 1] += level * Math.sin(angle);
      }
      if (h == 1) {
        phase = Math.IEEEremainder(wander, 2 * Math.PI);
      }
    }
    world.pass(samples / rateHz);
  }
}
