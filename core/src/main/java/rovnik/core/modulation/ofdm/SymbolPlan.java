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
 * @param re real part of what is known, the root of the mean power of data
 * @param im imaginary part of what is known
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

  /** What a received value is taken for. */
  void decide(double[] x, double[] y, double[] idealRe, double[] idealIm) {
    for (int k = 0; k < roles.length; k++) {
      switch (roles[k]) {
        case NONE -> {
          idealRe[k] = 0;
          idealIm[k] = 0;
        }
        case DATA -> {
          int value = points[k].decide(x[k] / re[k], y[k] / re[k]);
          idealRe[k] = re[k] * points[k].re(value);
          idealIm[k] = re[k] * points[k].im(value);
        }
        default -> {
          idealRe[k] = re[k];
          idealIm[k] = im[k];
        }
      }
    }
  }
}
