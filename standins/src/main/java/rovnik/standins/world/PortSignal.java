package rovnik.standins.world;

/** What arrives at a receiver's port. */
public interface PortSignal {
  /** Strongest level that can arrive. */
  double levelAtPortDbm();

  /** The time of what arrives. */
  Clock clock();

  /**
   * Adds all signals at the port in a band; |x|^2 is in milliwatts.
   *
   * @param iq interleaved, zeroed by the caller
   * @param samples how many
   * @param centreHz true frequency of the receiver's centre
   * @param rateHz sample rate
   */
  void receive(double[] iq, int samples, double centreHz, double rateHz);
}
