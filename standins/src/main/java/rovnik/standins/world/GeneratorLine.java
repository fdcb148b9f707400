package rovnik.standins.world;

/** The cable from the vector generator to a receiver's port. */
public final class GeneratorLine implements PortSignal {
  private final World world;
  private final GeneratorOutput generator;

  public GeneratorLine(World world) {
    this.world = world;
    this.generator = world.generator();
  }

  private static double gainDb(double hz) {
    return -Truth.GENERATOR_CABLE_DB_AT_1_GHZ * Math.sqrt(hz / 1e9);
  }

  @Override
  public double levelAtPortDbm() {
    return generator.peakDbm() + gainDb(generator.frequencyHz());
  }

  @Override
  public void receive(double[] iq, int samples, double centreHz, double rateHz) {
    generator.receive(iq, samples, world.timeSeconds(), centreHz, rateHz, gainDb(centreHz));
    world.pass(samples / rateHz);
  }
}
