package rovnik.standins.rf;

/** What a part with two connectors does to waves in 50 ohm at one frequency. */
record Scatter(Complex s11, Complex s12, Complex s21, Complex s22) {
  static final double OHM = 50;
  static final double LIGHT = 299_792_458;
  static final Scatter THROUGH = new Scatter(Complex.ZERO, Complex.ONE, Complex.ONE, Complex.ZERO);

  /** Two things that are not joined, one on each connector. */
  static Scatter apart(Complex at1, Complex at2) {
    return new Scatter(at1, Complex.ZERO, Complex.ZERO, at2);
  }

  /** From a chain matrix: u1 = a u2 + b i2, i1 = c u2 + d i2. */
  static Scatter ofChain(Complex a, Complex b, Complex c, Complex d) {
    Complex series = b.divide(OHM);
    Complex shunt = c.multiply(OHM);
    Complex below = a.add(series).add(shunt).add(d);
    Complex two = new Complex(2);
    return new Scatter(
        a.add(series).subtract(shunt).subtract(d).divide(below),
        a.multiply(d).subtract(b.multiply(c)).multiply(two).divide(below),
        two.divide(below),
        series.subtract(a).subtract(shunt).add(d).divide(below));
  }

  static Scatter series(Complex ohm) {
    return ofChain(Complex.ONE, ohm, Complex.ZERO, Complex.ONE);
  }

  static Scatter shunt(Complex siemens) {
    return ofChain(Complex.ONE, Complex.ZERO, siemens, Complex.ONE);
  }

  /** A line of an impedance; the propagation constant times its length. */
  static Scatter line(Complex gammaLength, double ohm) {
    Complex cosh = gammaLength.cosh();
    Complex sinh = gammaLength.sinh();
    return ofChain(cosh, sinh.multiply(ohm), sinh.divide(ohm), cosh);
  }

  /** A length of cable. */
  static Scatter cable(
      double hz, double metres, double velocityFactor, double ohm, double dbPerMetreAt458) {
    double neper = dbPerMetreAt458 * Math.sqrt(hz / 458e6) * Math.log(10) / 20;
    double radian = 2 * Math.PI * hz / (LIGHT * velocityFactor);
    return line(new Complex(neper * metres, radian * metres), ohm);
  }

  /** This, then another. */
  Scatter then(Scatter next) {
    Complex bounce = Complex.ONE.subtract(s22.multiply(next.s11)).reciprocal();
    return new Scatter(
        s11.add(s21.multiply(next.s11).multiply(s12).multiply(bounce)),
        s12.multiply(next.s12).multiply(bounce),
        s21.multiply(next.s21).multiply(bounce),
        next.s22.add(next.s12.multiply(s22).multiply(next.s21).multiply(bounce)));
  }

  /** Reflection at the first connector with something on the second. */
  Complex reflection(Complex end) {
    return s11.add(s12.multiply(s21).multiply(end).divide(Complex.ONE.subtract(s22.multiply(end))));
  }

  Scatter withGain(double factor) {
    return new Scatter(s11, s12, s21.multiply(factor), s22);
  }

  static Complex turn(double hz, double seconds) {
    double angle = -2 * Math.PI * hz * seconds;
    return new Complex(Math.cos(angle), Math.sin(angle));
  }
}
