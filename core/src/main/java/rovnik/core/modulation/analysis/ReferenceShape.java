package rovnik.core.modulation.analysis;

import java.util.function.DoubleUnaryOperator;
import rovnik.core.modulation.PulseShape;

/**
 * What one symbol looks like behind both filters, at the symbols' instants and half way between,
 * with its slope: the Fourier integral of both responses.
 */
final class ReferenceShape {
  /** Symbols to each side that count. */
  static final int REACH = 16;

  private static final int STEPS = 512;
  private static final double NO_OTHER = 1e-3;

  private final double[] at = new double[2 * REACH + 1];
  private final double[] slope = new double[2 * REACH + 1];
  private final double[] between = new double[2 * REACH + 1];
  private final boolean alone;
  private final double powerOfGain;
  private final double height;

  /** What was made last: one look after the other has the same filters. */
  private static volatile Made last;

  private record Made(PulseShape sent, PulseShape measured, double most, ReferenceShape shape) {}

  /** The shape behind both filters of a carrier. */
  static ReferenceShape of(PulseShape sent, PulseShape measured, double mostHalfWidth) {
    Made made = last;
    if (made == null
        || !made.sent.equals(sent)
        || !made.measured.equals(measured)
        || made.most != mostHalfWidth) {
      made =
          new Made(
              sent, measured, mostHalfWidth, new ReferenceShape(sent, measured, mostHalfWidth));
      last = made;
    }
    return made.shape;
  }

  private ReferenceShape(PulseShape sent, PulseShape measured, double mostHalfWidth) {
    this(
        sent::response,
        measured::response,
        Math.min(
            mostHalfWidth,
            Math.min(
                sent.bandLimited() ? sent.halfWidth() : Double.POSITIVE_INFINITY,
                measured.bandLimited() ? measured.halfWidth() : Double.POSITIVE_INFINITY)));
  }

  /**
   * @param sent response over frequency in symbol rates
   * @param half where there is nothing beyond
   */
  ReferenceShape(DoubleUnaryOperator sent, DoubleUnaryOperator measured, double half) {
    double step = half / STEPS;
    double energy = 0;
    // Even responses: cosines, and one half of all times is enough.
    for (int i = 0; i <= STEPS; i++) {
      double f = i * step;
      double end = i == 0 || i == STEPS ? 0.5 : 1;
      double s = sent.applyAsDouble(f);
      double h = s * measured.applyAsDouble(f) * end;
      energy += 2 * step * s * s * end;
      double turn = 2 * Math.PI * f;
      for (int n = 0; n <= REACH; n++) {
        at[REACH + n] += h * Math.cos(turn * n);
        slope[REACH + n] -= turn * h * Math.sin(turn * n);
        between[REACH + n] += h * Math.cos(turn * (n + 0.5));
      }
    }
    for (int n = 1; n <= REACH; n++) {
      at[REACH - n] = at[REACH + n];
      slope[REACH - n] = -slope[REACH + n];
      between[REACH - n] = between[REACH + n - 1];
    }
    double centre = at[REACH];
    this.height = 2 * step * centre;
    this.powerOfGain = energy / Math.pow(2 * step * centre, 2);
    double others = 0;
    for (int i = 0; i < at.length; i++) {
      at[i] /= centre;
      slope[i] /= centre;
      between[i] /= centre;
      others = Math.max(others, i == REACH ? 0 : Math.abs(at[i]));
    }
    this.alone = others < NO_OTHER;
  }

  /** Mean power of what is sent when a symbol reads 1 behind both filters. */
  double powerOfGain() {
    return powerOfGain;
  }

  /** What one symbol reads at its own instant, before it is made 1. */
  double height() {
    return height;
  }

  /** True if no symbol reaches into another's instant. */
  boolean alone() {
    return alone;
  }

  /** Sum of the shapes at each symbol's own instant. */
  double[] atSymbols(double[] s) {
    return alone ? s : sum(s, at, 0);
  }

  double[] slopeAtSymbols(double[] s) {
    return sum(s, slope, 0);
  }

  /** Half a symbol after each instant. */
  double[] after(double[] s) {
    return sum(s, between, 0);
  }

  /** Half a symbol before each instant. */
  double[] before(double[] s) {
    return sum(s, between, 1);
  }

  private static double[] sum(double[] s, double[] shape, int back) {
    int n = s.length;
    double[] out = new double[n];
    for (int i = 0; i < shape.length; i++) {
      double h = shape[i];
      // out[k] = sum over m of s[m] p(k - m - back)
      int shift = i - REACH + back;
      if (Math.abs(h) < 1e-7) {
        continue;
      }
      int from = Math.max(0, shift);
      int to = Math.min(n, n + shift);
      for (int k = from; k < to; k++) {
        out[k] += h * s[k - shift];
      }
    }
    return out;
  }
}
