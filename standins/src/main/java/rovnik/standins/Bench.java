package rovnik.standins;

import java.io.IOException;
import rovnik.standins.scpi.ScpiServer;
import rovnik.standins.world.World;

/** All stand-ins around one world, each on its own loopback port. */
public final class Bench implements AutoCloseable {
  private final World world;
  private final ScpiServer receiver;
  private final ScpiServer transmitter;
  private final ScpiServer padSwitch;

  /**
   * @param basePort first of three ports in a row (receiver, transmitter, pad switch), or 0 for any
   *     free ones
   * @param seed of everything random
   * @param paced true if records take as long as they last
   */
  public Bench(int basePort, long seed, boolean paced) throws IOException {
    world = new World(seed);
    receiver = new ScpiServer(new ReceiverStandin(world, paced), basePort);
    transmitter = new ScpiServer(new TransmitterStandin(world), next(basePort, 1));
    padSwitch = new ScpiServer(new PadSwitchStandin(world), next(basePort, 2));
  }

  private static int next(int basePort, int offset) {
    return basePort == 0 ? 0 : basePort + offset;
  }

  public World world() {
    return world;
  }

  public int receiverPort() {
    return receiver.port();
  }

  public int transmitterPort() {
    return transmitter.port();
  }

  public int padSwitchPort() {
    return padSwitch.port();
  }

  @Override
  public void close() {
    receiver.close();
    transmitter.close();
    padSwitch.close();
  }
}
