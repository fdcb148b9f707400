package rovnik.core.network;

import java.util.function.ToDoubleFunction;
import org.hipparchus.complex.Complex;

/**
 * What the errors left in a network make of figures read from it: expanded (k = 2), by the law of
 * propagation of uncertainty (JCGM 100, 5.1) from the parameters, whose errors are taken to be
 * independent of each other and to lie along any phase. NaN where nothing is known.
 */
final class FigureUncertainty {
  /** Near total reflection the linear model says nothing any more. */
  private static final double NEARLY_ALL = 0.9;

  /** Errors of the test set turn as if they came by a line of so much, about 2 m there and back. */
  private static final double TURN_SECONDS = 20e-9;

  /**
   * Of several errors with phases of their own: twice 3 standard deviations, not sqrt(2) times 2.
   */
  private static final double FLAT = 3 / Math.sqrt(2);

  private final NetworkData n;
  private final Residuals trust;

  FigureUncertainty(NetworkData n, Residuals trust) {
    this.n = n;
    this.trust = trust;
  }

  double linear(int point, int row, int column) {
    return trust == null ? Double.NaN : trust.at(n, point, row, column);
  }

  double decibels(int point, int row, int column) {
    return Residuals.inDb(n.magnitude(point, row, column), linear(point, row, column));
  }

  double gainDb(int point) {
    return decibels(point, 2, 1);
  }

  /** Of what is read from a reflection and grows or falls with it all the way. */
  double ofReflection(int point, int port, ToDoubleFunction<Reflection> value) {
    double gamma = n.magnitude(point, port, port);
    double more = Math.min(0.99999, gamma + linear(point, port, port));
    return gamma > NEARLY_ALL
        ? Double.NaN
        : Math.abs(
            value.applyAsDouble(new Reflection(more)) - value.applyAsDouble(new Reflection(gamma)));
  }

  /**
   * Of what is read from all four parameters: the steepest change with each, by root sum square.
   */
  double ofTwoPort(int point, ToDoubleFunction<TwoPort> value) {
    if (trust == null) {
      return Double.NaN;
    }
    TwoPort t = TwoPort.of(n, point);
    double before = value.applyAsDouble(t);
    if (!Double.isFinite(before)) {
      return Double.NaN;
    }
    double squares = 0;
    for (int k = 0; k < 4; k++) {
      double u = trust.at(n, point, k / 2 + 1, k % 2 + 1);
      double re = value.applyAsDouble(moved(t, k, new Complex(u, 0))) - before;
      double im = value.applyAsDouble(moved(t, k, new Complex(0, u))) - before;
      squares += re * re + im * im;
    }
    return Math.sqrt(squares);
  }

  private static TwoPort moved(TwoPort t, int k, Complex by) {
    return switch (k) {
      case 0 -> new TwoPort(t.s11().add(by), t.s12(), t.s21(), t.s22());
      case 1 -> new TwoPort(t.s11(), t.s12().add(by), t.s21(), t.s22());
      case 2 -> new TwoPort(t.s11(), t.s12(), t.s21().add(by), t.s22());
      default -> new TwoPort(t.s11(), t.s12(), t.s21(), t.s22().add(by));
    };
  }

  /** Of a delay told from the phase at two points. */
  double delay(int from, int to, int row, int column) {
    if (trust == null) {
      return Double.NaN;
    }
    Residuals others = trust.withTracking(0);
    double apartHz = n.frequencyHz()[to] - n.frequencyHz()[from];
    double both =
        Math.hypot(others.phaseAt(n, from, row, column), others.phaseAt(n, to, row, column));
    return Math.hypot(both, trust.tracking() * turned(apartHz)) / (2 * Math.PI * apartHz);
  }

  /**
   * Of the highest less the lowest gain. At two places of their own both errors count once. Where
   * the gain is flat, the errors choose the places: those that turn over the band show with both of
   * their signs, and of m points with noise the highest lies some sqrt(2 ln m) standard deviations
   * up (common practice, from the statistics of extremes).
   */
  double rippleDb(int first, int last, int low, int high) {
    if (trust == null) {
      return Double.NaN;
    }
    double apartHz = Math.abs(n.frequencyHz()[high] - n.frequencyHz()[low]);
    double tracking = trackingDb(turned(apartHz));
    double own = Math.hypot(Math.hypot(otherDb(low), otherDb(high)), tracking);
    int alike = 0;
    for (int i = first; i <= last; i++) {
      alike += gain(i) > gain(high) - own || gain(i) < gain(low) + own ? 1 : 0;
    }
    double flat = Math.min(1, 2.0 * alike / (last - first + 1));
    double extremes = Math.sqrt(2 * Math.log(Math.max(2, alike)));
    double noise =
        Residuals.inDb(n.magnitude(low, 2, 1), trust.noiseOf(n.ports(), 2, 1)) * extremes;
    return Math.hypot(own * (1 + flat * (FLAT - 1)), flat * noise);
  }

  /**
   * Of the width of a pass band: how steep its edges are, and how well they and the top are known.
   * Tracking that is tilted over the band moves both edges alike; only what is bent widens it.
   */
  double widthHz(PassBand band) {
    int top = 0;
    for (int i = 1; i < n.points(); i++) {
      top = n.magnitude(i, 2, 1) > n.magnitude(top, 2, 1) ? i : top;
    }
    double low = edge(band.lowHz());
    double high = edge(band.highHz());
    double tilt = turned(band.widthHz() / 2);
    double shared = Math.hypot(otherDb(top), trackingDb(tilt * tilt) / 2);
    return Math.hypot(
        shared * (low + high),
        Math.hypot(low * otherDb(point(band.lowHz())), high * otherDb(point(band.highHz()))));
  }

  /** Of its middle: both edges may be moved the same way. */
  double centreHz(PassBand band) {
    double low = edge(band.lowHz());
    double high = edge(band.highHz());
    double edges = (low * otherDb(point(band.lowHz())) + high * otherDb(point(band.highHz()))) / 2;
    return Math.hypot(edges, trackingDb(turned(band.widthHz() / 2)) * (low + high) / 2);
  }

  /** Of a gain, without the tracking that near frequencies share. */
  private double otherDb(int point) {
    return trust == null
        ? Double.NaN
        : Residuals.inDb(n.magnitude(point, 2, 1), trust.withTracking(0).at(n, point, 2, 1));
  }

  /** A share of the tracking. */
  private double trackingDb(double share) {
    return trust == null ? Double.NaN : Residuals.inDb(1, trust.tracking() * share);
  }

  /** How much of an error that turns over the band is left in a difference. */
  private static double turned(double apartHz) {
    return Math.min(Math.sqrt(2), 2 * Math.PI * apartHz * TURN_SECONDS);
  }

  /** Hertz a decibel at an edge. */
  private double edge(double hz) {
    int p = Math.max(1, point(hz));
    double db = Math.abs(gain(p) - gain(p - 1));
    return (n.frequencyHz()[p] - n.frequencyHz()[p - 1]) / Math.max(db, 1e-9);
  }

  private double gain(int point) {
    return n.magnitudeDb(point, 2, 1);
  }

  /** First point at or above a frequency. */
  private int point(double hz) {
    int p = 0;
    while (p < n.points() - 1 && n.frequencyHz()[p] < hz) {
      p++;
    }
    return p;
  }
}
