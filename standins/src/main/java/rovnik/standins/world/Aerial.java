package rovnik.standins.world;

/**
 * What an aerial on the quay has: the crane remote with its neighbour, and the pilot boat with
 * others.
 */
final class Aerial implements PortSignal {
  private final Clock clock;
  private final CraneRemote crane;
  private final PilotBoat boat;
  private final OtherVoices voices;

  Aerial(Clock clock) {
    this.clock = clock;
    this.crane = new CraneRemote(clock);
    this.boat = new PilotBoat(clock);
    this.voices = new OtherVoices(clock);
  }

  @Override
  public Clock clock() {
    return clock;
  }

  @Override
  public double levelAtPortDbm() {
    return Truth.CRANE_DBM;
  }

  @Override
  public void receive(double[] iq, int samples, double centreHz, double rateHz) {
    crane.add(iq, samples, centreHz, rateHz);
    boat.add(iq, samples, centreHz, rateHz);
    voices.add(iq, samples, centreHz, rateHz);
    clock.pass(samples / rateHz);
  }
}
