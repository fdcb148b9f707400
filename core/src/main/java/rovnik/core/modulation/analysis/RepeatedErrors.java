package rovnik.core.modulation.analysis;

import java.util.List;
import java.util.Optional;
import rovnik.core.result.Outcome;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.signal.Transforms;
import rovnik.core.uncertainty.SquareScatter;

/**
 * Errors of the same data, seen more than once. What the data themselves bring about (imbalance,
 * leakage, compression, ripple) is there each time; noise is not. The mean product of the errors of
 * two looks, one turned to the other, holds only what both have.
 */
final class RepeatedErrors {
  /** Looks are of the same data where ideal points agree so well over so many symbols. */
  private static final double SAME = 0.9;

  private static final int LEAST = 64;

  private RepeatedErrors() {}

  /**
   * Symbols of one look, of mean power 1.
   *
   * @param ideal points, I then Q
   * @param error from them, I then Q
   */
  record Look(double[][] ideal, double[][] error) {
    /** From what was shown of it. */
    static Optional<Look> of(Outcome o) {
      Series points = o.series("points").orElse(null);
      Series ideal = o.series("ideal").orElse(null);
      if (points == null
          || ideal == null
          || !(points.values() instanceof Values.Complex z)
          || !(ideal.values() instanceof Values.Complex u)) {
        return Optional.empty();
      }
      int n = u.re().length;
      double[][] error = new double[2][n];
      for (int k = 0; k < n; k++) {
        error[0][k] = z.re()[k] - u.re()[k];
        error[1][k] = z.im()[k] - u.im()[k];
      }
      return Optional.of(new Look(new double[][] {u.re(), u.im()}, error));
    }

    int count() {
      return ideal[0].length;
    }

    /** The errors along the ideal points, and across: noise of the phase goes across. */
    double[][] turned() {
      double[][] out = new double[2][count()];
      for (int k = 0; k < count(); k++) {
        double size = Math.max(1e-12, Math.hypot(ideal[0][k], ideal[1][k]));
        out[0][k] = (error[0][k] * ideal[0][k] + error[1][k] * ideal[1][k]) / size;
        out[1][k] = (error[1][k] * ideal[0][k] - error[0][k] * ideal[1][k]) / size;
      }
      return out;
    }

    double meanSquare() {
      double sum = 0;
      for (int k = 0; k < count(); k++) {
        sum += error[0][k] * error[0][k] + error[1][k] * error[1][k];
      }
      return sum / count();
    }
  }

  /**
   * What looks have in common.
   *
   * @param meanSquare of the error that repeats
   * @param standard uncertainty of it, from what does not repeat
   * @param chance the part of that which noise brings about by itself, without what repeats
   */
  record Common(double meanSquare, double standard, double chance) {
    static Common of(double meanSquare, double ofNoise, double ofBoth) {
      return new Common(meanSquare, Math.sqrt(ofNoise + ofBoth), Math.sqrt(ofNoise));
    }
  }

  /** How two looks lie to each other: which symbol is which, and by how much one is turned. */
  private record Pairing(int lag, int overlap, double re, double im) {
    /** First symbol of b that both have. */
    int from() {
      return Math.max(0, -lag);
    }

    /** Error of b, turned as its points are. */
    double x(Look b, int k) {
      return b.error()[0][k] * re - b.error()[1][k] * im;
    }

    double y(Look b, int k) {
      return b.error()[0][k] * im + b.error()[1][k] * re;
    }
  }

  /** What repeats from look to look of one receiver; nothing if no two are of the same data. */
  static Optional<Common> within(List<Look> looks) {
    double sum = 0;
    long symbols = 0;
    for (int a = 0; a < looks.size(); a++) {
      for (int b = a + 1; b < looks.size(); b++) {
        Pairing p = pairing(looks.get(a), looks.get(b));
        if (p != null) {
          sum += product(looks.get(a), looks.get(b), p);
          symbols += p.overlap();
        }
      }
    }
    if (symbols == 0) {
      return Optional.empty();
    }
    double common = sum / symbols;
    double random = Math.max(0, mean(looks) - common);
    double known = looks.stream().mapToInt(Look::count).sum();
    // Noise against noise in each pair; noise against what repeats, in two of each look's parts.
    return Optional.of(
        Common.of(
            common,
            alike(looks) * random * random / (2 * symbols),
            2 * Math.max(0, common) * random / known));
  }

  /** What looks of one receiver and one of another have in common: that is the source's. */
  static Optional<Common> between(List<Look> looks, Look other) {
    double sum = 0;
    long symbols = 0;
    for (Look look : looks) {
      Pairing p = pairing(look, other);
      if (p != null) {
        sum += product(look, other, p);
        symbols += p.overlap();
      }
    }
    if (symbols == 0) {
      return Optional.empty();
    }
    double common = sum / symbols;
    double here = Math.max(0, mean(looks) - common);
    double there = Math.max(0, other.meanSquare() - common);
    double known = looks.stream().mapToInt(Look::count).sum();
    double of = Math.max(0, common);
    return Optional.of(
        Common.of(
            common,
            alike(looks) * here * there / (2 * symbols),
            of * here / (2 * known) + of * there / (2.0 * other.count())));
  }

  /**
   * How much more the mean square of what differs from look to look scatters than that of white
   * noise: phase noise is alike from symbol to symbol, and goes one way only.
   */
  static double alike(List<Look> looks) {
    double sum = 0;
    for (int a = 0; a < looks.size(); a++) {
      Look x = looks.get(a);
      Look y = looks.get((a + 1) % looks.size());
      Pairing p = looks.size() > 1 ? pairing(x, y) : null;
      sum += SquareScatter.perValue(p == null ? x.turned() : differences(x, y, p));
    }
    return Math.max(1, sum / looks.size());
  }

  static double mean(List<Look> looks) {
    return looks.stream().mapToDouble(Look::meanSquare).average().orElse(0);
  }

  /** Re sum e_a conj(e_b w): the errors of b turned as its points are. */
  private static double product(Look a, Look b, Pairing p) {
    double sum = 0;
    for (int i = 0; i < p.overlap(); i++) {
      int k = p.from() + i;
      sum += a.error()[0][k + p.lag()] * p.x(b, k) + a.error()[1][k + p.lag()] * p.y(b, k);
    }
    return sum;
  }

  /** How the errors differ, along the ideal points and across. */
  private static double[][] differences(Look a, Look b, Pairing p) {
    double[][] error = new double[2][p.overlap()];
    double[][] ideal = new double[2][p.overlap()];
    for (int i = 0; i < p.overlap(); i++) {
      int k = p.from() + i;
      error[0][i] = a.error()[0][k + p.lag()] - p.x(b, k);
      error[1][i] = a.error()[1][k + p.lag()] - p.y(b, k);
      ideal[0][i] = a.ideal()[0][k + p.lag()];
      ideal[1][i] = a.ideal()[1][k + p.lag()];
    }
    return new Look(ideal, error).turned();
  }

  /** Symbols of a look that are not the same data again. */
  static int different(Look look) {
    Pairing p = pairing(look, look, LEAST);
    return p == null ? look.count() : p.lag();
  }

  /** Symbol k of b is symbol k + lag of a; null if they are of different data. */
  private static Pairing pairing(Look a, Look b) {
    return pairing(a, b, LEAST - b.count());
  }

  private static Pairing pairing(Look a, Look b, int least) {
    int length = Integer.highestOneBit(a.count() + b.count()) * 2;
    float[][] x = transformed(a.ideal(), length);
    float[][] y = transformed(b.ideal(), length);
    float[] re = new float[length];
    float[] im = new float[length];
    for (int i = 0; i < length; i++) {
      // X conj(Y), with the parts exchanged: the inverse is a forward transform of that.
      im[i] = x[0][i] * y[0][i] + x[1][i] * y[1][i];
      re[i] = x[1][i] * y[0][i] - x[0][i] * y[1][i];
    }
    Transforms.ofLength(length).forward(re, im);
    int best = 0;
    double most = -1;
    for (int lag = least; lag <= a.count() - LEAST; lag++) {
      int i = Math.floorMod(lag, length);
      double m = re[i] * (double) re[i] + im[i] * (double) im[i];
      if (m > most) {
        most = m;
        best = lag;
      }
    }
    int from = Math.max(0, -best);
    int overlap = Math.min(b.count(), a.count() - best) - from;
    if (overlap < LEAST) {
      return null;
    }
    double cRe = 0;
    double cIm = 0;
    double pa = 0;
    double pb = 0;
    for (int k = from; k < from + overlap; k++) {
      double u = a.ideal()[0][k + best];
      double v = a.ideal()[1][k + best];
      double s = b.ideal()[0][k];
      double t = b.ideal()[1][k];
      cRe += u * s + v * t;
      cIm += v * s - u * t;
      pa += u * u + v * v;
      pb += s * s + t * t;
    }
    double size = Math.hypot(cRe, cIm);
    return size < SAME * Math.sqrt(pa * pb)
        ? null
        : new Pairing(best, overlap, cRe / size, cIm / size);
  }

  private static float[][] transformed(double[][] z, int length) {
    float[][] out = new float[2][length];
    for (int k = 0; k < z[0].length; k++) {
      out[0][k] = (float) z[0][k];
      out[1][k] = (float) z[1][k];
    }
    Transforms.ofLength(length).forward(out[0], out[1]);
    return out;
  }
}
