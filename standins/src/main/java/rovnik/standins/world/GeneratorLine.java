package rovnik.standins.world;

import java.util.List;

/** The cable from an output of the vector generator to a receiver's port. */
public final class GeneratorLine implements PortSignal {
  /** What the cable can be plugged into. */
  public static final List<String> OUTPUTS = List.of("RF output", "third output");

  private final Clock clock;
  private final GeneratorOutput generator;
  private String output = OUTPUTS.get(0);

  public GeneratorLine(World world) {
    this.clock = world.clock();
    this.generator = world.generator();
  }

  /** Plugs the cable into another output. */
  public synchronized void plug(String wanted) {
    output = wanted;
  }

  public synchronized String plugged() {
    return output;
  }

  private static double gainDb(double hz) {
    return -Truth.GENERATOR_CABLE_DB_AT_1_GHZ * Math.sqrt(hz / 1e9);
  }

  private boolean third() {
    return plugged().equals(OUTPUTS.get(1));
  }

  @Override
  public Clock clock() {
    return clock;
  }

  @Override
  public double levelAtPortDbm() {
    return third()
        ? generator.third().peakDbm()
        : generator.peakDbm() + gainDb(generator.frequencyHz());
  }

  @Override
  public void receive(double[] iq, int samples, double centreHz, double rateHz) {
    if (third()) {
      generator.receiveThird(iq, samples, clock.seconds(), centreHz, rateHz);
    } else {
      generator.receive(iq, samples, clock.seconds(), centreHz, rateHz, gainDb(centreHz));
    }
    clock.pass(samples / rateHz);
  }
}
