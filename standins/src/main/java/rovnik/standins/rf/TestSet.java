package rovnik.standins.rf;

/**
 * The inside of the network analyzer between its receivers and its two connectors: an imperfect
 * coupler and a cable at each port, a switch whose idle side reflects, leakage across, and slow
 * drift. From what stands at the connectors it makes what the receivers see.
 */
final class TestSet {
  private static final double LEAK_DB = -96;

  /** Degrees at 1 GHz and dB that the tracking has moved when all is warm; and how slowly. */
  private static final double DRIFT_DEGREES = 1.2;

  private static final double DRIFT_DB = 0.03;
  private static final double WARM_SECONDS = 3600;

  private TestSet() {}

  /** Receivers' ratios at one frequency, and the switch's reflections as they see them. */
  record Seen(Complex m11, Complex m12, Complex m21, Complex m22, Complex g1, Complex g2) {}

  static Seen look(Scatter part, double hz, double warmSeconds) {
    Scatter left = port(hz, 0.055, 1.9e-9, 0.09, 3.1e-9, 0.93, warmSeconds, 1);
    Scatter right = port(hz, 0.047, 2.3e-9, 0.11, 2.7e-9, 0.91, warmSeconds, -0.7);
    Scatter mirrored = new Scatter(right.s22(), right.s21(), right.s12(), right.s11());
    Scatter all = left.then(part).then(mirrored);
    Complex idle1 = Scatter.turn(hz, 0.7e-9).multiply(0.06);
    Complex idle2 = Scatter.turn(hz, 0.9e-9).multiply(0.08);
    // While one side sends, the other ends in the switch.
    Complex end2 = Complex.ONE.subtract(all.s22().multiply(idle2)).reciprocal();
    Complex end1 = Complex.ONE.subtract(all.s11().multiply(idle1)).reciprocal();
    Complex leak = Scatter.turn(hz, 4e-9).multiply(Math.pow(10, LEAK_DB / 20));
    Complex around = all.s12().multiply(all.s21());
    return new Seen(
        all.s11().add(around.multiply(idle2).multiply(end2)),
        all.s12().multiply(end1).add(leak),
        all.s21().multiply(end2).add(leak),
        all.s22().add(around.multiply(idle1).multiply(end1)),
        idle1,
        idle2);
  }

  /** From the receivers of a port to its connector. */
  private static Scatter port(
      double hz,
      double directivity,
      double directivitySeconds,
      double match,
      double cableSeconds,
      double gain,
      double warmSeconds,
      double driftSign) {
    double warm = 1 - Math.exp(-warmSeconds / WARM_SECONDS);
    double tilt = 1 - 0.02 * Math.sqrt(hz / 1e9) + 0.015 * Math.cos(hz / 310e6);
    double drift = Math.pow(10, driftSign * warm * DRIFT_DB / 20);
    double angle = driftSign * warm * Math.toRadians(DRIFT_DEGREES) * hz / 1e9;
    Complex through =
        Scatter.turn(hz, cableSeconds)
            .multiply(gain * tilt * drift)
            .multiply(new Complex(Math.cos(angle), Math.sin(angle)));
    Complex e00 =
        Scatter.turn(hz, directivitySeconds)
            .multiply(directivity)
            .add(Scatter.turn(hz, 5.3e-9).multiply(directivity / 4));
    Complex e11 =
        Scatter.turn(hz, 2 * cableSeconds).multiply(match).add(new Complex(match / 3, -0.01));
    // The receivers of both directions do not have the same gain.
    return new Scatter(e00, through.multiply(0.96), through, e11);
  }
}
