package rovnik.standins.world;

/**
 * Who else is on the air near the pilot boat, as an aerial on the quay has them: the port, which
 * talks all the time, and a tug one channel below the boat that does now and then.
 */
final class OtherVoices {
  private final Clock clock;

  OtherVoices(Clock clock) {
    this.clock = clock;
  }

  /** Adds what there is now; time does not pass. */
  void add(double[] iq, int samples, double centreHz, double rateHz) {
    add(iq, samples, Truth.PORT_HZ - centreHz, rateHz, Truth.PORT_DBM, 1, 1);
    add(
        iq,
        samples,
        Truth.TUG_HZ - centreHz,
        rateHz,
        Truth.TUG_DBM,
        Truth.TUG_EVERY_SECONDS,
        Truth.TUG_TALKS_SECONDS);
  }

  private void add(
      double[] iq,
      int samples,
      double hz,
      double rateHz,
      double dbm,
      double everySeconds,
      double talksSeconds) {
    double amplitude = World.amplitude(dbm) * World.bandShape(hz, rateHz);
    if (!(amplitude > 0)) {
      return;
    }
    SmoothTurn.add(
        iq,
        samples,
        clock.seconds(),
        rateHz,
        amplitude,
        t -> phase(hz, t),
        t -> t - Math.floor(t / everySeconds) * everySeconds < talksSeconds);
  }

  /** Of a carrier whose frequency a tone moves, so that it goes on from record to record. */
  private static double phase(double hz, double t) {
    double tone = Truth.OTHER_VOICES_TONE_HZ;
    return 2 * Math.PI * hz * t
        + Truth.OTHER_VOICES_DEVIATION_HZ / tone * Math.sin(2 * Math.PI * tone * t);
  }
}
