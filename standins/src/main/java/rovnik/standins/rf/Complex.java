package rovnik.standins.rf;

/** A complex number: the stand-ins stand alone, without a library. */
record Complex(double re, double im) {
  static final Complex ZERO = new Complex(0, 0);
  static final Complex ONE = new Complex(1, 0);

  Complex(double re) {
    this(re, 0);
  }

  Complex add(Complex o) {
    return new Complex(re + o.re, im + o.im);
  }

  Complex add(double real) {
    return new Complex(re + real, im);
  }

  Complex subtract(Complex o) {
    return new Complex(re - o.re, im - o.im);
  }

  Complex subtract(double real) {
    return new Complex(re - real, im);
  }

  Complex multiply(Complex o) {
    return new Complex(re * o.re - im * o.im, re * o.im + im * o.re);
  }

  Complex multiply(double factor) {
    return new Complex(factor * re, factor * im);
  }

  Complex divide(double by) {
    return new Complex(re / by, im / by);
  }

  Complex divide(Complex o) {
    return multiply(o.reciprocal());
  }

  Complex reciprocal() {
    double square = re * re + im * im;
    return new Complex(re / square, -im / square);
  }

  double norm() {
    return Math.hypot(re, im);
  }

  Complex cosh() {
    return new Complex(Math.cosh(re) * Math.cos(im), Math.sinh(re) * Math.sin(im));
  }

  Complex sinh() {
    return new Complex(Math.sinh(re) * Math.cos(im), Math.cosh(re) * Math.sin(im));
  }

  Complex tanh() {
    return sinh().divide(cosh());
  }
}
