package rovnik.core.network;

import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;

/**
 * What errors are left in a calibrated reading, and what they make of its uncertainty (EURAMET
 * guide cg-12, "Guidelines on the evaluation of vector network analysers", from memory: the linear
 * model of effective directivity, match and tracking, combined by root sum of squares).
 *
 * @param directivity effective directivity, linear
 * @param match effective source match, linear
 * @param tracking of transmission, as a share
 * @param load effective load match, linear
 * @param floor noise, as a standard deviation of each part of a complex value, linear
 * @param reflectionTracking tracking of reflection, as a share
 * @param noise what the sweeps themselves show of it, in the order of {@link SweepNoise}; empty if
 *     there was only one
 */
public record Residuals(
    double directivity,
    double match,
    double tracking,
    double load,
    double floor,
    double reflectionTracking,
    List<Double> noise) {

  /** With one tracking for reflection and transmission. */
  public Residuals(double directivity, double match, double tracking, double load, double floor) {
    this(directivity, match, tracking, load, floor, tracking);
  }

  /** With the noise of the data sheet. */
  public Residuals(
      double directivity,
      double match,
      double tracking,
      double load,
      double floor,
      double reflectionTracking) {
    this(directivity, match, tracking, load, floor, reflectionTracking, List.of());
  }

  /** Coverage of the noise; the other errors are given as what they are at most. */
  private static final double K = 2;

  public Residuals {
    for (double v : new double[] {directivity, match, tracking, load, floor, reflectionTracking}) {
      if (!(v >= 0) || v >= 1) {
        throw new Refusal("residuals", "Residual errors are shares from 0 to below 1.");
      }
    }
  }

  /** From numbers in dB below 1 and, for tracking, in dB. */
  public static Residuals ofDb(
      double directivityDb, double matchDb, double trackingDb, double loadDb, double floorDb) {
    return new Residuals(
        linear(directivityDb),
        linear(matchDb),
        Math.pow(10, trackingDb / 20) - 1,
        linear(loadDb),
        linear(floorDb));
  }

  private static double linear(double db) {
    return Math.pow(10, -Math.abs(db) / 20);
  }

  /** All errors of the test set larger by a factor; held below 1. */
  public Residuals worse(double factor) {
    return new Residuals(
        Math.min(0.9, directivity * factor),
        Math.min(0.9, match * factor),
        Math.min(0.9, tracking * factor),
        Math.min(0.9, load * factor),
        floor,
        Math.min(0.9, reflectionTracking * factor),
        noise);
  }

  /** With another error of tracking, as a share. */
  public Residuals withTracking(double newTracking) {
    return new Residuals(
        directivity, match, Math.min(0.9, newTracking), load, floor, reflectionTracking, noise);
  }

  /** With another floor, linear. */
  public Residuals withFloor(double newFloor) {
    return new Residuals(
        directivity, match, tracking, load, Math.min(0.9, newFloor), reflectionTracking, noise);
  }

  /**
   * What is left after a calibration.
   *
   * @param verified largest error that a verification found, linear; 0 if there was none
   */
  public static Residuals after(
      CalibrationMethod method,
      KeptCalibration.Trust trust,
      Residuals raw,
      Residuals fresh,
      double verified) {
    if (trust == KeptCalibration.Trust.NONE || trust == KeptCalibration.Trust.EXTRAPOLATED) {
      return raw;
    }
    Residuals left =
        switch (method) {
          case TWO_PORT, UNKNOWN_THROUGH -> fresh;
          // Nothing has told what the other port reflects, nor how it receives.
          case ONE_PORT ->
              new Residuals(
                  fresh.directivity,
                  fresh.match,
                  raw.tracking,
                  raw.load,
                  fresh.floor,
                  fresh.reflectionTracking);
          case ENHANCED_RESPONSE ->
              new Residuals(fresh.directivity, fresh.match, fresh.tracking, raw.load, fresh.floor);
          // A through puts no reflection right.
          case THROUGH_RESPONSE ->
              new Residuals(
                  raw.directivity,
                  raw.match,
                  fresh.tracking,
                  raw.load,
                  fresh.floor,
                  raw.reflectionTracking);
        };
    double factor =
        switch (trust) {
          case INTERPOLATED -> 1.5;
          case STALE -> 3;
          default -> 1;
        };
    Residuals r = left.worse(factor);
    return new Residuals(
        Math.max(r.directivity, Math.min(0.9, verified)),
        Math.max(r.match, Math.min(0.9, verified)),
        r.tracking,
        r.load,
        r.floor,
        r.reflectionTracking);
  }

  /** With the noise that sweeps have shown, times a factor. */
  public Residuals withNoise(List<Double> shown, double factor) {
    return new Residuals(
        directivity,
        match,
        tracking,
        load,
        floor,
        reflectionTracking,
        shown.stream().map(v -> Math.min(0.9, v * factor)).toList());
  }

  /** Two standard deviations of the noise of a parameter, linear. */
  double noiseOf(int ports, int row, int column) {
    int at = (row - 1) * ports + column - 1;
    return K * (noise.size() == ports * ports ? noise.get(at) : floor);
  }

  /** Expanded uncertainty (k = 2) of |S11| of a part with one port, linear. */
  public double reflection(double gamma) {
    return reflection(gamma, 0, K * floor);
  }

  /**
   * Expanded uncertainty (k = 2) of |S11|, linear.
   *
   * @param throughAndBack |S21 S12|: what comes back from the other port's load match
   */
  private double reflection(double gamma, double throughAndBack, double noisy) {
    return root(
        directivity,
        reflectionTracking * gamma,
        match * gamma * gamma,
        load * throughAndBack,
        noisy);
  }

  /** Expanded uncertainty (k = 2) of |S21| of a part with these reflections, linear. */
  public double transmission(double s21, double s11, double s22) {
    return transmission(s21, s11, s22, K * floor);
  }

  private double transmission(double s21, double s11, double s22, double noisy) {
    double back = Math.min(s21, 1) * Math.min(s21, 1);
    return root(
        s21 * match * s11, s21 * load * s22, s21 * tracking, s21 * match * load * back, noisy);
  }

  /** Expanded uncertainty (k = 2) of any parameter at a point of a network, linear. */
  double at(NetworkData n, int point, int row, int column) {
    double noisy = noiseOf(n.ports(), row, column);
    double size = n.magnitude(point, row, column);
    if (row != column) {
      return transmission(
          size, n.magnitude(point, row, row), n.magnitude(point, column, column), noisy);
    }
    if (n.ports() != 2) {
      return reflection(size, 0, noisy);
    }
    double there = n.magnitude(point, 3 - row, row);
    double back = n.magnitude(point, row, 3 - row);
    // What was not measured is taken for as much as the other way.
    return reflection(size, Math.max(there, 1e-12) * (back > 0 ? back : there), noisy);
  }

  /** Expanded uncertainty (k = 2) of the phase of a parameter at a point, radians. */
  double phaseAt(NetworkData n, int point, int row, int column) {
    double share = at(n, point, row, column) / Math.max(n.magnitude(point, row, column), 1e-15);
    return share >= 1 ? Math.PI : Math.asin(share);
  }

  private static double root(double... parts) {
    double sum = 0;
    for (double p : parts) {
      sum += p * p;
    }
    return Math.sqrt(sum);
  }

  /** Half width in dB of what lies between a value and the value with so much more. */
  public static double inDb(double value, double uncertainty) {
    return 20 * Math.log10(1 + uncertainty / Math.max(value, 1e-12));
  }

  /** What a verification found, as words. */
  public String words() {
    return String.format(
        Locale.ROOT,
        "directivity %.0f dB, match %.0f dB, tracking %.3f dB",
        -20 * Math.log10(directivity),
        -20 * Math.log10(match),
        20 * Math.log10(1 + tracking));
  }
}
