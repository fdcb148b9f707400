package rovnik.core.modulation.ofdm;

import rovnik.core.modulation.Constellation;

/**
 * What the tones of one symbol carry, in the order of the tones of its frame. Arrays are shared by
 * symbols that are alike, and are not to be changed.
 *
 * @param at first sample of its transform behind the guard, from that of the first training, in
 *     samples that are read
 * @param parts how often it repeats itself within a transform, of which it has only one
 * @param roles of the tones
 * @param re real part of what is known, or of what points of data are to be multiplied by
 * @param im imaginary part of the same
 * @param points of data; null for other tones
 */
record SymbolPlan(
    int at, int parts, Role[] roles, double[] re, double[] im, Constellation[] points) {
  /** What a tone is there for. */
  enum Role {
    NONE,
    KNOWN,
    PILOT,
    DATA
  }

  SymbolPlan(int at, Role[] roles, double[] re, double[] im, Constellation[] points) {
    this(at, 1, roles, re, im, points);
  }

  /** The same, so much later. */
  SymbolPlan moved(int by) {
    return new SymbolPlan(at + by, parts, roles, re, im, points);
  }

  /** The same with other known values, all of them real. */
  SymbolPlan with(double[] known) {
    return new SymbolPlan(at, parts, roles, known, im, points);
  }

  boolean used(int k) {
    return roles[k] != Role.NONE;
  }

  int usedTones() {
    int count = 0;
    for (Role r : roles) {
      count += r == Role.NONE ? 0 : 1;
    }
    return count;
  }

  /** Mean power of what a tone should be. */
  double power(int k) {
    return re[k] * re[k] + im[k] * im[k];
  }

  /** Real part of a value over what its tone is multiplied by. */
  double pointRe(int k, double x, double y) {
    return (x * re[k] + y * im[k]) / power(k);
  }

  /** Imaginary part of the same. */
  double pointIm(int k, double x, double y) {
    return (y * re[k] - x * im[k]) / power(k);
  }

  /** What a received value is taken for. */
  void decide(double[] x, double[] y, double[] idealRe, double[] idealIm) {
    for (int k = 0; k < roles.length; k++) {
      switch (roles[k]) {
        case NONE -> {
          idealRe[k] = 0;
          idealIm[k] = 0;
        }
        case DATA -> {
          if (im[k] == 0) {
            int value = points[k].decide(x[k] / re[k], y[k] / re[k]);
            idealRe[k] = re[k] * points[k].re(value);
            idealIm[k] = re[k] * points[k].im(value);
          } else {
            int value = points[k].decide(pointRe(k, x[k], y[k]), pointIm(k, x[k], y[k]));
            idealRe[k] = re[k] * points[k].re(value) - im[k] * points[k].im(value);
            idealIm[k] = im[k] * points[k].re(value) + re[k] * points[k].im(value);
          }
        }
        default -> {
          idealRe[k] = re[k];
          idealIm[k] = im[k];
        }
      }
    }
  }
}
