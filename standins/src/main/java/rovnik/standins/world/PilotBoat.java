package rovnik.standins.world;

/**
 * The pilot boat's voice radio as an aerial on the quay has it: its key is pressed again and again,
 * and while it is, a test tone with its distortion and the tone of its squelch move the carrier.
 */
final class PilotBoat {
  private final Clock clock;

  PilotBoat(Clock clock) {
    this.clock = clock;
  }

  /** Adds what there is now; time does not pass. */
  void add(double[] iq, int samples, double centreHz, double rateHz) {
    double hz = Truth.PILOT_HZ + Truth.PILOT_OFF_HZ - centreHz;
    double amplitude = World.amplitude(Truth.PILOT_DBM) * World.bandShape(hz, rateHz);
    if (!(amplitude > 0)) {
      return;
    }
    SmoothTurn.add(
        iq, samples, clock.seconds(), rateHz, amplitude, t -> phase(hz, t), PilotBoat::talks);
  }

  private static boolean talks(double t) {
    return t - Math.floor(t / Truth.PILOT_EVERY_SECONDS) * Truth.PILOT_EVERY_SECONDS
        < Truth.PILOT_TALKS_SECONDS;
  }

  /** The integral of the deviation, so that the phase goes on from record to record. */
  private static double phase(double hz, double t) {
    return 2 * Math.PI * hz * t
        + turned(t, Truth.PILOT_TONE_HZ, Truth.PILOT_DEVIATION_HZ)
        + turned(t, 2 * Truth.PILOT_TONE_HZ, Truth.PILOT_DISTORTION * Truth.PILOT_DEVIATION_HZ)
        + turned(t, Truth.PILOT_SQUELCH_HZ, Truth.PILOT_SQUELCH_DEVIATION_HZ);
  }

  private static double turned(double t, double toneHz, double deviationHz) {
    return deviationHz / toneHz * Math.sin(2 * Math.PI * toneHz * t);
  }
}
