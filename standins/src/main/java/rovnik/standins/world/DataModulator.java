package rovnik.standins.world;

/** What the buoy's data modulator does wrong with I and Q: gains, angle, leakage. */
final class DataModulator {
  private final double gainI = Math.pow(10, Truth.DATA_IMBALANCE_DB / 40);
  private final double gainQ = 1 / gainI;
  private final double leanCos = Math.cos(Math.toRadians(Truth.DATA_QUADRATURE_DEGREES / 2));
  private final double leanSin = Math.sin(Math.toRadians(Truth.DATA_QUADRATURE_DEGREES / 2));
  private final double leakI = Math.pow(10, Truth.DATA_LEAKAGE_DBC / 20) * Math.cos(0.6);
  private final double leakQ = Math.pow(10, Truth.DATA_LEAKAGE_DBC / 20) * Math.sin(0.6);

  /** The axes lean away from each other by the quadrature error. */
  void spoil(double[] b) {
    double i = b[0] * gainI;
    double q = b[1] * gainQ;
    b[0] = i * leanCos - q * leanSin + leakI;
    b[1] = -i * leanSin + q * leanCos + leakQ;
  }
}
