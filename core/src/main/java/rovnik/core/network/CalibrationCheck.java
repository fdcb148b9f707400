package rovnik.core.network;

import java.util.Locale;
import org.hipparchus.complex.Complex;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.linear.RealVector;
import rovnik.core.Refusal;

/** Judges a calibration by a part that is known. */
public final class CalibrationCheck {
  private CalibrationCheck() {}

  /**
   * What was found.
   *
   * @param worst largest difference of a reflection from what is known, linear
   * @param transmissionDb largest difference of a transmission, dB; NaN if none was looked at
   * @param good whether it is as good as it should be
   */
  public record Verdict(
      double worst, double atHz, double transmissionDb, boolean good, String words) {}

  /** A difference that a fresh calibration stays below (common practice: 40 dB down). */
  public static final double GOOD = 0.01;

  private static final double GOOD_DB = 0.1;

  /** An open, short or load at a port, as the kit knows it. */
  public static Verdict reflection(NetworkData n, int port, KnownReflection known) {
    double worst = 0;
    double at = n.frequencyHz()[0];
    for (int p = 0; p < n.points(); p++) {
      Complex is = new Complex(n.re(p, port, port), n.im(p, port, port));
      double off = is.subtract(known.reflection(n.frequencyHz()[p], n.referenceOhm()[0])).norm();
      if (off > worst) {
        worst = off;
        at = n.frequencyHz()[p];
      }
    }
    boolean good = worst <= GOOD;
    return new Verdict(
        worst,
        at,
        Double.NaN,
        good,
        String.format(
            Locale.ROOT,
            "The %s differs from what it should be by %.4f at most, %.1f dB down. %s",
            known.kind().name().toLowerCase(Locale.ROOT),
            worst,
            -20 * Math.log10(worst + 1e-12),
            good ? "The calibration holds." : "Calibrate anew, or clean the connectors."));
  }

  /** A through or a pad whose file is known. */
  public static Verdict transmission(NetworkData n, NetworkData known) {
    NetworkData k = NetworkChange.on(known, n);
    double worst = 0;
    double worstDb = 0;
    double at = n.frequencyHz()[0];
    for (int p = 0; p < n.points(); p++) {
      for (int[] rc : new int[][] {{1, 1}, {2, 2}}) {
        worst =
            Math.max(
                worst,
                Math.hypot(
                    n.re(p, rc[0], rc[1]) - k.re(p, rc[0], rc[1]),
                    n.im(p, rc[0], rc[1]) - k.im(p, rc[0], rc[1])));
      }
      double db = Math.abs(n.magnitudeDb(p, 2, 1) - k.magnitudeDb(p, 2, 1));
      if (db > worstDb) {
        worstDb = db;
        at = n.frequencyHz()[p];
      }
    }
    boolean good = worst <= GOOD && worstDb <= GOOD_DB;
    return new Verdict(
        worst,
        at,
        worstDb,
        good,
        String.format(
            Locale.ROOT,
            "The transmission differs by %.3f dB at most, the reflections by %.4f. %s",
            worstDb,
            worst,
            good ? "The calibration holds." : "Calibrate anew, or tighten the connectors."));
  }

  /**
   * Directivity and match from the ripple of a line with an open or a short at its far end (common
   * practice: half of the ripple is the two together; of a line with a load, directivity alone).
   *
   * @return half of the largest ripple about the smooth loss of the line, linear
   */
  public static double ripple(NetworkData n, int port) {
    int points = n.points();
    if (points < 20) {
      throw new Refusal("points", "A ripple shows over at least 20 points.");
    }
    Array2DRowRealMatrix a = new Array2DRowRealMatrix(points, 3);
    double[] size = new double[points];
    double top = n.frequencyHz()[points - 1];
    for (int p = 0; p < points; p++) {
      double x = n.frequencyHz()[p] / top;
      a.setRow(p, new double[] {1, Math.sqrt(x), x});
      size[p] = n.magnitude(p, port, port);
    }
    RealVector fit = new QRDecomposition(a).getSolver().solve(new ArrayRealVector(size));
    RealVector rest = new ArrayRealVector(size).subtract(a.operate(fit));
    return (rest.getMaxValue() - rest.getMinValue()) / 2;
  }

  /** The ripple judged. */
  public static Verdict ofRipple(NetworkData n, int port) {
    double ripple = ripple(n, port);
    boolean good = ripple <= GOOD;
    return new Verdict(
        ripple,
        Double.NaN,
        Double.NaN,
        good,
        String.format(
            Locale.ROOT,
            "The ripple at port %d says that directivity and match together are %.1f dB down. %s",
            port,
            -20 * Math.log10(ripple + 1e-12),
            good ? "The calibration holds." : "Calibrate anew, or clean the connectors."));
  }
}
