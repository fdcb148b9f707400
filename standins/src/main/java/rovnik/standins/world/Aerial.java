package rovnik.standins.world;

/** What an aerial on the quay has: the crane remote with its neighbour, and the pilot boat. */
final class Aerial implements PortSignal {
  private final World world;
  private final CraneRemote crane;
  private final PilotBoat boat;

  Aerial(World world) {
    this.world = world;
    this.crane = new CraneRemote(world);
    this.boat = new PilotBoat(world);
  }

  @Override
  public double levelAtPortDbm() {
    return Truth.CRANE_DBM;
  }

  @Override
  public void receive(double[] iq, int samples, double centreHz, double rateHz) {
    crane.add(iq, samples, centreHz, rateHz);
    boat.add(iq, samples, centreHz, rateHz);
    world.pass(samples / rateHz);
  }
}
