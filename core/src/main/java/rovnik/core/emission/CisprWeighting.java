package rovnik.core.emission;

/**
 * Constants of the weighting circuit for one step of time. The charge time constant of the standard
 * is that of a switched-on sine through a rectifier that conducts for part of each period only; the
 * mean current of a half-wave rectifier is followed here, and the resistance is chosen so that a
 * sine reaches 63 % in the standard's time.
 */
final class CisprWeighting {
  /** Steps of the table of the rectifier's mean current over the capacitor's relative voltage. */
  private static final int TABLE = 1024;

  private static final double[] CURRENT = rectifierCurrent();
  private static final double RISE_FACTOR = riseFactor();

  private final double charge;
  private final double discharge;
  private final double meterStep;
  private final double sineShare;

  CisprWeighting(CisprBand band, double stepSeconds) {
    this.discharge = stepSeconds / band.dischargeSeconds();
    this.charge = stepSeconds / band.chargeSeconds() * RISE_FACTOR;
    this.meterStep = stepSeconds / band.meterSeconds();
    this.sineShare = equilibrium(charge / discharge);
  }

  double charge() {
    return charge;
  }

  double discharge() {
    return discharge;
  }

  double meterStep() {
    return meterStep;
  }

  /** Where charge and discharge balance on a steady sine, as a share of its envelope. */
  double sineShare() {
    return sineShare;
  }

  /** Mean current of a half-wave rectifier over v = capacitor / peak, for a peak of 1. */
  private static double[] rectifierCurrent() {
    double[] c = new double[TABLE + 1];
    for (int i = 0; i <= TABLE; i++) {
      double v = (double) i / TABLE;
      double angle = Math.acos(v);
      c[i] = (Math.sin(angle) - v * angle) / Math.PI;
    }
    return c;
  }

  static double current(double v) {
    double x = Math.min(Math.max(v, 0), 1) * TABLE;
    int i = (int) Math.min(x, TABLE - 1.0);
    return CURRENT[i] + (x - i) * (CURRENT[i + 1] - CURRENT[i]);
  }

  /** How much faster than 1/RC the capacitor must take current to reach 63 % after one RC. */
  private static double riseFactor() {
    double v = 0;
    double time = 0;
    double step = 1e-3;
    while (v < 1 - Math.exp(-1)) {
      v += step * current(v);
      time += step;
    }
    return time;
  }

  private static double equilibrium(double ratio) {
    double low = 0;
    double high = 1;
    for (int i = 0; i < 60; i++) {
      double v = (low + high) / 2;
      if (ratio * current(v) > v) {
        low = v;
      } else {
        high = v;
      }
    }
    return low;
  }
}
