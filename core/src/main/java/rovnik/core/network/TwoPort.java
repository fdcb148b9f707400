package rovnik.core.network;

import org.hipparchus.complex.Complex;
import rovnik.core.Refusal;
import rovnik.core.units.Decibels;

/**
 * One frequency of a two-port: stability and gain (Pozar, Microwave Engineering, chapter on
 * transistor amplifiers; mu after Edwards and Sinsky, IEEE Trans. MTT 40, 1992).
 */
public record TwoPort(Complex s11, Complex s12, Complex s21, Complex s22) {

  /** A circle of the Smith chart's plane. */
  public record Circle(Complex centre, double radius) {}

  public static TwoPort of(NetworkData n, int point) {
    if (n.ports() != 2) {
      throw new Refusal("ports", "This needs a two-port; the network has " + n.ports() + " ports.");
    }
    return new TwoPort(
        at(n, point, 1, 1), at(n, point, 1, 2), at(n, point, 2, 1), at(n, point, 2, 2));
  }

  private static Complex at(NetworkData n, int point, int row, int column) {
    return new Complex(n.re(point, row, column), n.im(point, row, column));
  }

  /** Determinant of the matrix. */
  public Complex delta() {
    return s11.multiply(s22).subtract(s12.multiply(s21));
  }

  /** Rollett's factor; infinite where nothing comes back (S12 S21 = 0). */
  public double rollettK() {
    double loop = 2 * s12.multiply(s21).norm();
    return (1 - square(s11) - square(s22) + square(delta())) / loop;
  }

  /** Distance from the chart's centre to the nearest unstable load; above 1 is stable. */
  public double mu() {
    double below =
        s22.subtract(delta().multiply(s11.conjugate())).norm() + s12.multiply(s21).norm();
    return (1 - square(s11)) / below;
  }

  /** Whether any passive load and source leave it stable. */
  public boolean unconditionallyStable() {
    return mu() > 1;
  }

  /** Loads at the edge of stability. */
  public Circle loadCircle() {
    return circle(s22, s11);
  }

  /** Sources at the edge of stability. */
  public Circle sourceCircle() {
    return circle(s11, s22);
  }

  private Circle circle(Complex own, Complex other) {
    double below = square(own) - square(delta());
    Complex centre = own.subtract(delta().multiply(other.conjugate())).conjugate().divide(below);
    return new Circle(centre, Math.abs(s12.multiply(s21).norm() / below));
  }

  /** Highest gain with both ports matched, or the stable limit |S21/S12| if K is below 1; dB. */
  public double maximumGainDb() {
    double k = rollettK();
    double stable = s21.norm() / s12.norm();
    if (Double.isInfinite(k)) {
      return Decibels.fromPowerRatio(square(s21) / ((1 - square(s11)) * (1 - square(s22))));
    }
    return Decibels.fromPowerRatio(k < 1 ? stable : stable * (k - Math.sqrt(k * k - 1)));
  }

  /**
   * Source reflection that matches both ports at once.
   *
   * @throws Refusal if the two-port is not unconditionally stable
   */
  public Complex matchedSource() {
    return matched(s11, s22);
  }

  /** Load reflection that matches both ports at once; refuses as {@link #matchedSource}. */
  public Complex matchedLoad() {
    return matched(s22, s11);
  }

  private Complex matched(Complex own, Complex other) {
    if (!unconditionallyStable()) {
      throw new Refusal(
          "match", "There is no match of both ports: the part is not stable for every load.");
    }
    double b = 1 + square(own) - square(other) - square(delta());
    Complex c = own.subtract(delta().multiply(other.conjugate()));
    if (c.norm() == 0) {
      return Complex.ZERO;
    }
    double root = Math.sqrt(Math.max(0, b * b - 4 * square(c)));
    return c.conjugate().multiply((b - Math.copySign(root, b)) / (2 * square(c)));
  }

  /** Largest singular value squared of the matrix: above 1 the part gives out power. */
  public double largestPowerGain() {
    double a = square(s11) + square(s21);
    double d = square(s12) + square(s22);
    Complex b = s11.conjugate().multiply(s12).add(s21.conjugate().multiply(s22));
    return (a + d) / 2 + Math.sqrt((a - d) * (a - d) / 4 + square(b));
  }

  private static double square(Complex z) {
    return z.getReal() * z.getReal() + z.getImaginary() * z.getImaginary();
  }
}
